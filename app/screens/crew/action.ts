import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { joinedWords } from "~/components/words/file-words";
import { answer, intentOf, type Answer } from "~/desk/records/answer";
import { keepHandOver } from "~/desk/projects/hand-over";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { requireContext } from "~/desk/projects/project";
import { tellEvenings } from "~/desk/plan/joint";
import { joinLookedInto } from "~/desk/records/join";
import { keepHours, keepReference, keepSharing, promiseChannels } from "~/desk/projects/who-shoots";
import { theDrafts } from "~/desk/records/kept";
import type { CrewIntent } from "./intents";

const HOURS_SAID = {
  kept: "An hour kept is an hour, whoever takes it.",
  light: "Hours count by light, as hours at the reference.",
} as const;

/** Joins the friend's file that was looked into; keeps what is handed over. */
export async function crewAction(desk: Desk, request: Request) {
  const intent = await intentOf<CrewIntent>(request);
  if (intent.act === "handOver")
    return answer(desk, await keepHandOver(desk, intent.projectId, intent.terms, intent.rev));
  if (intent.act === "evenings")
    return answer(
      desk,
      await tellEvenings(await libraryHere(desk), intent.projectId, intent.tells),
      intent.tells ? "The next file for the others says when you are free." : "Your evenings are your own again.",
    );
  if (intent.act === "sharing" || intent.act === "promise" || intent.act === "measure" || intent.act === "hours") {
    const library = await libraryHere(desk);
    const c = requireContext(library, intent.projectId);
    if (intent.act === "promise")
      return answer(
        desk,
        await promiseChannels(library, c, intent.channels),
        `You promise ${intent.channels.join(", ")}.`,
      );
    if (intent.act === "hours")
      return answer(desk, await keepHours(c, intent.rev, intent.hours), HOURS_SAID[intent.hours]);
    if (intent.act === "measure") return answer(desk, await keepReference(c, intent.rev, intent.memberId));
    const done = await keepSharing(c, intent.rev, intent.rules);
    if (done.ok) desk.at(theDrafts).drop(`sharing ${c.id}`);
    return answer(desk, done, "Who shoots what is kept.");
  }
  const { handle, letsAheadIn, chosen } = intent;
  const joined = await joinLookedInto(await libraryHere(desk), handle, { owner: "friend", letsAheadIn, chosen });
  if (joined && !joined.done.ok) return data<Answer>({ refusal: joined.done.error, revs: {} }, { status: 507 });
  if (joined?.done.ok) notify(desk, joinedWords(joined.fileName, joined.done.value));
  return data<Answer>({ refusal: null, revs: {} });
}
