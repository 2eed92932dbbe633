import { clamp } from "~/core/units";

/** The panorama's own units: 360° across, 0 to 80° of altitude upwards. */
export const WIDTH = 900;
export const HEIGHT = 250;
export const TOP_DEG = 80;
/** Room above for what stands at the top, units. */
export const ABOVE = 16;
export const BELOW = 20;

export const toX = (azimuthDeg: number): number => (azimuthDeg * WIDTH) / 360;
export const toY = (altitudeDeg: number): number => HEIGHT - (HEIGHT * Math.min(altitudeDeg, TOP_DEG)) / TOP_DEG;

/** A direction over the horizon, degrees. */
export interface Direction {
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
}

/** A point of the screen, px from the panorama's upper left corner. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** The direction under a spot of a panorama `widthPx` wide. */
export function directionAt(spot: Spot, widthPx: number): Direction {
  const scale = widthPx / WIDTH;
  return {
    azimuthDeg: clamp((spot.x / scale / WIDTH) * 360, 0, 359.9),
    altitudeDeg: clamp(((HEIGHT + ABOVE - spot.y / scale) * TOP_DEG) / HEIGHT, 0, 90),
  };
}

/** Where a direction lies on a panorama `widthPx` wide, px. */
export function spotOf(at: Direction, widthPx: number): Spot {
  const scale = widthPx / WIDTH;
  return { x: toX(at.azimuthDeg) * scale, y: (toY(at.altitudeDeg) + ABOVE) * scale };
}

/** How far a finger reaches, px: half of a control's least size, with a little for a cold hand. */
export const REACH_PX = 26;
/** A finger that goes less far than this has tapped, px. */
export const TAP_PX = 10;
/** How much larger the magnifier shows what a finger holds; by as much the finger moves it more finely. */
export const MAGNIFIED = 4;

/** Which of several spots a finger means: the nearest within its reach, else -1. */
export function nearest(spots: readonly Spot[], finger: Spot): number {
  const far = spots.map((s) => Math.hypot(s.x - finger.x, s.y - finger.y));
  const least = Math.min(...far);
  return least <= REACH_PX ? far.indexOf(least) : -1;
}

/**
 * Where what a finger holds goes when the finger went from one spot to another: as the magnifier shows it, a quarter of the way on the
 * panorama itself, so that a thumb's width is a few degrees and not twenty.
 */
export function drawnBy(held: Direction, from: Spot, to: Spot, widthPx: number): Direction {
  const perPx = WIDTH / widthPx / MAGNIFIED;
  return {
    azimuthDeg: held.azimuthDeg + ((to.x - from.x) * perPx * 360) / WIDTH,
    altitudeDeg: clamp(held.altitudeDeg - ((to.y - from.y) * perPx * TOP_DEG) / HEIGHT, 0, 90),
  };
}
