import { randomFrom } from "~/core/numeric";
import { balance } from "./dual";
import { IDLE, type Column, type Programme, type Programmes, type SeasonTask } from "./model";
import { firstPlan, improve, movePass, polish, poolPass, rounded } from "./passes";
import { valueAt } from "./night";
import { conjugate, topSlope, type Reward } from "./reward";
import { Season } from "./state";

/** A plan with what it is worth and what none can be worth more than. */
export interface SeasonAnswer {
  readonly plan: Programmes;
  /** Worth of the plan in expectation. */
  readonly value: number;
  /** No plan, nor any rule that decides night by night, is worth more in this model. */
  readonly bound: number;
  /** (bound − value) / bound; 0 where there is nothing to gain. */
  readonly gap: number;
  /** Worth minutes expected by job. */
  readonly yields: readonly number[];
  /** Prices at which the bound was found, to start from when something has changed. */
  readonly prices: readonly number[];
  /** Rounds of work done. */
  readonly rounds: number;
  /** By lane, what could be done instead, best first: for playing seasons and for what would do as well. Empty on the way. */
  readonly pools: readonly (readonly Programme[])[];
}

/** Where to stop, and where to start from. */
export interface SolveOptions {
  /** Good enough, as a share of the bound. */
  readonly wantedGap: number;
  readonly mostRounds: number;
  /** Of an answer to nearly the same question. */
  readonly warm?: { readonly prices: readonly number[]; readonly plan: Programmes };
}

export const USUAL_OPTIONS: SolveOptions = { wantedGap: 0.003, mostRounds: 24 };

const ROUNDINGS = 16;
const SEED = 7;
const SAME_MIXED = 0.0003; // of the bound: the pools have all they need
const EPS = 1e-9;
const MANY_JOBS = 64; // from here on Newton's steps alone leave the bound far off
const SWEEPS = 32; // of the subgradient, in the second round
const FURTHER_SWEEPS = 90; // while the plan is more than a hundredth off
const FAR = 0.01;
const IDLE_SWEEPS = 6; // without a better bound: the step is halved

/** What no plan is worth more than, by prices: what they leave of the rewards, and the best of every night at the best of its places. */
function boundAt(season: Season, rewards: readonly Reward[], prices: Float64Array): number {
  const lanes = season.tables.map((_, lane) => season.price(lane, prices));
  const nights = season.choices.reduce((sum, { places }) => {
    const fixed = places.find((p) => p.lanes.some((l) => !season.isFree(l) && season.chosen[l] !== IDLE));
    const worth = (fixed ? [fixed] : places).map((p) => p.lanes.reduce((s, l) => s + lanes[l]!, -p.cost));
    return sum + Math.max(...worth);
  }, 0);
  return rewards.reduce((sum, r, k) => sum + conjugate(r, prices[k]!), nights);
}

/**
 * Many jobs: prices moved along deflected subgradients (Camerini, Fratta & Maffioli 1975, Math. Prog. Study 3, 26) with Polyak's
 * step, so that the pools and the bound are good enough for Newton's. Tells after each sweep whether the bound is better.
 */
function* sweeps(
  season: Season,
  rewards: readonly Reward[],
  evaluate: (prices: Float64Array) => number,
  known: () => { readonly bound: number; readonly bestPrices: Float64Array; readonly bestValue: number },
): Generator<boolean> {
  const n = rewards.length;
  let at = Float64Array.from(known().bestPrices);
  const direction = new Float64Array(n);
  let [step, idle] = [1, 0];
  for (let sweep = 0; sweep < SWEEPS + FURTHER_SWEEPS; sweep++) {
    const { bound, bestPrices, bestValue } = known();
    if (sweep >= SWEEPS && bound - bestValue <= FAR * bound) return;
    const here = evaluate(at);
    const gradient = subgradient(season, rewards, at);
    let norm = 0;
    for (let k = 0; k < n; k++) {
      direction[k] = 0.6 * gradient[k]! + 0.4 * direction[k]!;
      norm += direction[k]! ** 2;
    }
    const isBetter = here < bound - EPS;
    idle = isBetter ? 0 : idle + 1;
    if (idle >= IDLE_SWEEPS) {
      step /= 2;
      idle = 0;
      at = Float64Array.from(bestPrices);
      direction.fill(0);
      continue;
    }
    if (!(norm > EPS)) return;
    const length = (step * Math.max(0, here - 1.005 * bestValue)) / norm;
    at = at.map((p, k) => Math.max(0, p - length * direction[k]!));
    yield isBetter;
  }
}

/** What the best programmes at prices bring, less what the rewards would buy at them. */
function subgradient(season: Season, rewards: readonly Reward[], prices: Float64Array): Float64Array {
  const gradient = Float64Array.from(rewards, ({ slopes, widths }, k) =>
    slopes.reduce((sum, slope, i) => (slope > prices[k]! ? sum - widths[i]! : sum), 0),
  );
  const best = season.pools.map((pool) =>
    pool.reduce<{ column: Column; value: number }>(
      (most, column) => {
        const value = valueAt(column, prices);
        return value > most.value ? { column, value } : most;
      },
      { column: IDLE, value: 0 },
    ),
  );
  for (const { places } of season.choices) {
    const worth = places.map((p) => p.lanes.reduce((s, l) => s + best[l]!.value, -p.cost));
    for (const l of places[worth.indexOf(Math.max(...worth))]!.lanes) {
      const { jobs, yields } = best[l]!.column;
      jobs.forEach((k, j) => (gradient[k]! += yields[j]!));
    }
  }
  return gradient;
}

/**
 * Plans a season by column generation: the dynamic program of a night makes programmes at prices, the smoothed dual makes prices of
 * the programmes, and plans are rounded and polished from their mixture. Gives the first plan at once and every round's best after
 * it; what it gives last is the answer. Counts its work and never looks at the clock: the same question has the same answer.
 */
export function* solveSeason(
  task: SeasonTask,
  options: SolveOptions = USUAL_OPTIONS,
): Generator<SeasonAnswer, SeasonAnswer> {
  const season = new Season(task);
  const rewards = task.jobs.map((j) => j.reward);
  const lanes = season.tables.length;
  let bound = rewards.reduce((sum, r) => sum + conjugate(r, 0), 0);
  // The bound so far is that of prices of nothing at all: everything wanted, had for free.
  let bestPrices: Float64Array = new Float64Array(rewards.length);
  let best: Column[] = [];
  let bestValue = Number.NEGATIVE_INFINITY;
  let rounds = 0;
  const keepBest = () => {
    const value = season.value();
    if (value > bestValue + EPS) {
      bestValue = value;
      best = [...season.chosen];
    }
  };
  const gap = () => (bound > EPS ? Math.max(0, (bound - bestValue) / bound) : 0);
  const answer = (isLast = false): SeasonAnswer => {
    season.restart(best);
    return {
      plan: best.map((c) => c.blocks),
      value: bestValue,
      bound: Math.max(bound, bestValue),
      gap: gap(),
      yields: [...season.yields],
      prices: [...bestPrices],
      rounds,
      pools: isLast ? season.ranked(bestPrices) : [],
    };
  };
  const evaluate = (prices: Float64Array): number => {
    const sum = boundAt(season, rewards, prices);
    if (sum < bound) {
      bound = sum;
      bestPrices = prices;
    }
    return sum;
  };

  if (options.warm) {
    season.restart(options.warm.plan.map((blocks, l) => season.column(l, blocks) ?? IDLE));
    season.chosen.forEach((c, l) => season.keep(l, c));
    improve(season);
  } else firstPlan(season);
  keepBest();
  yield answer();
  season.restart(best);
  improve(season);
  movePass(season);
  polish(season);
  keepBest();
  let prices: Float64Array = Float64Array.from(rewards, (r, k) => options.warm?.prices[k] ?? topSlope(r) / 2);
  evaluate(prices);
  let mu = (0.02 * bound) / Math.max(1, lanes);
  let weights: readonly Float64Array[] = [];
  let ridge: number | undefined;
  while (rounds < options.mostRounds && gap() > options.wantedGap) {
    rounds++;
    if (rounds === 2 && rewards.length >= MANY_JOBS)
      for (const isBetter of sweeps(season, rewards, evaluate, () => ({ bound, bestPrices, bestValue })))
        if (isBetter) yield answer();
    const found = balance(rewards, season.pools, season.choices, prices, mu, ridge);
    weights = found.weights;
    ridge = found.ridge;
    season.restart(rounded(season, weights, found.shares, null));
    poolPass(season);
    movePass(season);
    polish(season);
    poolPass(season);
    keepBest();
    prices = found.prices;
    evaluate(Float64Array.from(prices, (p, k) => 0.3 * bestPrices[k]! + 0.7 * p));
    yield answer();
    if (bound - found.mixed < SAME_MIXED * bound && mu < (2e-4 * bound) / lanes) break;
    mu = Math.max((5e-5 * bound) / lanes, Math.min(0.4 * mu, (0.1 * Math.max(EPS, bound - found.mixed)) / lanes));
    season.thin(weights.map((w, l) => Float64Array.from(season.pools[l]!, (_, i) => w[i] ?? 1)));
  }
  if (gap() > options.wantedGap && weights.length > 0) {
    const random = randomFrom(SEED);
    const { weights: last, shares } = balance(rewards, season.pools, season.choices, prices, mu, ridge);
    for (let i = 0; i < ROUNDINGS && gap() > options.wantedGap; i++) {
      season.restart(rounded(season, last, shares, random));
      poolPass(season);
      movePass(season);
      polish(season);
      poolPass(season);
      keepBest();
    }
  }
  return answer(true);
}

/** The answer, with nothing of the way to it. */
export function solvedSeason(task: SeasonTask, options: SolveOptions = USUAL_OPTIONS): SeasonAnswer {
  const work = solveSeason(task, options);
  for (let step = work.next(); ; step = work.next()) if (step.done) return step.value;
}
