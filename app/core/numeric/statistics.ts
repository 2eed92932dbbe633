/** The smallest of `values` that at least `share` (0–1) of them do not exceed; NaN for an empty list. */
export function percentile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.max(0, Math.ceil(share * sorted.length) - 1)] ?? Number.NaN;
}

/** The middle of some values, of an even count the mean of the middle two; NaN for an empty list. */
export function median(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** Standard deviations in a median absolute deviation of normal values: 1/Φ⁻¹(3/4). */
export const SIGMA_PER_MAD = 1.4826;

/** Full width at half maximum of a normal curve, in standard deviations: 2 √(2 ln 2). */
export const FWHM_PER_SIGMA = 2 * Math.sqrt(2 * Math.LN2);
