import { degToRad, radToDeg, wrap360 } from "~/core/units";

/** Catalogue axes, or the true equator and equinox of the date of observation. */
export type EquatorialFrame = "icrs" | "ofDate";

/** A direction on the equator of its frame: right ascension [0, 360), declination [−90, 90]. */
export interface Equatorial<F extends EquatorialFrame = "icrs"> {
  readonly frame: F;
  readonly raDeg: number;
  readonly decDeg: number;
}

/** A direction from a place, airless unless said otherwise: altitude [−90, 90], azimuth [0, 360) from north through east. */
export interface Horizontal {
  readonly altitudeDeg: number;
  readonly azimuthDeg: number;
}

/** Where one stands: WGS84 geodetic latitude north, longitude east, metres above the sea. */
export interface Observer {
  readonly latitudeDeg: number;
  readonly longitudeDeg: number;
  readonly elevationM: number;
}

/** x towards RA 0h, y towards RA 6h, z towards the pole. */
export type Vec3 = readonly [number, number, number];

/** Unit vector of a right ascension and declination. */
export function unitVector({ raDeg, decDeg }: { readonly raDeg: number; readonly decDeg: number }): Vec3 {
  const [ra, dec] = [degToRad(raDeg), degToRad(decDeg)];
  return [Math.cos(dec) * Math.cos(ra), Math.cos(dec) * Math.sin(ra), Math.sin(dec)];
}

/** Right ascension and declination of a vector of any length > 0; the inverse of `unitVector`. */
export function directionOf([x, y, z]: Vec3): { raDeg: number; decDeg: number } {
  return { raDeg: wrap360(radToDeg(Math.atan2(y, x))), decDeg: radToDeg(Math.atan2(z, Math.hypot(x, y))) };
}
