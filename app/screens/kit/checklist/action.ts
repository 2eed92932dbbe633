import type { Desk } from "~/desk/desk";
import { changeCare } from "~/desk/kit/kit";
import { refusePage } from "~/desk/page-fault";
import { answer, intentOf } from "~/desk/records/answer";
import { libraryHere } from "~/desk/records/open-library";
import type { ChecklistIntent } from "./intents";

const SAID = {
  add: "Check added.",
  reword: "Said in your words.",
  leaveOut: "Left out.",
  takeBack: "Back on the list.",
  asUsual: "As usual for such kit.",
} as const;

/** Changes the checklist of a rig. */
export async function checklistAction(desk: Desk, request: Request, rigId: string) {
  const { baseRev, change } = await intentOf<ChecklistIntent>(request);
  const library = await libraryHere(desk);
  const rig = library.rigs.find((r) => r.id === rigId);
  if (!rig) refusePage({ code: "unknownRig" });
  return answer(desk, await changeCare(library, rig, baseRev, change), SAID[change.what]);
}
