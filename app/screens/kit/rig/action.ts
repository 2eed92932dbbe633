import type { Desk } from "~/desk/desk";
import { data, redirect } from "react-router";
import type { FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { keptSearch } from "~/desk/sky/choice";
import { kindsOf } from "~/components/kit/typed-kit";
import { saveRig } from "~/desk/kit/kit";
import { KIT_PRESETS, saveRigOfKinds } from "~/desk/kit/start";
import { theDrafts } from "~/desk/records/kept";
import { libraryHere } from "~/desk/records/open-library";
import { KINDS_BOX, readKinds, readRig } from "./rig-form";

/** Saves a rig and goes back to the list. */
export async function rigAction(desk: Desk, request: Request, id: string) {
  const form = await request.formData();
  const rig = readRig(form);
  if (!rig.ok) return data<FormAnswer>({ faults: rig.error, refusal: null }, { status: 400 });
  const draft = { id, baseRev: textOf(form, "baseRev"), data: rig.value };
  const kinds = id === "new" ? readKinds(textOf(form, KINDS_BOX)) : null;
  const kit = kinds && kindsOf(KIT_PRESETS, kinds);
  const library = await libraryHere(desk);
  const saved = await (kit ? saveRigOfKinds(library, draft, kit) : saveRig(library, draft));
  if (!saved.ok) return data<FormAnswer>({ faults: {}, refusal: saved.error }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  return redirect(`/kit/rigs${keptSearch(new URL(request.url).searchParams)}`);
}
