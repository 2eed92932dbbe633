import { opticsOf } from "~/core/framing";
import type { Channel } from "./channel";
import { unguidedSubSec } from "./mount";
import { DEFAULT_OVERHEADS, type Rig } from "./rig";

/** A kind of camera: typical values of its class, from memory. */
export interface TypicalCamera {
  readonly id: string;
  readonly words: string;
  readonly cooled: boolean;
  /** Made for colour only; absent = to be had in either kind. */
  readonly colour?: boolean;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly pixelUm: number;
  readonly bits: number;
  readonly qe: number;
  /** The usual one first. */
  readonly settings: readonly {
    readonly name: string;
    readonly gain: number;
    readonly readNoise: number;
    readonly fullWell: number;
  }[];
  readonly dark: { readonly rate: number; readonly atC: number };
}

/** A kind of telescope or lens. */
export interface TypicalOptics {
  readonly id: string;
  readonly words: string;
  readonly kind: string;
  readonly focalMm: number;
  readonly apertureMm: number;
  readonly obstruction: number;
  readonly throughput: number;
  readonly mirrors: number;
}

/** What optics are called that are in no list. */
const KIND_NAMES: Readonly<Record<string, string>> = {
  lens: "lens",
  refractor: "refractor",
  reflector: "reflector",
  catadioptric: "catadioptric telescope",
  "prime focus": "fast camera telescope",
};

/** Kinds of optics and what they are called. */
export const OPTICS_KINDS = Object.entries(KIND_NAMES);

/** How near to a class of the list optics are called by its name: a solved focal length differs by as much. */
const SAME_FOCAL = 0.01;
const SAME_APERTURE = 0.03;

/** "refractor 480 mm f/6": optics by their kind and numbers; those of a class of the list by its own name. */
export function opticsName(kind: TypicalOptics, focalMm = kind.focalMm, apertureMm = kind.apertureMm): string {
  const off = (a: number, b: number) => Math.abs(a / b - 1);
  if (off(focalMm, kind.focalMm) < SAME_FOCAL && off(apertureMm, kind.apertureMm) < SAME_APERTURE) return kind.words;
  const focal = focalMm.toFixed(focalMm < 100 ? 1 : 0).replace(/\.0$/, "");
  const ratio = Number((focalMm / apertureMm).toFixed(1));
  return `${KIND_NAMES[kind.kind] ?? kind.kind} ${focal} mm f/${ratio}`;
}

/** A kind of mount. */
export interface TypicalMount {
  readonly id: string;
  readonly words: string;
  readonly guided: boolean;
  readonly flips: boolean;
  readonly windLimitKmh: number;
  readonly periodicErrorArcsec?: number;
  readonly wormSec?: number;
  readonly polarErrorArcmin?: number;
  readonly guideRmsArcsec?: number;
  readonly fieldRotation?: boolean;
}

/** Filters as they are bought together. */
export interface TypicalFilters {
  readonly id: string;
  readonly words: string;
  readonly channels: readonly Channel[];
  readonly bandwidthNm?: number;
}

/** Kinds of kit and of sky to choose from. */
export interface KitPresets {
  readonly cameras: readonly TypicalCamera[];
  readonly optics: readonly TypicalOptics[];
  readonly mounts: readonly TypicalMount[];
  readonly filterSets: readonly TypicalFilters[];
  readonly skies: readonly { readonly words: string; readonly magPerArcsec2: number }[];
}

/** What a rig is put together from. */
export interface TypicalKit {
  readonly optics: TypicalOptics;
  readonly camera: TypicalCamera;
  readonly mount: TypicalMount;
  readonly isColour: boolean;
  /** A photo camera as it is sold; absent = it was modified for hydrogen, or is none. */
  readonly isStock?: boolean;
}

/** Worm and polar error of a mount that nothing else is known of; common practice, no source. */
const USUAL_WANDER = { periodicErrorArcsec: 30, wormSec: 480, polarErrorArcmin: 5 };
/** Bias level of a converter: so much of its range. From memory. */
const OFFSET_SHARE = 1 / 128;
/** No photo camera or tracker runs its focus by motor; from memory. */
const BY_HAND = { focusMin: 6, setUpMin: 20 };

/** All numbers of a rig that a choice of kinds fills in. */
export const TYPICAL_VALUES = [
  "focalLengthMm", "apertureMm", "obstruction", "throughput", "reflections", "widthPx", "heightPx", "pixelPitchUm", "quantumEfficiency", "readNoiseE", "gainEPerAdu",
  "bits", "offsetAdu", "fullWellE", "darkEPerSec", "workingTempC", "longestUnguidedSec", "gustLimitKmh",
] as const; // prettier-ignore

/** A rig of typical values, every one of them marked as such until its owner replaces it. */
export function typicalRig(name: string, kit: TypicalKit, filterIds: readonly string[]): Rig {
  const { optics, camera, mount } = kit;
  const [usual, ...others] = camera.settings.map(({ name: called, gain, readNoise, fullWell }) => ({
    name: called,
    gainEPerAdu: gain,
    readNoiseE: readNoise,
    fullWellE: fullWell,
  }));
  const { name: _, ...numbers } = usual!;
  const sensor = { widthPx: camera.widthPx, heightPx: camera.heightPx, pixelPitchUm: camera.pixelUm, binning: 1 };
  const glass = {
    focalLengthMm: optics.focalMm,
    reducerFactor: 1,
    apertureMm: optics.apertureMm,
    obstruction: optics.obstruction,
  };
  const { pixelScaleArcsecPerPx } = opticsOf({ ...glass, sensor });
  const { periodicErrorArcsec, wormSec, polarErrorArcmin } = { ...USUAL_WANDER, ...mount };
  return {
    name,
    ...glass,
    throughput: optics.throughput,
    reflections: optics.mirrors,
    sensor,
    isColour: camera.colour ?? kit.isColour,
    ...(kit.isStock && !camera.cooled ? { isStock: true } : {}),
    cameraName: "",
    quantumEfficiency: camera.qe,
    ...numbers,
    bits: camera.bits,
    offsetAdu: Math.round(2 ** camera.bits * OFFSET_SHARE),
    darkEPerSec: camera.dark.rate,
    workingTempC: camera.dark.atC,
    isCooled: camera.cooled,
    isGuided: mount.guided,
    longestUnguidedSec: unguidedSubSec({ periodicErrorArcsec, wormSec, polarErrorArcmin }, pixelScaleArcsecPerPx),
    gustLimitKmh: mount.windLimitKmh,
    rotator: mount.fieldRotation ? "none" : "manual",
    flipsAtMeridian: mount.flips,
    filterIds,
    overheads: { ...DEFAULT_OVERHEADS, ...(camera.cooled ? {} : BY_HAND) },
    ...(others.length > 0 ? { settings: others } : {}),
    ...(mount.fieldRotation ? { isAltAz: true } : {}),
    typical: TYPICAL_VALUES,
  };
}

/** What has values of which some are marked as typical. */
interface Marked {
  readonly typical?: readonly string[];
}

/** The values of a place or a rig by name, those of a sensor among them. */
const valuesOf = (thing: object): Readonly<Record<string, unknown>> => ({
  ...thing,
  ...(thing as { readonly sensor?: object }).sensor,
});

/** Which values of a changed place or rig are still the typical ones: those nobody has replaced. */
export function stillTypical(before: Marked, after: object): readonly string[] {
  const [was, is] = [valuesOf(before), valuesOf(after)];
  return (before.typical ?? []).filter((name) => JSON.stringify(was[name]) === JSON.stringify(is[name]));
}
