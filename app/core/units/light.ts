/** Flux ratio of a magnitude difference: 10^(−0.4 Δm) (definition, Pogson). */
export const magToFluxRatio = (mag: number): number => 10 ** (-0.4 * mag);

/** Magnitude difference of a flux ratio > 0; the inverse of `magToFluxRatio`. */
export const fluxRatioToMag = (ratio: number): number => -2.5 * Math.log10(ratio);

/** V surface brightness in mag/arcsec² to nanolamberts: 34.08 exp(20.7233 − 0.92104 V). Krisciunas & Schaefer 1991, PASP 103, 1033, eq. 1. */
export const skyMagToNanolambert = (skyMagPerArcsec2: number): number =>
  34.08 * Math.exp(20.7233 - 0.92104 * skyMagPerArcsec2);

/** Nanolamberts (> 0) to V mag/arcsec²; the inverse of `skyMagToNanolambert`. */
export const nanolambertToSkyMag = (nanolambert: number): number => (20.7233 - Math.log(nanolambert / 34.08)) / 0.92104;

/** Brightness of two skies on top of each other, mag/arcsec²: magnitudes add as fluxes. */
export const addSkyMags = (a: number, b: number): number => fluxRatioToMag(magToFluxRatio(a) + magToFluxRatio(b));
