import type { NumberField, TextField } from "./number-field";
/** Numbers of a frame and its grid. */
export const FRAME_FIELDS = {
  positionAngleDeg: { label: "Camera angle", unit: "°", min: 0, max: 360 },
  columns: { label: "Columns", min: 1, max: 10, isWhole: true },
  rows: { label: "Rows", min: 1, max: 10, isWhole: true },
  overlap: { label: "Overlap", unit: "share", min: 0, max: 0.5 },
  rowShift: { label: "Shift of every other row", unit: "share of a panel", min: -0.5, max: 0.5 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** The name of a panel beside its number. */
export const PANEL_NAME: TextField = { label: "Panel name", max: 60 };

/** Panels put down by hand. */
export const MOST_EXTRA_PANELS = 100;
