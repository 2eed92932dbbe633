import type { NumberField } from "./number-field";
/** Numbers of a filter. */
export const FILTER_FIELDS = {
  centreNm: { label: "Centre", unit: "nm", min: 300, max: 1100 },
  bandwidthNm: { label: "Bandwidth", unit: "nm", min: 0, max: 1000, isAboveMin: true },
  transmission: { label: "Transmission", unit: "share", min: 0.05, max: 1 },
} as const satisfies Readonly<Record<string, NumberField>>;

export const THICKNESS_FIELD = {
  thicknessMm: { label: "Thickness", unit: "mm", min: 0, max: 30 },
} as const satisfies Readonly<Record<string, NumberField>>;
