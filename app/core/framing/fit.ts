import { degToRad } from "~/core/units";

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

/** The angle at which an ellipse fills a frame least, to 0.01°; thin ones tend to the diagonal. Same units for both. */
export function bestEllipseAngle(
  object: { readonly major: number; readonly minor: number },
  frame: { readonly long: number; readonly short: number },
): EllipseFit {
  let best: EllipseFit = { angleDeg: 0, fill: ellipseFill(object, frame, 0) };
  for (const [step, reach] of [
    [1, 90],
    [0.01, 1],
  ] as const) {
    const [from, to] = [Math.max(0, best.angleDeg - reach), Math.min(90, best.angleDeg + reach)];
    for (let angleDeg = from; angleDeg <= to; angleDeg += step) {
      const fill = ellipseFill(object, frame, angleDeg);
      if (fill < best.fill - 1e-12) best = { angleDeg, fill };
    }
  }
  return best;
}
