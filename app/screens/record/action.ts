import type { Desk } from "~/desk/desk";
import { answer, intentOf } from "~/desk/records/answer";
import { choiceOf } from "~/desk/sky/choice";
import { keepState } from "~/desk/projects/done";
import { libraryHere } from "~/desk/records/open-library";
import { requireContext } from "~/desk/projects/project";
import type { RecordIntent } from "./intents";

/** Calls a picture finished, lets it rest, or takes it up again. */
export async function recordAction(desk: Desk, request: Request, projectId: string) {
  const { rev, state } = await intentOf<RecordIntent>(request);
  const library = await libraryHere(desk);
  const c = requireContext(library, projectId);
  const { today } = choiceOf(library, new URL(request.url).searchParams);
  if (state === "finish")
    return answer(desk, await keepState(c, rev, { finishedOn: today }), `${c.project.data.name} is called finished.`);
  if (state === "resume") return answer(desk, await keepState(c, rev, {}), `${c.project.data.name} is taken up again.`);
  return answer(desk, await keepState(c, rev, state), `${c.project.data.name} rests until ${state.restsUntil}.`);
}
