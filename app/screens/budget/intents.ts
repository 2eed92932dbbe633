import type { GoalData } from "~/core/plan";

/** What a budget asks to be kept. */
export type BudgetIntent =
  | { readonly act: "save"; readonly id: string; readonly baseRev: string; readonly data: GoalData }
  | { readonly act: "settle"; readonly id: string; readonly data: GoalData };
