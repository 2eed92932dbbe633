import { hiddenBelowDeg, horizontalAt, type Horizontal, type NightSky, type Vec3 } from "~/core/sky";
import type { UtcMs } from "~/core/time";
import { clamp, degToRad, radToDeg, wrap180, wrap360 } from "~/core/units";
import type { Place } from "~/core/night";

/** A star one can point at: direction of date, and what people call it. */
export interface GuideStar {
  readonly name: string;
  readonly magnitude: number;
  readonly vector: Vec3;
}

/** Where a hop goes, as seen by the eye: up = towards the zenith. */
export const SKY_WAYS = [
  "up",
  "up and right",
  "right",
  "down and right",
  "down",
  "down and left",
  "left",
  "up and left",
] as const;
export type SkyWay = (typeof SKY_WAYS)[number];

/** One step from a star to the next one, or to the target. */
export interface Hop {
  readonly from: GuideStar;
  /** Null = the target. */
  readonly to: GuideStar | null;
  readonly degrees: number;
  /** From north through east, on the sky. */
  readonly positionAngleDeg: number;
  /** Clockwise from straight up as the eye sees it, [0, 360). */
  readonly fromUpDeg: number;
  readonly way: SkyWay;
}

/** A way by stars to a target, or why there is none. */
export type FinderPath =
  | { readonly kind: "path"; readonly start: GuideStar; readonly startAt: Horizontal; readonly hops: readonly Hop[] }
  | { readonly kind: "targetDown"; readonly at: Horizontal }
  | { readonly kind: "noStar" };

const CLEARANCE_DEG = 3; // a star just over a roof is hidden for the next man
const LOWEST_STAR_DEG = 8; // haze takes two magnitudes below
const HOP_LIMITS_DEG = [8, 15, 25, 60]; // a finder's field and a half; a hand's breadth; further only when there is nothing else
const MAG_MARGIN = 0.7; // faintest star used, above the eye's limit: it must be seen at once

/** Faintest star for the eye under a zenith of the given brightness; Schaefer 1990, PASP 102, 212, simplified. About half a magnitude between people. */
export const nakedEyeLimitMag = (skyMagPerArcsec2: number): number =>
  7.93 - 5 * Math.log10(10 ** (4.316 - skyMagPerArcsec2 / 5) + 1);

const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** Angle between two unit vectors, degrees; the chord keeps its digits for small ones. */
const angleDeg = (a: Vec3, b: Vec3) =>
  radToDeg(2 * Math.asin(clamp(Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) / 2, 0, 1)));

/** Position angle of b seen from a, on the axes of both. */
function bearingDeg(a: Vec3, b: Vec3): number {
  const east: Vec3 = [-a[1], a[0], 0];
  const north: Vec3 = [-a[0] * a[2], -a[1] * a[2], a[0] * a[0] + a[1] * a[1]];
  return wrap360(radToDeg(Math.atan2(dot(b, east), dot(b, north))));
}

/** Clockwise angle from straight up of the way between two directions over the horizon, as the eye sees it. */
function fromUpDeg(from: Horizontal, to: Horizontal): number {
  const [h1, h2] = [degToRad(from.altitudeDeg), degToRad(to.altitudeDeg)];
  const dAz = degToRad(wrap180(to.azimuthDeg - from.azimuthDeg));
  const right = Math.cos(h2) * Math.sin(dAz);
  const up = Math.cos(h1) * Math.sin(h2) - Math.sin(h1) * Math.cos(h2) * Math.cos(dAz);
  return wrap360(radToDeg(Math.atan2(right, up)));
}

/** Trouble of a hop: its length, more than in proportion, and how faint the star is that it leads to. */
const trouble = (degrees: number, magnitude: number | null): number =>
  (degrees / 5) ** 1.3 + (magnitude === null ? 0 : 0.5 * Math.max(0, magnitude - 2)) + 0.5;

/**
 * The easiest way from a star that the eye sees at once to a target, over stars above the skyline at an instant: Dijkstra over
 * hops of at most a finder's field and a half, longer where there is no star. What is easy is a proposal of this project.
 */
export function finderPath(at: {
  readonly place: Place;
  readonly sky: NightSky;
  readonly ms: UtcMs;
  readonly target: Vec3;
  readonly stars: readonly GuideStar[];
}): FinderPath {
  const { place, sky, ms, target } = at;
  const targetAt = horizontalAt(sky, target, ms);
  const hidden = (h: Horizontal) => hiddenBelowDeg(place.skyline, place.landmarks ?? [], h.azimuthDeg);
  if (targetAt.altitudeDeg < Math.max(0, hidden(targetAt))) return { kind: "targetDown", at: targetAt };
  const faintest = nakedEyeLimitMag(place.skyMagPerArcsec2) - MAG_MARGIN;
  const seen = at.stars.filter((s) => {
    if (s.magnitude > faintest) return false;
    const h = horizontalAt(sky, s.vector, ms);
    return h.altitudeDeg >= Math.max(LOWEST_STAR_DEG, hidden(h) + CLEARANCE_DEG);
  });
  for (const longest of HOP_LIMITS_DEG) {
    const way = shortest(seen, target, longest);
    if (way) return told(way, at);
  }
  return { kind: "noStar" };
}

/** Rows of stars from the first to the last before the target; null when no chain of hops reaches it. */
function shortest(seen: readonly GuideStar[], target: Vec3, longestDeg: number): GuideStar[] | null {
  const isStart = (s: GuideStar) => s.magnitude <= 2.6; // stands out in any constellation
  // From the target back to a star to start from: one search finds the best start too.
  const cost = seen.map((s) => {
    const degrees = angleDeg(s.vector, target);
    return degrees <= longestDeg ? trouble(degrees, null) : Number.POSITIVE_INFINITY;
  });
  const next = new Array<number>(seen.length).fill(-1);
  const isDone = new Array<boolean>(seen.length).fill(false);
  let best: { readonly row: number; readonly cost: number } | null = null;
  for (;;) {
    let row = -1;
    for (let i = 0; i < seen.length; i++)
      if (!isDone[i] && cost[i]! < Number.POSITIVE_INFINITY && (row === -1 || cost[i]! < cost[row]!)) row = i;
    if (row === -1 || (best !== null && cost[row]! >= best.cost)) break;
    isDone[row] = true;
    const star = seen[row]!;
    if (isStart(star)) {
      const whole = cost[row]! + 0.8 * Math.max(0, star.magnitude - 1);
      if (best === null || whole < best.cost) best = { row, cost: whole };
    }
    for (let i = 0; i < seen.length; i++) {
      if (isDone[i]) continue;
      const degrees = angleDeg(seen[i]!.vector, star.vector);
      if (degrees > longestDeg) continue;
      const through = cost[row]! + trouble(degrees, star.magnitude);
      if (through < cost[i]!) {
        cost[i] = through;
        next[i] = row;
      }
    }
  }
  if (best === null) return null;
  const way: GuideStar[] = [];
  for (let row = best.row; row !== -1; row = next[row]!) way.push(seen[row]!);
  return way;
}

function told(
  way: readonly GuideStar[],
  at: { readonly sky: NightSky; readonly ms: UtcMs; readonly target: Vec3 },
): FinderPath {
  const { sky, ms, target } = at;
  const hops = way.map((from, i): Hop => {
    const to = way[i + 1] ?? null;
    const toVector = to?.vector ?? target;
    const up = fromUpDeg(horizontalAt(sky, from.vector, ms), horizontalAt(sky, toVector, ms));
    return {
      from,
      to,
      degrees: angleDeg(from.vector, toVector),
      positionAngleDeg: bearingDeg(from.vector, toVector),
      fromUpDeg: up,
      way: SKY_WAYS[Math.round(up / 45) % 8]!,
    };
  });
  return { kind: "path", start: way[0]!, startAt: horizontalAt(sky, way[0]!.vector, ms), hops };
}
