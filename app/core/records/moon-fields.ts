import type { MoonRule } from "~/core/sky";
import type { NumberField } from "./number-field";
/** The share a minute must keep; stored as a share, typed in per cent. */
export const MOON_SHARE_FIELD: NumberField = { label: "Least worth kept under the Moon", unit: "%", min: 1, max: 95 };

/** The two figures of a separation rule. */
export const MOON_RULE_FIELDS = {
  atFullDeg: { label: "From a full Moon", unit: "°", min: 0, max: 180 },
  halfWidthDays: { label: "Halved after", unit: "days", min: 1, max: 30 },
} as const satisfies Readonly<Record<keyof MoonRule, NumberField>>;
