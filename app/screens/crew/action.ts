import { data } from "react-router";
import { joinedWords } from "~/components/words/words";
import { intentOf, type Answer } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { joinLookedInto } from "~/desk/sharing";
import type { CrewIntent } from "./intents";

/** Joins the friend's file that was looked into. */
export async function crewAction(request: Request) {
  const { letsAheadIn, chosen } = await intentOf<CrewIntent>(request);
  const joined = await joinLookedInto(await libraryHere(), { owner: "friend", letsAheadIn, chosen });
  if (joined && !joined.done.ok) return data<Answer>({ refusal: joined.done.error, revs: {} }, { status: 507 });
  if (joined?.done.ok) notify(joinedWords(joined.fileName, joined.done.value));
  return data<Answer>({ refusal: null, revs: {} });
}
