import { convertQuantity } from "~/core/notation";
import { habitsNow } from "./habits";
import { fixed, trimmed } from "./numbers";

/** Units that a reader may know by another one: what that is called, and with how many digits it says as much. */
const OTHER: Readonly<Record<string, { readonly unit: string; readonly digits: number }>> = {
  "°C": { unit: "°F", digits: 0 },
  "km/h": { unit: "mph", digits: 0 },
  m: { unit: "ft", digits: 0 },
  mm: { unit: "in", digits: 1 },
};

/** What a unit is called for this reader: "°F" for "°C" where they want it. */
export const unitName = (unit: string): string => (habitsNow().isImperial ? (OTHER[unit]?.unit ?? unit) : unit);

/** A value of a unit in that of this reader; `isDifference`: of temperatures, how far apart. */
export function inUnit(value: number, unit: string, isDifference = false): number {
  const name = unitName(unit);
  return name === unit ? value : convertQuantity(value, unit, name, isDifference);
}

/** "−10 °C", "14 °F": an air or sensor temperature. */
export const temperature = (celsius: number, digits = 0): string =>
  `${fixed(inUnit(celsius, "°C"), digits)} ${unitName("°C")}`;

/** "−7.5 °C", "18.5 °F": what a camera is set to or was held at, to a tenth where it has one. */
export const setTemperature = (celsius: number): string =>
  `${trimmed(Math.round(inUnit(celsius, "°C") * 10) / 10)} ${unitName("°C")}`;

/** "5 °C", "9 °F": how far two temperatures are apart. */
export const temperatureGap = (celsius: number, digits = 0): string =>
  `${fixed(inUnit(celsius, "°C", true), digits)} ${unitName("°C")}`;

/** "25 km/h", "16 mph". */
export const windSpeed = (kmh: number, digits = 0): string =>
  `${fixed(inUnit(kmh, "km/h"), digits)} ${unitName("km/h")}`;

/** "120 m", "394 ft": above the sea. */
export const elevation = (metres: number): string => `${fixed(inUnit(metres, "m"))} ${unitName("m")}`;

/** Boxes of millimetres that people think of in inches; focal lengths and back focus are in mm everywhere. */
const IN_INCHES: ReadonlySet<string> = new Set(["Aperture"]);

/** What a number in a box is in the reader's own unit: "394 ft"; null where the box is in it already. */
export function besideBox(
  { label, unit }: { readonly label: string; readonly unit: string },
  value: number,
  isDifference = false,
): string | null {
  const other = habitsNow().isImperial && (unit !== "mm" || IN_INCHES.has(label)) ? OTHER[unit] : undefined;
  return other ? `${fixed(convertQuantity(value, unit, other.unit, isDifference), other.digits)} ${other.unit}` : null;
}
