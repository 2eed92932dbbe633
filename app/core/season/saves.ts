import { nightsBetween } from "~/core/time";
import type { ProjectShare } from "./share";

/** Something that would finish a project in its season after all. */
export type Save =
  /** A goal of this share of the one set. */
  | { readonly kind: "lessGoal"; readonly share: number }
  /** Clear nights at another place. */
  | { readonly kind: "nightsAt"; readonly placeName: string; readonly nights: number }
  /** Hours at its best from somebody else. */
  | { readonly kind: "friendHours"; readonly hours: number }
  /** Next season, with so many weeks of it. */
  | { readonly kind: "nextYear"; readonly weeks: number }
  /** A lower altitude, and what a clear night would bring by it: times the present. */
  | { readonly kind: "lower"; readonly altitudeDeg: number; readonly gain: number };

const MOST_NIGHTS = 30; // more is no help
const LEAST_SHARE = 0.15; // a goal that small is another picture
const FELT_GAIN = 1.25;

const MOST_WEEKS = 26; // half a year is another season altogether
const BEST_WEEKS = 4;

/** Weeks of next season that would bring what is missing: as many as its best weeks of this one would take. Null where half a year is not enough. */
function nextYear(share: ProjectShare, missing: number): number | null {
  const weeks = new Map<number, number>();
  const [first] = share.nights;
  if (!first) return null;
  for (const { night, evening, blocks } of share.nights) {
    const week = Math.floor(nightsBetween(first.night, night) / 7);
    const counts = blocks.reduce((sum, b) => sum + b.countsMin, 0) * evening.chance;
    weeks.set(week, (weeks.get(week) ?? 0) + counts);
  }
  const best = [...weeks.values()].sort((a, b) => b - a).slice(0, BEST_WEEKS);
  const perWeek = best.reduce((a, b) => a + b, 0) / Math.max(1, best.length);
  const needed = Math.ceil(missing / Math.max(1e-6, perWeek));
  return perWeek > 0 && needed <= MOST_WEEKS ? needed : null;
}

/**
 * What would save a project that is not to be finished: as much less of the goal as is missing on average, nights elsewhere by what
 * one brings there, a friend's hours, a lower altitude. Nothing where it is likely to be finished. First figures, by expectation:
 * what-if plans each of them.
 */
export function savesOf(
  share: ProjectShare,
  at: {
    readonly goalMin: number;
    /** What one clear night at other places would count, minutes; the best night of the coming weeks. */
    readonly elsewhere: readonly { readonly placeName: string; readonly countsMin: number }[];
    /** What a clear night counts at present, and with a lower altitude. */
    readonly lower: { readonly altitudeDeg: number; readonly nowMin: number; readonly thenMin: number } | null;
  },
): Save[] {
  if (share.jobs.length === 0 || (share.odds?.doneShare ?? 1) >= 0.5) return [];
  const missing = share.jobs.reduce((sum, j) => sum + Math.max(0, j.needMin - j.expectedMin), 0);
  if (missing < 1) return [];
  const goalShare = 1 - missing / Math.max(1, at.goalMin);
  const nights = at.elsewhere.flatMap(({ placeName, countsMin }): Save[] => {
    const n = Math.ceil(missing / Math.max(1e-6, countsMin));
    return countsMin > 0 && n <= MOST_NIGHTS ? [{ kind: "nightsAt", placeName, nights: n }] : [];
  });
  const weeks = nextYear(share, missing);
  const gain = at.lower ? at.lower.thenMin / Math.max(1, at.lower.nowMin) : 0;
  return [
    ...(goalShare >= LEAST_SHARE ? [{ kind: "lessGoal" as const, share: goalShare }] : []),
    ...nights,
    ...(weeks === null ? [] : [{ kind: "nextYear" as const, weeks }]),
    ...(at.lower && gain >= FELT_GAIN ? [{ kind: "lower" as const, altitudeDeg: at.lower.altitudeDeg, gain }] : []),
    { kind: "friendHours", hours: missing / 60 },
  ];
}
