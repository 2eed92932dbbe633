import { numberFault, numberIn, specsOf, type NumberSpec } from "~/components/forms/form-numbers";
import { typicalRig, type Rig, type TypicalFilters, type TypicalKit } from "~/core/exposure";
import { parseNumber } from "~/core/notation";
import { CAMERA_FIELDS, MOUNT_FIELDS, OPTICS_FIELDS, PLACE_FIELDS, SENSOR_FIELDS } from "~/core/records";
import { filtersOf, KIT_PRESETS, type StartKit, type StartPlace } from "~/desk/kit/start";

/** What is typed and chosen on the start, as texts. */
export interface TypedStart {
  readonly name: string;
  readonly latitudeDeg: string;
  readonly longitudeDeg: string;
  readonly elevationM: string;
  readonly timeZone: string;
  readonly optics: string;
  readonly camera: string;
  readonly isColour: boolean;
  /** Of a photo camera: as it is sold, not modified for hydrogen. */
  readonly isStock: boolean;
  readonly mount: string;
  readonly filters: string;
  /** Magnitude of the sky; "" = not chosen. */
  readonly sky: string;
  readonly isSkyByLook: boolean;
  /** Of ten nights there, how many are clear; "" = not known. */
  readonly clearOfTen: string;
  /** Values of one's own in the place of typical ones. */
  readonly own: Readonly<Record<string, string>>;
  readonly cameraName: string;
}

/** The name under which what is typed here is kept until it is saved. */
export const START_DRAFT = "start";

export const EMPTY_START: TypedStart = {
  name: "", latitudeDeg: "", longitudeDeg: "", elevationM: "", timeZone: "", optics: "", camera: "", isColour: true, isStock: true, mount: "", filters: "", sky: "", isSkyByLook: false, clearOfTen: "", own: {}, cameraName: "",
}; // prettier-ignore

/** What was left on the start, where it reads. */
export function readTypedStart(raw: unknown): TypedStart | null {
  if (typeof raw !== "object" || raw === null) return null;
  const given = raw as Readonly<Record<string, unknown>>;
  const { isStock, clearOfTen } = EMPTY_START; // they were not asked before
  const whole = { isStock, clearOfTen, ...given } as TypedStart;
  const texts = Object.entries(EMPTY_START).every(
    ([name, empty]) => typeof whole[name as keyof TypedStart] === typeof empty,
  );
  return texts && whole.own !== null ? whole : null;
}

/** Values that can be replaced, under what they change. */
export const OWN_GROUPS = [
  {
    title: "How much sky the frame holds",
    numbers: specsOf({
      focalLengthMm: OPTICS_FIELDS.focalLengthMm,
      widthPx: SENSOR_FIELDS.widthPx,
      heightPx: SENSOR_FIELDS.heightPx,
      pixelPitchUm: SENSOR_FIELDS.pixelPitchUm,
    }),
  },
  {
    title: "How long a sub and how many hours",
    numbers: specsOf({
      apertureMm: OPTICS_FIELDS.apertureMm,
      readNoiseE: CAMERA_FIELDS.readNoiseE,
      gainEPerAdu: CAMERA_FIELDS.gainEPerAdu,
      fullWellE: CAMERA_FIELDS.fullWellE,
      quantumEfficiency: CAMERA_FIELDS.quantumEfficiency,
      longestUnguidedSec: MOUNT_FIELDS.longestUnguidedSec,
    }),
  },
] as const;
const OWN_NUMBERS: readonly NumberSpec[] = OWN_GROUPS.flatMap((g): readonly NumberSpec[] => g.numbers);

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
  const texts: Readonly<Record<string, string>> = { ...typed.own, ...whereTexts(typed), sky: typed.sky };
  const faults: Record<string, string> = {};
  for (const spec of [...WHERE_NUMBERS, SKY_NUMBER, ...OWN_NUMBERS]) {
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

/** Filters that go with a camera until somebody chooses others. */
export const usualFiltersOf = (isColour: boolean): string => (isColour ? "colour-plain" : "lrgb-sho-7");
/** The mount that goes with optics until somebody chooses another. */
export const usualMountOf = (kind: string): string => (kind === "lens" ? "tracker" : "eq");
/** Sets of filters that a kind of camera can use. */
export const filterSetsFor = (isColour: boolean): readonly TypicalFilters[] =>
  KIT_PRESETS.filterSets.filter((set) => set.channels.includes("Colour") === isColour);

/** The second answer as kinds; null until optics and camera are chosen. */
export function typicalKitOf(typed: TypedStart): (TypicalKit & { readonly filters: TypicalFilters }) | null {
  const optics = KIT_PRESETS.optics.find((o) => o.id === typed.optics);
  const camera = KIT_PRESETS.cameras.find((c) => c.id === typed.camera);
  if (!optics || !camera) return null;
  const isColour = camera.colour ?? typed.isColour;
  const mount = KIT_PRESETS.mounts.find((m) => m.id === (typed.mount || usualMountOf(optics.kind)))!;
  const sets = filterSetsFor(isColour);
  const filters = sets.find((f) => f.id === (typed.filters || usualFiltersOf(isColour))) ?? sets[0]!;
  return { optics, camera, mount, isColour, filters, ...(typed.isStock && !camera.cooled ? { isStock: true } : {}) };
}

/** The second answer with one's own values; null while one of them is wrong. */
export function startKitOf(typed: TypedStart): StartKit | null {
  const kit = typicalKitOf(typed);
  if (!kit) return null;
  const own: Record<string, number> = {};
  for (const spec of OWN_NUMBERS) {
    const text = typed.own[spec.name] ?? "";
    if (text.trim() === "") continue;
    if (numberFault(spec, text)) return null;
    own[spec.name] = numberIn(spec, text)!;
  }
  return { ...kit, own, cameraName: typed.cameraName };
}

/** The typical values of the chosen kinds, by name. */
export function typicalTexts(typed: TypedStart): Readonly<Record<string, string>> {
  const kit = typicalKitOf(typed);
  if (!kit) return {};
  const rig: Rig = typicalRig(
    "",
    kit,
    filtersOf(kit.filters).map((f) => f.id),
  );
  const flat: Readonly<Record<string, unknown>> = { ...rig, ...rig.sensor };
  return Object.fromEntries(OWN_NUMBERS.map((n) => [n.name, String(flat[n.name])]));
}
