/** A place where a function passes zero. */
export interface Crossing {
  readonly at: number;
  readonly rising: boolean;
}

/**
 * Root of `f` between `low` and `high`, where its signs differ, to `tolerance` in the argument.
 * Brent 1973, Algorithms for Minimization without Derivatives, ch. 4. RangeError without a change of sign.
 */
export function brentRoot(f: (x: number) => number, low: number, high: number, tolerance: number): number {
  let [a, b, fa, fb] = [low, high, f(low), f(high)];
  if (fa === 0) return a;
  if (fb === 0) return b;
  if (fa > 0 === fb > 0) throw new RangeError(`no change of sign between ${low} and ${high}`);
  let [c, fc, d, e] = [a, fa, b - a, b - a];
  for (let i = 0; i < 100; i++) {
    if (fb > 0 === fc > 0) [c, fc, d, e] = [a, fa, b - a, b - a];
    if (Math.abs(fc) < Math.abs(fb)) [a, b, c, fa, fb, fc] = [b, c, b, fb, fc, fb];
    const tol = 2 * Number.EPSILON * Math.abs(b) + tolerance / 2;
    const mid = (c - b) / 2;
    if (Math.abs(mid) <= tol || fb === 0) return b;
    [d, e] = brentStep({ a, b, c, fa, fb, fc, d, e, tol, mid });
    [a, fa] = [b, fb];
    b += Math.abs(d) > tol ? d : Math.sign(mid) * tol;
    fb = f(b);
  }
  return b;
}

interface BrentState {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly fa: number;
  readonly fb: number;
  readonly fc: number;
  readonly d: number;
  readonly e: number;
  readonly tol: number;
  readonly mid: number;
}

/** The next step and the one before it: interpolation when it can be trusted, else bisection. */
function brentStep(state: BrentState): [number, number] {
  const { a, b, c, fa, fb, fc, d, e, tol, mid } = state;
  if (Math.abs(e) < tol || Math.abs(fa) <= Math.abs(fb)) return [mid, mid];
  const s = fb / fa;
  let p: number;
  let q: number;
  if (a === c) {
    p = 2 * mid * s;
    q = 1 - s;
  } else {
    const [r, t] = [fb / fc, fa / fc];
    p = s * (2 * mid * t * (t - r) - (b - a) * (r - 1));
    q = (t - 1) * (r - 1) * (s - 1);
  }
  if (p > 0) q = -q;
  p = Math.abs(p);
  const trusted = 2 * p < Math.min(3 * mid * q - Math.abs(tol * q), Math.abs(e * q));
  return trusted ? [p / q, d] : [mid, mid];
}

/** Where `f` is smallest ("least") or largest within [low, high], if it has one such point there. Golden section. */
export function extremum(
  f: (x: number) => number,
  span: {
    readonly low: number;
    readonly high: number;
    readonly tolerance: number;
    readonly kind: "least" | "greatest";
  },
): number {
  const ratio = (Math.sqrt(5) - 1) / 2;
  const g = span.kind === "least" ? f : (x: number) => -f(x);
  let [low, high] = [span.low, span.high];
  let [x1, x2] = [high - ratio * (high - low), low + ratio * (high - low)];
  let [g1, g2] = [g(x1), g(x2)];
  while (high - low > span.tolerance) {
    if (g1 < g2) {
      [high, x2, g2] = [x2, x1, g1];
      x1 = high - ratio * (high - low);
      g1 = g(x1);
    } else {
      [low, x1, g1] = [x1, x2, g2];
      x2 = low + ratio * (high - low);
      g2 = g(x2);
    }
  }
  return (low + high) / 2;
}

/**
 * Every sign change of `f` in [low, high], in order.
 *
 * `f` is sampled every `step`; between samples it must not have more than one extremum. Where three samples
 * show a turning point that stays on one side of zero, the turning point itself is looked at, so that two
 * crossings closer together than `step` (a grazing Sun) are found too.
 */
export function crossings(
  f: (x: number) => number,
  span: { readonly low: number; readonly high: number; readonly step: number; readonly tolerance: number },
): Crossing[] {
  const count = Math.max(2, Math.ceil((span.high - span.low) / span.step));
  const at = (i: number) => span.low + ((span.high - span.low) * i) / count;
  const samples = Array.from({ length: count + 1 }, (_, i) => ({ x: at(i), y: f(at(i)) }));
  const knots = [samples[0]!];
  for (let i = 1; i <= count; i++) {
    const [before, here, after] = [samples[i - 1]!, samples[i]!, samples[i + 1]];
    if (after) {
      const turnsDown = here.y > before.y && here.y >= after.y && here.y <= 0;
      const turnsUp = here.y < before.y && here.y <= after.y && here.y >= 0;
      if (turnsDown || turnsUp) {
        const kind = turnsDown ? "greatest" : "least";
        const x = extremum(f, { low: before.x, high: after.x, tolerance: span.tolerance, kind });
        if (x > knots.at(-1)!.x && x < after.x) {
          knots.push({ x, y: f(x) });
          continue; // the extremum stands for this sample, which lies on the same side
        }
      }
    }
    knots.push(here);
  }
  const found: Crossing[] = [];
  for (let i = 1; i < knots.length; i++) {
    const [p, q] = [knots[i - 1]!, knots[i]!];
    if (p.y < 0 === q.y < 0) continue;
    found.push({ at: brentRoot(f, p.x, q.x, span.tolerance), rising: q.y >= 0 && p.y < 0 });
  }
  return found;
}
