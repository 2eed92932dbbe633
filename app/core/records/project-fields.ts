import type { NumberField } from "./number-field";
/** Numbers of the rules of a project. */
export const RULE_FIELDS = {
  roundSubs: { label: "Subs of a panel in a row", min: 1, max: 200, isWhole: true },
  cycleSubs: { label: "Subs in a row", min: 1, max: 50, isWhole: true },
  leastMin: { label: "Shortest stretch", unit: "min", min: 15, max: 360 },
  clearRun: { label: "Clear nights in a row", min: 2, max: 4, isWhole: true },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of what a target shines with. */
export const LIGHT_FIELDS = {
  line: { label: "Light in the line", unit: "R", min: 0, max: 1_000_000 },
  surface: { label: "Surface brightness", unit: "mag/arcsec²", min: 5, max: 35 },
} as const satisfies Readonly<Record<string, NumberField>>;

/** Numbers of who shoots what. */
export const SHARING_FIELDS = {
  floor: { label: "Least share of each", min: 0, max: 0.5 },
  hours: { label: "Hours", unit: "h", min: 0, max: 5000 },
  ratio: { label: "Part", min: 0, max: 1000 },
} as const satisfies Readonly<Record<string, NumberField>>;
