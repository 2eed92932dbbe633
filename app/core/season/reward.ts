import { gammaCdf } from "~/core/numeric";

/** A concave reward in straight pieces: slopes that fall, and how far each reaches; flat beyond the last. */
export interface Reward {
  readonly slopes: readonly number[];
  readonly widths: readonly number[];
}

const PIECES = 12;
const RISK_PIECES = 16;

/** Every worth minute up to a need counts the same. */
export const capReward = (need: number, priority: number): Reward => ({ slopes: [priority], widths: [need] });

/** Chords of a concave function over equal pieces of [0, reach]. */
function chords(f: (y: number) => number, reach: number, pieces = PIECES): Reward {
  const width = reach / pieces;
  const slopes = Array.from({ length: pieces }, (_, i) => Math.max(0, (f((i + 1) * width) - f(i * width)) / width));
  // Rounding must not make a slope rise: everything here relies on rewards being concave.
  for (let i = 1; i < pieces; i++) slopes[i] = Math.min(slopes[i]!, slopes[i - 1]!);
  return { slopes, widths: slopes.map(() => width) };
}

/** The root of the share done, as signal to noise grows: 2 goal (√((done + y)/goal) − √(done/goal)) up to the need. */
export function sqrtReward(goal: number, need: number, priority: number): Reward {
  const done = goal - need;
  return chords((y) => priority * 2 * goal * (Math.sqrt((done + y) / goal) - Math.sqrt(done / goal)), need);
}

/**
 * What is to be expected of a need when the yield itself is chance: priority times E min(Y, need), Y of a gamma distribution with mean
 * y and variance `scale` · y, as clouds take nights whole: `scale` = (1+r)/(1−r) Σ q(1−q)a² / Σ q a over the nights of a plan. Concave,
 * 0 at 0. Nights beyond the need on average are still worth something, as they make up for clouded ones.
 */
export function riskReward(need: number, scale: number, priority: number): Reward {
  if (!(scale > 1e-6 * need)) return capReward(need, priority);
  const expected = (y: number) =>
    y <= 0 ? 0 : y * gammaCdf(y / scale + 1, need / scale) + need * (1 - gammaCdf(y / scale, need / scale));
  return chords((y) => priority * expected(y), need + 3 * Math.sqrt(scale * need), RISK_PIECES);
}

/** The reward of y. */
export function valueOf({ slopes, widths }: Reward, y: number): number {
  let value = 0;
  let left = y;
  for (let i = 0; i < slopes.length && left > 0; i++) {
    value += slopes[i]! * Math.min(left, widths[i]!);
    left -= widths[i]!;
  }
  return value;
}

/** What the next little bit beyond y brings a worth minute. */
export function slopeAt({ slopes, widths }: Reward, y: number): number {
  let left = y;
  for (let i = 0; i < slopes.length; i++) {
    if (left < widths[i]! - 1e-9) return slopes[i]!;
    left -= widths[i]!;
  }
  return 0;
}

/** The most that a reward less a price for what is bought can come to: max over y of U(y) − price y. */
export function conjugate({ slopes, widths }: Reward, price: number): number {
  let sum = 0;
  for (let i = 0; i < slopes.length; i++) sum += Math.max(0, slopes[i]! - price) * widths[i]!;
  return sum;
}

/** The steepest slope: no price above it buys anything. */
export const topSlope = ({ slopes }: Reward): number => slopes[0] ?? 0;
