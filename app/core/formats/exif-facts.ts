import ExifReader from "exifreader";
import type { ExposureFacts, FrameType } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { utcMs } from "~/core/time";
import { jpegParts } from "./jpeg";
import { slimTiff, type PixelSize, type ReadAt } from "./tiff";

/** Why a picture file tells nothing about its exposure. */
export type ExifFault = { readonly code: "noExif" } | { readonly code: "exifUnreadable" };

/** Endings of camera raw built like TIFF; and of pictures for looking at, which lie beside a sub as a rule. */
const RAW_ENDINGS = ["dng", "cr2", "nef", "nrw", "arw", "sr2", "orf", "pef", "rw2", "srw", "3fr", "iiq"] as const;
const PICTURE_ENDINGS = ["jpg", "jpeg", "tif", "tiff", "heic", "heif", "avif"] as const;

/** Endings of files whose facts stand in EXIF. */
export const EXIF_ENDINGS = [...PICTURE_ENDINGS, ...RAW_ENDINGS] as const;

const endsIn = (endings: readonly string[], name: string): boolean =>
  endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

/** Whether a file's name says that it is a sub as a camera's program writes it: FITS, packed or not, or camera raw. */
export const isSubName = (name: string): boolean =>
  /\.(?:fits?|fts)(?:\.gz|\.fz)?$/i.test(name) || endsIn(RAW_ENDINGS, name);

/** Whether a file's name says that it has EXIF. */
export const isExifName = (name: string): boolean => endsIn(EXIF_ENDINGS, name);

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

/** The tags of a picture, and how large the images in it are. */
interface Opened {
  readonly tags: Tags;
  readonly sizes: readonly PixelSize[];
}

/** Of files that are neither TIFF nor JPEG: how much of the front is looked through for EXIF. */
const FRONTS = [512_000, 8_000_000];

/** Opens a picture where its EXIF lies: of TIFF and JPEG a few kilobytes, whatever its length. Throws where it cannot be read. */
async function open(read: ReadAt, sizeBytes: number): Promise<Opened | null> {
  const jpeg = await jpegParts(read);
  if (jpeg && !jpeg.exif) return null;
  const { offset, length } = jpeg?.exif ?? { offset: 0, length: sizeBytes };
  const slim = await slimTiff((from, count) => read(offset + from, Math.max(0, Math.min(count, length - from))));
  if (slim) return { tags: ExifReader.load(slim.bytes), sizes: [...(jpeg?.size ? [jpeg.size] : []), ...slim.sizes] };
  if (jpeg) return null;
  for (const front of FRONTS) {
    try {
      const tags: Tags = ExifReader.load((await read(0, front)).slice().buffer);
      const [width, height] = [numberOf(tags["PixelXDimension"]), numberOf(tags["PixelYDimension"])];
      return { tags, sizes: width && height ? [{ widthPx: width, heightPx: height }] : [] };
    } catch (error) {
      if (front >= sizeBytes || front === FRONTS.at(-1)) throw error;
    }
  }
  return null;
}

/** The largest of some images: what a camera made, not its previews. */
const largest = (sizes: readonly PixelSize[]): PixelSize | null =>
  sizes.reduce<PixelSize | null>((a, b) => (a && a.widthPx * a.heightPx >= b.widthPx * b.heightPx ? a : b), null);

/**
 * What the EXIF of a picture says about an exposure (Exif 3.0, CIPA DC-008). Cameras write the time of their own clock: with a zone
 * only where they know one, else as `wallMs`. Its size is that of the largest image in the file. Where it points, and through which
 * filter, no camera says: that is in the names of folders, or asked.
 */
export async function exifFactsOf(
  read: ReadAt,
  file: { readonly name: string; readonly path: string; readonly sizeBytes: number },
): Promise<Result<ExposureFacts, ExifFault>> {
  let opened: Opened | null;
  try {
    opened = await open(read, file.sizeBytes);
  } catch (error) {
    return err({
      code: error instanceof Error && /metadata|format/i.test(error.message) ? "noExif" : "exifUnreadable",
    });
  }
  if (!opened) return err({ code: "noExif" });
  const { tags } = opened;
  const size = largest(opened.sizes);
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
    widthPx: size?.widthPx ?? null,
    heightPx: size?.heightPx ?? null,
    isColour: true, // a photo camera
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
