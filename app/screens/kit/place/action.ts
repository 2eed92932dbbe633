import type { Desk } from "~/desk/desk";
import { data, redirect } from "react-router";
import type { FormAnswer } from "~/components/forms/form-data";
import { textOf } from "~/components/forms/form-numbers";
import { keptSearch } from "~/desk/sky/choice";
import { savePlace } from "~/desk/kit/kit";
import { theDrafts } from "~/desk/records/kept";
import { libraryHere } from "~/desk/records/open-library";
import { readPlace, unmeasuredOf } from "./place-form";

/** Saves a place and goes back to the list. */
export async function placeAction(desk: Desk, request: Request, id: string) {
  const form = await request.formData();
  const place = readPlace(form);
  if (!place.ok) return data<FormAnswer>({ faults: place.error, refusal: null }, { status: 400 });
  const draft = { id, baseRev: textOf(form, "baseRev"), data: place.value };
  const unmeasured = unmeasuredOf(form, place.value, id === "new");
  const saved = await savePlace(await libraryHere(desk), draft, unmeasured);
  if (!saved.ok) return data<FormAnswer>({ faults: {}, refusal: saved.error }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  return redirect(`/kit${keptSearch(new URL(request.url).searchParams)}`);
}
