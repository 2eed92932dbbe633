import { degToRad, radToDeg, wrap360 } from "~/core/units";
import { directionOf, type Equatorial, type EquatorialFrame } from "./frames";

/** Components towards east, north and along the line of sight of `to`, seen from `from`. */
function local(from: Equatorial<EquatorialFrame>, to: Equatorial<EquatorialFrame>) {
  const [dec1, dec2] = [degToRad(from.decDeg), degToRad(to.decDeg)];
  const deltaRa = degToRad(to.raDeg - from.raDeg);
  return {
    east: Math.cos(dec2) * Math.sin(deltaRa),
    north: Math.cos(dec1) * Math.sin(dec2) - Math.sin(dec1) * Math.cos(dec2) * Math.cos(deltaRa),
    along: Math.sin(dec1) * Math.sin(dec2) + Math.cos(dec1) * Math.cos(dec2) * Math.cos(deltaRa),
  };
}

/**
 * Great-circle separation of two directions in the same frame, in degrees, [0, 180].
 *
 * The arctangent form keeps its digits near 0° and 180°, where the arccosine of
 * the dot product loses them. Vincenty 1975, Survey Review 23 (176), 88–93.
 */
export function separationDeg<F extends EquatorialFrame>(from: Equatorial<F>, to: Equatorial<NoInfer<F>>): number {
  const { east, north, along } = local(from, to);
  return radToDeg(Math.atan2(Math.hypot(east, north), along));
}

/** Position angle of `to` seen from `from`, [0, 360), north through east; 0 where the two coincide. Spherical triangle. */
export function positionAngleDeg<F extends EquatorialFrame>(from: Equatorial<F>, to: Equatorial<NoInfer<F>>): number {
  const { east, north } = local(from, to);
  return wrap360(radToDeg(Math.atan2(east, north)));
}

/** The direction `distanceDeg` away from `from` along the great circle that leaves it at a position angle. */
export function offsetBy<F extends EquatorialFrame>(
  from: Equatorial<F>,
  by: { readonly positionAngleDeg: number; readonly distanceDeg: number },
): Equatorial<F> {
  const [dec, pa, rho] = [degToRad(from.decDeg), degToRad(by.positionAngleDeg), degToRad(by.distanceDeg)];
  const [east, north, along] = [Math.sin(rho) * Math.sin(pa), Math.sin(rho) * Math.cos(pa), Math.cos(rho)];
  const outward = along * Math.cos(dec) - north * Math.sin(dec);
  const local = directionOf([outward, east, along * Math.sin(dec) + north * Math.cos(dec)]);
  return { frame: from.frame, raDeg: wrap360(from.raDeg + local.raDeg), decDeg: local.decDeg };
}
