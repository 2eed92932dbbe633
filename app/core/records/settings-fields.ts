import type { NumberField } from "./number-field";
/** Bounds of how nights are planned. */
export const PLANNING_FIELDS = {
  targetsANight: { label: "Targets a night", unit: "", min: 1, max: 6, isWhole: true },
  minBlockMin: { label: "Shortest stretch for one target", unit: "min", min: 15, max: 240 },
  mostHours: { label: "Hours a night at most", unit: "h", min: 1, max: 16 },
  fromHours: { label: "Worth the drive from", unit: "h more", min: 0, max: 20 },
} as const satisfies Record<string, NumberField>;

/** How many calibration frames one takes. */
export const CALIBRATION_FIELDS = {
  darks: { label: "Darks of a kind", unit: "frames", min: 1, max: 500, isWhole: true },
  flats: { label: "Flats of a filter", unit: "frames", min: 1, max: 500, isWhole: true },
  biases: { label: "Bias frames", unit: "frames", min: 1, max: 1000, isWhole: true },
} as const satisfies Record<string, NumberField>;

export const WISH_FIELD: NumberField = { label: "Minimum hours", unit: "h", min: 0.25, max: 12 };

/** What nobody has said otherwise: an evening's work; common practice, no source. */
export const USUAL_WISH_HOURS = 2;
