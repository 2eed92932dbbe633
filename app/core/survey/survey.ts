import { err, ok, type Result } from "~/core/result";

/**
 * A picture of the sky in tiles, as its `properties` file describes it: HiPS, IVOA Recommendation 1.0 (Fernique et al. 2017), section
 * 4.4. Tiles are cells of HEALPix (Górski et al. 2005), each order four times as many of half the size.
 */
export interface Survey {
  readonly title: string;
  /** As it asks to be named beside its picture; "" = it asks for nothing. */
  readonly credit: string;
  /** Coarsest and finest order there are tiles of, 0 to 20. */
  readonly orderMin: number;
  readonly orderMax: number;
  /** Width and height of a tile, a power of two from 64 to 1024. */
  readonly tilePx: number;
  readonly format: "jpg" | "png";
  /** What its cells are counted in. */
  readonly frame: "equatorial" | "galactic";
}

/** Why a survey cannot be shown. */
export type SurveyFault =
  | { readonly code: "missing" | "unreadable"; readonly key: string; readonly found: string }
  /** It has tiles of numbers only. */
  | { readonly code: "noPictures"; readonly found: string }
  | { readonly code: "otherFrame"; readonly found: string };

/** The finest order that is asked for, a twentieth of an arcsecond a pixel: what a survey has beyond it no camera under air shows. */
const FINEST_ORDER = 13;
/** The finest there can be (section 4.1). */
const MOST_ORDER = 29;
const [LEAST_TILE_PX, MOST_TILE_PX] = [64, 1024];
const USUAL_TILE_PX = 512;
const MOST_WORDS = 300;

/** Lines of "key = value"; the first of a key counts, and lines with # say nothing. */
function valuesOf(text: string): ReadonlyMap<string, string> {
  const values = new Map<string, string>();
  for (const line of text.split(/\r?\n/)) {
    const at = line.indexOf("=");
    if (line.startsWith("#") || at < 1) continue;
    const key = line.slice(0, at).trim();
    if (!values.has(key)) values.set(key, line.slice(at + 1).trim());
  }
  return values;
}

const isPowerOfTwo = (n: number): boolean => Number.isInteger(Math.log2(n));

/** Reads the `properties` file of a survey. */
export function readSurvey(text: string): Result<Survey, SurveyFault> {
  const values = valuesOf(text);
  const said = (key: string): string => (values.get(key) ?? "").slice(0, MOST_WORDS);
  const whole = (key: string, usual: number | null, isFine: (n: number) => boolean): Result<number, SurveyFault> => {
    const found = said(key);
    if (found === "") return usual === null ? err({ code: "missing", key, found }) : ok(usual);
    const n = /^\d{1,4}$/.test(found) ? Number(found) : Number.NaN;
    return isFine(n) ? ok(n) : err({ code: "unreadable", key, found });
  };
  const orderMax = whole("hips_order", null, (n) => n <= MOST_ORDER);
  if (!orderMax.ok) return orderMax;
  const orderMin = whole(
    "hips_order_min",
    Math.min(3, orderMax.value),
    (n) => n <= Math.min(FINEST_ORDER, orderMax.value),
  );
  if (!orderMin.ok) return orderMin;
  const isTile = (n: number) => n >= LEAST_TILE_PX && n <= MOST_TILE_PX && isPowerOfTwo(n);
  const tilePx = whole("hips_tile_width", USUAL_TILE_PX, isTile);
  if (!tilePx.ok) return tilePx;
  const formats = said("hips_tile_format").toLowerCase();
  // A PNG tells where there is no sky; a JPEG is smaller.
  const format = /\bpng\b/.test(formats) ? "png" : /\bjpe?g\b/.test(formats) ? "jpg" : null;
  if (!format)
    return formats === ""
      ? err({ code: "missing", key: "hips_tile_format", found: "" })
      : err({ code: "noPictures", found: formats });
  const frame = said("hips_frame").toLowerCase();
  if (frame === "") return err({ code: "missing", key: "hips_frame", found: "" });
  if (frame !== "equatorial" && frame !== "galactic") return err({ code: "otherFrame", found: frame });
  const title = said("obs_title") || said("obs_collection") || said("creator_did");
  if (title === "") return err({ code: "missing", key: "obs_title", found: "" });
  const credit = said("obs_copyright") || said("hips_copyright") || said("hips_creator");
  return ok({
    title,
    credit,
    orderMin: orderMin.value,
    orderMax: Math.min(FINEST_ORDER, orderMax.value),
    tilePx: tilePx.value,
    format,
    frame,
  });
}

/** Says the same as a `properties` file. */
export function surveyText(survey: Survey, id: string): string {
  const lines: readonly (readonly [string, string | number])[] = [
    ["creator_did", `ivo://zenithar/${id}`],
    ["obs_title", survey.title],
    ["obs_copyright", survey.credit],
    ["dataproduct_type", "image"],
    ["hips_version", "1.4"],
    ["hips_order", survey.orderMax],
    ["hips_order_min", survey.orderMin],
    ["hips_tile_width", survey.tilePx],
    ["hips_tile_format", survey.format === "jpg" ? "jpeg" : "png"],
    ["hips_frame", survey.frame],
  ];
  return lines.map(([key, value]) => `${key.padEnd(20)} = ${value}\n`).join("");
}

/** How many tiles an order has. */
export const tilesOf = (order: number): number => 12 * 4 ** order;

/** Where a tile lies under a survey's address (section 4.1 of the Recommendation). */
export const tilePath = (order: number, tile: number, format: Survey["format"]): string =>
  `Norder${order}/Dir${Math.floor(tile / 10_000) * 10_000}/Npix${tile}.${format}`;

/** The one picture of all tiles of order 3, side by side (section 4.3.2). */
export const allSkyPath = (format: Survey["format"]): string => `Norder3/Allsky.${format}`;

/** What a path under a survey's address asks for; null = nothing that a survey has. */
export type SurveyFile =
  | { readonly kind: "properties" }
  | { readonly kind: "allSky"; readonly format: Survey["format"] }
  | { readonly kind: "tile"; readonly order: number; readonly tile: number; readonly format: Survey["format"] };

/** Reads a path under a survey's address: only what this module would write itself. */
export function surveyFile(path: string): SurveyFile | null {
  if (path === "properties") return { kind: "properties" };
  const ending = path.endsWith(".jpg") ? "jpg" : path.endsWith(".png") ? "png" : null;
  if (!ending) return null;
  if (path === allSkyPath(ending)) return { kind: "allSky", format: ending };
  const [, order, tile] = /^Norder(\d{1,2})\/Dir\d+\/Npix(\d{1,14})\./.exec(path) ?? [];
  const asked = { kind: "tile", order: Number(order), tile: Number(tile), format: ending } as const;
  const isThere = asked.order <= FINEST_ORDER && asked.tile < tilesOf(asked.order);
  return isThere && path === tilePath(asked.order, asked.tile, ending) ? asked : null;
}
