import type { Equatorial } from "~/core/sky";
import { degToRad, radToDeg, wrap360 } from "~/core/units";

/** A point on the plane that touches the sphere at a centre: ξ east, η north, degrees (tangent-plane units). */
export interface PlanePoint {
  readonly xiDeg: number;
  readonly etaDeg: number;
}

/** Gnomonic projection; null for directions 90° or more from the centre. Calabretta & Greisen 2002, A&A 395, 1077, TAN. */
export function projectTan(centre: Equatorial<"icrs">, target: Equatorial<"icrs">): PlanePoint | null {
  const [d0, d, da] = [degToRad(centre.decDeg), degToRad(target.decDeg), degToRad(target.raDeg - centre.raDeg)];
  const c = Math.sin(d0) * Math.sin(d) + Math.cos(d0) * Math.cos(d) * Math.cos(da);
  if (c <= 1e-9) return null;
  return {
    xiDeg: radToDeg((Math.cos(d) * Math.sin(da)) / c),
    etaDeg: radToDeg((Math.cos(d0) * Math.sin(d) - Math.sin(d0) * Math.cos(d) * Math.cos(da)) / c),
  };
}

/** Inverse of `projectTan`, safe at the poles and across 0h. */
export function deprojectTan(centre: Equatorial<"icrs">, point: PlanePoint): Equatorial<"icrs"> {
  const [d0, xi, eta] = [degToRad(centre.decDeg), degToRad(point.xiDeg), degToRad(point.etaDeg)];
  const across = Math.cos(d0) - eta * Math.sin(d0);
  return {
    frame: "icrs",
    raDeg: wrap360(centre.raDeg + radToDeg(Math.atan2(xi, across))),
    decDeg: radToDeg(Math.atan2(Math.sin(d0) + eta * Math.cos(d0), Math.hypot(xi, across))),
  };
}
