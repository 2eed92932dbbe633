import type { NumberField } from "./number-field";
/** Numbers of a log entry. */
export const CONTRIBUTION_FIELDS = {
  exposureSec: { label: "Sub", unit: "s", min: 0, max: 36_000, isAboveMin: true },
  taken: { label: "Taken", unit: "subs", min: 0, max: 100_000, isWhole: true },
  kept: { label: "Kept", unit: "subs", min: 0, max: 100_000, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of a camera, as headers tell them. */
export const CAMERA_FIELDS = {
  gain: { label: "Gain", min: -100, max: 100_000 },
  offset: { label: "Offset", min: -100_000, max: 100_000 },
  binning: { label: "Binning", min: 1, max: 16, isWhole: true },
  temperatureC: { label: "Sensor temperature", unit: "°C", min: -100, max: 80 },
  airC: { label: "Air", unit: "°C", min: -60, max: 60 },
  focusSteps: { label: "Focuser", unit: "steps", min: -10_000_000, max: 10_000_000, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of a sub's stars and sky. */
export const MEASURE_FIELDS = {
  fwhmPx: { label: "FWHM", unit: "px", min: 0, max: 200, isAboveMin: true },
  eccentricity: { label: "Eccentricity", min: 0, max: 1 },
  stars: { label: "Stars", min: 0, max: 10_000_000, isWhole: true },
  background: { label: "Background", min: -1e9, max: 1e9 },
  light: { label: "Light of its stars", min: 0, max: 1e12 },
  shared: { label: "Eccentricity shared", min: 0, max: 1 },
} as const satisfies Readonly<Record<string, NumberField>>;
