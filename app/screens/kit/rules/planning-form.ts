import { parseNumber } from "~/core/notation";
import { USUAL_PERSON_RULES, type PersonRules } from "~/core/season";
import { PLANNING_FIELDS } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { numberFault, textOf, type Faults } from "~/components/forms/form-numbers";

/** Days of the week as people list them, with their numbers: 0 = Sunday. */
export const WEEKDAYS = [
  { day: 1, word: "Mon" },
  { day: 2, word: "Tue" },
  { day: 3, word: "Wed" },
  { day: 4, word: "Thu" },
  { day: 5, word: "Fri" },
  { day: 6, word: "Sat" },
  { day: 0, word: "Sun" },
] as const;

/** What the boxes of places to drive to are named by, before the place. */
export const DRIVE = "drive ";

/** Reads how a person's nights are planned, or says beside each box what is wrong. */
export function readPlanningForm(form: FormData): Result<PersonRules, Faults> {
  const faults: Record<string, string> = {};
  const read = (name: keyof typeof PLANNING_FIELDS): number => {
    const fault = numberFault(PLANNING_FIELDS[name], textOf(form, name));
    if (fault) faults[name] = fault;
    return parseNumber(textOf(form, name)) ?? 0;
  };
  const targetsANight = read("targetsANight");
  const minBlockMin = read("minBlockMin");
  const mostHours = textOf(form, "mostHours").trim() === "" ? null : read("mostHours");
  const drives = [...form.keys()].flatMap((key) => {
    const placeId = key.startsWith(DRIVE) ? key.slice(DRIVE.length) : "";
    const text = textOf(form, key);
    if (placeId === "" || text.trim() === "") return [];
    const fault = numberFault(PLANNING_FIELDS.fromHours, text);
    if (fault) faults[key] = fault;
    return [{ placeId, fromHours: parseNumber(text) ?? 0 }];
  });
  const free = form.getAll("free").map(String);
  if (free.length === 0) faults["free"] = "Leave at least one evening of the week free for the sky.";
  if (Object.keys(faults).length > 0) return err(faults);
  return ok({
    targetsANight,
    minBlockMin,
    ...(mostHours === null ? {} : { mostHours }),
    busyWeekdays: WEEKDAYS.flatMap(({ day }) => (free.includes(String(day)) ? [] : [day])),
    isOneRig: form.has("isOneRig"),
    ...(drives.length > 0 ? { drives } : {}),
  });
}

/** What the boxes show of a person's rules. */
export const planningTexts = (rules: PersonRules = USUAL_PERSON_RULES) => ({
  targetsANight: String(rules.targetsANight),
  minBlockMin: String(rules.minBlockMin),
  mostHours: rules.mostHours === undefined ? "" : String(rules.mostHours),
});
