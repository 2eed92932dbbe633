import { DEFAULT_OVERHEADS, type Overheads, type Rig } from "~/core/exposure";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { err, ok, type Result } from "~/core/result";
import { readNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import {
  CAMERA_FIELDS,
  MOUNT_FIELDS,
  NAME,
  OPTICS_FIELDS,
  OVERHEAD_FIELDS,
  SENSOR_FIELDS,
  SLOT_FIELD,
} from "~/core/records";

/** Number boxes of the optics. */
export const OPTICS_NUMBERS = [...specsOf(OPTICS_FIELDS), ...specsOf(SLOT_FIELD)] as const;
/** Number boxes of the sensor's geometry. */
export const SENSOR_NUMBERS = specsOf(SENSOR_FIELDS);
/** Number boxes of the camera at its usual gain. */
export const CAMERA_NUMBERS = specsOf(CAMERA_FIELDS);
/** Number boxes of the time that is not exposure, and of what the mount bears. */
export const OVERHEAD_NUMBERS = [...specsOf(OVERHEAD_FIELDS), ...specsOf(MOUNT_FIELDS)] as const;

/** What a new rig starts from: a common camera behind nothing yet. */
export const NEW_RIG = {
  reducerFactor: 1,
  obstruction: 0,
  throughput: 0.9,
  reflections: 0,
  binning: 1,
  quantumEfficiency: 0.8,
  readNoiseE: 1.6,
  gainEPerAdu: 0.25,
  bits: 16,
  offsetAdu: 400,
  fullWellE: 50_000,
  darkEPerSec: 0.002,
  workingTempC: -10,
  slotMm: 0,
  longestUnguidedSec: 60,
  gustLimitKmh: USUAL_GUST_LIMIT_KMH,
  ...DEFAULT_OVERHEADS,
} as const;

/** All number boxes of a rig as texts, for the form to begin with. */
export function rigTexts(rig: Rig | null): Readonly<Record<string, string>> {
  const flat: Record<string, unknown> = rig
    ? { gustLimitKmh: USUAL_GUST_LIMIT_KMH, slotMm: 0, ...rig, ...rig.sensor, ...rig.overheads }
    : { ...NEW_RIG };
  return Object.fromEntries(Object.entries(flat).map(([k, v]) => [k, typeof v === "number" ? String(v) : ""]));
}

/** Reads the form of a rig, or says beside each box what is wrong. */
export function readRig(form: FormData): Result<Rig, Faults> {
  const optics = readNumbers(form, OPTICS_NUMBERS);
  const sensor = readNumbers(form, SENSOR_NUMBERS);
  const camera = readNumbers(form, CAMERA_NUMBERS);
  const time = readNumbers(form, OVERHEAD_NUMBERS);
  const name = textOf(form, "name").trim();
  const filterIds = form.getAll("filterIds").map(String);
  const faults: Faults = {
    ...optics.faults,
    ...sensor.faults,
    ...camera.faults,
    ...time.faults,
    ...(name === "" || name.length > NAME.max ? { name: `Give the rig a name, ${NAME.max} letters at most.` } : {}),
    ...(filterIds.length === 0
      ? { filterIds: "Choose at least one filter; a colour camera alone counts as “no filter”." }
      : {}),
  };
  if (Object.keys(faults).length > 0) return err(faults);
  const { longestUnguidedSec, gustLimitKmh, ...rest } = time.values;
  const overheads: Overheads = rest;
  const rotator = textOf(form, "rotator");
  return ok({
    name,
    ...optics.values,
    sensor: sensor.values,
    ...camera.values,
    longestUnguidedSec,
    gustLimitKmh,
    overheads,
    filterIds,
    isColour: form.get("isColour") === "on",
    isCooled: form.get("isCooled") === "on",
    isGuided: form.get("isGuided") === "on",
    flipsAtMeridian: form.get("flipsAtMeridian") === "on",
    rotator: rotator === "none" || rotator === "motor" ? rotator : "manual",
    cameraName: textOf(form, "cameraName").trim(),
  });
}
