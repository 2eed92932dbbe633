import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { shortNight } from "~/components/clock";
import { textOf, type Faults } from "~/components/forms/form-numbers";
import type { KeepFault } from "~/core/records";
import { isNightDate } from "~/core/time";
import { loadChoice } from "~/desk/sky/choice";
import { keepFacts } from "~/desk/log/night-facts";
import { notify } from "~/desk/records/notices";
import { theDrafts } from "~/desk/records/kept";
import { readFactsForm } from "./facts-form";

/** What came of it. */
interface FactsAnswer {
  readonly refusal: KeepFault | null;
  readonly faults: Faults;
}

/** Keeps the facts of a night. */
export async function factsAction(desk: Desk, request: Request) {
  const { library, choice } = await loadChoice(desk, request.clone());
  const form = await request.formData();
  const [night, placeId, rev] = ["night", "placeId", "rev"].map((n) => textOf(form, n)) as [string, string, string];
  if (!isNightDate(night))
    return data<FactsAnswer>({ refusal: null, faults: { note: "Choose a night first." } }, { status: 400 });
  if (night > choice.today)
    return data<FactsAnswer>(
      { refusal: null, faults: { seeingArcsec: "This night is still to come." } },
      { status: 400 },
    );
  const read = readFactsForm(form);
  if (!read.ok) return data<FactsAnswer>({ refusal: null, faults: read.error }, { status: 400 });
  const done = await keepFacts(library, { night, placeId, ...read.value }, rev === "" ? null : rev);
  if (!done.ok) return data<FactsAnswer>({ refusal: done.error, faults: {} }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  notify(desk, `${shortNight(night)} is written down.`, done.value.undoId);
  return data<FactsAnswer>({ refusal: null, faults: {} });
}
