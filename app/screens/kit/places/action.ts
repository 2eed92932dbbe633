import type { Desk } from "~/desk/desk";
import { remove } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { changeSettings } from "~/desk/kit/kit";
import { libraryHere } from "~/desk/records/open-library";
import type { PlacesIntent } from "./intents";

/** Makes a place the one used on every screen, or deletes it. */
export async function placesAction(desk: Desk, request: Request) {
  const intent = await intentOf<PlacesIntent>(request);
  if (intent.act === "use") return answer(desk, await changeSettings(await libraryHere(desk), { placeId: intent.id }));
  return answer(desk, await remove(desk, [{ kind: "place", ...intent }]), `${intent.data.name} deleted.`);
}
