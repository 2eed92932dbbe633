import { readFileSync } from "node:fs";
import type { Kind } from "~/core/catalog";

/** A record of the base list after normalising (catalog.md section 1). */
export interface BaseRecord {
  readonly id: string;
  readonly desig: string;
  readonly kind: Kind;
  readonly raDeg: number;
  readonly decDeg: number;
  readonly decimals: number;
  readonly major: number | null;
  readonly minor: number | null;
  readonly mag: number | null;
  readonly inBright: boolean;
}

interface Feature {
  readonly id: string;
  readonly properties: { readonly desig: string; readonly type: string; readonly mag: string; readonly dim: string };
  readonly geometry: { readonly coordinates: readonly [number, number] };
}

interface Fixes {
  readonly drop: readonly string[];
  readonly patch: Readonly<
    Record<string, { ra?: number; dec?: number; size?: readonly number[]; type?: string; mag?: number | null }>
  >;
  readonly lost_aliases: Readonly<Record<string, string>>;
  readonly add: readonly {
    id: string;
    aliases: string[];
    ra: number;
    dec: number;
    mag: number;
    size: [number, number];
  }[];
}

/** Reads a JSON input of the build. */
export const readJson = <T>(path: string): T => JSON.parse(readFileSync(path, "utf8")) as T;

const INPUT = new URL("./input/", import.meta.url).pathname;
const BASE = new URL("../../node_modules/d3-celestial/data/", import.meta.url).pathname;

/** Corrections found when the base list was audited. */
export const fixes = readJson<Fixes>(`${INPUT}base_fixes.json`);

const PLAIN: Readonly<Record<string, Kind>> = {
  oc: "openCluster", gc: "globularCluster", bn: "emissionNebula", en: "emissionNebula", sfr: "emissionNebula", rn: "reflectionNebula",
  pn: "planetaryNebula", snr: "supernovaRemnant", gg: "galaxyGroup", dn: "darkNebula",
}; // prettier-ignore

function kindOf(id: string, type: string): Kind {
  if (/^(LDN|B) /.test(id)) return "darkNebula";
  if (id.startsWith("SNR G")) return "supernovaRemnant";
  if (id.startsWith("ACO")) return "galaxyCluster";
  if (/^(PK|PN G)/.test(id) && /^(s|s0|e|i|g|sd|gg|dn)$/.test(type)) return "planetaryNebula";
  if (id.startsWith("LBN") && !/^(bn|rn|pn)$/.test(type)) return "emissionNebula";
  return PLAIN[type] ?? "galaxy";
}

const number = (text: string | undefined): number | null =>
  text === undefined || text === "" || text === "999" ? null : Number(text);
const decimals = (x: number) => (String(x).split(".")[1] ?? "").length;

function normalise(f: Feature, inBright: boolean): BaseRecord | null {
  const patch = fixes.patch[f.id];
  const [lon, lat] = f.geometry.coordinates;
  const [ra, dec] = [patch?.ra ?? (lon + 360) % 360, patch?.dec ?? lat];
  if (Math.abs(dec) > 90) return null;
  const sizes =
    patch?.size ??
    f.properties.dim
      .split("x")
      .map(number)
      .filter((x): x is number => x !== null && x > 0);
  const kind = kindOf(f.id, patch?.type ?? f.properties.type);
  const hasNoUse = kind === "darkNebula" || kind === "planetaryNebula" || /^(VdB|VdBH|Ced) /.test(f.id);
  const mag = patch?.mag !== undefined ? patch.mag : number(f.properties.mag);
  return {
    id: f.id,
    desig: f.properties.desig,
    kind,
    raDeg: ra,
    decDeg: dec,
    decimals: Math.min(decimals(lon), decimals(lat)),
    major: sizes.length ? Math.max(...sizes) : null,
    minor: sizes.length ? Math.min(...sizes) : null,
    mag: hasNoUse ? null : mag,
    inBright,
  };
}

function isKept(r: BaseRecord): boolean {
  if (/^(NGC|IC) /.test(r.id)) return true;
  const size = r.major ?? 0;
  if (r.kind === "galaxyCluster") return r.inBright;
  if (r.kind === "planetaryNebula") return size >= 0.5 || r.id.startsWith("Sh2");
  if (r.kind === "galaxy")
    return (size >= 1 && (r.mag === null || r.mag <= 15.5)) || (r.inBright && r.mag !== null && r.mag <= 12.5);
  return true;
}

/** The base list: normalised, repaired, and cut to what a backyard can use. `every` holds all ids that ever were in it. */
export function readBase(): { readonly kept: readonly BaseRecord[]; readonly every: ReadonlyMap<string, BaseRecord> } {
  const read = (name: string) => readJson<{ features: Feature[] }>(`${BASE}${name}`).features;
  const bright = new Set(read("dsos.14.json").map((f) => f.id));
  const dropped = new Set(fixes.drop);
  const every = new Map<string, BaseRecord>();
  for (const f of read("dsos.20.json")) {
    const r = normalise(f, bright.has(f.id));
    if (r) every.set(r.id, r);
  }
  return { kept: [...every.values()].filter((r) => !dropped.has(r.id) && isKept(r)), every };
}

/** English names by base id. */
export const readNames = (): Readonly<Record<string, { name: string }>> => readJson(`${BASE}dsonames.json`);

/** Hipparcos stars down to about magnitude 12. */
export const readStars = () =>
  readJson<{
    features: { id: number; properties: { mag: number; bv: string }; geometry: { coordinates: [number, number] } }[];
  }>(`${BASE}stars.14.json`).features.map((f) => ({
    hip: f.id,
    raDeg: (f.geometry.coordinates[0] + 360) % 360,
    decDeg: f.geometry.coordinates[1],
    magnitude: f.properties.mag,
    colour: f.properties.bv === "" ? null : Number(f.properties.bv),
  }));

/** Proper, Bayer and Flamsteed names of stars by Hipparcos number. */
export const readStarNames = () =>
  readJson<Record<string, { name: string; bayer: string; flam: string; c: string }>>(`${BASE}starnames.json`);

/** Stick figures of the constellations: runs of [ra, dec]. */
export const readLines = () =>
  readJson<{ features: { geometry: { coordinates: [number, number][][] } }[] }>(
    `${BASE}constellations.lines.json`,
  ).features.flatMap((f) =>
    f.geometry.coordinates.map((run) => run.map(([lon, lat]) => [(lon + 360) % 360, lat] as const)),
  );

/** Borders of the constellations: runs of [ra, dec], the right ascension unbroken within a run. */
export const readBorders = () =>
  readJson<{ features: { geometry: { coordinates: [number, number][][] } }[] }>(
    `${BASE}constellations.borders.json`,
  ).features.flatMap((f) => f.geometry.coordinates);

interface CuratedRecord {
  readonly id: string; readonly aliases: readonly string[]; readonly name: string | null; readonly kind: string; readonly scope: "object" | "field";
  readonly tier: 1 | 2; readonly ra_deg: number; readonly dec_deg: number; readonly major_arcmin: number | null; readonly minor_arcmin: number | null;
  readonly pa_deg: number | null; readonly constellation: string; readonly magnitude: number | null; readonly sb_class: number;
  readonly dominant_light: "continuum" | "Ha" | "OIII" | "mixed"; readonly ha: number | null; readonly oiii: number | null; readonly sii: number | null;
  readonly bright_core: boolean;
  readonly ha_boost: boolean; readonly hours_min: number; readonly framing: string; readonly members: readonly string[];
  readonly base_ids: readonly string[]; readonly confidence: "high" | "medium" | "low";
} // prettier-ignore

/** Hand-picked targets (not measured, from general knowledge). */
export const readCurated = (): readonly CuratedRecord[] =>
  readJson<{ targets: CuratedRecord[] }>(`${INPUT}curated.json`).targets;
export type { CuratedRecord };
