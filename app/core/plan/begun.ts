import type { NightDate, UtcMs } from "~/core/time";
import type { Evening, SeasonPlan } from "./season";

/** What a rig was to do on a night when it was begun. */
export type BegunEvening = Pick<Evening, "placeId" | "rigIds" | "blocks">;

/** A night that has begun: somebody said so, or looked up, with the kit outside; and what was planned then. */
export interface BegunData {
  readonly memberId: string;
  readonly night: NightDate;
  readonly atMs: number;
  readonly evenings: readonly BegunEvening[];
}

/** What a plan has for a night, to be kept with it; null where it has nothing. */
export function beginningOf(plan: SeasonPlan, night: NightDate, memberId: string, atMs: number): BegunData | null {
  const evenings = plan.evenings.flatMap(({ night: n, placeId, rigIds, blocks }): BegunEvening[] =>
    n === night && blocks.length > 0 ? [{ placeId, rigIds, blocks }] : [],
  );
  return evenings.length > 0 ? { memberId, night, atMs, evenings } : null;
}

/** Something that happened in a night that has begun. */
export interface NightAct {
  readonly atMs: number;
  /** What was seen; null = subs were written down. */
  readonly isClear: boolean | null;
}

/**
 * From when on a night that has begun is planned anew; null = it goes on as it was planned. A cloudy look ends what was planned, a
 * clear one after it begins anew, and what is written down changes what is left; a clear look by itself changes nothing.
 */
export function replannedFrom(begunMs: number, acts: readonly NightAct[]): UtcMs | null {
  let from: number | null = null;
  let wasCloudy = false;
  for (const { atMs, isClear } of [...acts].sort((a, b) => a.atMs - b.atMs)) {
    if (atMs < begunMs) continue;
    if (isClear !== true || wasCloudy) from = atMs;
    if (isClear !== null) wasCloudy = !isClear;
  }
  return from as UtcMs | null;
}
