import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import type { FormAnswer } from "~/components/forms/form-data";
import { readNumbers, textOf } from "~/components/forms/form-numbers";
import { CALIBRATION_NUMBERS } from "./CalibrationFields";
import { keep } from "~/desk/records/acts";
import { notify } from "~/desk/records/notices";
import { libraryHere } from "~/desk/records/open-library";
import { theDrafts } from "~/desk/records/kept";
import { readMoonForm } from "./moon-form";
import { readPlanningForm } from "./planning-form";

/** Keeps how the owner decides. */
export async function rulesAction(desk: Desk, request: Request) {
  const form = await request.formData();
  const moon = readMoonForm(form);
  const planning = readPlanningForm(form);
  const counts = readNumbers(form, CALIBRATION_NUMBERS);
  if (!moon.ok || !planning.ok || Object.keys(counts.faults).length > 0) {
    const faults = { ...(moon.ok ? {} : moon.error), ...(planning.ok ? {} : planning.error), ...counts.faults };
    return data<FormAnswer>({ faults, refusal: null }, { status: 400 });
  }
  const { settings } = await libraryHere(desk);
  if (!settings)
    return data<FormAnswer>({ faults: { school: "Enter a place first." }, refusal: null }, { status: 409 });
  const { clock: _, units: __, ...before } = settings.data;
  const next = {
    ...before,
    ...(textOf(form, "clock") === "12h" ? { clock: "12h" as const } : {}),
    ...(textOf(form, "units") === "imperial" ? { units: "imperial" as const } : {}),
    moon: moon.value,
    planning: planning.value,
    calibration: { ...counts.values, flatsBy: textOf(form, "flatsBy") === "bias" ? "bias" : "darkFlat" } as const,
    standsBeforeDark: form.has("standsBeforeDark"),
    simulatedServices: form.has("simulatedServices"),
  };
  const done = await keep(desk, [{ kind: "settings", id: settings.id, data: next, baseRev: textOf(form, "baseRev") }]);
  if (!done.ok) return data<FormAnswer>({ faults: {}, refusal: done.error }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  notify(desk, "Your rules are saved.", done.value.undoId);
  return data<FormAnswer>({ faults: {}, refusal: null });
}
