import { radToDeg, turnTo } from "~/core/units";

/** How to turn a camera. A rectangle is the same at PA and PA + 180, so the turn is never over 90°. */
export interface RotationAdvice {
  /** Wanted minus present position angle, [−90, 90). */
  readonly changeDeg: number;
  /** Which way to turn as seen from behind the camera, looking into the optics; "none" within the tolerance. */
  readonly turn: "clockwise" | "counterClockwise" | "none";
}

/**
 * Largest error of the camera angle at which neighbouring panels still overlap, degrees: o h = w sin ε along the longer seams
 * (MATHS 5.5, pointing perfect). Valid below 5°. 0 without overlap.
 */
export function toleratedTurnDeg(layout: {
  readonly planeWidthArcmin: number;
  readonly planeHeightArcmin: number;
  readonly columns: number;
  readonly rows: number;
  readonly overlap: number;
  readonly overlapRows?: number;
}): number {
  const { planeWidthArcmin: w, planeHeightArcmin: h } = layout;
  const between: number[] = [];
  if (layout.rows > 1) between.push(((layout.overlapRows ?? layout.overlap) * h) / w);
  if (layout.columns > 1) between.push((layout.overlap * w) / h);
  return between.length === 0 ? 90 : radToDeg(Math.asin(Math.min(1, ...between)));
}

/**
 * Advice from two position angles. With an even number of mirrors (refractor 0, Newtonian or Cassegrain 2) a turn
 * counter-clockwise from behind raises PA, with an odd number it lowers it. Verify with two solved exposures.
 */
export function rotationAdvice(at: {
  readonly wantedDeg: number;
  readonly presentDeg: number;
  readonly reflections: number;
  readonly toleranceDeg: number;
}): RotationAdvice {
  const changeDeg = turnTo(at.wantedDeg, at.presentDeg);
  if (Math.abs(changeDeg) <= at.toleranceDeg) return { changeDeg, turn: "none" };
  const raises = at.reflections % 2 === 0 ? "counterClockwise" : "clockwise";
  const lowers = raises === "clockwise" ? "counterClockwise" : "clockwise";
  return { changeDeg, turn: changeDeg > 0 ? raises : lowers };
}
