import { remove } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { changeSettings } from "~/desk/kit";
import { libraryHere } from "~/desk/open-library";
import type { PlacesIntent } from "./intents";

/** Makes a place the one used on every screen, or deletes it. */
export async function placesAction(request: Request) {
  const intent = await intentOf<PlacesIntent>(request);
  if (intent.act === "use") return answer(await changeSettings(await libraryHere(), { placeId: intent.id }));
  return answer(await remove([{ kind: "place", ...intent }]), `${intent.data.name} deleted.`);
}
