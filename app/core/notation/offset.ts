import { parseNumber } from "./parse";

/** A place told from a listed object: so far to the east and to the north of it, arcminutes on the sky. */
export interface ReadOffset {
  readonly of: string;
  readonly eastArcmin: number;
  readonly northArcmin: number;
}

/** Steps on the sky by the words for them, east and north. */
const DIRECTIONS: Readonly<Record<string, readonly [east: number, north: number]>> = {
  n: [0, 1], north: [0, 1], s: [0, -1], south: [0, -1], e: [1, 0], east: [1, 0], w: [-1, 0], west: [-1, 0],
  ne: [1, 1], northeast: [1, 1], nw: [-1, 1], northwest: [-1, 1], se: [1, -1], southeast: [1, -1], sw: [-1, -1], southwest: [-1, -1],
}; // prettier-ignore

const WORD = "(north-?east|north-?west|south-?east|south-?west|north|south|east|west|ne|nw|se|sw|n|s|e|w)";
const STEP = new RegExp(
  `([\\d.,]+\\s*(?:°|deg|d|[′'’]|arcmin|min|m|[″"”]|arcsec|sec|s)?)\\s*(?:to the\\s+)?${WORD}\\b`,
  "gi",
);
const LONGEST = 200;

/** A length on the sky in arcminutes: "20′", "1.5°", "90″"; a bare number is arcminutes. Null when it is none. */
function lengthArcmin(text: string): number | null {
  const [, digits = "", unit = ""] = /^([\d.,]+)\s*(.*)$/.exec(text.trim()) ?? [];
  const value = parseNumber(digits);
  if (value === null) return null;
  if (/^(°|d)/i.test(unit)) return value * 60;
  return /^(″|"|”|s|arcsec)/i.test(unit) ? value / 60 : value;
}

/**
 * Reads a place beside an object: "near M 81, 20′ east of it", "20' e 5' n of M 81", "1.5° NE of NGC 7000". Null where the text is
 * nothing of the kind. Diagonal directions go as far in all as is said.
 */
export function parseOffset(text: string): ReadOffset | null {
  if (text.length > LONGEST) return null;
  const steps = [...text.matchAll(STEP)];
  if (steps.length === 0) return null;
  let [eastArcmin, northArcmin] = [0, 0];
  for (const [, length, word] of steps) {
    const arcmin = lengthArcmin(length!);
    const [east, north] = DIRECTIONS[word!.toLowerCase().replace("-", "")]!;
    if (arcmin === null) return null;
    const scale = arcmin / Math.hypot(east, north);
    eastArcmin += east * scale;
    northArcmin += north * scale;
  }
  const rest = text
    .replace(STEP, " ")
    .replace(/\b(of it|of|from it|from|near|and|by)\b/gi, " ")
    .replace(/[,;]/g, " ");
  const of = rest.replace(/\s+/g, " ").trim();
  return of === "" ? null : { of, eastArcmin, northArcmin };
}
