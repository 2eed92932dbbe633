import type { NightDate, UtcMs } from "~/core/time";
import { spoilingCover } from "./air";

/** What one source says of one hour, [atMs, atMs + 1 h); null = not said. */
export interface ForecastHour {
  readonly atMs: UtcMs;
  /** When the source computed it. */
  readonly issuedMs: UtcMs;
  /** Cover by layer, [0, 1]. */
  readonly lowCloud: number | null;
  readonly middleCloud: number | null;
  readonly highCloud: number | null;
  readonly humidity: number | null;
  readonly airC: number | null;
  readonly dewC: number | null;
  /** At 10 m height, m/s. */
  readonly windMs: number | null;
  readonly gustMs: number | null;
  readonly rainChance: number | null;
  /** At the zenith, full width at half maximum, arcsec. */
  readonly seeingArcsec: number | null;
  /** Dimming at the zenith beyond clear air, mag. */
  readonly hazeMag: number | null;
}

/** What one source said of the hours of one night at one place: per hour its latest word before that hour began. */
export interface ForecastData {
  readonly placeId: string;
  readonly sourceId: string;
  readonly sourceName: string;
  readonly night: NightDate;
  readonly hours: readonly ForecastHour[];
  /** A person's own forecast that shall count as one source among the others. */
  readonly isOneMore?: boolean;
}

/** Someone looked up, or kept or lost subs: what the sky truly was. */
export interface Outcome {
  readonly atMs: UtcMs;
  readonly isClear: boolean;
}

/**
 * Odds that an hour is usable by a source: what cloud leaves (high cloud counted half), less the chance of rain; null without
 * any cloud. Cover read as odds is a proposal of this project; scoring against the log corrects the sources that bend it.
 */
export function clearOdds(hour: ForecastHour): number | null {
  const { lowCloud, middleCloud, highCloud } = hour;
  if (lowCloud === null && middleCloud === null && highCloud === null) return null;
  const cover = spoilingCover({ low: lowCloud ?? 0, middle: middleCloud ?? 0, high: highCloud ?? 0 });
  return (1 - cover) * (1 - (hour.rainChance ?? 0));
}

/**
 * Joins what was known of a night's hours with a newer issue: an hour that has begun keeps its last word from before, so that
 * only true forecasts are ever scored; a later issue replaces an earlier one. Order of arrival does not matter.
 */
export function joinHours(known: readonly ForecastHour[], news: readonly ForecastHour[]): ForecastHour[] {
  const byHour = new Map<number, ForecastHour>();
  for (const hour of [...known, ...news]) {
    if (hour.issuedMs > hour.atMs) continue;
    const before = byHour.get(hour.atMs);
    if (!before || before.issuedMs < hour.issuedMs) byHour.set(hour.atMs, hour);
  }
  return [...byHour.values()].sort((a, b) => a.atMs - b.atMs);
}
