import { answer, intentOf } from "~/desk/answer";
import { choiceOf } from "~/desk/choice";
import { keepState } from "~/desk/done";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import type { RecordIntent } from "./intents";

/** Calls a picture finished, lets it rest, or takes it up again. */
export async function recordAction(request: Request, projectId: string) {
  const { rev, state } = await intentOf<RecordIntent>(request);
  const library = await libraryHere();
  const c = requireContext(library, projectId);
  const { today } = choiceOf(library, new URL(request.url).searchParams);
  if (state === "finish")
    return answer(await keepState(c, rev, { finishedOn: today }), `${c.project.data.name} is called finished.`);
  if (state === "resume") return answer(await keepState(c, rev, {}), `${c.project.data.name} is taken up again.`);
  return answer(await keepState(c, rev, state), `${c.project.data.name} rests until ${state.restsUntil}.`);
}
