import { DEFAULT_OVERHEADS, type Overheads, type Rig } from "~/core/exposure";
import { USUAL_GUST_LIMIT_KMH } from "~/core/weather";
import { err, ok, type Result } from "~/core/result";
import { readNumbers, textOf, type Faults, type NumberSpec } from "~/components/forms/form-numbers";

/** Number boxes of the optics. */
export const OPTICS_NUMBERS = [
  { name: "focalLengthMm", label: "Focal length", unit: "mm", min: 0, max: 20_000, isAboveMin: true },
  { name: "reducerFactor", label: "Reducer or Barlow", unit: "×", min: 0.2, max: 5, hint: "1 = none" },
  { name: "apertureMm", label: "Aperture", unit: "mm", min: 0, max: 2000, isAboveMin: true },
  { name: "obstruction", label: "Obstruction", unit: "of the diameter", min: 0, max: 0.7, hint: "0 for a refractor" },
  { name: "throughput", label: "Throughput of the optics", unit: "share", min: 0.1, max: 1 },
  { name: "reflections", label: "Mirrors in the light path", min: 0, max: 6, isWhole: true },
  {
    name: "slotMm",
    label: "Thickest filter it takes",
    unit: "mm",
    min: 0,
    max: 30,
    hint: "Wheel or drawer; 0 = not known",
  },
] as const satisfies readonly NumberSpec[];

/** Number boxes of the sensor's geometry. */
export const SENSOR_NUMBERS = [
  { name: "widthPx", label: "Width", unit: "px", min: 16, max: 40_000, isWhole: true },
  { name: "heightPx", label: "Height", unit: "px", min: 16, max: 40_000, isWhole: true },
  { name: "pixelPitchUm", label: "Pixel size", unit: "µm", min: 0, max: 30, isAboveMin: true },
  { name: "binning", label: "Binning", min: 1, max: 8, isWhole: true },
] as const satisfies readonly NumberSpec[];

/** Number boxes of the camera at its usual gain. */
export const CAMERA_NUMBERS = [
  { name: "quantumEfficiency", label: "Quantum efficiency", unit: "share", min: 0.05, max: 1 },
  { name: "readNoiseE", label: "Read noise", unit: "e⁻", min: 0, max: 50, isAboveMin: true },
  { name: "gainEPerAdu", label: "Gain", unit: "e⁻/ADU", min: 0, max: 100, isAboveMin: true },
  { name: "bits", label: "Converter", unit: "bit", min: 8, max: 32, isWhole: true },
  { name: "offsetAdu", label: "Offset", unit: "ADU", min: 0, max: 60_000 },
  { name: "fullWellE", label: "Full well", unit: "e⁻", min: 0, max: 5_000_000, isAboveMin: true },
  { name: "darkEPerSec", label: "Dark current", unit: "e⁻/px/s", min: 0, max: 100 },
  { name: "workingTempC", label: "Sensor temperature", unit: "°C", min: -60, max: 50 },
] as const satisfies readonly NumberSpec[];

/** Number boxes of the time that is not exposure. */
export const OVERHEAD_NUMBERS = [
  { name: "downloadSec", label: "Download", unit: "s", min: 0, max: 600 },
  { name: "ditherSec", label: "Dither and settle", unit: "s", min: 0, max: 600 },
  { name: "ditherEvery", label: "Dither every", unit: "subs", min: 1, max: 100, isWhole: true },
  { name: "focusMin", label: "Autofocus", unit: "min", min: 0, max: 60 },
  { name: "focusEveryMin", label: "Focus every", unit: "min", min: 10, max: 1440 },
  { name: "filterChangeSec", label: "Filter change", unit: "s", min: 0, max: 600 },
  { name: "panelChangeSec", label: "Panel change and centring", unit: "s", min: 0, max: 1800 },
  { name: "flipMin", label: "Meridian flip", unit: "min", min: 0, max: 60 },
  { name: "setUpMin", label: "Set-up", unit: "min", min: 0, max: 240 },
  { name: "longestUnguidedSec", label: "Longest sub without guiding", unit: "s", min: 0, max: 3600, isAboveMin: true },
  {
    name: "gustLimitKmh",
    label: "Gusts it bears",
    unit: "km/h",
    min: 0,
    max: 200,
    isAboveMin: true,
    hint: "Small tracker 15–20, short refractor 25–30, large Newtonian 20.",
  },
] as const satisfies readonly NumberSpec[];

/** What a new rig starts from: a common camera behind nothing yet. */
export const NEW_RIG = {
  reducerFactor: 1, obstruction: 0, throughput: 0.9, reflections: 0, binning: 1, quantumEfficiency: 0.8, readNoiseE: 1.6, gainEPerAdu: 0.25, bits: 16, offsetAdu: 400, fullWellE: 50_000, darkEPerSec: 0.002,
  workingTempC: -10, slotMm: 0, longestUnguidedSec: 60, gustLimitKmh: USUAL_GUST_LIMIT_KMH, ...DEFAULT_OVERHEADS,
} as const; // prettier-ignore

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
    ...(name === "" ? { name: "Give the rig a name." } : {}),
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
