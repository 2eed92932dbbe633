import type { NumberField, TextField } from "./number-field";
/** Numbers of the optics. */
export const OPTICS_FIELDS = {
  focalLengthMm: { label: "Focal length", unit: "mm", min: 0, max: 20_000, isAboveMin: true },
  reducerFactor: { label: "Reducer or Barlow", unit: "×", min: 0.2, max: 5, hint: "1 = none" },
  apertureMm: { label: "Aperture", unit: "mm", min: 0, max: 2000, isAboveMin: true },
  obstruction: { label: "Obstruction", unit: "of the diameter", min: 0, max: 0.7, hint: "0 for a refractor" },
  throughput: { label: "Throughput of the optics", unit: "share", min: 0.1, max: 1 },
  reflections: { label: "Mirrors in the light path", min: 0, max: 6, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

export const SLOT_FIELD = {
  slotMm: {
    label: "Thickest filter it takes",
    unit: "mm",
    min: 0,
    max: 30,
    hint: "Wheel or drawer; 0 = not known",
  },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of the sensor's geometry. */
export const SENSOR_FIELDS = {
  widthPx: { label: "Width", unit: "px", min: 16, max: 40_000, isWhole: true },
  heightPx: { label: "Height", unit: "px", min: 16, max: 40_000, isWhole: true },
  pixelPitchUm: { label: "Pixel size", unit: "µm", min: 0, max: 30, isAboveMin: true },
  binning: { label: "Binning", min: 1, max: 8, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of the camera at its usual gain. */
export const CAMERA_FIELDS = {
  quantumEfficiency: { label: "Quantum efficiency", unit: "share", min: 0.05, max: 1 },
  readNoiseE: { label: "Read noise", unit: "e⁻", min: 0, max: 50, isAboveMin: true },
  gainEPerAdu: { label: "Gain", unit: "e⁻/ADU", min: 0, max: 100, isAboveMin: true },
  bits: { label: "Converter", unit: "bit", min: 8, max: 32, isWhole: true },
  offsetAdu: { label: "Offset", unit: "ADU", min: 0, max: 60_000 },
  fullWellE: { label: "Full well", unit: "e⁻", min: 0, max: 5_000_000, isAboveMin: true },
  darkEPerSec: { label: "Dark current", unit: "e⁻/px/s", min: 0, max: 100 },
  workingTempC: {
    label: "Sensor temperature",
    unit: "°C",
    min: -60,
    max: 50,
    hint: "What it is cooled to, or at what the dark current was measured.",
  },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of the time that is not exposure. */
export const OVERHEAD_FIELDS = {
  downloadSec: { label: "Download", unit: "s", min: 0, max: 600 },
  ditherSec: { label: "Dither and settle", unit: "s", min: 0, max: 600 },
  ditherEvery: { label: "Dither every", unit: "subs", min: 1, max: 100, isWhole: true },
  focusMin: { label: "Autofocus", unit: "min", min: 0, max: 60 },
  focusEveryMin: { label: "Focus every", unit: "min", min: 10, max: 1440 },
  filterChangeSec: { label: "Filter change", unit: "s", min: 0, max: 600 },
  panelChangeSec: { label: "Panel change and centring", unit: "s", min: 0, max: 1800 },
  flipMin: { label: "Meridian flip", unit: "min", min: 0, max: 60 },
  setUpMin: { label: "Set-up", unit: "min", min: 0, max: 240 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of how the focus holds. */
export const FOCUS_FIELDS = {
  refocusC: {
    label: "Focus lost by a change of air",
    unit: "°C",
    min: 0,
    max: 30,
    isAboveMin: true,
    isDifference: true,
    hint: "Fast optics 1, a slow refractor 3.",
  },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of what the mount bears. */
export const MOUNT_FIELDS = {
  longestUnguidedSec: { label: "Longest sub without guiding", unit: "s", min: 0, max: 3600, isAboveMin: true },
  gustLimitKmh: {
    label: "Gust limit",
    unit: "km/h",
    min: 0,
    max: 200,
    isAboveMin: true,
    hint: "Small tracker 15–20, short refractor 25–30, large Newtonian 20.",
  },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of what a rig draws, and of its battery. */
export const POWER_FIELDS = {
  mountW: { label: "Drawn by the mount", unit: "W", min: 0, max: 500, hint: "Tracking: 5 to 15." },
  cameraW: { label: "Drawn by the camera", unit: "W", min: 0, max: 500, hint: "Without its cooler: 3 to 8." },
  coolerW: { label: "Drawn by the cooler, at most", unit: "W", min: 0, max: 500, hint: "20 to 36; 0 without." },
  dewW: { label: "Drawn by dew heaters", unit: "W", min: 0, max: 500, hint: "All together: 5 to 20." },
  computerW: {
    label: "Drawn by the computer",
    unit: "W",
    min: 0,
    max: 500,
    hint: "Small one 5 to 15, laptop 20 to 40.",
  },
  batteryWh: { label: "Battery", unit: "Wh", min: 0, max: 20_000, isAboveMin: true, hint: "Volts × ampere-hours." },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Name of one of a camera's settings. */
export const SETTING_NAME: TextField = { label: "Setting", max: 40, isRequired: true };

/** Numbers of one of a camera's settings. */
export const SETTING_FIELDS = {
  gainEPerAdu: CAMERA_FIELDS.gainEPerAdu,
  readNoiseE: CAMERA_FIELDS.readNoiseE,
  fullWellE: CAMERA_FIELDS.fullWellE,
} as const satisfies Readonly<Record<string, NumberField>>;

export const MOST_SETTINGS = 12;

/** Words of a check of one's own. */
export const CHECK_WORDS: TextField = { label: "Check", max: 160, isRequired: true };
/** Of one's own, and of those left out. */
export const MOST_CHECKS = 100;

/** Limits of an owner for subs; empty = none. */
export const LIMIT_FIELDS = {
  fwhmPx: { label: "Stars wider than", unit: "px", min: 0, max: 200, isAboveMin: true },
  eccentricity: { label: "Eccentricity over", min: 0, max: 1 },
  stars: { label: "Fewer stars than", min: 0, max: 10_000_000, isWhole: true },
  background: { label: "Sky over", unit: "counts", min: 0, max: 1e9 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Where there is no cooler. */
export const WARM_FIELD = {
  aboveAirC: {
    label: "Sensor above the air",
    unit: "°C",
    min: 0,
    max: 30,
    isDifference: true,
    hint: "Without a cooler: usually 5 to 15.",
  },
} as const satisfies Readonly<Record<string, NumberField>>;
