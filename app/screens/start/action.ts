import type { Desk } from "~/desk/desk";
import { data, redirect } from "react-router";
import { joinedWords } from "~/components/words/file-words";
import { answer, intentOf, type Answer } from "~/desk/records/answer";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { joinDemo } from "~/desk/records/join";
import { offerRound } from "~/desk/kit/round";
import { begin } from "~/desk/kit/start";
import { theDrafts } from "~/desk/records/kept";
import type { StartIntent } from "./intents";
import { START_DRAFT } from "./typed-start";

/** Keeps place and rig; with a target its picture is begun, and the sheet of tonight is opened. Or opens a sample. */
export async function startAction(desk: Desk, request: Request) {
  const intent = await intentOf<StartIntent>(request);
  const library = await libraryHere(desk);
  if (intent.act === "sample") {
    const done = await joinDemo(library, intent.id);
    if (!done.ok) return data<Answer>({ refusal: done.error, revs: {} }, { status: 507 });
    notify(desk, joinedWords("Sample", done.value));
    return redirect("/");
  }
  const done = await begin(library, intent.place, intent.kit, intent.targetId);
  if (!done.ok) return answer(desk, done);
  desk.at(theDrafts).drop(START_DRAFT);
  offerRound(desk);
  notify(desk, `${intent.place.name} and your rig are kept; change them under Kit.`);
  return redirect(done.value.projectId === null ? "/" : "/nights");
}
