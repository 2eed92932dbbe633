/** Rates in electrons per pixel and second of object, sky and dark current; read noise in electrons. */
interface Rates {
  readonly object: number;
  readonly sky: number;
  readonly dark: number;
  readonly readNoiseE: number;
}

/** Signal-to-noise per pixel of a stack of `subs` equal subs of `subSec`. Derived from Poisson statistics; ideal stacking. */
export const stackSnr = (r: Rates, subs: number, subSec: number): number =>
  (Math.sqrt(subs) * r.object * subSec) / Math.sqrt((r.object + r.sky + r.dark) * subSec + r.readNoiseE ** 2);

/** Subs of `subSec` needed to reach a signal-to-noise per pixel, not rounded; the inverse of `stackSnr`. */
export const subsForSnr = (r: Rates, snr: number, subSec: number): number =>
  (snr ** 2 * ((r.object + r.sky + r.dark) * subSec + r.readNoiseE ** 2)) / (r.object * subSec) ** 2;

/** The CCD equation for a star in an aperture, one exposure. Merline & Howell 1995, Exp. Astron. 6, 163. Electrons throughout. */
export function ccdSnr(at: {
  readonly starE: number;
  readonly skyEPerPx: number;
  readonly darkEPerPx: number;
  readonly readNoiseE: number;
  readonly gainEPerAdu: number;
  readonly aperturePx: number;
  readonly backgroundPx: number;
}): number {
  const digitisation = (at.gainEPerAdu * 0.289) ** 2;
  const perPixel = at.skyEPerPx + at.darkEPerPx + at.readNoiseE ** 2 + digitisation;
  return at.starE / Math.sqrt(at.starE + at.aperturePx * (1 + at.aperturePx / at.backgroundPx) * perPixel);
}
