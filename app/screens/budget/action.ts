import { settle } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { saveGoal } from "~/desk/projects";
import type { BudgetIntent } from "./intents";

/** Keeps a budget, or says which version of it counts. */
export async function budgetAction(request: Request) {
  const intent = await intentOf<BudgetIntent>(request);
  return answer(intent.act === "save" ? await saveGoal(intent) : await settle("goal", intent.id, intent.data));
}
