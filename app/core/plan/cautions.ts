import { SECURE_GUST_KMH, wetnessOf, type WeatherHour } from "~/core/weather";
import type { UtcMs } from "~/core/time";
import { feltKmh } from "./weigh";
import { rainDeadline, rainUntil } from "./dry-runs";

/** What to mind outside, in the order in which it matters. */
export type Caution =
  | { readonly code: "rain"; readonly byMs: UtcMs }
  /** It rains first: nothing is uncovered before. */
  | { readonly code: "rainUntil"; readonly untilMs: UtcMs }
  | { readonly code: "gusts"; readonly gustKmh: number; readonly limitKmh: number; readonly secureKmh: number }
  | { readonly code: "dew" | "frost"; readonly fromMs: UtcMs }
  /** A cooled camera that reaches its temperature, or not. */
  | {
      readonly code: "air";
      readonly warmC: number;
      readonly coldC: number;
      readonly camera: { readonly workingTempC: number; readonly isReached: boolean } | null;
    }
  | { readonly code: "freezing" };

const COOLER_REACH_C = 35; // below the air; usual for two-stage coolers, from memory
const GUST_TOLD = 0.6; // of the limit

/** What the forecast of some hours means for gear and people; empty when it says nothing. */
export function cautionsOf(
  hours: readonly WeatherHour[],
  kit: {
    readonly gustLimitKmh: number;
    readonly windShare?: number;
    /** null = it has no cooler. */
    readonly coolsToC: number | null;
  },
): Caution[] {
  const byMs = hours[0] ? rainDeadline(hours, hours[0].atMs) : null;
  const untilMs = rainUntil(hours);
  const gusts = hours.flatMap((h) => (h.gustMs === null ? [] : feltKmh(h.gustMs, kit.windShare)));
  const gustKmh = Math.max(0, ...gusts);
  const wet = hours
    .flatMap((h) => (h.airC === null || h.dewC === null ? [] : [{ atMs: h.atMs, kind: wetnessOf(h.airC, h.dewC) }]))
    .find((h) => h.kind !== "dry");
  const air = hours.flatMap((h) => h.airC ?? []);
  const [coldC, warmC] = [Math.min(...air), Math.max(...air)];
  const camera =
    kit.coolsToC === null ? null : { workingTempC: kit.coolsToC, isReached: warmC - kit.coolsToC <= COOLER_REACH_C };
  return [
    ...(untilMs === null ? [] : [{ code: "rainUntil" as const, untilMs }]),
    ...(byMs === null ? [] : [{ code: "rain" as const, byMs }]),
    ...(gustKmh > GUST_TOLD * kit.gustLimitKmh
      ? [{ code: "gusts" as const, gustKmh, limitKmh: kit.gustLimitKmh, secureKmh: SECURE_GUST_KMH }]
      : []),
    ...(wet && wet.kind !== "dry" ? [{ code: wet.kind, fromMs: wet.atMs }] : []),
    ...(air.length > 0 ? [{ code: "air" as const, warmC, coldC, camera }] : []),
    ...(air.length > 0 && coldC < 0 ? [{ code: "freezing" as const }] : []),
  ];
}
