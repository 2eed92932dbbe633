import type { ExposureFacts, FrameType, SubMeasure } from "~/core/ledger";
import { parseAngle } from "~/core/notation";
import type { Equatorial } from "~/core/sky";
import { utcMs, type UtcMs } from "~/core/time";
import { wrap360 } from "~/core/units";
import type { FitsHeader } from "./fits-header";
import { readWcs } from "./fits-wcs";

type Lookup = (...names: string[]) => string | number | null;

function lookupIn(header: FitsHeader): Lookup {
  return (...names) => {
    for (const name of names) {
      const v = header.values.get(name);
      if (typeof v === "number" || (typeof v === "string" && v.trim() !== "")) return v;
    }
    return null;
  };
}

const asNumber = (v: string | number | null): number | null =>
  v === null || !Number.isFinite(Number(v)) ? null : Number(v);
const asText = (v: string | number | null): string | null => (v === null ? null : String(v).trim());

function frameTypeOf(text: string | null): FrameType {
  const t = (text ?? "").toLowerCase();
  if (/dark.?flat|flat.?dark/.test(t)) return "darkFlat";
  if (/light|object|science/.test(t)) return "light";
  if (t.includes("dark")) return "dark";
  if (t.includes("flat")) return "flat";
  return /bias|zero|offset/.test(t) ? "bias" : "unknown";
}

/** Start in UTC from DATE-OBS, with TIME-OBS where that is a date alone; fractions to the millisecond. FITS Standard 4.0, § 9.1. */
function startOf(get: Lookup): UtcMs | null {
  const date = asText(get("DATE-OBS"));
  const time = asText(get("TIME-OBS"));
  if (date === null) return null;
  const text = (date.includes("T") ? date : time ? `${date}T${time}` : date).replace(/Z$/, "");
  const match = /^(\d{4}-\d{2}-\d{2})(?:T(\d{2}:\d{2}:\d{2})(\.\d+)?)?$/.exec(text);
  if (!match) return null;
  const text0 = `${match[1]}T${match[2] ?? "00:00:00"}`;
  const whole = Date.parse(`${text0}Z`);
  // 30 February would be read as 2 March: a date that does not come back is none.
  const isReal = Number.isFinite(whole) && new Date(whole).toISOString().startsWith(text0);
  return isReal ? utcMs(whole + Math.round(Number(match[3] ?? 0) * 1000)) : null;
}

/** Hours as sexagesimal text, or degrees as a number. */
function rightAscension(v: string | number | null): number | null {
  if (v === null) return null;
  if (typeof v === "number") return wrap360(v);
  const angle = parseAngle(v);
  return angle.ok ? wrap360(angle.value * 15) : null;
}

function declination(v: string | number | null): number | null {
  if (v === null) return null;
  if (typeof v === "number") return v;
  const angle = parseAngle(v);
  return angle.ok ? angle.value : null;
}

/** Where the mount said it pointed. */
function pointingOf(get: Lookup): Equatorial<"icrs"> | null {
  for (const [ra, dec] of [
    ["RA", "DEC"],
    ["OBJCTRA", "OBJCTDEC"],
  ] as const) {
    const [raDeg, decDeg] = [rightAscension(get(ra)), declination(get(dec))];
    if (raDeg !== null && decDeg !== null && Math.abs(decDeg) <= 90) return { frame: "icrs", raDeg, decDeg };
  }
  return null;
}

/** Where it was taken, by the mount's or camera's own word: latitude north, longitude east, degrees or sexagesimal. */
function siteOf(get: Lookup): { readonly latitudeDeg: number; readonly longitudeDeg: number } | null {
  const angle = (v: string | number | null) => {
    if (v === null || typeof v === "number") return v;
    const read = parseAngle(v);
    return read.ok ? read.value : null;
  };
  const [latitudeDeg, longitudeDeg] = [angle(get("SITELAT", "OBSGEO-B")), angle(get("SITELONG", "OBSGEO-L"))];
  return latitudeDeg !== null && longitudeDeg !== null && Math.abs(latitudeDeg) <= 90 && Math.abs(longitudeDeg) <= 360
    ? { latitudeDeg, longitudeDeg }
    : null;
}

/** What whoever took it measured of stars and sky; without the width of stars it is none. */
function measureOf(get: Lookup): SubMeasure | null {
  const fwhmPx = asNumber(get("FWHM", "MEANFWHM"));
  if (fwhmPx === null || !(fwhmPx > 0 && fwhmPx <= 200)) return null;
  const within = (v: number | null, max: number) => (v !== null && v >= 0 && v <= max ? v : null);
  const count = within(asNumber(get("STARS", "NSTARS", "STARCOUNT")), 1e7);
  return {
    fwhmPx,
    eccentricity: within(asNumber(get("ECCENTR", "ECC")), 1),
    stars: count === null ? null : Math.round(count),
    background: asNumber(get("BACKGRND", "BGLEVEL", "SKYLEVEL")),
    from: "header",
  };
}

/** Within a range, or not at all: headers have −999 and the like where an instrument is silent. */
const within = (v: number | null, least: number, most: number): number | undefined =>
  v !== null && v >= least && v <= most ? v : undefined;

/** What the instruments beside the camera said; names from memory. */
function besideOf(get: Lookup): Pick<ExposureFacts, "airC" | "focusSteps"> {
  const airC = within(asNumber(get("AMBTEMP", "AMB-TEMP", "AOCAMBT", "OUTTEMP")), -60, 60);
  const focus = within(asNumber(get("FOCUSPOS", "FOCPOS")), -1e7, 1e7);
  return {
    ...(airC === undefined ? {} : { airC }),
    ...(focus === undefined ? {} : { focusSteps: Math.round(focus) }),
  };
}

/** What a header says about an exposure, by the common names of its keywords. */
export function exposureFactsOf(
  header: FitsHeader,
  file: { readonly name: string; readonly sizeBytes: number },
): ExposureFacts {
  const get = lookupIn(header);
  const solved = readWcs(header);
  const wcs = solved.ok ? solved.value : null;
  const isSilent = !solved.ok && (solved.error.code === "frameNoSolution" || solved.error.code === "frameNoImage");
  return {
    fileName: file.name,
    sizeBytes: file.sizeBytes,
    frameType: frameTypeOf(asText(get("IMAGETYP", "FRAME", "OBSTYPE"))),
    object: asText(get("OBJECT")),
    hints: [],
    startMs: startOf(get),
    wallMs: null,
    exposureSec: asNumber(get("EXPTIME", "EXPOSURE")),
    filter: asText(get("FILTER")),
    camera: asText(get("INSTRUME", "CAMERA")),
    gain: asNumber(get("GAIN")),
    offset: asNumber(get("OFFSET", "BLKLEVEL")),
    temperatureC: asNumber(get("CCD-TEMP", "SET-TEMP")),
    focalLengthMm: asNumber(get("FOCALLEN")),
    pixelPitchUm: asNumber(get("XPIXSZ")),
    binning: asNumber(get("XBINNING")),
    widthPx: header.axes[0] ?? null,
    heightPx: header.axes[1] ?? null,
    ...(asText(get("BAYERPAT")) === null ? {} : { isColour: true }),
    site: siteOf(get),
    centre: wcs?.centre ?? pointingOf(get),
    isSolved: wcs !== null,
    solutionFault: solved.ok || isSilent ? null : solved.error,
    positionAngleDeg: wcs?.shown.positionAngleDeg ?? null,
    rotatorDeg: asNumber(get("ROTATANG", "ROTATOR", "ROTPA")),
    pixelScaleArcsec: wcs?.scaleYArcsec ?? null,
    measure: measureOf(get),
    ...besideOf(get),
    ...(header.values.get("SIMULATD") === true ? { isSimulated: true } : {}),
  };
}
