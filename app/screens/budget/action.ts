import { answer, intentOf } from "~/desk/answer";
import { saveGoal } from "~/desk/projects";
import { dropDraft } from "~/storage/drafts";
import type { BudgetIntent } from "./intents";

/** Keeps a budget. */
export async function budgetAction(request: Request) {
  const intent = await intentOf<BudgetIntent>(request);
  const done = await saveGoal(intent);
  if (done.ok) dropDraft(`budget ${intent.id}`);
  return answer(done);
}
