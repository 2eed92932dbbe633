import { data } from "react-router";
import { joinedWords } from "~/components/words/words";
import { answer, intentOf, type Answer } from "~/desk/answer";
import { keepHandOver } from "~/desk/hand-over";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { requireContext } from "~/desk/project";
import { joinLookedInto } from "~/desk/sharing";
import { keepHours, keepReference, keepSharing, promiseChannels } from "~/desk/who-shoots";
import { dropDraft } from "~/storage/drafts";
import type { CrewIntent } from "./intents";

const HOURS_SAID = {
  kept: "An hour kept is an hour, whoever takes it.",
  light: "Hours count by light, as hours at the reference.",
} as const;

/** Joins the friend's file that was looked into; keeps what is handed over. */
export async function crewAction(request: Request) {
  const intent = await intentOf<CrewIntent>(request);
  if (intent.act === "handOver") return answer(await keepHandOver(intent.projectId, intent.terms, intent.rev));
  if (intent.act === "sharing" || intent.act === "promise" || intent.act === "measure" || intent.act === "hours") {
    const library = await libraryHere();
    const c = requireContext(library, intent.projectId);
    if (intent.act === "promise")
      return answer(await promiseChannels(library, c, intent.channels), `You promise ${intent.channels.join(", ")}.`);
    if (intent.act === "hours") return answer(await keepHours(c, intent.rev, intent.hours), HOURS_SAID[intent.hours]);
    if (intent.act === "measure") return answer(await keepReference(c, intent.rev, intent.memberId));
    const done = await keepSharing(c, intent.rev, intent.rules);
    if (done.ok) dropDraft(`sharing ${c.id}`);
    return answer(done, "Who shoots what is kept.");
  }
  const { letsAheadIn, chosen } = intent;
  const joined = await joinLookedInto(await libraryHere(), { owner: "friend", letsAheadIn, chosen });
  if (joined && !joined.done.ok) return data<Answer>({ refusal: joined.done.error, revs: {} }, { status: 507 });
  if (joined?.done.ok) notify(joinedWords(joined.fileName, joined.done.value));
  return data<Answer>({ refusal: null, revs: {} });
}
