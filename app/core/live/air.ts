import { HOUR_MS, type UtcMs } from "~/core/time";
import { inOrder, type NightEvent } from "./event";

/**
 * The air at the telescope now, °C: as the forecast has it, moved by how far the air that was last typed beside the mount was off it
 * then. Valleys and gardens are colder than a forecast's square, and stay so through a night. Without a forecast what was typed counts
 * for an hour; null = nobody knows.
 */
export function airNow(
  events: readonly NightEvent[],
  forecastC: (atMs: UtcMs) => number | null,
  nowMs: UtcMs,
): number | null {
  const typed = inOrder(events)
    .flatMap(({ atMs, is }) =>
      is.what === "focused" && is.airC !== null ? [{ atMs: atMs as UtcMs, airC: is.airC }] : [],
    )
    .findLast((t) => t.atMs <= nowMs);
  const saysC = forecastC(nowMs);
  if (!typed) return saysC;
  const saidC = forecastC(typed.atMs);
  if (saysC !== null && saidC !== null) return saysC + typed.airC - saidC;
  return nowMs - typed.atMs <= HOUR_MS ? typed.airC : saysC;
}
