import type { NumberField } from "./number-field";
/** Size of a target of one's own along its longest side. */
export const SIZE_FIELD: NumberField = { label: "Size", unit: "′", min: 0, max: 7200, isAboveMin: true };
