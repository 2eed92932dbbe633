import { data } from "react-router";
import type { NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { keepPress } from "~/desk/plan/live";
import { intentOf } from "~/desk/records/answer";
import { libraryHere } from "~/desk/records/open-library";
import type { LiveAnswer, LiveIntent } from "./intents";

/** Writes one press down. */
export async function liveAction(desk: Desk, request: Request) {
  const { night, rigId, placeId, is } = await intentOf<LiveIntent>(request);
  const library = await libraryHere(desk);
  const done = await keepPress(library, { night: night as NightDate, rigId, placeId }, is);
  if (!done.ok) return data<LiveAnswer>({ refusal: done.error, undoId: "" }, { status: 507 });
  return data<LiveAnswer>({ refusal: null, undoId: done.value.undoId });
}
