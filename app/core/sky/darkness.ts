import { skyMagToNanolambert } from "~/core/units";
import { thinAirmass } from "./moonlight";

/** A natural moonless zenith, 22.0 mag/arcsec². */
const NATURAL_ZENITH_NL = skyMagToNanolambert(22);

/**
 * Moonless sky brightness in nanolamberts at a zenith distance, from the zenith value of the place. The natural part
 * follows Krisciunas & Schaefer 1991, eq. 2; what the place has beyond 22.0 is town light and grows with the scattering
 * path. No light dome by direction. Shape good to about 0.3 mag above 10°. A zenith darker than 22.0 is all natural.
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
  const path = (1 - 10 ** (-0.4 * k * x)) / (1 - 10 ** (-0.4 * k));
  return natural * x * 10 ** (-0.4 * k * (x - 1)) + (zenith - natural) * path;
}
