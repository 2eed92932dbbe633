import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { isForm, type FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { remove } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { saveFilter } from "~/desk/kit/kit";
import { libraryHere } from "~/desk/records/open-library";
import { addFilterSet } from "~/desk/kit/start";
import { notify } from "~/desk/records/notices";
import { theDrafts } from "~/desk/records/kept";
import { readFilter } from "./filter-form";
import type { FiltersIntent } from "./intents";

/** What a filter's row hears, by the filter's id. */
export interface FilterAnswer extends FormAnswer {
  readonly id: string;
}

/** Saves one filter, or deletes one. */
export async function filtersAction(desk: Desk, request: Request) {
  if (!isForm(request)) {
    const intent = await intentOf<FiltersIntent>(request);
    if (intent.act === "set")
      return answer(desk, await addFilterSet(await libraryHere(desk), intent.id), "Filters added.");
    return answer(desk, await remove(desk, [{ kind: "filter", ...intent }]), `${intent.data.name} deleted.`);
  }
  const form = await request.formData();
  const id = textOf(form, "id");
  const filter = readFilter(form);
  if (!filter.ok) return data<FilterAnswer>({ id, faults: filter.error, refusal: null }, { status: 400 });
  const saved = await saveFilter(desk, { id, baseRev: textOf(form, "baseRev"), data: filter.value });
  if (!saved.ok) return data<FilterAnswer>({ id, faults: {}, refusal: saved.error }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  notify(desk, `${filter.value.name} saved.`, saved.value.undoId);
  return data<FilterAnswer>({ id, faults: {}, refusal: null });
}
