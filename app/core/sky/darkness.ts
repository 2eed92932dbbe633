import { nanolambertToSkyMag, skyMagToNanolambert, wrap180, magToFluxRatio } from "~/core/units";
import { thinAirmass } from "./moonlight";

/** A natural moonless zenith, 22.0 mag/arcsec². */
const NATURAL_ZENITH_NL = skyMagToNanolambert(22);

/**
 * Moonless sky brightness in nanolamberts at a zenith distance, from the zenith value of the place. The natural part
 * follows Krisciunas & Schaefer 1991, eq. 2; what the place has beyond 22.0 is town light and grows with the scattering
 * path. Light domes come on top (`domeNanolambert`). Shape good to about 0.3 mag above 10°. A zenith darker than 22.0 is all natural.
 */
export function darkSkyNanolambert(at: {
  readonly zenithSkyMag: number;
  readonly zenithDistanceDeg: number;
  readonly extinctionMag: number;
}): number {
  const zenith = skyMagToNanolambert(at.zenithSkyMag);
  const natural = Math.min(zenith, NATURAL_ZENITH_NL);
  const x = thinAirmass(at.zenithDistanceDeg);
  const k = at.extinctionMag;
  const path = (1 - magToFluxRatio(k * x)) / (1 - magToFluxRatio(k));
  return natural * x * magToFluxRatio(k * (x - 1)) + (zenith - natural) * path;
}

/** The glow of a town over the horizon, as its owner measures it. */
export interface LightDome {
  readonly name: string;
  readonly azimuthDeg: number;
  /** Sky brightness towards it at 30° altitude, without the Moon, V. */
  readonly magPerArcsec2: number;
  /** Standard deviation along the horizon; about 30° for a town near by. */
  readonly widthDeg: number;
}

/** Altitude at which a dome is measured, degrees. */
export const DOME_MEASURED_DEG = 30;
/** Altitude over which a dome fades by e; a proposal of this project, towns differ. */
export const DOME_FADE_DEG = 15;

/** Brightness of a dome at its foot, nL, from what is measured above it: the part beyond the even sky, brought down to the horizon. */
export function domeFootNanolambert(dome: LightDome, zenithSkyMag: number, extinctionMag: number): number {
  const even = darkSkyNanolambert({ zenithSkyMag, zenithDistanceDeg: 90 - DOME_MEASURED_DEG, extinctionMag });
  const beyond = Math.max(0, skyMagToNanolambert(dome.magPerArcsec2) - even);
  return beyond * Math.exp(DOME_MEASURED_DEG / DOME_FADE_DEG);
}

/** Glow of a dome with the given foot at an azimuth and altitude, nL: foot · exp(−½(Δaz/width)²) · exp(−h/15°). Good to 0.3 mag above 10°. */
export const domeNanolambert = (
  dome: { readonly footNanolambert: number; readonly azimuthDeg: number; readonly widthDeg: number },
  at: { readonly azimuthDeg: number; readonly altitudeDeg: number },
): number =>
  dome.footNanolambert *
  Math.exp(-0.5 * (wrap180(at.azimuthDeg - dome.azimuthDeg) / dome.widthDeg) ** 2) *
  Math.exp(-at.altitudeDeg / DOME_FADE_DEG);

/** Moonless sky in a direction, V mag/arcsec²: the even sky of a place and all its domes. */
export function skyTowardsMag(
  place: { readonly zenithSkyMag: number; readonly extinctionMag: number; readonly domes: readonly LightDome[] },
  at: { readonly azimuthDeg: number; readonly altitudeDeg: number },
): number {
  const even = darkSkyNanolambert({ ...place, zenithDistanceDeg: 90 - at.altitudeDeg });
  const glow = place.domes.reduce((sum, d) => {
    const footNanolambert = domeFootNanolambert(d, place.zenithSkyMag, place.extinctionMag);
    return sum + domeNanolambert({ ...d, footNanolambert }, at);
  }, 0);
  return nanolambertToSkyMag(even + glow);
}

const CLASS_LIMITS = [21.75, 21.6, 21.3, 20.8, 20.3, 19.25, 18.5, 18] as const;
const CLASS_VALUES = [22, 21.7, 21.45, 21.05, 20.55, 19.8, 18.9, 18.25, 17.5] as const;

/** Darkness class 1 (darkest) to 9 of a zenith: a hint only, since two conversions circulate that differ by up to 0.8 mag; common practice. */
export const darknessClass = (zenithSkyMag: number): number => {
  const i = CLASS_LIMITS.findIndex((limit) => zenithSkyMag >= limit);
  return i === -1 ? 9 : i + 1;
};

/** Zenith brightness to assume for a darkness class 1–9. */
export const magOfDarknessClass = (darkness: number): number =>
  CLASS_VALUES[Math.min(9, Math.max(1, Math.round(darkness))) - 1]!;

/** A lamp that shines into the optics: exposures within `radiusDeg` of it are spoilt. */
export interface Lamp {
  readonly name: string;
  readonly azimuthDeg: number;
  readonly altitudeDeg: number;
  readonly radiusDeg: number;
}
