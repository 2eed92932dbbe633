import { data } from "react-router";
import { intentOf, type Answer } from "~/desk/answer";
import { notify } from "~/desk/notices";
import { libraryHere } from "~/desk/open-library";
import { joinFile } from "~/desk/sharing";
import type { CrewIntent } from "./intents";

/** Joins a friend's file. */
export async function crewAction(request: Request) {
  const intent = await intentOf<CrewIntent>(request);
  const joined = await joinFile(await libraryHere(), intent.records);
  if (!joined.ok) return data<Answer>({ refusal: joined.error, revs: {} }, { status: 507 });
  const { added, changed, known } = joined.value;
  notify(`${intent.fileName} joined: ${added} new, ${changed} changed, ${known} already here.`);
  return data<Answer>({ refusal: null, revs: {} });
}
