import { changedBy, hasLeft, type NightStock, type SeasonPlan, type SeasonQuestion } from "~/core/season";
import { planEvenings } from "./lay";

const RUNS = 300; // a share good to five points

/** How likely a project is done in the season if nothing of it is done for some weeks. */
export interface WaitingOdds {
  readonly projectId: string;
  /** 0 to 1. */
  readonly doneShare: number;
}

/**
 * What waiting costs: every project with something left, one after the other, planned as if nothing of it could be done for `weeks`.
 * Gives null after each round of work, so that whoever drives it can stop, and a project's odds once they are known.
 */
export function* waitingOdds(
  question: SeasonQuestion,
  weeks: number,
  { stock, plan }: { readonly stock: NightStock; readonly plan: SeasonPlan },
): Generator<WaitingOdds | null, void> {
  for (const { id: projectId, wants } of question.projects) {
    if (!wants.some(hasLeft)) continue;
    const changed = changedBy({ ...question, runs: RUNS }, { kind: "wait", projectId, weeks });
    const steps = planEvenings(changed, { stock, before: plan, seen: plan });
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield null;
    yield { projectId, doneShare: step.value.plan.odds?.find((o) => o.projectId === projectId)?.doneShare ?? 0 };
  }
}
