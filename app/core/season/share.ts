import { MINUTE_MS, nightsBetween, type NightDate } from "~/core/time";
import { keyOfJob } from "./evening";
import type { Evening, PlannedBlock } from "./blocks";
import type { FinishDates, PlannedJob, SeasonPlan } from "./season-plan";

/** A night of a project's share. */
export interface ShareNight {
  readonly night: NightDate;
  readonly evening: Evening;
  readonly blocks: readonly PlannedBlock[];
  /** Chance that the project still wants it when it comes: nights after it is done are a reserve. */
  readonly needed: number;
}

/** A project's share of the season. */
export interface ProjectShare {
  readonly nights: readonly ShareNight[];
  readonly jobs: readonly PlannedJob[];
  readonly odds: FinishDates | null;
  /** The channel that decides when it is done: the one whose hours come least surely; null when nothing is left. */
  readonly deciding: PlannedJob | null;
  /** What is left by the clock, at what the planned nights count on average, minutes; null without any. */
  readonly clockMin: number | null;
  /** The last night with usable time for it in the season planned; null without any. */
  readonly lastUsable: NightDate | null;
}

/** Chance that a project is not done before a night. */
export function neededOn(odds: FinishDates | null, from: NightDate, night: NightDate): number {
  const n = nightsBetween(from, night);
  return odds && n > 0 ? 1 - (odds.doneBy[Math.min(n, odds.doneBy.length) - 1] ?? 0) : 1;
}

const RESERVE = 0.5; // a proposal of this project

/** Whether a planned night is a reserve: by then the project is done in more than half the seasons played. */
export const isReserve = (needed: number): boolean => needed < RESERVE;

/** Whether a night of a plan is still wanted for a project, and no reserve. */
export const isWanted = (plan: SeasonPlan, projectId: string, night: NightDate): boolean =>
  !isReserve(neededOn(plan.odds?.find((o) => o.projectId === projectId) ?? null, plan.from, night));

/** What of a plan is for one project. */
export function shareOf(plan: SeasonPlan, projectId: string): ProjectShare {
  const odds = plan.odds?.find((o) => o.projectId === projectId) ?? null;
  const jobs = plan.jobs.filter((j) => j.projectId === projectId);
  const nights = plan.evenings.flatMap((evening): ShareNight[] => {
    const blocks = evening.blocks.filter((b) => b.projectId === projectId);
    return blocks.length === 0
      ? []
      : [{ night: evening.night, evening, blocks, needed: neededOn(odds, plan.from, evening.night) }];
  });
  const blocks = nights.flatMap((n) => n.blocks);
  const clockMin = jobs.reduce<number | null>((sum, j) => {
    const mine = blocks.filter((b) => keyOfJob(b) === keyOfJob(j));
    const counts = mine.reduce((s, b) => s + b.countsMin, 0);
    const clock = mine.reduce((s, b) => s + (b.endMs - b.startMs) / MINUTE_MS, 0);
    return sum === null || counts <= 0 ? null : sum + (j.needMin * clock) / counts;
  }, 0);
  const sureness = (j: PlannedJob) => j.expectedMin / Math.max(1, j.needMin);
  const deciding = jobs.reduce<PlannedJob | null>((w, j) => (w === null || sureness(j) < sureness(w) ? j : w), null);
  return { nights, jobs, odds, deciding, clockMin, lastUsable: nights.at(-1)?.night ?? null };
}

/** Hours that count by the end of each night of a share, if every one of them is clear: what counts now, then what is added. */
export function plannedHours(
  share: ProjectShare,
  countedMin: number,
): { readonly night: NightDate; readonly hours: number }[] {
  const left = new Map(share.jobs.map((j) => [keyOfJob(j), j.needMin]));
  let minutes = countedMin;
  return share.nights.map(({ night, blocks }) => {
    for (const b of blocks) {
      const key = keyOfJob(b);
      const given = Math.min(left.get(key) ?? 0, b.countsMin);
      left.set(key, (left.get(key) ?? 0) - given);
      minutes += given;
    }
    return { night, hours: minutes / 60 };
  });
}
