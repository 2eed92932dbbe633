import { directionOf, unitVector, type Equatorial, type Vec3 } from "~/core/sky";
import { degToRad, radToDeg } from "~/core/units";

/**
 * What a chart shows: a stereographic map about a centre, north up (turned by `rollDeg`), east left. Shapes stay true
 * everywhere, so a frame of 60° looks like one; scale grows off axis by 1/cos²(ρ/2): 7 % at 30°.
 */
export interface ChartView {
  readonly centre: Equatorial<"icrs">;
  readonly widthPx: number;
  readonly heightPx: number;
  /** At the centre. */
  readonly pxPerDeg: number;
  /** Axes of the map in ICRS: towards the viewer's left (east), up (north) and along the line of sight. */
  readonly east: Vec3;
  readonly north: Vec3;
  readonly sight: Vec3;
  /** −1 when left and right are swapped, as behind an odd number of mirrors. */
  readonly flip: 1 | -1;
}

/** Pixels from the top left. */
export interface ScreenPoint {
  readonly x: number;
  readonly y: number;
}

/** Sets up a chart of a size in pixels that spans `heightDeg` from top to bottom at its centre. */
export function chartView(at: {
  readonly centre: Equatorial<"icrs">;
  readonly heightDeg: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Position angle that stands upright. */
  readonly rollDeg?: number;
  readonly isMirrored?: boolean;
}): ChartView {
  const { raDeg, decDeg } = at.centre;
  const east0 = unitVector({ raDeg: raDeg + 90, decDeg: 0 });
  const [ra, dec] = [degToRad(raDeg), degToRad(decDeg)];
  const north0: Vec3 = [-Math.sin(dec) * Math.cos(ra), -Math.sin(dec) * Math.sin(ra), Math.cos(dec)];
  const roll = degToRad(at.rollDeg ?? 0);
  const mix = (a: Vec3, b: Vec3, c: number, s: number): Vec3 => [
    a[0] * c + b[0] * s,
    a[1] * c + b[1] * s,
    a[2] * c + b[2] * s,
  ];
  return {
    centre: at.centre,
    widthPx: at.widthPx,
    heightPx: at.heightPx,
    pxPerDeg: at.heightPx / at.heightDeg,
    east: mix(east0, north0, Math.cos(roll), -Math.sin(roll)),
    north: mix(north0, east0, Math.cos(roll), Math.sin(roll)),
    sight: unitVector(at.centre),
    flip: at.isMirrored ? -1 : 1,
  };
}

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** Where a unit vector falls on the chart; null in the far third of the sky, where the map runs away. */
export function toScreen(view: ChartView, v: Vec3): ScreenPoint | null {
  const c = dot(v, view.sight);
  if (c < -0.5) return null;
  const k = (2 / (1 + c)) * radToDeg(1) * view.pxPerDeg;
  return { x: view.widthPx / 2 - view.flip * k * dot(v, view.east), y: view.heightPx / 2 - k * dot(v, view.north) };
}

/** The direction under a point of the chart; the inverse of `toScreen`. */
export function fromScreen(view: ChartView, p: ScreenPoint): Equatorial<"icrs"> {
  const scale = 2 * radToDeg(1) * view.pxPerDeg;
  const [e, n] = [(view.flip * (view.widthPx / 2 - p.x)) / scale, (view.heightPx / 2 - p.y) / scale];
  const r2 = e * e + n * n;
  const [ke, kn, ks] = [(2 * e) / (1 + r2), (2 * n) / (1 + r2), (1 - r2) / (1 + r2)];
  const along = (i: 0 | 1 | 2) => ke * view.east[i] + kn * view.north[i] + ks * view.sight[i];
  return { frame: "icrs", ...directionOf([along(0), along(1), along(2)]) };
}
