import type { CatalogEntry } from "~/core/catalog";
import { isNarrow, type Filter, type Rig } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import { takesYears, type RankedTarget } from "~/core/night";
import { separationDeg } from "~/core/sky";

/** A row of a list, with what it was ranked for. */
export interface SweptRow {
  readonly line: RankedTarget;
  readonly entry: CatalogEntry;
  /** From 0. */
  readonly place: number;
}

/** What a list was made for. */
export interface SweptList {
  readonly rig: Rig;
  readonly filters: readonly Filter[];
  readonly skyMag: number;
  readonly rows: readonly SweptRow[];
}

/** A rule that no row of a good list breaks: a practitioner's judgement, no source. */
export interface Rule {
  readonly name: string;
  readonly breaks: (row: SweptRow, list: SweptList) => boolean;
}

const GLOW = ["emissionNebula", "supernovaRemnant", "wolfRayetNebula"];
const across = ({ entry, line }: SweptRow, { rig }: SweptList): number =>
  line.fill === null ? 0 : ((entry.majorArcmin ?? 0) * 60) / opticsOf(rig).pixelScaleArcsecPerPx;

export const RULES: readonly Rule[] = [
  { name: "a project for years among the first ten", breaks: ({ line }) => takesYears(line) },
  { name: "out of reach of the rig", breaks: ({ line }) => line.isOutOfReach },
  { name: "smaller than 120 pixels", breaks: (row, list) => across(row, list) < 120 },
  { name: "a mosaic of more than four panels", breaks: ({ line }) => line.panels > 4 },
  { name: "never above 22°", breaks: ({ line }) => line.topAltitudeDeg < 22 },
  {
    name: "hours beyond practice: a cluster over 5 h, or anything under an hour",
    breaks: ({ line, entry }) =>
      line.needHours < 1 ||
      (["openCluster", "globularCluster"].includes(entry.kind) &&
        (entry.curated?.sbClass ?? 1) < 4 &&
        line.needHours > 5 * line.panels),
  },
  {
    name: "a faint surface in broad light under a city",
    breaks: ({ line, entry }, { skyMag }) =>
      skyMag < 19 && !isNarrow(line.channel) && ["reflectionNebula", "darkNebula"].includes(entry.kind),
  },
  {
    name: "gas shown without a filter by a photo camera as sold",
    breaks: ({ entry, line }, { rig }) =>
      rig.isStock === true &&
      GLOW.includes(entry.kind) &&
      (entry.curated?.light ?? "Ha") === "Ha" &&
      line.needHours > 12,
  },
  {
    name: "moonlight takes nearly all of it while lines at hand keep more",
    breaks: ({ line, place }, { rows }) =>
      place < 3 &&
      line.moonlessWorthMin > 60 &&
      line.leftWorthMin < 0.12 * line.moonlessWorthMin &&
      rows.some((r) => isNarrow(r.line.channel) && r.line.leftWorthMin > 0.2 * r.line.moonlessWorthMin),
  },
  {
    name: "the same thing twice",
    breaks: (row, { rows }) =>
      rows.some((other) => {
        if (other.place >= row.place || !GLOW.includes(other.entry.kind) || !GLOW.includes(row.entry.kind))
          return false;
        const small = Math.min(other.entry.majorArcmin ?? 0, row.entry.majorArcmin ?? 0) / 60;
        return separationDeg(other.entry.at, row.entry.at) < small / 2;
      }),
  },
  {
    name: "nothing a picture is made of",
    breaks: ({ entry, place }) => place < 5 && (entry.kind === "doubleStar" || entry.kind === "galaxyCluster"),
  },
  { name: "less than an hour of the night", breaks: ({ line }) => line.moonlessMin < 60 },
];
