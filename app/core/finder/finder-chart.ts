import { hiddenBelowDeg, horizontalAt, type Horizontal, type NightSky, type Vec3 } from "~/core/sky";
import type { UtcMs } from "~/core/time";
import { degToRad, radToDeg, wrap180 } from "~/core/units";
import type { Place } from "~/core/night";

/** A point of a finder chart: degrees from its middle on the tangent plane, right as the eye sees it and up to the zenith. */
export interface ChartPoint {
  readonly rightDeg: number;
  readonly upDeg: number;
}

/** How a chart is turned to fit what one looks through. */
export type ChartTurn = "eye" | "upsideDown" | "mirrored";

/** A direction over the horizon on the tangent plane of another; null behind it. Gnomonic: straight lines stay straight. */
export function chartPoint(centre: Horizontal, at: Horizontal): ChartPoint | null {
  const [h0, h] = [degToRad(centre.altitudeDeg), degToRad(at.altitudeDeg)];
  const dAz = degToRad(wrap180(at.azimuthDeg - centre.azimuthDeg));
  const c = Math.sin(h0) * Math.sin(h) + Math.cos(h0) * Math.cos(h) * Math.cos(dAz);
  if (c < 0.1) return null;
  return {
    rightDeg: radToDeg((Math.cos(h) * Math.sin(dAz)) / c),
    upDeg: radToDeg((Math.cos(h0) * Math.sin(h) - Math.sin(h0) * Math.cos(h) * Math.cos(dAz)) / c),
  };
}

/** A chart point as an instrument shows it: upside down in a plain finder, left and right swapped behind a star diagonal. */
export function turned({ rightDeg, upDeg }: ChartPoint, turn: ChartTurn): ChartPoint {
  switch (turn) {
    case "eye":
      return { rightDeg, upDeg };
    case "upsideDown":
      return { rightDeg: -rightDeg, upDeg: -upDeg };
    case "mirrored":
      return { rightDeg: -rightDeg, upDeg };
  }
}

/** Middle and reach of a chart that holds some directions of date with a margin. */
export function chartFrame(
  sky: NightSky,
  ms: UtcMs,
  vectors: readonly Vec3[],
): { readonly centre: Horizontal; readonly radiusDeg: number } {
  const sum = vectors.reduce<readonly [number, number, number]>(
    (s, v) => [s[0] + v[0], s[1] + v[1], s[2] + v[2]],
    [0, 0, 0],
  );
  const length = Math.hypot(...sum);
  const centre = horizontalAt(sky, [sum[0] / length, sum[1] / length, sum[2] / length], ms);
  const reach = vectors
    .map((v) => chartPoint(centre, horizontalAt(sky, v, ms)))
    .map((p) => (p ? Math.hypot(p.rightDeg, p.upDeg) : 60));
  return { centre, radiusDeg: Math.min(60, Math.max(6, 1.25 * Math.max(...reach))) };
}

/** The upper edge of what stands around a place, as far as a chart reaches, from left to right. */
export function chartSkyline(place: Place, centre: Horizontal, radiusDeg: number): ChartPoint[] {
  const half = Math.min(85, radiusDeg / Math.max(0.2, Math.cos(degToRad(centre.altitudeDeg))) + 5);
  return Array.from({ length: 121 }, (_, i) => {
    const azimuthDeg = centre.azimuthDeg - half + (i / 120) * 2 * half;
    const altitudeDeg = hiddenBelowDeg(place.skyline, place.landmarks ?? [], azimuthDeg);
    return chartPoint(centre, { azimuthDeg, altitudeDeg });
  }).filter((p) => p !== null);
}
