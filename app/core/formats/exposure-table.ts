import Papa from "papaparse";
import type { ExposureFacts, SubMeasure } from "~/core/ledger";
import { parseAngle, parseDeclinationDeg, parseNumber } from "~/core/notation";
import { err, ok, type Result } from "~/core/result";
import { utcMs, type UtcMs } from "~/core/time";
import { wrap360 } from "~/core/units";
import { frameTypeOfPath } from "./exif-facts";

/** Why a table tells no exposures. */
export type TableFault = { readonly code: "tableNoColumns" } | { readonly code: "tableTooLong" };

/** What a column may be called; the first that is there counts. Documented in docs/formats.md. */
const COLUMNS = {
  file: ["file", "filename", "name"],
  type: ["type", "imagetyp", "frame"],
  object: ["object", "target"],
  start: ["start_utc", "date_obs", "dateobs", "start", "date"],
  exposureSec: ["exposure_s", "exptime", "exposure"],
  filter: ["filter"],
  camera: ["camera", "instrume"],
  gain: ["gain", "iso"],
  offset: ["offset"],
  temperatureC: ["temperature_c", "ccd_temp", "temperature"],
  binning: ["binning", "xbinning"],
  raDeg: ["ra_deg", "ra"],
  decDeg: ["dec_deg", "dec"],
  angleDeg: ["position_angle_deg", "angle"],
  fwhmPx: ["fwhm_px", "fwhm"],
  eccentricity: ["eccentricity"],
  stars: ["stars", "star_count"],
  background: ["background", "sky"],
} as const satisfies Readonly<Record<string, readonly string[]>>;

type Column = keyof typeof COLUMNS;

const MOST_ROWS = 20_000;

/** Whether a file's name says that it is a table. */
export const isTableName = (name: string): boolean => /\.(csv|tsv)$/i.test(name);

/** "2026-12-05T21:10:31Z", or without a zone, which is a clock's own; null where it is neither. */
function instantOf(text: string): { readonly startMs: UtcMs | null; readonly wallMs: number | null } | null {
  const match = /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}(?::\d{2}(?:\.\d+)?)?)(Z|[+-]\d{2}:?\d{2})?$/.exec(text.trim());
  if (!match) return null;
  const [, day, clock, zone] = match;
  const wall = Date.parse(`${day}T${clock}Z`);
  if (!Number.isFinite(wall) || !new Date(wall).toISOString().startsWith(day!)) return null;
  if (zone === undefined) return { startMs: null, wallMs: wall };
  const ms = Date.parse(`${day}T${clock}${zone.length === 5 ? `${zone.slice(0, 3)}:${zone.slice(3)}` : zone}`);
  return Number.isFinite(ms) ? { startMs: utcMs(ms), wallMs: null } : null;
}

/**
 * Exposures of a table, one a row, by the names of its columns; what a row does not say is not known. A start called `…_utc` or with a
 * zone is an instant; one without a zone is the clock of the place.
 */
export function readExposureTable(text: string, fileName: string): Result<readonly ExposureFacts[], TableFault> {
  const read = Papa.parse<Readonly<Record<string, string | undefined>>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (h) =>
      h
        .trim()
        .toLowerCase()
        .replaceAll(/[\s-]+/g, "_"),
  });
  const fields = new Set(read.meta.fields ?? []);
  const named = Object.fromEntries(
    (Object.entries(COLUMNS) as [Column, readonly string[]][]).map(([c, names]) => [
      c,
      names.find((n) => fields.has(n)),
    ]),
  ) as Readonly<Record<Column, string | undefined>>;
  if (named.exposureSec === undefined || (named.start === undefined && named.file === undefined))
    return err({ code: "tableNoColumns" });
  if (read.data.length > MOST_ROWS) return err({ code: "tableTooLong" });
  const isUtc = named.start === "start_utc" || named.start === "date_obs" || named.start === "dateobs";
  return ok(
    read.data.map((row, i): ExposureFacts => {
      const text = (c: Column): string | null => {
        const value = named[c] === undefined ? undefined : row[named[c]]?.trim();
        return value === undefined || value === "" ? null : value;
      };
      const number = (c: Column): number | null => {
        const t = text(c);
        return t === null ? null : parseNumber(t);
      };
      const start = text("start");
      const at = start === null ? null : instantOf(isUtc && !/(Z|[+-]\d{2}:?\d{2})$/.test(start) ? `${start}Z` : start);
      const name = text("file") ?? `${fileName}, row ${i + 2}`;
      const [raDeg, decDeg, angleDeg] = [raOf(text("raDeg")), decOf(text("decDeg")), number("angleDeg")];
      const type = text("type");
      return {
        fileName: name,
        sizeBytes: 0,
        frameType: frameTypeOfPath(type ?? ""),
        object: text("object"),
        hints: [],
        startMs: at?.startMs ?? null,
        wallMs: at?.wallMs ?? null,
        exposureSec: number("exposureSec"),
        filter: text("filter"),
        camera: text("camera"),
        gain: number("gain"),
        offset: number("offset"),
        temperatureC: number("temperatureC"),
        focalLengthMm: null,
        pixelPitchUm: null,
        binning: number("binning"),
        widthPx: null,
        site: null,
        centre: raDeg !== null && decDeg !== null ? { frame: "icrs", raDeg, decDeg } : null,
        isSolved: raDeg !== null && decDeg !== null && angleDeg !== null,
        solutionFault: null,
        positionAngleDeg: angleDeg === null ? null : wrap360(angleDeg),
        rotatorDeg: null,
        pixelScaleArcsec: null,
        measure: measureOf(number),
      };
    }),
  );
}

/** Degrees as a number, hours as sexagesimal. */
function raOf(text: string | null): number | null {
  if (text === null) return null;
  const plain = parseNumber(text);
  if (plain !== null) return wrap360(plain);
  const angle = parseAngle(text);
  return angle.ok ? wrap360(angle.value * 15) : null;
}

function decOf(text: string | null): number | null {
  const read = text === null ? null : parseDeclinationDeg(text);
  return read?.ok ? read.value : null;
}

function measureOf(number: (c: Column) => number | null): SubMeasure | null {
  const [fwhmPx, eccentricity, stars] = [number("fwhmPx"), number("eccentricity"), number("stars")];
  if (fwhmPx === null || !(fwhmPx > 0 && fwhmPx <= 200)) return null;
  return {
    fwhmPx,
    eccentricity: eccentricity !== null && eccentricity >= 0 && eccentricity <= 1 ? eccentricity : null,
    stars: stars !== null && stars >= 0 && stars <= 1e7 ? Math.round(stars) : null,
    background: number("background"),
    from: "table",
  };
}
