import { data } from "react-router";
import { isForm, type FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { remove } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { saveFilter } from "~/desk/kit";
import { libraryHere } from "~/desk/open-library";
import { addFilterSet } from "~/desk/start";
import { notify } from "~/desk/notices";
import { dropDraft } from "~/storage/drafts";
import { readFilter } from "./filter-form";
import type { FiltersIntent } from "./intents";

/** What a filter's row hears, by the filter's id. */
export interface FilterAnswer extends FormAnswer {
  readonly id: string;
}

/** Saves one filter, or deletes one. */
export async function filtersAction(request: Request) {
  if (!isForm(request)) {
    const intent = await intentOf<FiltersIntent>(request);
    if (intent.act === "set") return answer(await addFilterSet(await libraryHere(), intent.id), "Filters added.");
    return answer(await remove([{ kind: "filter", ...intent }]), `${intent.data.name} deleted.`);
  }
  const form = await request.formData();
  const id = textOf(form, "id");
  const filter = readFilter(form);
  if (!filter.ok) return data<FilterAnswer>({ id, faults: filter.error, refusal: null }, { status: 400 });
  const saved = await saveFilter({ id, baseRev: textOf(form, "baseRev"), data: filter.value });
  if (!saved.ok) return data<FilterAnswer>({ id, faults: {}, refusal: saved.error }, { status: 507 });
  dropDraft(textOf(form, "draft"));
  notify(`${filter.value.name} saved.`, saved.value.undoId);
  return data<FilterAnswer>({ id, faults: {}, refusal: null });
}
