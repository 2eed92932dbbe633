/**
 * Share of the standard normal distribution below z, to 2e-7: Abramowitz & Stegun 1964, 7.1.26, for the error function. Clamped to
 * [0, 1].
 */
export function normalCdf(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly = ((((1.061405429 * t - 1.453152027) * t + 1.421413741) * t - 0.284496736) * t + 0.254829592) * t;
  const upper = Math.min(1, Math.max(0, 0.5 * poly * Math.exp(-x * x)));
  return z > 0 ? 1 - upper : upper;
}
