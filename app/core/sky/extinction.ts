import { linearAt } from "~/core/numeric";

/** Ozone (Chappuis band) by nm, mag per airmass: from memory, 0.01–0.04 between 500 and 650 nm. */
const OZONE = ([[430, 0.003], [500, 0.013], [550, 0.03], [600, 0.035], [650, 0.025], [700, 0.01]] as const).map(([x, y]) => ({ x, y })); // prettier-ignore

/**
 * Extinction of average clear air in mag per airmass, 400–700 nm. Hayes & Latham 1975, ApJ 197, 593, as used by Green
 * 1992, ICQ 14, 55; ozone from memory. The aerosol part varies by a factor 0.3–3 from night to night.
 */
export function extinctionMagPerAirmass(wavelengthNm: number, elevationM: number): number {
  const um = wavelengthNm / 1000;
  const km = elevationM / 1000;
  const index = 0.23465 + 107.6 / (146 - um ** -2) + 0.93161 / (41 - um ** -2);
  const rayleigh = 0.0094977 * um ** -4 * index ** 2 * Math.exp(-km / 7.996);
  const aerosol = 0.05 * um ** -1.3 * Math.exp(-km / 1.5);
  return rayleigh + aerosol + linearAt(OZONE, wavelengthNm);
}
