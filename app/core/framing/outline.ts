import { offsetBy, type Equatorial } from "~/core/sky";
import { degToRad, radToDeg, wrap360 } from "~/core/units";

/** Something with a size on the sky, as catalogues give it. */
export interface Ellipse {
  readonly at: Equatorial<"icrs">;
  /** Full axes; null = a point, or as wide as long. */
  readonly majorArcmin: number | null;
  readonly minorArcmin: number | null;
  /** Of the long axis, north through east; null = round or unknown. */
  readonly positionAngleDeg: number | null;
}

const STEP_DEG = 15;

/** Points around a catalogue ellipse, on the sphere, every 15° of its parameter: a box around them is within 1 % of the ellipse's. */
export function ellipseOutline(of: Ellipse): Equatorial<"icrs">[] {
  const [a, b] = [(of.majorArcmin ?? 0) / 120, (of.minorArcmin ?? of.majorArcmin ?? 0) / 120];
  return Array.from({ length: 360 / STEP_DEG }, (_, i) => {
    const t = degToRad(STEP_DEG * i);
    const [along, across] = [a * Math.cos(t), b * Math.sin(t)];
    return offsetBy(of.at, {
      positionAngleDeg: wrap360((of.positionAngleDeg ?? 0) + radToDeg(Math.atan2(across, along))),
      distanceDeg: Math.hypot(along, across),
    });
  });
}
