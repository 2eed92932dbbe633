import type { EditOf, KeepFault } from "~/core/records";
import type { Result } from "~/core/result";
import { doneChecks } from "~/core/care";
import {
  focusSlope,
  inOrder,
  type FocusSlope,
  type Happening,
  type NightEvent,
  type NightEventData,
} from "~/core/live";
import type { NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { keep, type Kept } from "~/desk/records/acts";
import { crossOut, putDown, takeUp } from "~/desk/records/pending";
import { meOf } from "~/desk/records/parts";
import { nextTurn } from "~/desk/turns";
import { beginEdit } from "./begin";
import { begunOn } from "./season-question";

const allOf = (library: Library, night: NightDate, rigId: string): readonly NightEvent[] =>
  library.nightEvents
    .filter((e) => e.data.night === night && e.data.rigId === rigId)
    .map((e) => ({ ...e.data, id: e.id }));

/** What was pressed in a night with a rig; of the checklist, see `doneOn`. */
export const eventsOf = (library: Library, night: NightDate, rigId: string): readonly NightEvent[] =>
  allOf(library, night, rigId).filter((e) => e.is.what !== "checked");

type PressEdit = EditOf<"event"> & { readonly data: NightEventData };

/** The edit of one press alone: written once, after those before it. */
function pressEdit(
  library: Library,
  { night, rigId }: { readonly night: NightDate; readonly rigId: string },
  is: Happening,
): PressEdit {
  const { desk } = library;
  // Presses keep their order where the clock stands or is set back.
  const last = Math.max(-Infinity, ...allOf(library, night, rigId).map((e) => e.atMs));
  const data = { memberId: meOf(library) ?? "me", night, rigId, atMs: Math.max(desk.now(), last + 1), is };
  return { kind: "event", id: desk.newId("event"), data, baseRev: null };
}

/**
 * Keeps one press. It is written down before anything else is asked: a page that is gone a moment later leaves it to the next one. One
 * that is refused is not written down any more; whoever pressed hears of it.
 */
export async function keepPress(
  library: Library,
  of: { readonly night: NightDate; readonly rigId: string; readonly placeId: string | null },
  is: Happening,
): Promise<Result<Kept, KeepFault>> {
  const { desk } = library;
  const event = pressEdit(library, of, is);
  putDown(desk, event);
  await nextTurn(); // the button answers before the season is asked
  const done = await keep(desk, [...(await besides(library, of, event)), event]);
  if (done.ok) crossOut(desk, event, done.value.revs[event.id] ?? "");
  else takeUp(desk, event);
  return done;
}

/**
 * What else a press says. A begun night keeps its plan; a word on the sky is a look as well, by which the rest of the night is laid out
 * anew. A checklist is gone through before anything has begun.
 */
async function besides(
  library: Library,
  { night, placeId }: { readonly night: NightDate; readonly placeId: string | null },
  { data: { memberId, atMs, is } }: PressEdit,
): Promise<readonly EditOf[]> {
  const isOfNight = is.what !== "packedUp" && is.what !== "checked";
  const begins = isOfNight && !begunOn(library, night) ? await beginEdit(library, night) : null;
  const look: readonly EditOf<"look">[] =
    is.what === "cloud" && placeId !== null
      ? [{ kind: "look", id: `look-${placeId}-${atMs}`, data: { placeId, memberId, atMs, isClear: is.isClear }, baseRev: "latest" }]
      : []; // prettier-ignore
  return [...(begins ? [begins] : []), ...look];
}

/** How the focuser of a rig moves with the air, by what its owner pressed in all its nights; null = too little to tell. */
export const focusSlopeOf = (library: Library, rigId: string): FocusSlope | null =>
  focusSlope(library.nightEvents.filter((e) => e.data.rigId === rigId).map((e) => ({ ...e.data, id: e.id })));

/** Which lines of the checklist are done in a night with a rig. */
export const doneOn = (library: Library, night: NightDate, rigId: string): ReadonlySet<string> =>
  doneChecks(inOrder(allOf(library, night, rigId)).flatMap(({ is }) => (is.what === "checked" ? [{ id: is.check, isDone: is.isDone }] : []))); // prettier-ignore
