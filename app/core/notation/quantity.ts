import { parseNumber } from "./parse";

/** A unit as somebody may write it: what it measures, and how it becomes the base unit of that. */
interface Unit {
  readonly names: readonly string[];
  readonly of: "length" | "speed" | "temperature" | "angle" | "time";
  /** In metres, m/s, °C, degrees or seconds. */
  readonly size: number;
  /** Of temperatures: what is taken off before. */
  readonly zero?: number;
}

/** Definitions: the international inch is 25.4 mm, the foot 12 inches, the mile 5280 feet, the knot 1852 m an hour. */
const UNITS: readonly Unit[] = [
  { names: ["µm", "um", "micron", "microns"], of: "length", size: 1e-6 },
  { names: ["mm"], of: "length", size: 1e-3 },
  { names: ["cm"], of: "length", size: 1e-2 },
  { names: ["m", "metre", "metres", "meter", "meters"], of: "length", size: 1 },
  { names: ["km"], of: "length", size: 1000 },
  { names: ["in", "inch", "inches", '"', "″", "”"], of: "length", size: 0.0254 },
  { names: ["ft", "foot", "feet", "'", "′", "’"], of: "length", size: 0.3048 },
  { names: ["mi", "mile", "miles"], of: "length", size: 1609.344 },
  { names: ["km/h", "kmh", "kph"], of: "speed", size: 1 / 3.6 },
  { names: ["m/s"], of: "speed", size: 1 },
  { names: ["mph"], of: "speed", size: 0.44704 },
  { names: ["kn", "kt", "knots"], of: "speed", size: 1852 / 3600 },
  { names: ["°c", "c"], of: "temperature", size: 1, zero: 0 },
  { names: ["°f", "f"], of: "temperature", size: 5 / 9, zero: 32 },
  { names: ["°", "deg", "degrees"], of: "angle", size: 1 },
  { names: ["′", "'", "arcmin"], of: "angle", size: 1 / 60 },
  { names: ["″", '"', "arcsec"], of: "angle", size: 1 / 3600 },
  { names: ["s", "sec", "seconds"], of: "time", size: 1 },
  { names: ["min", "minutes"], of: "time", size: 60 },
  { names: ["h", "hours"], of: "time", size: 3600 },
];

/** The unit of a box by its own name; a mark that is an inch and an arcsecond is, as the name of a box, the arcsecond. */
const unitOf = (name: string): Unit | undefined =>
  UNITS.find((u) => u.of === "angle" && u.names.includes(name)) ??
  UNITS.find((u) => u.names.includes(name.toLowerCase()));

/**
 * A number in the unit of its box, from a text that may name another unit of the same kind: "8 in" or "8″" in a box of mm is 203.2,
 * "5 ft 10 in" in one of m 1.778, "14 °F" in one of °C −10; `isDifference`: of temperatures, how far apart. A bare number is in the
 * box's unit. Null where it is no number, or of something else.
 */
export function parseQuantity(text: string, unit?: string, isDifference = false): number | null {
  const bare = parseNumber(text);
  if (bare !== null || unit === undefined) return bare;
  const box = unitOf(unit);
  if (!box) return null;
  const part = (piece: string): number | null => {
    const match = /^\s*([+\-−]?[\d.,]+(?:e[+-]?\d+)?)\s*([^\d\s.,+-].*?)\s*$/i.exec(piece);
    const value = match ? parseNumber(match[1]!) : null;
    const name = match?.[2]!.toLowerCase() ?? "";
    const from = UNITS.find((u) => u.of === box.of && u.names.includes(name));
    if (value === null || !from) return null;
    const zero = isDifference ? 0 : (from.zero ?? 0);
    return (value - zero) * from.size;
  };
  // "5 ft 10 in": feet and inches together, of lengths alone.
  const feet = box.of === "length" ? /^([\d.,]+\s*(?:ft|foot|feet|['′’]))\s*([\d.,].*)$/i.exec(text.trim()) : null;
  const pieces = (feet ? [feet[1]!, feet[2]!] : [text]).map(part);
  if (pieces.includes(null)) return null;
  const base = pieces.reduce<number>((sum, p) => sum + p!, 0);
  const value = base / box.size + (isDifference ? 0 : (box.zero ?? 0));
  // What the factors leave behind the twelfth digit was in nobody's mind.
  return Number(value.toPrecision(12));
}

/** A value of a unit in another one of the same kind: 10 °C is 50 °F, or as a difference 18; NaN where one is unknown or of another kind. */
export function convertQuantity(value: number, from: string, to: string, isDifference = false): number {
  const [a, b] = [unitOf(from), unitOf(to)];
  if (!a || !b || a.of !== b.of) return NaN;
  const [zeroA, zeroB] = isDifference ? [0, 0] : [a.zero ?? 0, b.zero ?? 0];
  return ((value - zeroA) * a.size) / b.size + zeroB;
}

/** A lens's aperture as its focal ratio, "f/2.8", in the unit of its focal length; null where the text is no such ratio. */
export function parseFocalRatio(text: string, focalLength: number | null): number | null {
  const match = /^\s*f\s*\/?\s*(\d+(?:[.,]\d+)?)\s*$/i.exec(text);
  const ratio = match ? parseNumber(match[1]!) : null;
  return ratio !== null && ratio > 0 && focalLength !== null ? Number((focalLength / ratio).toPrecision(4)) : null;
}
