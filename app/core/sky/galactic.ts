import { offsetBy, positionAngleDeg, separationDeg } from "./separation";
import type { Equatorial } from "./frames";
import { wrap360 } from "~/core/units";

/** North galactic pole and the galactic longitude of the north celestial pole, ICRS. Hipparcos and Tycho Catalogues, vol. 1, sect. 1.5.3. */
const POLE: Equatorial<"icrs"> = { frame: "icrs", raDeg: 192.85948, decDeg: 27.12825 };
const LON_OF_CELESTIAL_POLE = 122.93192;

/** Galactic longitude [0, 360) and latitude of a direction, degrees. */
export function icrsToGalactic(target: Equatorial<"icrs">): { readonly lonDeg: number; readonly latDeg: number } {
  return {
    lonDeg: wrap360(LON_OF_CELESTIAL_POLE - positionAngleDeg(POLE, target)),
    latDeg: 90 - separationDeg(POLE, target),
  };
}

/** The direction at a galactic longitude and latitude. */
export const galacticToIcrs = (lonDeg: number, latDeg: number): Equatorial<"icrs"> =>
  offsetBy(POLE, { positionAngleDeg: wrap360(LON_OF_CELESTIAL_POLE - lonDeg), distanceDeg: 90 - latDeg });
