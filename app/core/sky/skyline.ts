import { clamp, wrap180, wrap360 } from "~/core/units";

/** One corner of a skyline: what stands at this azimuth reaches this altitude. */
export interface SkylinePoint {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
}

/** What hides the sky around a place, by rising azimuth; straight lines between points, wrapping at north. Empty = level horizon. */
export type Skyline = readonly SkylinePoint[];

/** Altitude of the skyline at an azimuth, degrees; 0 for an empty one. Points must be sorted by azimuth. */
export function skylineAltitudeDeg(skyline: Skyline, azimuthDeg: number): number {
  if (skyline.length === 0) return 0;
  const az = wrap360(azimuthDeg);
  const next = skyline.findIndex((p) => p.azimuthDeg >= az);
  const q = skyline[next === -1 ? 0 : next]!;
  const p = skyline[(next <= 0 ? skyline.length : next) - 1]!;
  const width = wrap360(q.azimuthDeg - p.azimuthDeg);
  return width === 0
    ? q.altitudeDeg
    : p.altitudeDeg + ((q.altitudeDeg - p.altitudeDeg) * wrap360(az - p.azimuthDeg)) / width;
}

/** Something named that stands in the way, on top of the drawn line: a shed, a pole, a tree. */
export interface Landmark {
  readonly name: string;
  /** A box is as high at its edges as in its middle; a tree has a round crown (half an ellipse); a pole is a thin box. */
  readonly shape: "box" | "pole" | "tree";
  /** Of its middle. */
  readonly azimuthDeg: number;
  readonly widthDeg: number;
  readonly altitudeDeg: number;
}

/** Altitude up to which a landmark hides an azimuth, degrees; 0 beside it. */
export function landmarkAltitudeDeg(landmark: Landmark, azimuthDeg: number): number {
  const half = landmark.widthDeg / 2;
  const off = Math.abs(wrap180(azimuthDeg - landmark.azimuthDeg));
  if (off > half) return 0;
  return landmark.shape === "tree" ? landmark.altitudeDeg * Math.sqrt(1 - (off / half) ** 2) : landmark.altitudeDeg;
}

/** Altitude up to which the sky is hidden at an azimuth: the drawn line or the landmark before it, whichever is higher. */
export const hiddenBelowDeg = (skyline: Skyline, landmarks: readonly Landmark[], azimuthDeg: number): number =>
  landmarks.reduce(
    (top, l) => Math.max(top, landmarkAltitudeDeg(l, azimuthDeg)),
    skylineAltitudeDeg(skyline, azimuthDeg),
  );

const BIN_DEG = 0.5;

/**
 * What is hidden, sampled every half degree of azimuth for bulk work: 720 values, index = azimuth × 2 rounded. A landmark
 * narrower than a sample still takes one.
 */
export const skylineTable = (skyline: Skyline, landmarks: readonly Landmark[] = []): Float64Array => {
  const wide = landmarks.map((l) => (l.widthDeg < BIN_DEG ? { ...l, widthDeg: BIN_DEG } : l));
  return Float64Array.from({ length: 720 }, (_, i) => hiddenBelowDeg(skyline, wide, i * BIN_DEG));
};

/** Turns a skyline by `byDeg` of azimuth (east positive) and lifts it by `upDeg`; altitudes stay within 0–90. */
export const shiftSkyline = (skyline: Skyline, byDeg: number, upDeg: number): Skyline =>
  skyline
    .map((p) => ({
      azimuthDeg: tidy(wrap360(p.azimuthDeg + byDeg)),
      altitudeDeg: tidy(clamp(p.altitudeDeg + upDeg, 0, 90)),
    }))
    .sort((a, b) => a.azimuthDeg - b.azimuthDeg);

/** Rounded to 0.001° without ending at 360. */
const tidy = (deg: number): number => (Math.round(deg * 1000) / 1000) % 360;

/** True azimuth of a compass bearing: magnetic + declination, declination east positive. [0, 360). */
export const trueAzimuthDeg = (magneticDeg: number, declinationDeg: number): number =>
  wrap360(magneticDeg + declinationDeg);
