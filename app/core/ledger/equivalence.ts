import type { ContributionData } from "./contribution";
import type { CountedEntry } from "./counted";

/** What one member gave, as hours at the reference. */
export interface MemberWeight {
  readonly memberId: string;
  readonly keptHours: number;
  /** What an hour of theirs is worth in hours at the reference, sky and rig alone: the mean over what they kept; null = not known. */
  readonly hourIs: number | null;
  /** Of the reference frame. */
  readonly covers: number | null;
  /** Hours at the reference, with the target at its best, over the panels they fill. */
  readonly equivalentHours: number;
  /** Of the weight of the whole stack. */
  readonly share: number;
}

/** What is known of an entry's kit and frame; null = not known. */
export interface WeightContext {
  readonly hourIs: (entry: ContributionData) => number | null;
  /** Share of the reference frame that the frame of an entry covers. */
  readonly coverOf: (entry: ContributionData) => number | null;
}

/** The hours of each member as they count at the reference (`countedEntries`), and their shares of the weight of the stack (MATHS 4.5). */
export function memberWeights(counted: readonly CountedEntry[], { hourIs, coverOf }: WeightContext): MemberWeight[] {
  const members = [...new Set(counted.map((e) => e.memberId))].map((memberId) => {
    const mine = counted.filter((e) => e.memberId === memberId);
    const kept = mine.filter((e) => e.kept > 0);
    const hours = (e: ContributionData) => (e.kept * e.exposureSec) / 3600;
    const mean = (of: (e: ContributionData) => number | null) => {
      const known = kept.filter((e) => of(e) !== null);
      const all = known.reduce((s, e) => s + hours(e), 0);
      return all > 0 ? known.reduce((s, e) => s + hours(e) * of(e)!, 0) / all : null;
    };
    return {
      memberId,
      keptHours: kept.reduce((s, e) => s + hours(e), 0),
      hourIs: mean(hourIs),
      covers: mean(coverOf),
      equivalentHours: mine.reduce((s, e) => s + e.countedMin, 0) / 60,
    };
  });
  const all = members.reduce((s, m) => s + m.equivalentHours, 0);
  return members
    .filter((m) => m.keptHours > 0)
    .map((m) => ({ ...m, share: all > 0 ? m.equivalentHours / all : 0 }))
    .sort((a, b) => b.equivalentHours - a.equivalentHours);
}
