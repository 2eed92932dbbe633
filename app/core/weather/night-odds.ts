import { normalQuantile, percentile, normalFrom, randomFrom } from "~/core/numeric";

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

/**
 * Draws how open a sky is, step by step: each step is clear with its own odds (the number is positive), and steps go together (a hidden
 * normal variable, half of it the night's, half with correlation `likeness` from step to step). How far from 0, in σ: how far from
 * turning.
 */
export function drawnSky(odds: readonly number[], likeness: number, random: () => number): number[] {
  const normal = normalFrom(random);
  const fresh = Math.sqrt(1 - likeness ** 2);
  // Steps that go wholly their own way have nothing in common either.
  const part = likeness === 0 ? 0 : NIGHT_PART;
  const [ofNight, ofStep] = [Math.sqrt(part), Math.sqrt(1 - part)];
  const whole = normal();
  let hidden = normal();
  return odds.map((p, i) => {
    if (i > 0) hidden = likeness * hidden + fresh * normal();
    return normalQuantile(p) - (ofNight * whole + ofStep * hidden);
  });
}

/**
 * Plays a night 2,000 times, its hours drawn together. The mean alone would hide a night of all or nothing. Repeatable; odds good to
 * about 0.02.
 */
export function playNight(
  hours: readonly OddsHour[],
  wishMin: number,
  likeness: number = HOURLY_LIKENESS,
  seed = 1,
): NightOdds {
  const random = randomFrom(seed);
  const odds = hours.map((h) => h.odds);
  const totals = Array.from({ length: RUNS }, () =>
    drawnSky(odds, likeness, random).reduce((sum, open, i) => (open > 0 ? sum + hours[i]!.minutes : sum), 0),
  );
  const sorted = totals.sort((a, b) => a - b);
  return {
    expectedMin: hours.reduce((sum, h) => sum + h.odds * h.minutes, 0),
    atLeastWish: sorted.filter((m) => m >= wishMin - 1e-9).length / RUNS,
    tenthMin: percentile(sorted, 0.1),
    halfMin: percentile(sorted, 0.5),
    ninetiethMin: percentile(sorted, 0.9),
  };
}
