/** A town of the gazetteer: GeoNames, CC BY 4.0. Coordinates to 0.01°, about a kilometre. */
export interface Town {
  readonly name: string;
  /** ISO 3166 two-letter code. */
  readonly country: string;
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly elevationM: number;
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
  return [...first, ...later].slice(0, limit).map(townOf);
}
