import type { NightOutcome, Outcome } from "~/core/weather";
import { nightOf, type NightPlace } from "~/core/sky";
import { utcMs, type NightDate } from "~/core/time";
import type { ContributionData } from "./contribution";

/** Somebody looked up at a place and wrote down what they saw. */
export interface LookData {
  readonly placeId: string;
  readonly memberId: string;
  readonly atMs: number;
  readonly isClear: boolean;
}

/** What the sky of a place truly was, hour by hour, from looks and from booked exposures: kept = clear, all lost to cloud = not. */
export function skyOutcomes(
  placeId: string,
  looks: readonly LookData[],
  contributions: readonly ContributionData[],
): Outcome[] {
  const seen = looks.filter((l) => l.placeId === placeId).map((l) => ({ atMs: utcMs(l.atMs), isClear: l.isClear }));
  const shot = contributions.flatMap((c) =>
    c.placeId !== placeId || c.startMs === null || (c.kept === 0 && c.reason !== "cloud")
      ? []
      : [{ atMs: utcMs(c.startMs), isClear: c.kept > 0 }],
  );
  return [...seen, ...shot].sort((a, b) => a.atMs - b.atMs);
}

/**
 * Which nights of a place were clear, as far as anybody wrote down: clear when subs were kept or when at least half of the
 * looks saw it clear. A night without an entry is missing, not cloudy.
 */
export function nightOutcomes(
  place: NightPlace & { readonly id: string },
  looks: readonly LookData[],
  contributions: readonly ContributionData[],
): NightOutcome[] {
  const nights = new Map<NightDate, { clear: number; cloudy: number; kept: number }>();
  const of = (night: NightDate) => {
    const known = nights.get(night) ?? { clear: 0, cloudy: 0, kept: 0 };
    nights.set(night, known);
    return known;
  };
  for (const look of looks)
    if (look.placeId === place.id) of(nightOf(place, utcMs(look.atMs)))[look.isClear ? "clear" : "cloudy"]++;
  for (const c of contributions)
    if (c.placeId === place.id && (c.kept > 0 || c.reason === "cloud")) {
      const night = of(c.night as NightDate);
      if (c.kept > 0) night.kept += c.kept;
      else night.cloudy++;
    }
  return [...nights].map(([night, n]) => ({ night, isClear: n.kept > 0 || (n.clear > 0 && n.clear >= n.cloudy) }));
}
