import { FWHM_PER_SIGMA } from "~/core/numeric";
import { degToRad } from "~/core/units";

/** What can change in an optical train. */
export const TRAIN_PARTS = ["turned", "filters", "cleaned"] as const;
export type TrainPart = (typeof TRAIN_PARTS)[number];

/** What takes time from a night. */
export const LOST_CAUSES = ["cloud", "wind", "dew", "kit", "guiding", "lateStart", "other"] as const;
export type LostCause = (typeof LOST_CAUSES)[number];

/** What somebody wrote down about a night at a place: measured, felt, gone wrong, and what cured it. Absent = not written down. */
export interface NightFacts {
  readonly night: string;
  readonly placeId: string;
  readonly memberId: string;
  /** With which rig, where it is about one. */
  readonly rigId?: string;
  /** Width of stars at the zenith, FWHM. */
  readonly seeingArcsec?: number;
  /** 1 = milky to 5 = as clear as it gets here. */
  readonly transparency?: number;
  /** Error of the polar axis: of its azimuth along the horizon, and of its altitude; the sign does not matter. */
  readonly polarAzimuthArcmin?: number;
  readonly polarAltitudeArcmin?: number;
  /** Guiding, root mean square per axis; right ascension as on the sky. */
  readonly guideRaArcsec?: number;
  readonly guideDecArcsec?: number;
  /** Measured, from north through east. */
  readonly cameraAngleDeg?: number;
  readonly airC?: number;
  /** Felt at the mount. */
  readonly windKmh?: number;
  readonly dew?: "none" | "wet" | "ice";
  /** Steps of the focuser from dusk to dawn. */
  readonly focusMoves?: number;
  /** Exposure that was set up to be taken. */
  readonly programmedMin?: number;
  /** Of it, minutes that were not taken, by cause. */
  readonly lost?: Readonly<Partial<Record<LostCause, number>>>;
  /** What of the optical train changed before or in this night: flats from before it are void. */
  readonly train?: readonly TrainPart[];
  readonly trouble: string;
  readonly cure: string;
  readonly note: string;
}

/** Where the numbers of a night stand on a chart. */
export const NIGHT_MEASURES = ["seeingArcsec", "transparency", "guiding", "polar", "cameraAngleDeg", "airC", "windKmh", "focusMoves"] as const; // prettier-ignore
export type NightMeasure = (typeof NIGHT_MEASURES)[number];

/** Both axes of guiding together, arcseconds: √(RA² + Dec²); null where one is missing. */
export const guidingTotal = (f: Pick<NightFacts, "guideRaArcsec" | "guideDecArcsec">): number | null =>
  f.guideRaArcsec === undefined || f.guideDecArcsec === undefined
    ? null
    : Math.hypot(f.guideRaArcsec, f.guideDecArcsec);

/**
 * Error of the polar axis on the sky, arcminutes: azimuth counts less the higher the pole stands. MATHS 10.2; null where one part is
 * missing.
 */
export const polarTotal = (
  f: Pick<NightFacts, "polarAzimuthArcmin" | "polarAltitudeArcmin">,
  latitudeDeg: number,
): number | null =>
  f.polarAzimuthArcmin === undefined || f.polarAltitudeArcmin === undefined
    ? null
    : Math.hypot(f.polarAzimuthArcmin * Math.cos(degToRad(latitudeDeg)), f.polarAltitudeArcmin);

/** A measure of a night as a number; null where it was not written down. */
export function measureOf(f: NightFacts, measure: NightMeasure, latitudeDeg: number): number | null {
  if (measure === "guiding") return guidingTotal(f);
  if (measure === "polar") return polarTotal(f, latitudeDeg);
  return f[measure] ?? null;
}

/** What guiding comes to in the picture. */
export interface GuidingVerdict {
  readonly totalArcsec: number;
  /** Over the pixel scale. */
  readonly ofPixel: number;
  readonly grade: "good" | "fair" | "poor";
  /** The worse axis over the other. */
  readonly ratio: number;
  /** Of a star of the night's seeing, longer in one axis; null without the seeing. */
  readonly eccentricity: number | null;
}

const GOOD = 0.5; // of a pixel; common practice, no source
const FAIR = 1;

/** Guiding against the pixel scale: good to half of it, fair to all of it. MATHS 10.1; random error only. */
export function guidingVerdict(f: NightFacts, scaleArcsec: number): GuidingVerdict | null {
  const total = guidingTotal(f);
  if (total === null || !(scaleArcsec > 0)) return null;
  const [ra, dec] = [f.guideRaArcsec!, f.guideDecArcsec!];
  const width = (rms: number) => Math.hypot(f.seeingArcsec ?? 0, FWHM_PER_SIGMA * rms);
  const [wide, narrow] = [Math.max(width(ra), width(dec)), Math.min(width(ra), width(dec))];
  const ofPixel = total / scaleArcsec;
  return {
    totalArcsec: total,
    ofPixel,
    grade: ofPixel <= GOOD ? "good" : ofPixel <= FAIR ? "fair" : "poor",
    ratio: Math.max(ra, dec) / Math.max(1e-9, Math.min(ra, dec)),
    eccentricity: f.seeingArcsec === undefined || wide === 0 ? null : Math.sqrt(1 - (narrow / wide) ** 2),
  };
}

const DRIFT_PER_ARCMIN = 0.2625; // ″ a minute of time at most; MATHS 3.9

/** Drift that an error of the polar axis makes at most, arcseconds in a sub; guiding takes it, not the turn of the field. */
export const polarDriftArcsec = (errorArcmin: number, subSec: number): number =>
  (DRIFT_PER_ARCMIN * errorArcmin * subSec) / 60;

/** Nights on which a trouble was met, or cured, that has all the words of a question; latest first. */
export function troublesAbout<F extends NightFacts>(facts: readonly F[], question: string): F[] {
  const words = question
    .toLowerCase()
    .split(/\s+/)
    .filter((w) => w !== "");
  return facts
    .filter((f) => {
      const text = `${f.trouble} ${f.cure} ${f.note}`.toLowerCase();
      return text.trim() !== "" && words.every((w) => text.includes(w));
    })
    .sort((a, b) => (a.night < b.night ? 1 : -1));
}
