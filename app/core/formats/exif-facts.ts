import ExifReader from "exifreader";
import type { ExposureFacts, FrameType } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { utcMs } from "~/core/time";

/** Why a picture file tells nothing about its exposure. */
export type ExifFault = { readonly code: "noExif" } | { readonly code: "exifUnreadable" };

/** Endings of files whose facts stand in EXIF: camera raw built like TIFF, TIFF itself, JPEG and its successors. */
export const EXIF_ENDINGS = ["jpg", "jpeg", "tif", "tiff", "dng", "cr2", "nef", "nrw", "arw", "sr2", "orf", "pef", "rw2", "srw", "3fr", "iiq", "heic", "heif", "avif"] as const; // prettier-ignore

/** Whether a file's name says that it has EXIF. */
export const isExifName = (name: string): boolean =>
  EXIF_ENDINGS.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

const TIFF_MAGIC = 42;
/** What two makers write in its place, and are built like TIFF in all else. */
const OWN_MAGICS: readonly number[] = [0x4f52, 0x5352, 0x55];

/** A file as TIFF where it is one in all but its magic number. */
function asTiff(bytes: ArrayBuffer): ArrayBuffer {
  if (bytes.byteLength < 8) return bytes;
  const view = new DataView(bytes);
  const order = view.getUint16(0);
  const isLittle = order === 0x4949;
  if ((!isLittle && order !== 0x4d4d) || !OWN_MAGICS.includes(view.getUint16(2, isLittle))) return bytes;
  const copy = bytes.slice(0);
  new DataView(copy).setUint16(2, TIFF_MAGIC, isLittle);
  return copy;
}

interface Tag {
  readonly value?: unknown;
  readonly description?: unknown;
  readonly computed?: unknown;
}

type Tags = Readonly<Record<string, Tag | undefined>>;

/** A number of a tag: plain, in a list of one, or as a fraction. */
function numberOf(tag: Tag | undefined): number | null {
  const value =
    Array.isArray(tag?.value) && !(tag.value.length === 2 && typeof tag.value[0] === "number")
      ? (tag.value[0] as unknown)
      : tag?.value;
  if (typeof value === "number") return Number.isFinite(value) ? value : null;
  if (Array.isArray(value) && typeof value[0] === "number" && typeof value[1] === "number")
    return value[1] === 0 ? null : value[0] / value[1];
  return null;
}

function textOf(tag: Tag | undefined): string | null {
  const value = Array.isArray(tag?.value) ? (tag.value[0] as unknown) : tag?.value;
  return typeof value === "string" && value.trim() !== "" ? value.replaceAll("\0", "").trim() : null;
}

/** "2026:12:05 22:10:31" as if the clock ran on UTC; null where it is no date. */
function wallClock(text: string | null): number | null {
  const match = /^(\d{4}):(\d{2}):(\d{2})[ T](\d{2}):(\d{2}):(\d{2})/.exec(text ?? "");
  if (!match) return null;
  const [, y, mo, d, h, mi, s] = match;
  const iso = `${y}-${mo}-${d}T${h}:${mi}:${s}`;
  const ms = Date.parse(`${iso}Z`);
  return Number.isFinite(ms) && new Date(ms).toISOString().startsWith(iso) ? ms : null;
}

/** "+02:00" in minutes; null where it is none. */
function offsetMinutes(text: string | null): number | null {
  const match = /^([+-])(\d{2}):(\d{2})$/.exec(text ?? "");
  return match ? (match[1] === "-" ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3])) : null;
}

/** What a file is, by the words in its path: cameras do not say. A picture that names nothing is a light. */
export function frameTypeOfPath(path: string): FrameType {
  const words = path.toLowerCase().split(/[^a-z]+/);
  const has = (...some: string[]) => words.some((w) => some.includes(w));
  if (has("darkflat", "darkflats", "flatdark", "flatdarks")) return "darkFlat";
  if (has("dark", "darks")) return has("flat", "flats") ? "darkFlat" : "dark";
  if (has("flat", "flats")) return "flat";
  return has("bias", "biases", "offset", "offsets") ? "bias" : "light";
}

/**
 * What the EXIF of a picture says about an exposure (Exif 3.0, CIPA DC-008). Cameras write the time of their own clock: with a zone
 * only where they know one, else as `wallMs`. Where it points, and through which filter, no camera says: that is in the names of
 * folders, or asked.
 */
export function exifFactsOf(
  bytes: ArrayBuffer,
  file: { readonly name: string; readonly path: string; readonly sizeBytes: number },
): Result<ExposureFacts, ExifFault> {
  let tags: Tags;
  try {
    tags = ExifReader.load(asTiff(bytes));
  } catch (error) {
    return err({
      code: error instanceof Error && /metadata|format/i.test(error.message) ? "noExif" : "exifUnreadable",
    });
  }
  const exposureSec = numberOf(tags["ExposureTime"]);
  const model = textOf(tags["Model"]);
  if (exposureSec === null && model === null) return err({ code: "noExif" });
  const wall = wallClock(
    textOf(tags["DateTimeOriginal"]) ?? textOf(tags["DateTimeDigitized"]) ?? textOf(tags["DateTime"]),
  );
  const zone = offsetMinutes(textOf(tags["OffsetTimeOriginal"]) ?? textOf(tags["OffsetTime"]));
  const [latitudeDeg, longitudeDeg] = [gpsOf(tags, "Latitude"), gpsOf(tags, "Longitude")];
  return ok({
    fileName: file.name,
    sizeBytes: file.sizeBytes,
    frameType: frameTypeOfPath(file.path),
    object: null,
    hints: file.path.split(/[/\\]+/).filter((part) => part !== ""),
    startMs: wall !== null && zone !== null ? utcMs(wall - zone * 60_000) : null,
    wallMs: wall !== null && zone === null ? wall : null,
    exposureSec: exposureSec !== null && exposureSec >= 0 ? exposureSec : null,
    filter: null,
    camera: model,
    gain: numberOf(tags["ISOSpeedRatings"]) ?? numberOf(tags["PhotographicSensitivity"]) ?? numberOf(tags["ISO"]),
    offset: null,
    temperatureC: numberOf(tags["AmbientTemperature"]),
    focalLengthMm: positive(numberOf(tags["FocalLength"])),
    pixelPitchUm: null,
    binning: null,
    widthPx: positive(numberOf(tags["PixelXDimension"]) ?? numberOf(tags["ImageWidth"])),
    heightPx: positive(
      numberOf(tags["PixelYDimension"]) ?? numberOf(tags["ImageLength"]) ?? numberOf(tags["Image Height"]),
    ),
    site: latitudeDeg !== null && longitudeDeg !== null ? { latitudeDeg, longitudeDeg } : null,
    centre: null,
    isSolved: false,
    solutionFault: null,
    positionAngleDeg: null,
    rotatorDeg: null,
    pixelScaleArcsec: null,
    measure: null,
  });
}

const positive = (value: number | null): number | null => (value !== null && value > 0 ? value : null);

/** Degrees of one coordinate: degrees, minutes, seconds as fractions, and the half of the Earth. */
function gpsOf(tags: Tags, which: "Latitude" | "Longitude"): number | null {
  const parts = tags[`GPS${which}`]?.value;
  if (!Array.isArray(parts) || parts.length !== 3) return null;
  const [d, m, s] = parts.map((p) => numberOf({ value: p as unknown }));
  if (d === null || d === undefined || m === null || m === undefined || s === null || s === undefined) return null;
  const half = textOf(tags[`GPS${which}Ref`]) ?? "";
  const value = (d + m / 60 + s / 3600) * (/^[SW]/i.test(half) ? -1 : 1);
  return Math.abs(value) <= (which === "Latitude" ? 90 : 180) ? value : null;
}
