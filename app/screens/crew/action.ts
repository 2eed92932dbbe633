import { data } from "react-router";
import { joinedWords } from "~/components/words/words";
import { answer, intentOf, type Answer } from "~/desk/answer";
import { keepHandOver } from "~/desk/hand-over";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { joinLookedInto } from "~/desk/sharing";
import type { CrewIntent } from "./intents";

/** Joins the friend's file that was looked into; keeps what is handed over. */
export async function crewAction(request: Request) {
  const intent = await intentOf<CrewIntent>(request);
  if (intent.act === "handOver") return answer(await keepHandOver(intent.projectId, intent.terms, intent.rev));
  const { letsAheadIn, chosen } = intent;
  const joined = await joinLookedInto(await libraryHere(), { owner: "friend", letsAheadIn, chosen });
  if (joined && !joined.done.ok) return data<Answer>({ refusal: joined.done.error, revs: {} }, { status: 507 });
  if (joined?.done.ok) notify(joinedWords(joined.fileName, joined.done.value));
  return data<Answer>({ refusal: null, revs: {} });
}
