import { addMs, HOUR_MS, MINUTE_MS, type UtcMs } from "~/core/time";
import { wrap180 } from "~/core/units";
import type { ExposureFacts } from "./exposure-facts";
import { channelOfFilter } from "./filter-name";
import { clockAheadHours } from "./intake-record";

/** What an exposure tells of the kit and the place it was taken with; null where it says nothing. */
export interface KitFromExposure {
  readonly focalLengthMm: number | null;
  /** The focal length is measured by the solution, not as somebody typed it into the program that wrote the file. */
  readonly isFocalSolved: boolean;
  readonly pixelPitchUm: number | null;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
  readonly cameraName: string | null;
  /** Whether its camera records colour: by its mosaic, or by a filter that only a monochrome camera is used with. */
  readonly isColour: boolean | null;
  readonly gain: number | null;
  readonly site: { readonly latitudeDeg: number; readonly longitudeDeg: number } | null;
  /** Whole hours by which the camera's clock seems to be ahead, and what says so; null = nothing speaks against it. */
  readonly clock: { readonly hours: number; readonly by: "sun" | "file" } | null;
}

const ARCSEC_PER_UM_MM = 206.265;
/** A file is written so soon after its exposure ended. */
const WRITTEN_WITHIN_MS = 4 * MINUTE_MS;
/** No clock is set further off than a zone; a file that is older was copied. */
const MOST_HOURS = 14;

/** Focal length by scale and pixel; where binned pixels are read or meant, the one nearer to what the file says. */
function solvedFocal(facts: ExposureFacts): number | null {
  const { pixelScaleArcsec: scale, pixelPitchUm: pitch, binning, focalLengthMm } = facts;
  if (!scale || !pitch) return null;
  const plain = (ARCSEC_PER_UM_MM * pitch) / scale;
  const binned = plain * (binning ?? 1);
  if (!focalLengthMm) return binned;
  return Math.abs(Math.log(plain / focalLengthMm)) < Math.abs(Math.log(binned / focalLengthMm)) ? plain : binned;
}

/** Whole hours between when a file says it was begun and when it was written; null where they agree or nothing can be said. */
function hoursBeforeWritten(facts: ExposureFacts, writtenMs: number | null): number | null {
  if (facts.startMs === null || writtenMs === null) return null;
  const late = writtenMs - facts.startMs - (facts.exposureSec ?? 0) * 1000;
  const hours = Math.round(late / HOUR_MS);
  if (hours === 0 || Math.abs(hours) > MOST_HOURS) return null;
  return Math.abs(late - hours * HOUR_MS) <= WRITTEN_WITHIN_MS ? -hours : null;
}

/** Filters of one colour are of no use before a mosaic. */
const ONE_COLOUR: ReadonlySet<string> = new Set(["R", "G", "B"]);

function colourOf({ isColour, filter }: ExposureFacts): boolean | null {
  if (isColour !== undefined) return isColour;
  const channel = filter === null ? null : channelOfFilter(filter, []);
  if (channel === null) return null;
  return ONE_COLOUR.has(channel) ? false : channel === "Colour" || channel === "Dual" ? true : null;
}

/**
 * What one exposure tells of kit and place. `writtenMs` is when its file was last written; `sunAt` gives the Sun's altitude over a site, degrees. The
 * clock is doubted where the Sun was up, or where the file was written a whole number of hours off.
 */
export function kitFromExposure(
  facts: ExposureFacts,
  writtenMs: number | null,
  sunAt: (site: { readonly latitudeDeg: number; readonly longitudeDeg: number }, at: UtcMs) => number,
): KitFromExposure {
  const solved = solvedFocal(facts);
  const focal = solved ?? facts.focalLengthMm;
  const site = facts.site ? { ...facts.site, longitudeDeg: wrap180(facts.site.longitudeDeg) } : null;
  const { startMs } = facts;
  const bySun =
    site && startMs !== null && facts.frameType === "light"
      ? clockAheadHours(1, (_, hours) => sunAt(site, addMs(startMs, -hours * HOUR_MS)))
      : null;
  const byFile = hoursBeforeWritten(facts, writtenMs);
  const ratio = facts.binning && facts.binning > 0 ? facts.binning : 1;
  return {
    focalLengthMm: focal !== null && focal > 0 ? Math.round(focal * 10) / 10 : null,
    isFocalSolved: solved !== null,
    pixelPitchUm: facts.pixelPitchUm,
    widthPx: facts.widthPx === null ? null : facts.widthPx * ratio,
    heightPx: facts.heightPx == null ? null : facts.heightPx * ratio,
    cameraName: facts.camera,
    isColour: colourOf(facts),
    gain: facts.gain,
    site,
    clock: bySun !== null ? { hours: bySun, by: "sun" } : byFile !== null ? { hours: byFile, by: "file" } : null,
  };
}
