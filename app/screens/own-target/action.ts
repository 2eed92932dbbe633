import { data, redirect } from "react-router";
import { isForm, type FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { remove } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { keptSearch } from "~/desk/choice";
import { saveOwnTarget } from "~/desk/kit";
import { notify } from "~/desk/notices";
import { dropDraft } from "~/storage/drafts";
import { newId } from "~/storage/session";
import type { OwnTargetIntent } from "./intents";
import { readOwnTarget } from "./own-target-form";

/** Saves a target of one's own and goes to its page, or deletes it and goes to the list. */
export async function ownTargetAction(request: Request, ownId: string) {
  const params = new URL(request.url).searchParams;
  if (!isForm(request)) {
    const intent = await intentOf<OwnTargetIntent>(request);
    const done = await remove([{ kind: "target", id: ownId, ...intent }]);
    if (!done.ok) return answer(done);
    notify(`${intent.data.name} deleted.`, done.value.undoId);
    return redirect(`/targets${keptSearch(params)}`);
  }
  const form = await request.formData();
  const target = readOwnTarget(form);
  if (!target.ok) return data<FormAnswer>({ faults: target.error, refusal: null }, { status: 400 });
  const id = ownId === "new" ? newId("target") : ownId;
  const saved = await saveOwnTarget({ id, baseRev: textOf(form, "baseRev"), data: target.value });
  if (!saved.ok) return data<FormAnswer>({ faults: {}, refusal: saved.error }, { status: 507 });
  dropDraft(textOf(form, "draft"));
  return redirect(`/targets/${id}${keptSearch(params, { low: params.get("low") ?? "" })}`);
}
