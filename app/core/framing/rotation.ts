import { wrap360 } from "~/core/units";

/** How to turn a camera. A rectangle is the same at PA and PA + 180, so the turn is never over 90°. */
export interface RotationAdvice {
  /** Wanted minus present position angle, [−90, 90). */
  readonly changeDeg: number;
  /** Which way to turn as seen from behind the camera, looking into the optics; "none" within the tolerance. */
  readonly turn: "clockwise" | "counterClockwise" | "none";
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
  const changeDeg = (wrap360(at.wantedDeg - at.presentDeg + 90) % 180) - 90;
  if (Math.abs(changeDeg) <= at.toleranceDeg) return { changeDeg, turn: "none" };
  const raises = at.reflections % 2 === 0 ? "counterClockwise" : "clockwise";
  const lowers = raises === "clockwise" ? "counterClockwise" : "clockwise";
  return { changeDeg, turn: changeDeg > 0 ? raises : lowers };
}
