/** Ozone (Chappuis band), mag per airmass: from memory, 0.01–0.04 between 500 and 650 nm. */
const OZONE = [[430, 0.003], [500, 0.013], [550, 0.03], [600, 0.035], [650, 0.025], [700, 0.01]] as const; // prettier-ignore

function ozoneMag(nm: number): number {
  const after = OZONE.findIndex(([w]) => w >= nm);
  if (after === -1) return OZONE.at(-1)![1];
  if (after === 0) return OZONE[0][1];
  const [[w0, k0], [w1, k1]] = [OZONE[after - 1]!, OZONE[after]!];
  return k0 + ((k1 - k0) * (nm - w0)) / (w1 - w0);
}

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
  return rayleigh + aerosol + ozoneMag(wavelengthNm);
}
