import { data, redirect } from "react-router";
import type { FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { keptSearch } from "~/desk/choice";
import { saveRig } from "~/desk/kit";
import { dropDraft } from "~/storage/drafts";
import { libraryHere } from "~/desk/open-library";
import { readRig } from "./rig-form";

/** Saves a rig and goes back to the list. */
export async function rigAction(request: Request, id: string) {
  const form = await request.formData();
  const rig = readRig(form);
  if (!rig.ok) return data<FormAnswer>({ faults: rig.error, refusal: null }, { status: 400 });
  const saved = await saveRig(await libraryHere(), { id, baseRev: textOf(form, "baseRev"), data: rig.value });
  if (!saved.ok) return data<FormAnswer>({ faults: {}, refusal: saved.error }, { status: 507 });
  dropDraft(textOf(form, "draft"));
  return redirect(`/kit/rigs${keptSearch(new URL(request.url).searchParams)}`);
}
