import { numberFault, numberIn, specsOf, type NumberSpec } from "~/components/forms/form-numbers";
import { EMPTY_KIT, kindsOf, ownFaults, ownValues, readTypedKit, type TypedKit } from "~/components/kit/typed-kit";
import { parseNumber } from "~/core/notation";
import { PLACE_FIELDS } from "~/core/records";
import { KIT_PRESETS, type StartKit, type StartPlace } from "~/desk/kit/start";

/** What is typed and chosen on the start, as texts. */
export interface TypedStart extends TypedKit {
  readonly name: string;
  readonly latitudeDeg: string;
  readonly longitudeDeg: string;
  readonly elevationM: string;
  readonly timeZone: string;
  /** Magnitude of the sky; "" = not chosen. */
  readonly sky: string;
  readonly isSkyByLook: boolean;
  /** Of ten nights there, how many are clear; "" = not known. */
  readonly clearOfTen: string;
  readonly cameraName: string;
}

/** The name under which what is typed here is kept until it is saved. */
export const START_DRAFT = "start";

export const EMPTY_START: TypedStart = {
  ...EMPTY_KIT,
  name: "",
  latitudeDeg: "",
  longitudeDeg: "",
  elevationM: "",
  timeZone: "",
  sky: "",
  isSkyByLook: false,
  clearOfTen: "",
  cameraName: "",
};

/** What was left on the start, where it reads. */
export function readTypedStart(raw: unknown): TypedStart | null {
  if (typeof raw !== "object" || raw === null) return null;
  const { isColour, ...given } = raw as Readonly<Record<string, unknown>>;
  // Before it was asked, a camera that is made in either kind was taken for colour, and a switch said otherwise.
  const said =
    typeof isColour === "boolean" && given["colour"] === undefined ? kindSaid(given["camera"], isColour) : {};
  const kit = readTypedKit({ ...said, ...given });
  const { clearOfTen } = EMPTY_START; // it was not asked before
  const whole = { clearOfTen, ...given, ...kit } as TypedStart;
  const texts = Object.entries(EMPTY_START).every(
    ([name, empty]) => typeof whole[name as keyof TypedStart] === typeof empty,
  );
  return texts && kit !== null ? whole : null;
}

const kindSaid = (camera: unknown, isColour: boolean): Partial<TypedKit> =>
  typeof camera === "string" && camera !== "" ? { colour: isColour ? "colour" : "mono" } : {};

/** Numbers of where somebody observes. */
export const WHERE_NUMBERS = specsOf({
  latitudeDeg: PLACE_FIELDS.latitudeDeg,
  longitudeDeg: PLACE_FIELDS.longitudeDeg,
  elevationM: PLACE_FIELDS.elevationM,
});
/** Of ten nights, how many are clear: as somebody who lives there would say. */
export const CLEAR_OF_TEN = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;
export const SKY_NUMBER: NumberSpec = { name: "sky", ...PLACE_FIELDS.skyMagPerArcsec2 };

/** What is wrong, by the name of its box; only what is typed can be. */
export function startFaults(typed: TypedStart): Readonly<Record<string, string>> {
  const texts: Readonly<Record<string, string>> = { ...whereTexts(typed), sky: typed.sky };
  const faults: Record<string, string> = { ...ownFaults(KIT_PRESETS, typed) };
  for (const spec of [...WHERE_NUMBERS, SKY_NUMBER]) {
    const text = texts[spec.name] ?? "";
    const fault = text.trim() === "" ? undefined : numberFault(spec, text);
    if (fault) faults[spec.name] = fault;
  }
  return faults;
}

const whereTexts = ({ latitudeDeg, longitudeDeg, elevationM }: TypedStart) => ({
  latitudeDeg,
  longitudeDeg,
  elevationM,
});

/** The first answer; null until where and under which sky are known. */
export function startPlaceOf(typed: TypedStart): StartPlace | null {
  const [latitudeDeg, longitudeDeg, skyMagPerArcsec2] = [typed.latitudeDeg, typed.longitudeDeg, typed.sky].map(
    parseNumber,
  ) as [number | null, number | null, number | null];
  if (latitudeDeg === null || longitudeDeg === null || skyMagPerArcsec2 === null || typed.timeZone === "") return null;
  if (Object.keys(startFaults({ ...typed, own: {} })).length > 0) return null;
  const { timeZone, isSkyByLook } = typed;
  const name = typed.name.trim() || "My place";
  const elevationM = numberIn(PLACE_FIELDS.elevationM, typed.elevationM) ?? 0;
  const clearOfTen = parseNumber(typed.clearOfTen);
  const clearChance = CLEAR_OF_TEN.find((n) => n === clearOfTen) ?? null;
  return {
    name,
    latitudeDeg,
    longitudeDeg,
    elevationM,
    timeZone,
    skyMagPerArcsec2,
    isSkyByLook,
    clearChance: clearChance === null ? null : clearChance / 10,
  };
}

/** The second answer with one's own values; null while one of them is wrong. */
export function startKitOf(typed: TypedStart): StartKit | null {
  const kit = kindsOf(KIT_PRESETS, typed);
  if (!kit || Object.keys(ownFaults(KIT_PRESETS, typed)).length > 0) return null;
  return { ...kit, own: ownValues(KIT_PRESETS, typed), cameraName: typed.cameraName };
}
