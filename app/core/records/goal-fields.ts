import type { NumberField } from "./number-field";
/** Numbers of a budget. */
export const GOAL_FIELDS = {
  hoursPerPanel: { label: "Hours a panel", unit: "h", min: 0, max: 500 },
  subSec: { label: "Sub", unit: "s", min: 0, max: 7200, isAboveMin: true },
  protectedMag: { label: "Protect stars", unit: "fainter than mag", min: 0, max: 20 },
} as const satisfies Readonly<Record<string, NumberField>>;
