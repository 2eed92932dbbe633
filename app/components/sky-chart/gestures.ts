import { chartView, fromScreen, type ScreenPoint } from "~/core/framing";
import { offsetBy, positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";

/** What the chart looks at. */
export interface Gaze {
  readonly centre: Equatorial<"icrs">;
  readonly heightDeg: number;
}

/** How the chart lies: its size, what is up, whether it is mirrored. */
export interface ChartLie {
  readonly rollDeg: number;
  readonly isMirrored: boolean;
  readonly widthPx: number;
  readonly heightPx: number;
}

const MIN_DEG = 5 / 60;
const MAX_DEG = 60;
/** A twist of two fingers that is less than this is a pinch that was not held straight. */
const LEAST_TWIST_DEG = 12;

/** Moves a direction as the pointer went: the same shift along bearing and distance. */
export function shifted(
  centre: Equatorial<"icrs">,
  from: Equatorial<"icrs">,
  to: Equatorial<"icrs">,
): Equatorial<"icrs"> {
  return offsetBy(centre, { positionAngleDeg: positionAngleDeg(from, to), distanceDeg: separationDeg(from, to) });
}

const ROUNDS = 8; // each leaves a third or less of what was amiss, a hundredth in a field of a few degrees

/** The gaze `factor` times as wide, with what lay under one point of the chart under another. */
export function zoomed(gaze: Gaze, lie: ChartLie, factor: number, from: ScreenPoint, to: ScreenPoint = from): Gaze {
  const heightDeg = Math.min(MAX_DEG, Math.max(MIN_DEG, gaze.heightDeg * factor));
  const held = fromScreen(chartView({ ...gaze, ...lie }), from);
  let { centre } = gaze;
  for (let round = 0; round < ROUNDS; round++)
    centre = shifted(centre, fromScreen(chartView({ centre, heightDeg, ...lie }), to), held);
  return { centre, heightDeg };
}

/** Two fingers on the chart. */
export type Fingers = readonly [ScreenPoint, ScreenPoint];

const between = ([a, b]: Fingers): ScreenPoint => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
const apart = ([a, b]: Fingers): number => Math.max(1, Math.hypot(b.x - a.x, b.y - a.y));
const bearing = ([a, b]: Fingers): number => (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;

/** The gaze after two fingers went from one place to another: the sky under their middle goes with them, and widens as they close. */
export const pinched = (gaze: Gaze, lie: ChartLie, before: Fingers, now: Fingers): Gaze =>
  zoomed(gaze, lie, apart(before) / apart(now), between(before), between(now));

/**
 * By how much two fingers turned, degrees of position angle (north through east, which runs against the clock on a chart that is not
 * mirrored); 0 until the twist is meant.
 */
export function twisted(before: Fingers, now: Fingers, isMirrored: boolean): number {
  const turn = ((bearing(now) - bearing(before) + 540) % 360) - 180;
  if (Math.abs(turn) < LEAST_TWIST_DEG) return 0;
  const meant = turn - Math.sign(turn) * LEAST_TWIST_DEG;
  return isMirrored ? meant : -meant;
}
