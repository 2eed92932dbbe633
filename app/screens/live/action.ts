import { data } from "react-router";
import type { NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { keepPress } from "~/desk/plan/live";
import { joinLookedInto } from "~/desk/records/join";
import { intentOf } from "~/desk/records/answer";
import { libraryHere } from "~/desk/records/open-library";
import type { LiveAnswer, LiveIntent } from "./intents";

/** Writes one press down, or takes over what another device wrote. */
export async function liveAction(desk: Desk, request: Request) {
  const intent = await intentOf<LiveIntent>(request);
  const library = await libraryHere(desk);
  if (intent.act === "takeOver") {
    const joined = await joinLookedInto(library, intent.handle, { owner: "friend", letsAheadIn: false });
    const refusal = joined && !joined.done.ok ? joined.done.error : null;
    return data<LiveAnswer>({ refusal, undoId: "" }, { status: refusal ? 507 : 200 });
  }
  const { night, rigId, placeId, is } = intent;
  const done = await keepPress(library, { night: night as NightDate, rigId, placeId }, is);
  if (!done.ok) return data<LiveAnswer>({ refusal: done.error, undoId: "" }, { status: 507 });
  return data<LiveAnswer>({ refusal: null, undoId: done.value.undoId });
}
