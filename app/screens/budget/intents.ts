import type { GoalData } from "~/core/plan";

/** What a budget asks to be kept. */
export interface BudgetIntent {
  readonly act: "save";
  readonly id: string;
  readonly baseRev: string;
  readonly data: GoalData;
}
