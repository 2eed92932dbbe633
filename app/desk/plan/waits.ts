import type { Desk } from "~/desk/desk";
import { thePlans, type SeasonRun } from "./season";

/** Weeks that a project is thought to wait. */
const WEEKS = 4;

/**
 * How likely each project of a whole plan is done in the season if it waits four weeks, by id; `onMore` hears of them as they are worked
 * out. That takes seconds, so what an earlier visit worked out for the same question is kept with its plan.
 */
export async function oddsIfWaiting(
  desk: Desk,
  { sum, whole }: Pick<SeasonRun, "sum" | "whole">,
  onMore: (byProject: ReadonlyMap<string, number>) => void,
): Promise<void> {
  const plan = await whole;
  const plans = desk.at(thePlans);
  const known = (await plans.of(sum).catch(() => null))?.waits;
  if (known) return onMore(new Map(Object.entries(known)));
  const byProject = new Map<string, number>();
  const isAll = await desk.workers.season.waits(WEEKS, (projectId, doneShare) =>
    onMore(new Map(byProject.set(projectId, doneShare))),
  );
  if (!isAll) return;
  const kept = { sum, plan, waits: Object.fromEntries(byProject) };
  await plans.leave(kept, false).catch(() => undefined); // it can always be worked out anew
}
