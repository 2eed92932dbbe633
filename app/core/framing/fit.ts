import type { Equatorial } from "~/core/sky";
import { degToRad, radToDeg, turnTo, wrap360 } from "~/core/units";
import { mosaicExtent, type MosaicLayout } from "./mosaic";
import { skyToFrame } from "./seams";

/** How an elongated object sits in a frame. */
export interface EllipseFit {
  /** Between the object's long axis and the frame's long side, degrees [0, 90]. */
  readonly angleDeg: number;
  /** Largest of width over width and height over height; up to about 0.85 leaves a margin, over 1 does not fit. */
  readonly fill: number;
}

/** Share of a frame that an ellipse of the given full axes fills when its long axis stands at an angle to the frame's long side. */
export function ellipseFill(
  object: { readonly major: number; readonly minor: number },
  frame: { readonly long: number; readonly short: number },
  angleDeg: number,
): number {
  const [c, s] = [Math.cos(degToRad(angleDeg)), Math.sin(degToRad(angleDeg))];
  const width = Math.hypot(object.major * c, object.minor * s);
  const height = Math.hypot(object.major * s, object.minor * c);
  return Math.max(width / frame.long, height / frame.short);
}

/**
 * The angle at which an ellipse fills a frame least, and that share; thin ones tend to the diagonal. Same units for both. Turning the
 * long axis away from the long side lowers one share and raises the other: least where both are equal, or lying flat.
 */
export function bestEllipseAngle(
  object: { readonly major: number; readonly minor: number },
  frame: { readonly long: number; readonly short: number },
): EllipseFit {
  const [a2, b2] = [object.major ** 2, object.minor ** 2];
  const [l2, s2] = [frame.long ** 2, frame.short ** 2];
  const sin2 = a2 > b2 ? (a2 / l2 - b2 / s2) / ((a2 - b2) * (1 / l2 + 1 / s2)) : 0;
  const angleDeg = radToDeg(Math.asin(Math.sqrt(Math.min(1, Math.max(0, sin2)))));
  return { angleDeg, fill: ellipseFill(object, frame, angleDeg) };
}

/**
 * The position angle, [0, 360), at which a mosaic's longer side runs along a line from one direction to another, by the smaller turn;
 * null for a line without length, or beyond the plane. Exact on the plane, where great circles are straight.
 */
export function angleAlong(layout: MosaicLayout, from: Equatorial<"icrs">, to: Equatorial<"icrs">): number | null {
  const [a, b] = [skyToFrame(layout, from), skyToFrame(layout, to)];
  if (!a || !b) return null;
  const [dx, dy] = [b.xArcmin - a.xArcmin, b.yArcmin - a.yArcmin];
  if (dx === 0 && dy === 0) return null;
  const { widthArcmin, heightArcmin } = mosaicExtent(layout);
  // Towards larger position angle is to the left: from the x axis to the y axis of the frame.
  const turn = radToDeg(Math.atan2(dy, dx)) - (widthArcmin >= heightArcmin ? 0 : 90);
  return wrap360(layout.positionAngleDeg + turnTo(turn, 0)); // a side has no direction
}
