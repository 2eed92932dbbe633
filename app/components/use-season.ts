import { useSyncExternalStore } from "react";
import type { SeasonPlan } from "~/core/season";

/** A plan that is being made, as a page follows it. */
export interface PlanInTheMaking {
  readonly latest: () => SeasonPlan | null;
  readonly listen: (onPlan: (plan: SeasonPlan) => void) => () => void;
}

/** The best plan so far; null before the first. The page follows as better ones come. */
export const useSeason = (run: PlanInTheMaking): SeasonPlan | null =>
  useSyncExternalStore(run.listen, run.latest, () => null);
