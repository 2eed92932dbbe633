import { degToRad, wrap180 } from "~/core/units";

/** A town of the gazetteer: GeoNames, CC BY 4.0. Coordinates to 0.01°, about a kilometre. */
export interface Town {
  readonly name: string;
  /** ISO 3166 two-letter code. */
  readonly country: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly elevationM: number;
  /** The nearest large town, where another of the same name and country was found too. */
  readonly near?: string;
}

/** Towns with the keys under which they are found, the largest first. */
export interface TownIndex {
  readonly lines: readonly string[];
  readonly keys: readonly string[];
}

const keyOf = (name: string): string =>
  name
    .normalize("NFKD")
    .replaceAll(/\p{M}/gu, "")
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Reads the packed gazetteer: a line a town, largest first; about 100 ms. */
export function readTowns(text: string): TownIndex {
  const lines = text.split("\n").filter((l) => l !== "");
  const keys = lines.map((line) => {
    const [name, plain] = line.split("\t");
    const key = keyOf(name!);
    return plain ? `${key}|${keyOf(plain)}` : key;
  });
  return { lines, keys };
}

function townOf(line: string): Town {
  const [name, , country, lat, lon, height] = line.split("\t") as [string, string, string, string, string, string];
  return { name, country, latitudeDeg: Number(lat), longitudeDeg: Number(lon), elevationM: Number(height) };
}

/** Towns whose name, in their own or in plain letters, begins with the query; then those with a later word that does. Largest first. */
export function searchTowns(index: TownIndex, query: string, limit: number): Town[] {
  const wanted = keyOf(query);
  if (wanted.length < 2) return [];
  const [first, later]: [string[], string[]] = [[], []];
  for (let i = 0; i < index.keys.length && first.length < limit; i++) {
    const key = index.keys[i]!;
    if (key.startsWith(wanted) || key.includes(`|${wanted}`)) first.push(index.lines[i]!);
    else if (later.length < limit && key.includes(` ${wanted}`)) later.push(index.lines[i]!);
  }
  const found = [...first, ...later].slice(0, limit).map(townOf);
  const alike = (t: Town) => found.filter((o) => o.name === t.name && o.country === t.country).length > 1;
  return found.map((t) => {
    const near = alike(t) ? nearestTown(index, t, LARGE, t.name) : null;
    return near ? { ...t, near: near.name } : t;
  });
}

/** So many of the largest count as large. */
const LARGE = 4000;

/** The town nearest to a position, among the largest so many of the gazetteer; `except` leaves one out by its name. Null in an empty one. */
export function nearestTown(
  index: TownIndex,
  at: { readonly latitudeDeg: number; readonly longitudeDeg: number },
  among = index.lines.length,
  except = "",
): Town | null {
  const narrowing = Math.cos(degToRad(at.latitudeDeg));
  let [best, least]: [Town | null, number] = [null, Number.POSITIVE_INFINITY];
  for (const line of index.lines.slice(0, among)) {
    const town = townOf(line);
    const distance = Math.hypot(
      town.latitudeDeg - at.latitudeDeg,
      narrowing * wrap180(town.longitudeDeg - at.longitudeDeg),
    );
    if (distance < least && town.name !== except) [best, least] = [town, distance];
  }
  return best;
}
