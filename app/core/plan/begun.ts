import type { NightDate, UtcMs } from "~/core/time";
import type { Need } from "./project";
import type { Evening, SeasonPlan } from "~/core/season";

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

/**
 * Until when a night that has begun went as its sheet says, though nothing of it is written down yet: the first cloudy look. What the
 * sheet had up to then counts as taken for the rest of the night. Null = nobody saw clouds, or the log has spoken: then it counts.
 */
export function takenUntil(begunMs: number, acts: readonly NightAct[]): UtcMs | null {
  const since = acts.filter((a) => a.atMs >= begunMs);
  if (since.some((a) => a.isClear === null)) return null;
  const cloudy = since.flatMap((a) => (a.isClear === false ? [a.atMs] : []));
  return cloudy.length > 0 ? (Math.min(...cloudy) as UtcMs) : null;
}

/** Needs of a project less what its stretches of an evening had up to an instant: of the panels of a channel alike. */
export function lessTaken(
  needs: readonly Need[],
  projectId: string,
  evenings: readonly BegunEvening[],
  untilMs: UtcMs,
): readonly Need[] {
  const taken = evenings.flatMap(({ blocks }) =>
    blocks.flatMap((b) => {
      if (b.projectId !== projectId || b.startMs >= untilMs) return [];
      const share = Math.min(1, (untilMs - b.startMs) / Math.max(1, b.endMs - b.startMs));
      const steps = b.turn ?? [{ channel: b.channel, subSec: b.subSec }];
      return steps.map((step) => ({ ...step, minutes: (share * b.countsMin) / steps.length }));
    }),
  );
  return needs.map((need) => {
    const alike = needs.filter((n) => n.channel === need.channel && n.subSec === need.subSec);
    const all = alike.reduce((sum, n) => sum + n.remainingMin, 0);
    const minutes = taken.reduce(
      (sum, t) => sum + (t.channel === need.channel && t.subSec === need.subSec ? t.minutes : 0),
      0,
    );
    if (minutes === 0 || all === 0) return need;
    return { ...need, remainingMin: need.remainingMin * Math.max(0, 1 - minutes / all) };
  });
}
