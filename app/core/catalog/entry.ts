import type { Equatorial } from "~/core/sky";

/** What an object is. The order is the packed code: append only. */
export const KINDS = [
  "galaxy", "galaxyGroup", "galaxyCluster", "openCluster", "globularCluster", "emissionNebula", "reflectionNebula", "darkNebula",
  "planetaryNebula", "supernovaRemnant", "wolfRayetNebula", "starCloud", "doubleStar",
] as const; // prettier-ignore

export type Kind = (typeof KINDS)[number];

/** Kinds in plain words. */
export const KIND_WORDS: Readonly<Record<Kind, string>> = {
  galaxy: "galaxy",
  galaxyGroup: "galaxy group",
  galaxyCluster: "galaxy cluster",
  openCluster: "open cluster",
  globularCluster: "globular cluster",
  emissionNebula: "emission nebula",
  reflectionNebula: "reflection nebula",
  darkNebula: "dark nebula",
  planetaryNebula: "planetary nebula",
  supernovaRemnant: "supernova remnant",
  wolfRayetNebula: "Wolf–Rayet nebula",
  starCloud: "star cloud",
  doubleStar: "double star",
};

/** Whether an object shines in emission lines, so that narrow filters help it. */
export const isNebula = (kind: Kind): boolean =>
  kind === "emissionNebula" || kind === "planetaryNebula" || kind === "supernovaRemnant" || kind === "wolfRayetNebula";

/** What an object mostly shines in. */
export type Light = "continuum" | "Ha" | "OIII" | "mixed";

/** What is known only of the hand-picked targets; a rule of thumb, not measured. */
export interface CuratedFacts {
  /** A composed picture of several objects, not one object. */
  readonly isField: boolean;
  readonly tier: 1 | 2;
  /** Mean surface brightness class, 1 bright (< 20.5 mag/arcsec²) to 6 faint (> 25.5). */
  readonly sbClass: number;
  readonly light: Light;
  /** Strength 0 none to 3 strong; null for continuum objects. */
  readonly lines: { readonly ha: number; readonly oiii: number; readonly sii: number } | null;
  readonly hasBrightCore: boolean;
  /** A galaxy whose hydrogen regions stand out in Ha. */
  readonly hasHydrogen?: boolean;
  /** Least total hours at f/5 under 20 mag/arcsec². */
  readonly hoursMin: number;
  readonly framing: string;
  readonly members: readonly string[];
  readonly confidence: "high" | "medium" | "low";
}

/** One object of the catalogue. */
export interface CatalogEntry {
  /** Lead designation; stable, used as the key in saved projects. */
  readonly id: string;
  /** English name, or "" when it has none. */
  readonly name: string;
  readonly aliases: readonly string[];
  readonly kind: Kind;
  /** Epoch J2000. */
  readonly at: Equatorial<"icrs">;
  readonly majorArcmin: number | null;
  readonly minorArcmin: number | null;
  /** Of the major axis, [0, 180); null = round or unknown. */
  readonly positionAngleDeg: number | null;
  readonly magnitude: number | null;
  /** IAU three-letter code. */
  readonly constellation: string;
  /** 0–100, how much the object deserves a label when nothing else is known. */
  readonly rank: number;
  readonly curated: CuratedFacts | null;
  /** As its owner says, of a target of one's own. */
  readonly light?: Light;
}

/** What an object mostly shines in: as picked by hand or said by its owner, else by its kind. */
export const lightOf = (entry: CatalogEntry): Light =>
  entry.curated?.light ?? entry.light ?? (isNebula(entry.kind) ? "Ha" : "continuum");

/** A target of one's own, in no list or beside a listed one; direction ICRS. */
export interface OwnTarget {
  readonly name: string;
  readonly raDeg: number;
  readonly decDeg: number;
  readonly kind: Kind;
  readonly majorArcmin: number | null;
  readonly light: Light;
  /** Listed object to aim at so that this one comes into the frame; "" = aim at it. */
  readonly neighbourId: string;
  readonly note: string;
}

const OWN_RANK = 60; // somebody went to the trouble of entering it

/** One's own target in the form of the catalogue, under the id of its record. */
export const ownEntry = (id: string, own: OwnTarget, constellation: string): CatalogEntry => ({
  id,
  name: own.name,
  aliases: [],
  kind: own.kind,
  at: { frame: "icrs", raDeg: own.raDeg, decDeg: own.decDeg },
  majorArcmin: own.majorArcmin,
  minorArcmin: null,
  positionAngleDeg: null,
  magnitude: null,
  constellation,
  rank: OWN_RANK,
  curated: null,
  light: own.light,
});
