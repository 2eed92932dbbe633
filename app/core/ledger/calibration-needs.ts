import type { Channel } from "~/core/exposure";
import { groupBy } from "~/core/numeric";
import { DAY_MS } from "~/core/time";
import { turnTo } from "~/core/units";
import type { CalibrationData, ContributionData } from "./contribution";
import type { NightFacts } from "./night-facts";

/** How many calibration frames somebody takes of each kind, and which of the two that take the bias off flats. */
export interface CalibrationSchool {
  readonly darks: number;
  readonly flats: number;
  readonly biases: number;
  readonly flatsBy: "darkFlat" | "bias";
}

/** Common practice, no source. */
export const USUAL_CALIBRATION: CalibrationSchool = { darks: 30, flats: 25, biases: 50, flatsBy: "darkFlat" };

/** What lights of a night are like, as far as calibration asks. */
export interface LightPlan {
  readonly channel: Channel;
  readonly filterName: string;
  readonly subSec: number;
  /** In the camera's own counting; null = not known, and then any will do. */
  readonly gain: number | null;
  readonly offset: number | null;
  readonly binning: number | null;
  /** Camera angle that they are taken at, degrees; half a turn is the same. */
  readonly angleDeg: number | null;
}

/** The camera that the lights are taken with. */
export interface CalibratedCamera {
  readonly cameraName: string;
  readonly isCooled: boolean;
  /** Of the sensor in that night; null = not known. */
  readonly sensorC: number | null;
}

/** Something that changed in the optical train: flats from before it are of another picture. */
export interface TrainChange {
  readonly atMs: number;
  readonly why: "turned" | "filters" | "cleaned" | "angle";
}

/** How a camera is set, in its own counting; null = not known. */
export type CameraSet = Pick<LightPlan, "gain" | "offset" | "binning">;

/** One kind of calibration that a night's lights ask for, and what the shelf has of it. */
export interface CalibrationNeed {
  readonly kind: "dark" | "flat" | "darkFlat" | "bias";
  /** Of darks; of dark flats, the flat's. */
  readonly exposureSec: number | null;
  /** Of flats. */
  readonly filterName: string | null;
  /** Of flats: the camera angle they are wanted at; null = any, or not known. */
  readonly angleDeg: number | null;
  /** How the camera is to be set, as far as the lights' log tells; null = of flats, which take what is there. */
  readonly settings: CameraSet | null;
  /** Of darks: the sensor's temperature they are wanted at, °C; null = any, or not known. */
  readonly sensorC: number | null;
  /** Of the shelf's frames that only the camera's setting keeps from serving, the largest set; null = there are none. */
  readonly otherwise: { readonly settings: CameraSet; readonly count: number } | null;
  readonly want: number;
  /** Frames on the shelf that serve. */
  readonly have: number;
  /** Of those, when the latest was taken; null = none, or not known. */
  readonly latestMs: number | null;
  /** Frames that would serve but for the change, or their age. */
  readonly spent: number;
  readonly state: "serves" | "few" | "missing" | "void" | "old";
  /** What made them void. */
  readonly since: TrainChange | null;
}

const SAME_SEC = 0.02; // of the exposure
const COOLED_C = 0.5; // darks of a cooled camera; MATHS 9.1
const UNCOOLED_C = 4; // of one without a cooler
const OLD_MS = 365 * DAY_MS; // hot pixels move; MATHS 9.1: 6 to 12 months
const OLD_FLATS_MS = 60 * DAY_MS; // dust moves though nobody touched the train; from memory
const SAME_ANGLE_DEG = 1; // MATHS 5.5

const isSame = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_SEC * Math.max(a, b, 0.05);
const isSameText = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** The frames of a camera; a header without a name, or a rig without one, may be anybody's. */
const ofCamera = (f: CalibrationData, camera: CalibratedCamera): boolean =>
  f.camera === "" || camera.cameraName === "" || isSameText(f.camera, camera.cameraName);

/** Whether a camera was set alike, as far as both sides say. */
const isSetAlike = (f: CalibrationData, { gain, offset, binning }: CameraSet): boolean =>
  (gain === null || f.gain === null || f.gain === gain) &&
  (offset === null || f.offset === undefined || f.offset === offset) &&
  (binning === null || f.binning === undefined || f.binning === binning);

/** How a frame's camera was set. */
const setOf = ({ gain, offset, binning }: CalibrationData): CameraSet => ({
  gain,
  offset: offset ?? null,
  binning: binning ?? null,
});

/** The most frequent setting of some frames. */
function largestSet(frames: readonly CalibrationData[]): CalibrationNeed["otherwise"] {
  const sets = [...groupBy(frames, (f) => JSON.stringify(setOf(f))).values()].sort((a, b) => b.length - a.length);
  const [first] = sets;
  return first?.[0] ? { settings: setOf(first[0]), count: first.length } : null;
}

/**
 * Lights that ask for the same darks, once each: of one length, and set alike as far as is known. What one of them does not say is what
 * the others do.
 */
function alikeInDarks(lights: readonly LightPlan[]): LightPlan[] {
  const found: LightPlan[] = [];
  const fits = (a: number | null, b: number | null) => a === null || b === null || a === b;
  for (const l of lights) {
    const i = found.findIndex(
      (o) =>
        isSame(o.subSec, l.subSec) && fits(o.gain, l.gain) && fits(o.offset, l.offset) && fits(o.binning, l.binning),
    );
    const o = found[i];
    if (o) found[i] = { ...o, gain: o.gain ?? l.gain, offset: o.offset ?? l.offset, binning: o.binning ?? l.binning };
    else found.push(l);
  }
  return found;
}

const isAngle = (a: number | null, b: number | null): boolean =>
  a === null || b === null || Math.abs(turnTo(a, b)) <= SAME_ANGLE_DEG;

/** Whether a dark was taken at the night's sensor temperature, as near as matters. */
function isAtNightsTemperature(f: CalibrationData, { isCooled, sensorC }: CalibratedCamera): boolean {
  if (sensorC === null || f.temperatureC === null) return true;
  return Math.abs(f.temperatureC - sensorC) <= (isCooled ? COOLED_C : UNCOOLED_C);
}

/**
 * The latest change of a rig's optical train that its log and the facts of its nights tell of: a camera angle off the one before by
 * more than a degree, or what somebody wrote down. Null where nothing changed.
 */
export function lastTrainChange(
  lights: readonly Pick<ContributionData, "startMs" | "at">[],
  facts: readonly (Pick<NightFacts, "train"> & { readonly startMs: number })[],
): TrainChange | null {
  const angled = lights
    .flatMap(({ startMs, at }) =>
      startMs !== null && typeof at?.positionAngleDeg === "number" ? [{ startMs, angle: at.positionAngleDeg }] : [],
    )
    .sort((a, b) => a.startMs - b.startMs);
  let last: TrainChange | null = null;
  angled.forEach(({ startMs, angle }, i) => {
    const before = angled[i - 1];
    // Flats of the evening before the first light at the new angle are of it.
    if (before && Math.abs(turnTo(angle, before.angle)) > 1) last = { atMs: startMs - DAY_MS / 2, why: "angle" };
  });
  for (const { train, startMs } of facts)
    for (const why of train ?? []) if (!last || startMs > last.atMs) last = { atMs: startMs, why };
  return last;
}

/**
 * What the lights of a night need of calibration: darks of their length, gain and temperature; flats of their filters, taken since
 * the train was last changed; dark flats of the flats' length, or bias. MATHS 9.1. Each kind once, darks by length, flats by filter.
 */
export function calibrationNeeds(
  lights: readonly LightPlan[],
  frames: readonly CalibrationData[],
  at: {
    readonly camera: CalibratedCamera;
    readonly school: CalibrationSchool;
    readonly changed: TrainChange | null;
    readonly nowMs: number;
  },
): CalibrationNeed[] {
  const { camera, school, changed, nowMs } = at;
  const mine = frames.filter((f) => ofCamera(f, camera));
  const need = (
    of: Pick<CalibrationNeed, "kind" | "exposureSec" | "filterName"> & Partial<Pick<CalibrationNeed, "angleDeg">>,
    set: LightPlan | null,
    want: number,
    serve: (f: CalibrationData) => boolean,
  ): CalibrationNeed => {
    const ofKind = mine.filter((f) => f.type === of.kind && serve(f));
    const all = set ? ofKind.filter((f) => isSetAlike(f, set)) : ofKind;
    const isTurned = (f: CalibrationData) => !isAngle(f.positionAngleDeg ?? null, of.angleDeg ?? null);
    const isVoid = (f: CalibrationData) =>
      of.kind === "flat" && ((changed !== null && (f.startMs ?? 0) < changed.atMs) || isTurned(f));
    const isOld = (f: CalibrationData) =>
      f.startMs !== null && nowMs - f.startMs > (of.kind === "flat" ? OLD_FLATS_MS : OLD_MS);
    const [voided, old] = [all.filter(isVoid), all.filter((f) => !isVoid(f) && isOld(f))];
    const good = all.filter((f) => !isVoid(f) && !isOld(f));
    const times = good.flatMap((f) => f.startMs ?? []);
    const state =
      good.length >= want
        ? "serves"
        : good.length > 0
          ? "few"
          : voided.length > 0
            ? "void"
            : old.length > 0
              ? "old"
              : "missing";
    return {
      ...of,
      angleDeg: of.angleDeg ?? null,
      settings: set && { gain: set.gain, offset: set.offset, binning: set.binning },
      sensorC: of.kind === "dark" ? camera.sensorC : null,
      otherwise: largestSet(ofKind.filter((f) => !all.includes(f))),
      want,
      have: good.length,
      latestMs: times.length > 0 ? Math.max(...times) : null,
      spent: voided.length + old.length,
      state,
      since: state === "void" ? (voided.every(isTurned) ? null : changed) : null,
    };
  };
  const once = <T>(list: readonly T[], key: (t: T) => string): T[] => [
    ...new Map(list.map((t) => [key(t), t])).values(),
  ];
  const darks = alikeInDarks(lights).map((l) =>
    need(
      { kind: "dark", exposureSec: l.subSec, filterName: null },
      l,
      school.darks,
      (f) => isSame(f.exposureSec, l.subSec) && isAtNightsTemperature(f, camera),
    ),
  );
  // A filter at two camera angles wants two sets: vignetting and dust turn with the camera.
  const angled = lights.filter(
    (l, i) => lights.findIndex((o) => o.filterName === l.filterName && isAngle(o.angleDeg, l.angleDeg)) === i,
  );
  const isBinned = (f: CalibrationData, { binning }: LightPlan) =>
    binning === null || f.binning === undefined || f.binning === binning;
  const flats = angled.map((l) =>
    need(
      { kind: "flat", exposureSec: null, filterName: l.filterName, angleDeg: l.angleDeg },
      null,
      school.flats,
      (f) => (isSameText(f.filter, l.filterName) || isSameText(f.filter, l.channel)) && isBinned(f, l),
    ),
  );
  const [first] = alikeInDarks(lights);
  const flatLengths = once(
    mine.filter(
      (f) =>
        f.type === "flat" && lights.some((l) => isSameText(f.filter, l.filterName) || isSameText(f.filter, l.channel)),
    ),
    (f) => f.exposureSec.toPrecision(3),
  ).map((f) => f.exposureSec);
  const offsets = !first
    ? []
    : school.flatsBy === "bias"
      ? [need({ kind: "bias", exposureSec: null, filterName: null }, first, school.biases, () => true)]
      : flatLengths.length === 0
        ? [need({ kind: "darkFlat", exposureSec: null, filterName: null }, first, school.flats, () => false)]
        : flatLengths.map((sec) =>
            need({ kind: "darkFlat", exposureSec: sec, filterName: null }, first, school.flats, (f) =>
              isSame(f.exposureSec, sec),
            ),
          );
  return [...darks, ...flats, ...offsets];
}
