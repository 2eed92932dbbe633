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

/** Inverse of the normal distribution by Acklam's rational approximation (public domain), relative error under 1.2e-9. */
export function normalQuantile(p: number): number {
  if (p <= 0) return Number.NEGATIVE_INFINITY;
  if (p >= 1) return Number.POSITIVE_INFINITY;
  const a = [
    -39.69683028665376, 220.9460984245205, -275.9285104469687, 138.357751867269, -30.66479806614716, 2.506628277459239,
  ];
  const b = [-54.47609879822406, 161.5858368580409, -155.6989798598866, 66.80131188771972, -13.28068155288572];
  const c = [
    -0.007784894002430293, -0.3223964580411365, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ];
  const d = [0.007784695709041462, 0.3224671290700398, 2.445134137142996, 3.754408661907416];
  const poly = (k: readonly number[], x: number) => k.reduce((sum, v) => sum * x + v, 0);
  const low = 0.02425;
  if (p > 1 - low) return -normalQuantile(1 - p);
  if (p < low) {
    const q = Math.sqrt(-2 * Math.log(p));
    return poly(c, q) / (poly(d, q) * q + 1);
  }
  const q = p - 0.5;
  return (q * poly(a, q * q)) / (poly(b, q * q) * q * q + 1);
}
