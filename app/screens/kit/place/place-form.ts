import { MONTHS } from "~/components/clock";
import { parseSkyline } from "~/core/formats";
import { decodeData } from "~/core/records";
import { USUAL_CLEAR_CHANCE, type Place } from "~/core/night";
import { err, ok, type Result } from "~/core/result";
import { isTimeZone } from "~/core/time";
import { readNumbers, textOf, type Faults, type NumberSpec } from "~/components/forms/form-numbers";
import { skylineFaultWords } from "~/components/words/fault-words";
import { PLACE_NUMBERS, USUAL_SEEING_ARCSEC } from "./place-numbers";

const MONTH_SPECS = MONTHS.map(
  (month, i) => ({ name: `clear${i}`, label: month, unit: "%", min: 0, max: 100 }) satisfies NumberSpec,
);

/** Landmarks, domes and lamps as the editor hands them over; a text that is none counts as none. */
function surroundings(form: FormData): Pick<Place, "landmarks" | "domes" | "lamps"> {
  const list = (name: string): unknown => {
    try {
      return JSON.parse(textOf(form, name) || "[]");
    } catch {
      return [];
    }
  };
  return { landmarks: list("landmarks"), domes: list("domes"), lamps: list("lamps") } as Pick<
    Place,
    "landmarks" | "domes" | "lamps"
  >;
}

/** Reads the form of a place, or says beside each box what is wrong. */
export function readPlace(form: FormData): Result<Place, Faults> {
  const { values, faults } = readNumbers(form, PLACE_NUMBERS);
  const clear = readNumbers(form, MONTH_SPECS);
  const skyline = parseSkyline(textOf(form, "skyline"));
  const [name, timeZone] = [textOf(form, "name").trim(), textOf(form, "timeZone").trim()];
  const all: Faults = {
    ...faults,
    ...clear.faults,
    ...(name === "" || name.length > 120 ? { name: "Give the place a name, 120 letters at most." } : {}),
    ...(isTimeZone(timeZone)
      ? {}
      : {
          timeZone:
            timeZone === ""
              ? "Leave the coordinates box once, and the zone is found; or type it, as Europe/Rome."
              : `“${timeZone}” is no time zone known here. Write it as Europe/Rome.`,
        }),
    ...(skyline.ok ? {} : { skyline: skylineFaultWords(skyline.error) }),
  };
  if (!skyline.ok || Object.keys(all).length > 0) return err(all);
  const { windPercent, ...numbers } = values;
  const place = {
    name,
    timeZone,
    ...numbers,
    ...surroundings(form),
    windShare: windPercent / 100,
    skyline: skyline.value,
    clearChance: MONTH_SPECS.map((m) => clear.values[m.name]! / 100),
  };
  const checked = decodeData("place", place);
  return checked.ok ? ok(place) : err({ skyline: `${checked.error.path}: ${checked.error.message}` });
}

/** What of a place nobody measured: a sky chosen by its look, and of a new place what stands as it was proposed. */
export function unmeasuredOf(form: FormData, place: Place, isNew: boolean): readonly string[] {
  const isByLook = textOf(form, "skyByLook") !== "";
  return [
    ...(isByLook ? ["skyMagPerArcsec2"] : []),
    ...(isNew && place.skyline.length === 0 ? ["skyline"] : []),
    ...(isNew && place.seeingArcsec === USUAL_SEEING_ARCSEC ? ["seeingArcsec"] : []),
    ...(isNew && place.clearChance.every((c) => c === USUAL_CLEAR_CHANCE) ? ["clearChance"] : []),
  ];
}
