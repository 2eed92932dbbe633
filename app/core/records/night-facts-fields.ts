import type { NumberField } from "./number-field";
/** Numbers of a night's facts, in the order of a form. */
export const NIGHT_FIELDS = {
  seeingArcsec: { label: "Seeing, FWHM", unit: "″", min: 0.3, max: 20 },
  transparency: { label: "Transparency", unit: "1 to 5", min: 1, max: 5, isWhole: true },
  polarAzimuthArcmin: { label: "Polar error, azimuth", unit: "′", min: -600, max: 600 },
  polarAltitudeArcmin: { label: "Polar error, altitude", unit: "′", min: -600, max: 600 },
  guideRaArcsec: { label: "Guiding RMS, RA", unit: "″", min: 0, max: 60 },
  guideDecArcsec: { label: "Guiding RMS, Dec", unit: "″", min: 0, max: 60 },
  cameraAngleDeg: { label: "Camera angle", unit: "°", min: -360, max: 360 },
  airC: { label: "Air", unit: "°C", min: -60, max: 50 },
  windKmh: { label: "Wind at the mount", unit: "km/h", min: 0, max: 150 },
  focusMoves: { label: "Focus moved", unit: "steps", min: 0, max: 1_000_000, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Exposure of a night as it was programmed, and what was lost of it, by cause. */
export const TIME_FIELDS = {
  programmedMin: { label: "Exposure programmed", unit: "min", min: 0, max: 2000 },
  lostMin: { label: "Lost", unit: "min", min: 0, max: 2000 },
} as const satisfies Readonly<Record<string, NumberField>>;
