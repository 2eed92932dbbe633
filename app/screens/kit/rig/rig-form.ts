import {
  DEFAULT_OVERHEADS,
  USUAL_ABOVE_AIR_C,
  USUAL_REFOCUS_C,
  type CameraSetting,
  type Overheads,
  type Power,
  type Rig,
} from "~/core/exposure";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { err, ok, type Result } from "~/core/result";
import { apertureText, readTypedKit, type TypedKit } from "~/components/kit/typed-kit";
import { numberFault, numberIn, readNumbers, specsOf, textOf, type Faults } from "~/components/forms/form-numbers";
import {
  CAMERA_FIELDS,
  FOCUS_FIELDS,
  MOUNT_FIELDS,
  NAME,
  OPTICS_FIELDS,
  OVERHEAD_FIELDS,
  POWER_FIELDS,
  SENSOR_FIELDS,
  SETTING_FIELDS,
  SETTING_NAME,
  SLOT_FIELD,
  WARM_FIELD,
} from "~/core/records";

/** What a person knows of a rig by heart: it gives the field and the scale. */
export const FIRST_NUMBERS = specsOf({
  focalLengthMm: OPTICS_FIELDS.focalLengthMm,
  apertureMm: OPTICS_FIELDS.apertureMm,
  reducerFactor: OPTICS_FIELDS.reducerFactor,
  ...SENSOR_FIELDS,
});
/** How much of the light comes through, and what fits into the light path. */
export const GLASS_NUMBERS = specsOf({
  obstruction: OPTICS_FIELDS.obstruction,
  throughput: OPTICS_FIELDS.throughput,
  reflections: OPTICS_FIELDS.reflections,
  ...SLOT_FIELD,
});
/** Number boxes of the optics, and of the sensor's geometry. */
export const OPTICS_NUMBERS = [...specsOf(OPTICS_FIELDS), ...specsOf(SLOT_FIELD)] as const;
export const SENSOR_NUMBERS = specsOf(SENSOR_FIELDS);
/** Number boxes of the camera at its usual gain. */
export const CAMERA_NUMBERS = [...specsOf(CAMERA_FIELDS), ...specsOf(WARM_FIELD)] as const;
const SETTING_LEAD = "setting ";
/** Number boxes of one of a camera's settings. */
export const SETTING_NUMBERS = specsOf(SETTING_FIELDS);
/** What the boxes of a setting are called in the form: one a setting, in order. */
export const settingBox = (name: keyof CameraSetting): string => `${SETTING_LEAD}${name}`;
/** Whether a box is one of a setting. */
export const isSettingBox = (name: string): boolean => name.startsWith(SETTING_LEAD);
/** Number boxes of the time that is not exposure. */
export const OVERHEAD_NUMBERS = [...specsOf(OVERHEAD_FIELDS), ...specsOf(FOCUS_FIELDS)] as const;
/** Number boxes of what the mount bears. */
export const MOUNT_NUMBERS = specsOf(MOUNT_FIELDS);

/** Number boxes of what a rig draws, and of its battery; all empty = it runs on the mains, or nobody knows. */
export const POWER_NUMBERS = specsOf(POWER_FIELDS);

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
  aboveAirC: USUAL_ABOVE_AIR_C,
  slotMm: 0,
  longestUnguidedSec: 60,
  gustLimitKmh: USUAL_GUST_LIMIT_KMH,
  refocusC: USUAL_REFOCUS_C,
  ...DEFAULT_OVERHEADS,
} as const;

/** All number boxes of a rig as texts, for the form to begin with. */
export function rigTexts(rig: Rig | null): Readonly<Record<string, string>> {
  const flat: Record<string, unknown> = rig
    ? {
        gustLimitKmh: USUAL_GUST_LIMIT_KMH,
        refocusC: USUAL_REFOCUS_C,
        slotMm: 0,
        aboveAirC: USUAL_ABOVE_AIR_C,
        ...rig,
        ...rig.sensor,
        ...rig.overheads,
        ...rig.power,
      }
    : { ...NEW_RIG };
  return Object.fromEntries(Object.entries(flat).map(([k, v]) => [k, typeof v === "number" ? String(v) : ""]));
}

/** The texts of all boxes of one name, in order. */
const textsOf = (form: FormData, name: string): string[] =>
  form.getAll(name).flatMap((v) => (typeof v === "string" ? [v] : []));

/** Reads the settings of a camera, or says beside each box what is wrong. */
function readSettings(form: FormData): { readonly settings: readonly CameraSetting[]; readonly faults: Faults } {
  const faults: Record<string, string> = {};
  const names = textsOf(form, settingBox("name")).map((n) => n.trim());
  const settings = names.map((name, i): CameraSetting => {
    const box = (key: keyof CameraSetting) => `${settingBox(key)} ${i}`;
    if (name === "" || name.length > SETTING_NAME.max)
      faults[box("name")] = `Give it a name, ${SETTING_NAME.max} letters at most.`;
    else if (names.indexOf(name) !== i) faults[box("name")] = "Another setting has this name.";
    const numbers = { gainEPerAdu: 0, readNoiseE: 0, fullWellE: 0 };
    for (const spec of SETTING_NUMBERS) {
      const text = textsOf(form, settingBox(spec.name))[i] ?? "";
      const fault = numberFault(spec, text);
      if (fault) faults[box(spec.name)] = fault;
      else numbers[spec.name] = numberIn(spec, text)!;
    }
    return { name, ...numbers };
  });
  return { settings, faults };
}

/** Reads what a rig draws: none where every box is empty, else all of them. */
function readPower(form: FormData): { readonly power: Power | null; readonly faults: Faults } {
  if (POWER_NUMBERS.every((n) => textOf(form, n.name).trim() === "")) return { power: null, faults: {} };
  const { values, faults } = readNumbers(form, POWER_NUMBERS);
  return { power: { ...values, chemistry: textOf(form, "chemistry") === "lead" ? "lead" : "lithium" }, faults };
}

/** What the kinds are called in the form of a new rig. */
export const KINDS_BOX = "kinds";

/** The kinds that the form of a new rig was filled by; null where none were chosen. */
export function readKinds(text: string): TypedKit | null {
  try {
    return readTypedKit(JSON.parse(text || "null"));
  } catch {
    return null;
  }
}

/** Reads the form of a rig, or says beside each box what is wrong. */
export function readRig(form: FormData): Result<Rig, Faults> {
  form.set("apertureMm", apertureText(textOf(form, "apertureMm"), textOf(form, "focalLengthMm")));
  const optics = readNumbers(form, OPTICS_NUMBERS);
  const sensor = readNumbers(form, SENSOR_NUMBERS);
  const camera = readNumbers(form, CAMERA_NUMBERS);
  const time = readNumbers(form, [...OVERHEAD_NUMBERS, ...MOUNT_NUMBERS]);
  const name = textOf(form, "name").trim();
  const { settings, faults: settingFaults } = readSettings(form);
  const filterIds = form.getAll("filterIds").map(String);
  const { power, faults: powerFaults } = readPower(form);
  const faults: Faults = {
    ...optics.faults,
    ...sensor.faults,
    ...camera.faults,
    ...time.faults,
    ...settingFaults,
    ...powerFaults,
    ...(name === "" || name.length > NAME.max ? { name: `Give the rig a name, ${NAME.max} letters at most.` } : {}),
    ...(filterIds.length === 0
      ? { filterIds: "Choose at least one filter; a colour camera alone counts as “no filter”." }
      : {}),
  };
  if (Object.keys(faults).length > 0) return err(faults);
  const { longestUnguidedSec, gustLimitKmh, refocusC, ...rest } = time.values;
  const overheads: Overheads = rest;
  const rotator = textOf(form, "rotator");
  return ok({
    name,
    ...optics.values,
    sensor: sensor.values,
    ...camera.values,
    ...(settings.length > 0 ? { settings } : {}),
    longestUnguidedSec,
    gustLimitKmh,
    refocusC,
    overheads,
    filterIds,
    isColour: form.get("isColour") === "on",
    isCooled: form.get("isCooled") === "on",
    isGuided: form.get("isGuided") === "on",
    flipsAtMeridian: form.get("flipsAtMeridian") === "on",
    rotator: rotator === "none" || rotator === "motor" ? rotator : "manual",
    cameraName: textOf(form, "cameraName").trim(),
    ...(form.get("isStock") === "on" ? { isStock: true } : {}),
    ...(form.get("isAltAz") === "on" ? { isAltAz: true } : {}),
    ...(power ? { power } : {}),
    ...(form.get("isOwn") === "on" ? { typical: [] } : {}),
  });
}
