import { data, redirect } from "react-router";
import { joinedWords } from "~/components/words/words";
import { answer, intentOf, type Answer } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { joinDemo } from "~/desk/sharing";
import { begin } from "~/desk/start";
import { dropDraft } from "~/storage/drafts";
import type { StartIntent } from "./intents";
import { START_DRAFT } from "./typed-start";

/** Keeps place and rig; with a target its picture is begun, and the sheet of tonight is opened. Or opens a sample. */
export async function startAction(request: Request) {
  const intent = await intentOf<StartIntent>(request);
  const library = await libraryHere();
  if (intent.act === "sample") {
    const done = await joinDemo(library, intent.id);
    if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
    notify(joinedWords("Sample", done.value));
    return redirect("/");
  }
  const done = await begin(library, intent.place, intent.kit, intent.targetId);
  if (!done.ok) return answer(done);
  dropDraft(START_DRAFT);
  notify(`${intent.place.name} and your rig are kept; change them under Kit.`);
  return redirect(done.value.projectId === null ? "/" : "/nights");
}
