import { brentRoot } from "~/core/numeric";

/** What decides what a clock hour brings at a sub length. */
export interface ClockRates {
  /** Clock seconds lost with every sub: download, its share of dithers. */
  readonly overheadSec: number;
  readonly readNoiseE: number;
  /** Sky and dark current of the pixel that decides, e⁻/s. */
  readonly backgroundEPerSec: number;
  /** Share of subs lost per second of their length, 1/s: a lost sub costs all of itself. */
  readonly spoiltPerSec: number;
}

/** 2 % of subs of 120 s; common practice, no source. */
export const USUAL_SPOILT_PER_SEC = 0.02 / 120;
const LEAST_SPOILT_PER_SEC = 1e-6; // nobody loses nothing: keeps the best length finite
/** Lengths this near the best are equally good. */
export const FLAT = 0.98;
const [SHORTEST_SEC, LONGEST_SEC] = [0.01, 1e6];

/** Share of a clock hour's time lost to overheads and to read noise at a sub length. */
export const lossesAt = ({ overheadSec, readNoiseE, backgroundEPerSec }: ClockRates, subSec: number) => ({
  overhead: overheadSec / (subSec + overheadSec),
  readNoise: readNoiseE ** 2 / (backgroundEPerSec * subSec + readNoiseE ** 2),
});

const spoilt = (r: ClockRates) => Math.max(r.spoiltPerSec, LEAST_SPOILT_PER_SEC);

/**
 * What a clock hour brings at a sub length, relative to a camera that loses nothing, (0, 1]:
 * t/(t+o) · S·t/(S·t+R²) · exp(−h·t). Derived; equal subs, background-limited stack.
 */
export function clockYield(r: ClockRates, subSec: number): number {
  const { overhead, readNoise } = lossesAt(r, subSec);
  return (1 - overhead) * (1 - readNoise) * Math.exp(-spoilt(r) * subSec);
}

/** The sub length that brings most by the clock, and the range in which it hardly matters, s. */
export interface BestSub {
  readonly bestSec: number;
  readonly fromSec: number;
  readonly toSec: number;
  /** At the best length. */
  readonly clockYield: number;
}

/** Where o/(t+o) + R²/(S·t+R²) = h·t, and where the yield has fallen by 2 %. */
export function bestSub(r: ClockRates): BestSub {
  const slope = (t: number) => {
    const { overhead, readNoise } = lossesAt(r, t);
    return overhead + readNoise - spoilt(r) * t;
  };
  const bestSec = brentRoot(slope, SHORTEST_SEC, LONGEST_SEC, 1e-6);
  const best = clockYield(r, bestSec);
  const fall = (t: number) => Math.log(clockYield(r, t) / best) - Math.log(FLAT);
  return {
    bestSec,
    fromSec: fall(SHORTEST_SEC) >= 0 ? SHORTEST_SEC : brentRoot(fall, SHORTEST_SEC, bestSec, 1e-6),
    toSec: brentRoot(fall, bestSec, LONGEST_SEC, 1e-6),
    clockYield: best,
  };
}
