import { answer, intentOf } from "~/desk/answer";
import { saveGoal } from "~/desk/projects";
import type { BudgetIntent } from "./intents";

/** Keeps a budget. */
export async function budgetAction(request: Request) {
  const intent = await intentOf<BudgetIntent>(request);
  return answer(await saveGoal(intent));
}
