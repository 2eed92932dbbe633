import type { EditOf } from "~/core/records";
import type { Happening, NightEvent } from "~/core/live";
import type { NightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { meOf } from "~/desk/records/parts";
import { beginEdit } from "./begin";
import { begunOn } from "./season-question";

/** What was pressed in a night with a rig. */
export const eventsOf = (library: Library, night: NightDate, rigId: string): readonly NightEvent[] =>
  library.nightEvents
    .filter((e) => e.data.night === night && e.data.rigId === rigId)
    .map((e) => ({ ...e.data, id: e.id }));

/**
 * The edits of one press: the event itself, and what else it says. A begun night keeps its plan; a word on the sky is a look as well, by
 * which the rest of the night is laid out anew.
 */
export async function pressEdits(
  library: Library,
  { night, rigId, placeId }: { readonly night: NightDate; readonly rigId: string; readonly placeId: string },
  is: Happening,
): Promise<readonly EditOf[]> {
  const { desk } = library;
  const memberId = meOf(library) ?? "me";
  // Presses keep their order where the clock stands or is set back.
  const last = Math.max(-Infinity, ...eventsOf(library, night, rigId).map((e) => e.atMs));
  const atMs = Math.max(desk.now(), last + 1);
  const event: EditOf<"event"> = {
    kind: "event",
    id: desk.newId("event"),
    data: { memberId, night, rigId, atMs, is },
    baseRev: null,
  };
  const begins = is.what !== "packedUp" && !begunOn(library, night) ? await beginEdit(library, night) : null;
  const look: readonly EditOf<"look">[] =
    is.what === "cloud"
      ? [
          {
            kind: "look",
            id: `look-${placeId}-${atMs}`,
            data: { placeId, memberId, atMs, isClear: is.isClear },
            baseRev: "latest",
          },
        ]
      : [];
  return [...(begins ? [begins] : []), event, ...look];
}
