import { err, ok, type Result } from "~/core/result";
import { KINDS, type CatalogEntry, type CuratedFacts } from "./entry";

/** Columns of scaled whole numbers; −1 stands for "none" where a value may lack. */
export interface PackedCatalog {
  readonly format: "zenithar-catalogue";
  readonly version: 1;
  readonly count: number;
  readonly constellations: readonly string[];
  readonly id: readonly string[];
  readonly name: readonly string[];
  /** Joined by "|". */
  readonly aliases: readonly string[];
  readonly kind: readonly number[];
  /** 1e-5 degrees: 0.04″. */
  readonly ra: readonly number[];
  readonly dec: readonly number[];
  /** 0.01 arcmin. */
  readonly major: readonly number[];
  readonly minor: readonly number[];
  readonly pa: readonly number[];
  /** 0.01 mag + 5. */
  readonly mag: readonly number[];
  readonly con: readonly number[];
  readonly rank: readonly number[];
  /** By row number. */
  readonly curated: Readonly<Record<string, CuratedFacts>>;
}

/** Why a packed catalogue cannot be used. */
export interface CatalogFault {
  readonly code: "catalogUnreadable";
  readonly reason: "format" | "version" | "count";
}

const scaled = (value: number | null, scale: number) => (value === null ? -1 : Math.round(value * scale));
const unscaled = (value: number, scale: number) => (value < 0 ? null : value / scale);
const MAG_SHIFT = 5; // so that the brightest (−4.9) stay above the "none" mark

/** Packs entries, in the given order, into columns. */
export function packCatalog(entries: readonly CatalogEntry[]): PackedCatalog {
  const constellations = [...new Set(entries.map((e) => e.constellation))].sort();
  return {
    format: "zenithar-catalogue",
    version: 1,
    count: entries.length,
    constellations,
    id: entries.map((e) => e.id),
    name: entries.map((e) => e.name),
    aliases: entries.map((e) => e.aliases.join("|")),
    kind: entries.map((e) => KINDS.indexOf(e.kind)),
    ra: entries.map((e) => Math.round(e.at.raDeg * 1e5)),
    dec: entries.map((e) => Math.round(e.at.decDeg * 1e5)),
    major: entries.map((e) => scaled(e.majorArcmin, 100)),
    minor: entries.map((e) => scaled(e.minorArcmin, 100)),
    pa: entries.map((e) => scaled(e.positionAngleDeg, 1)),
    mag: entries.map((e) => (e.magnitude === null ? -1 : Math.round((e.magnitude + MAG_SHIFT) * 100))),
    con: entries.map((e) => constellations.indexOf(e.constellation)),
    rank: entries.map((e) => Math.round(e.rank)),
    curated: Object.fromEntries(entries.flatMap((e, i) => (e.curated ? [[String(i), e.curated]] : []))),
  };
}

/** Unpacks what `packCatalog` made; says so when the file is of another kind, of a newer version or cut short. */
export function unpackCatalog(packed: PackedCatalog): Result<CatalogEntry[], CatalogFault> {
  const fault = (reason: CatalogFault["reason"]) => err({ code: "catalogUnreadable" as const, reason });
  if (packed.format !== "zenithar-catalogue") return fault("format");
  if (packed.version !== 1) return fault("version");
  const columns = [
    packed.id,
    packed.name,
    packed.aliases,
    packed.kind,
    packed.ra,
    packed.dec,
    packed.major,
    packed.minor,
    packed.pa,
    packed.mag,
    packed.con,
    packed.rank,
  ];
  if (columns.some((c) => c.length !== packed.count)) return fault("count");
  return ok(
    packed.id.map((id, i) => ({
      id,
      name: packed.name[i]!,
      aliases: packed.aliases[i] === "" ? [] : packed.aliases[i]!.split("|"),
      kind: KINDS[packed.kind[i]!]!,
      at: { frame: "icrs", raDeg: packed.ra[i]! / 1e5, decDeg: packed.dec[i]! / 1e5 },
      majorArcmin: unscaled(packed.major[i]!, 100),
      minorArcmin: unscaled(packed.minor[i]!, 100),
      positionAngleDeg: unscaled(packed.pa[i]!, 1),
      magnitude: packed.mag[i]! < 0 ? null : packed.mag[i]! / 100 - MAG_SHIFT,
      constellation: packed.constellations[packed.con[i]!]!,
      rank: packed.rank[i]!,
      curated: packed.curated[String(i)] ?? null,
    })),
  );
}
