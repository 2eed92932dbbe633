import { FWHM_PER_SIGMA } from "~/core/numeric";
import { fluxRatioToMag } from "~/core/units";

/**
 * Shortest sub at which read noise adds no more than a share of the noise of the stack: R²/(((1 + p)² − 1)(S + D)), s.
 * For a fixed total time and a background-limited object. Derived; 5–10 % is common practice. Infinity without background.
 */
export function shortestSubSec(at: {
  readonly readNoiseE: number;
  readonly backgroundEPerSec: number;
  readonly share: number;
}): number {
  return at.readNoiseE ** 2 / (((1 + at.share) ** 2 - 1) * at.backgroundEPerSec);
}

/** Share that read noise adds to the noise of a stack of subs of a length; the inverse of `shortestSubSec`. */
export const readNoiseShare = (at: {
  readonly readNoiseE: number;
  readonly backgroundEPerSec: number;
  readonly subSec: number;
}): number => Math.sqrt(1 + at.readNoiseE ** 2 / (at.backgroundEPerSec * at.subSec)) - 1;

/** Error function to 1.2e-7. Abramowitz & Stegun 1964, in the Chebyshev form of Press et al., Numerical Recipes, sect. 6.2. */
function erf(x: number): number {
  const t = 1 / (1 + 0.5 * Math.abs(x));
  const c = [
    -1.26551223, 1.00002368, 0.37409196, 0.09678418, -0.18628806, 0.27886807, -1.13520398, 1.48851587, -0.82215223,
    0.17087277,
  ];
  const tail = t * Math.exp(-x * x + c.reduceRight((sum, k) => sum * t + k, 0));
  return x >= 0 ? 1 - tail : tail - 1;
}

/** Share of a star's light in the pixel it is centred on, for a Gaussian of a width in pixels, 1–5 px: erf(0.5/(σ√2))². */
export const centralPixelShare = (fwhmPx: number): number => erf(0.5 / ((fwhmPx / FWHM_PER_SIGMA) * Math.SQRT2)) ** 2;

/** Seconds until a pixel clips. */
export const saturationSec = (ceiling: number, rateEPerSec: number): number => ceiling / rateEPerSec;

/** Magnitude of the faintest star that clips in a sub, from the whole-star rate at magnitude 0. */
export function faintestSaturatedMag(at: {
  readonly ceilingE: number;
  readonly zeroMagRate: number;
  readonly fwhmPx: number;
  readonly backgroundEPerSec: number;
  readonly subSec: number;
}): number {
  const room = at.ceilingE / at.subSec - at.backgroundEPerSec;
  return room <= 0 ? Number.POSITIVE_INFINITY : fluxRatioToMag(room / (centralPixelShare(at.fwhmPx) * at.zeroMagRate));
}

/** Sub lengths that people take of deep sky. */
export const USUAL_SUBS_SEC = [30, 60, 90, 120, 180, 240, 300, 420, 600, 900, 1200] as const;

/** Sub lengths that cameras and people count in. */
export const NICE_SUBS_SEC = [
  1, 2, 3, 5, 8, 10, 15, 20, 30, 45, 60, 90, 120, 180, 240, 300, 420, 600, 900, 1200,
] as const;

/** The usual sub length next above (or below) a value; the ends of the list beyond it. */
export function niceSubSec(sec: number, direction: "up" | "down"): number {
  if (direction === "up") return NICE_SUBS_SEC.find((s) => s >= sec - 1e-9) ?? NICE_SUBS_SEC.at(-1)!;
  return NICE_SUBS_SEC.findLast((s) => s <= sec + 1e-9) ?? NICE_SUBS_SEC[0];
}
