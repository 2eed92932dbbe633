import { numberFault, numberIn, specsOf, type NumberSpec } from "~/components/forms/form-numbers";
import {
  typicalRig,
  type KitPresets,
  type Rig,
  type TypicalCamera,
  type TypicalFilters,
  type TypicalKit,
  type TypicalOptics,
} from "~/core/exposure";
import { parseFocalRatio } from "~/core/notation";
import { CAMERA_FIELDS, MOUNT_FIELDS, OPTICS_FIELDS, SENSOR_FIELDS } from "~/core/records";

/** Kit as kinds, with what is typed in the place of their typical values. */
export interface TypedKit {
  readonly optics: string;
  readonly camera: string;
  /** Of cameras that are to be had in either kind; "" = nobody said, and nothing is assumed. */
  readonly colour: "" | "colour" | "mono";
  /** Of a photo camera: as it is sold, not modified for hydrogen. */
  readonly isStock: boolean;
  /** "" = the usual one for the optics. */
  readonly mount: string;
  /** "" = the usual ones for the camera. */
  readonly filters: string;
  /** Values of one's own in the place of typical ones. */
  readonly own: Readonly<Record<string, string>>;
}

export const EMPTY_KIT: TypedKit = {
  optics: "",
  camera: "",
  colour: "",
  isStock: true,
  mount: "",
  filters: "",
  own: {},
};

/** Kit as it was left, where it reads. */
export function readTypedKit(raw: unknown): TypedKit | null {
  if (typeof raw !== "object" || raw === null) return null;
  const given = raw as Readonly<Record<string, unknown>>;
  const { optics, camera, colour, isStock, mount, filters, own } = { ...EMPTY_KIT, ...given };
  const isText = [optics, camera, mount, filters].every((t) => typeof t === "string");
  if (!isText || !["", "colour", "mono"].includes(colour) || typeof isStock !== "boolean") return null;
  if (typeof own !== "object" || own === null || !Object.values(own).every((t) => typeof t === "string")) return null;
  return { optics, camera, colour, isStock, mount, filters, own };
}

/** Numbers of optics that are in no list. */
export const OWN_OPTICS = specsOf({
  focalLengthMm: OPTICS_FIELDS.focalLengthMm,
  apertureMm: OPTICS_FIELDS.apertureMm,
});
/** Numbers of a sensor that is in no list. */
export const OWN_SENSOR = specsOf({
  widthPx: SENSOR_FIELDS.widthPx,
  heightPx: SENSOR_FIELDS.heightPx,
  pixelPitchUm: SENSOR_FIELDS.pixelPitchUm,
});

/** Values that can be replaced, under what they change. */
export const OWN_GROUPS: readonly { readonly title: string; readonly numbers: readonly NumberSpec[] }[] = [
  { title: "How much sky the frame holds", numbers: [OWN_OPTICS[0]!, ...OWN_SENSOR] },
  {
    title: "How long a sub and how many hours",
    numbers: [
      OWN_OPTICS[1]!,
      ...specsOf({
        readNoiseE: CAMERA_FIELDS.readNoiseE,
        gainEPerAdu: CAMERA_FIELDS.gainEPerAdu,
        fullWellE: CAMERA_FIELDS.fullWellE,
        quantumEfficiency: CAMERA_FIELDS.quantumEfficiency,
        longestUnguidedSec: MOUNT_FIELDS.longestUnguidedSec,
      }),
    ],
  },
];
const OWN_NUMBERS = OWN_GROUPS.flatMap((g) => g.numbers);

/** An aperture told as a focal ratio, "f/2.8", in mm; the text itself where it is none. */
export function apertureText(aperture: string, focalLength: string): string {
  const mm = parseFocalRatio(aperture, numberIn(OPTICS_FIELDS.focalLengthMm, focalLength));
  return mm === null ? aperture : String(mm);
}

/** What stands in a box of one's own values, an aperture in mm; "" = nothing. */
function ownText(presets: KitPresets, typed: TypedKit, name: string): string {
  const text = typed.own[name] ?? "";
  if (name !== "apertureMm") return text;
  const focal = presets.optics.find((o) => o.id === typed.optics)?.focalMm;
  return apertureText(text, typed.own["focalLengthMm"]?.trim() || String(focal ?? ""));
}

/** What is wrong with one's own values, by the name of the box; an empty box is not. */
export function ownFaults(presets: KitPresets, typed: TypedKit): Readonly<Record<string, string>> {
  const faults: Record<string, string> = {};
  for (const spec of OWN_NUMBERS) {
    const text = ownText(presets, typed, spec.name);
    const fault = text.trim() === "" ? undefined : numberFault(spec, text);
    if (fault) faults[spec.name] = fault;
  }
  return faults;
}

/** One's own values that are right. */
export function ownValues(presets: KitPresets, typed: TypedKit): Readonly<Record<string, number>> {
  const values: Record<string, number> = {};
  for (const spec of OWN_NUMBERS) {
    const text = ownText(presets, typed, spec.name);
    if (text.trim() !== "" && !numberFault(spec, text)) values[spec.name] = numberIn(spec, text)!;
  }
  return values;
}

/** Filters that go with a camera until somebody chooses others. */
export const usualFiltersOf = (isColour: boolean): string => (isColour ? "colour-plain" : "lrgb-sho-7");
/** The mount that goes with optics until somebody chooses another. */
export const usualMountOf = (kind: string): string => (kind === "lens" ? "tracker" : "eq");
/** Sets of filters that a kind of camera can use. */
export const filterSetsFor = (presets: KitPresets, isColour: boolean): readonly TypicalFilters[] =>
  presets.filterSets.filter((set) => set.channels.includes("Colour") === isColour);

/** Kit as kinds, its filters among them. */
export type KitOfKinds = TypicalKit & { readonly filters: TypicalFilters };

/** Whether a camera records colour; null where it is to be had in either kind and nobody said. */
export const isColourOf = (camera: TypicalCamera, { colour }: Pick<TypedKit, "colour">): boolean | null =>
  camera.colour ?? (colour === "" ? null : colour === "colour");

/** The kit as kinds; null until optics and camera are chosen, and whether it records colour. */
export function kindsOf(presets: KitPresets, typed: TypedKit): KitOfKinds | null {
  const optics = presets.optics.find((o) => o.id === typed.optics);
  const camera = presets.cameras.find((c) => c.id === typed.camera);
  const isColour = camera ? isColourOf(camera, typed) : null;
  if (!optics || !camera || isColour === null) return null;
  const mount = presets.mounts.find((m) => m.id === (typed.mount || usualMountOf(optics.kind)))!;
  const sets = filterSetsFor(presets, isColour);
  const filters = sets.find((f) => f.id === (typed.filters || usualFiltersOf(isColour))) ?? sets[0]!;
  return { optics, camera, mount, isColour, filters, ...(typed.isStock && !camera.cooled ? { isStock: true } : {}) };
}

/** The typical values of the chosen kinds, by name. */
export function typicalTexts(presets: KitPresets, typed: TypedKit): Readonly<Record<string, string>> {
  const kit = kindsOf(presets, typed);
  if (!kit) return {};
  const rig: Rig = typicalRig("", kit, []);
  const flat: Readonly<Record<string, unknown>> = { ...rig, ...rig.sensor };
  return Object.fromEntries(OWN_NUMBERS.map((n) => [n.name, String(flat[n.name])]));
}

const off = (a: number, b: number) => Math.abs(Math.log(a / b));

/** The optics of the list nearest to those of a kind and focal length: their light and mirrors are taken for those. */
export function nearestOptics(presets: KitPresets, kind: string, focalMm: number | null): TypicalOptics {
  const alike = presets.optics.filter((o) => o.kind === kind);
  const [first] = alike.length > 0 ? alike : presets.optics;
  if (focalMm === null || focalMm <= 0) return first!;
  return alike.reduce((a, b) => (off(b.focalMm, focalMm) < off(a.focalMm, focalMm) ? b : a), first!);
}

/** The camera of the list nearest to one of a pixel size, cooled or not: its noise and well are taken for those. */
export function nearestCamera(presets: KitPresets, isCooled: boolean, pitchUm: number | null): TypicalCamera {
  const alike = presets.cameras.filter((c) => c.cooled === isCooled);
  if (pitchUm === null || pitchUm <= 0) return alike[0]!;
  return alike.reduce((a, b) => (off(b.pixelUm, pitchUm) < off(a.pixelUm, pitchUm) ? b : a));
}
