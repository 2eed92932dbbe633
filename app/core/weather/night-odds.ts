import { percentile, randomFrom } from "~/core/numeric";

/** An hour (or part of one) of a night: odds that it is usable, and the minutes it would give. */
export interface OddsHour {
  readonly odds: number;
  readonly minutes: number;
}

/** What a night may bring, in minutes. */
export interface NightOdds {
  /** Mean, Σ p·minutes. */
  readonly expectedMin: number;
  /** Chance of at least the wish. */
  readonly atLeastWish: number;
  /** Minutes that 10, 50 and 90 % of such nights stay below. */
  readonly tenthMin: number;
  readonly halfMin: number;
  readonly ninetiethMin: number;
}

const RUNS = 2000;
/** Likeness of neighbouring hours, as the correlation of the hidden normal variable; a proposal of this project. */
export const HOURLY_LIKENESS = 0.85;

/** What all hours of a night have in common, as its part of that variable: forecasts fail by the night. A proposal of this project. */
const NIGHT_PART = 0.5;

/** Inverse of the normal distribution by Acklam's rational approximation (public domain), relative error under 1.2e-9. */
function normalQuantile(p: number): number {
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

/**
 * Plays a night 2,000 times: each hour is usable with its own odds; hours go together (a hidden normal variable, half of it the
 * night's, half with correlation `likeness` from hour to hour). The mean alone would hide a night of all or nothing. Repeatable;
 * odds good to about 0.02.
 */
export function playNight(
  hours: readonly OddsHour[],
  wishMin: number,
  likeness: number = HOURLY_LIKENESS,
  seed = 1,
): NightOdds {
  const random = randomFrom(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const thresholds = hours.map((h) => normalQuantile(h.odds));
  const fresh = Math.sqrt(1 - likeness ** 2);
  // Hours that go wholly their own way have nothing in common either.
  const part = likeness === 0 ? 0 : NIGHT_PART;
  const [ofNight, ofHour] = [Math.sqrt(part), Math.sqrt(1 - part)];
  const totals = Array.from({ length: RUNS }, () => {
    const whole = normal();
    let hidden = normal();
    let minutes = 0;
    thresholds.forEach((limit, i) => {
      if (i > 0) hidden = likeness * hidden + fresh * normal();
      if (ofNight * whole + ofHour * hidden < limit) minutes += hours[i]!.minutes;
    });
    return minutes;
  });
  const sorted = totals.sort((a, b) => a - b);
  return {
    expectedMin: hours.reduce((sum, h) => sum + h.odds * h.minutes, 0),
    atLeastWish: sorted.filter((m) => m >= wishMin - 1e-9).length / RUNS,
    tenthMin: percentile(sorted, 0.1),
    halfMin: percentile(sorted, 0.5),
    ninetiethMin: percentile(sorted, 0.9),
  };
}
