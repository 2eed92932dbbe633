import { wrap360 } from "~/core/units";

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

/** The skyline sampled every half degree of azimuth, for bulk work: 720 values, index = azimuth × 2 rounded. */
export const skylineTable = (skyline: Skyline): Float64Array =>
  Float64Array.from({ length: 720 }, (_, i) => skylineAltitudeDeg(skyline, i / 2));
