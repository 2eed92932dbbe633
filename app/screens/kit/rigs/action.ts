import { remove } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { redirect } from "react-router";
import { changeSettings, copyRig } from "~/desk/kit";
import { libraryHere } from "~/desk/open-library";
import type { RigsIntent } from "./intents";

/** Makes a rig the one used on every screen, copies it, or deletes it. */
export async function rigsAction(request: Request) {
  const intent = await intentOf<RigsIntent>(request);
  if (intent.act === "use") return answer(await changeSettings(await libraryHere(), { rigId: intent.id }));
  if (intent.act === "copy") {
    const copied = await copyRig(await libraryHere(), intent.data);
    return copied.ok ? redirect(`/kit/rigs/${copied.value}`) : answer(copied);
  }
  return answer(await remove([{ kind: "rig", ...intent }]), `${intent.data.name} deleted.`);
}
