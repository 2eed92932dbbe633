import { remove } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { changeSettings } from "~/desk/kit";
import { libraryHere } from "~/desk/open-library";
import type { RigsIntent } from "./intents";

/** Makes a rig the one used on every screen, or deletes it. */
export async function rigsAction(request: Request) {
  const intent = await intentOf<RigsIntent>(request);
  if (intent.act === "use") return answer(await changeSettings(await libraryHere(), { rigId: intent.id }));
  return answer(await remove([{ kind: "rig", ...intent }]), `${intent.data.name} deleted.`);
}
