import type { Desk } from "~/desk/desk";
import { remove } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { redirect } from "react-router";
import { changeSettings, copyRig } from "~/desk/kit/kit";
import { libraryHere } from "~/desk/records/open-library";
import type { RigsIntent } from "./intents";

/** Makes a rig the one used on every screen, copies it, or deletes it. */
export async function rigsAction(desk: Desk, request: Request) {
  const intent = await intentOf<RigsIntent>(request);
  if (intent.act === "use") return answer(desk, await changeSettings(await libraryHere(desk), { rigId: intent.id }));
  if (intent.act === "copy") {
    const copied = await copyRig(await libraryHere(desk), intent.data);
    return copied.ok ? redirect(`/kit/rigs/${copied.value}`) : answer(desk, copied);
  }
  return answer(desk, await remove(desk, [{ kind: "rig", ...intent }]), `${intent.data.name} deleted.`);
}
