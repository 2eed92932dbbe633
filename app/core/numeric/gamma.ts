const LANCZOS = [
  676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905,
  -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
] as const; // g = 7, n = 9: Lanczos 1964, SIAM J. Numer. Anal. B 1, 86; coefficients by P. Godfrey, from memory

/** Logarithm of the gamma function for x > 0, to 1e-13 relative. */
function logGamma(x: number): number {
  if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
  const z = x - 1;
  const t = z + 7.5;
  const sum = LANCZOS.reduce((s, c, i) => s + c / (z + i + 1), 0.99999999999980993);
  return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const MOST_TERMS = 500;
const ENOUGH = 1e-12;

/**
 * Share of the gamma distribution of shape a and scale 1 below x: the lower incomplete gamma function over the whole one, [0, 1].
 * By its series below a + 1, by a continued fraction above (Abramowitz & Stegun 1964, 6.5.29 and 6.5.31). a > 0, x ≥ 0.
 */
export function gammaCdf(a: number, x: number): number {
  if (!(a > 0) || x < 0) throw new RangeError(`gamma distribution of shape ${a} below ${x}`);
  if (x === 0) return 0;
  const front = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let term = 1 / a;
    let sum = term;
    for (let n = 1; n < MOST_TERMS && term > sum * ENOUGH; n++) sum += term *= x / (a + n);
    return Math.min(1, front * sum);
  }
  const tiny = 1e-300;
  let b = x + 1 - a;
  let c = 1 / tiny;
  let d = 1 / b;
  let h = d;
  for (let n = 1; n < MOST_TERMS; n++) {
    const an = -n * (n - a);
    b += 2;
    d = an * d + b;
    if (Math.abs(d) < tiny) d = tiny;
    c = b + an / c;
    if (Math.abs(c) < tiny) c = tiny;
    d = 1 / d;
    h *= d * c;
    if (Math.abs(d * c - 1) < ENOUGH) break;
  }
  return Math.max(0, 1 - front * h);
}
