import type { Desk } from "~/desk/desk";
import { answer, intentOf } from "~/desk/records/answer";
import { saveGoal } from "~/desk/projects/projects";
import { theDrafts } from "~/desk/records/kept";
import type { BudgetIntent } from "./intents";

/** Keeps a budget. */
export async function budgetAction(desk: Desk, request: Request) {
  const intent = await intentOf<BudgetIntent>(request);
  const done = await saveGoal(desk, intent);
  if (done.ok) desk.at(theDrafts).drop(`budget ${intent.id}`);
  return answer(desk, done);
}
