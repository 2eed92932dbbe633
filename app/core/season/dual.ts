import type { Column, NightChoice } from "./model";
import { topSlope, valueOf, type Reward } from "./reward";

/** Prices a worth minute that balance the programmes known so far, and how these are mixed at them. */
export interface Balance {
  readonly prices: Float64Array;
  /** Share of each programme of each lane's pool, where its place is chosen. */
  readonly weights: readonly Float64Array[];
  /** Share of each place of each choice. */
  readonly shares: readonly Float64Array[];
  /** The ridge that the last step needed, to begin with the next time. */
  readonly ridge: number;
  /** Value of that mixture: what the pools allow if programmes could be mixed; at most. */
  readonly mixed: number;
}

const MOST_STEPS = 40;
const LARGEST_MOVE = 0.3; // of a job's highest price, in one step
const ENOUGH = 1e-7;
const LEAST_RIDGE = 1e-9;
const RIDGE_EASES = 64; // from one step to the next
const MOST_FIRST_RIDGE = 1e-3; // a step that was hardly one says nothing about the next

/** log(1 + e^x) without overflow. */
const softplus = (x: number): number => (x > 30 ? x : Math.log1p(Math.exp(x)));

/** Solves A x = b for a symmetric positive A given by rows, in place; false when it is not positive. */
function cholesky(a: Float64Array, b: Float64Array, n: number): boolean {
  for (let j = 0; j < n; j++) {
    let diagonal = a[j * n + j]!;
    for (let k = 0; k < j; k++) diagonal -= a[j * n + k]! ** 2;
    if (!(diagonal > 0)) return false;
    const root = Math.sqrt(diagonal);
    a[j * n + j] = root;
    for (let i = j + 1; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      a[i * n + j] = sum / root;
    }
  }
  for (let i = 0; i < n; i++) {
    let sum = b[i]!;
    for (let k = 0; k < i; k++) sum -= a[i * n + k]! * b[k]!;
    b[i] = sum / a[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    let sum = b[i]!;
    for (let k = i + 1; k < n; k++) sum -= a[k * n + i]! * b[k]!;
    b[i] = sum / a[i * n + i]!;
  }
  return true;
}

/**
 * The restricted master by its smoothed dual: rewards and the choice among a lane's programmes are softened by `mu`, which leaves a
 * smooth convex function of the prices alone, minimised by Newton's method. Nothing of it is a bound by itself; only the dynamic
 * program at the prices found makes one.
 */
export function balance(
  rewards: readonly Reward[],
  pools: readonly (readonly Column[])[],
  choices: readonly NightChoice[],
  from: Float64Array,
  mu: number,
  firstRidge = LEAST_RIDGE,
): Balance {
  const n = rewards.length;
  const tops = rewards.map((r) => Math.max(1e-9, topSlope(r)));
  const prices = Float64Array.from(from, (p, k) => Math.min(tops[k]! * 1.5, Math.max(1e-6 * tops[k]!, p)));
  const weights = pools.map((pool) => new Float64Array(pool.length));
  const soft = new Float64Array(pools.length);
  const shares = choices.map(({ places }) => new Float64Array(places.length));

  /** The smoothed dual at prices; fills the weights. */
  const evaluate = (at: Float64Array): number => {
    let sum = 0;
    for (let k = 0; k < n; k++) {
      const { slopes, widths } = rewards[k]!;
      for (let i = 0; i < slopes.length; i++) sum += mu * softplus(((slopes[i]! - at[k]!) * widths[i]!) / mu);
      sum -= mu * Math.log(at[k]! / tops[k]!);
    }
    for (let l = 0; l < pools.length; l++) {
      const pool = pools[l]!;
      const w = weights[l]!;
      let most = Number.NEGATIVE_INFINITY;
      for (let i = 0; i < pool.length; i++) {
        const { jobs, yields, cost } = pool[i]!;
        let value = -cost;
        for (let j = 0; j < jobs.length; j++) value += at[jobs[j]!]! * yields[j]!;
        w[i] = value;
        if (value > most) most = value;
      }
      let total = 0;
      for (let i = 0; i < pool.length; i++) total += w[i] = Math.exp((w[i]! - most) / mu);
      for (let i = 0; i < pool.length; i++) w[i]! /= total;
      soft[l] = most + mu * Math.log(total);
    }
    for (let c = 0; c < choices.length; c++) {
      const { places } = choices[c]!;
      const share = shares[c]!;
      let most = Number.NEGATIVE_INFINITY;
      for (let p = 0; p < places.length; p++) {
        let value = -places[p]!.cost;
        for (const l of places[p]!.lanes) value += soft[l]!;
        share[p] = value;
        if (value > most) most = value;
      }
      let total = 0;
      for (let p = 0; p < places.length; p++) total += share[p] = Math.exp((share[p]! - most) / mu);
      for (let p = 0; p < places.length; p++) share[p]! /= total;
      sum += most + mu * Math.log(total);
    }
    return sum;
  };

  let value = evaluate(prices);
  const gradient = new Float64Array(n);
  const hessian = new Float64Array(n * n);
  const system = new Float64Array(n * n);
  const step = new Float64Array(n);
  const next = new Float64Array(n);
  const [mean, place, night] = [new Float64Array(n), new Float64Array(n), new Float64Array(n)];
  /** Adds the second moments of a lane's programmes; its means are left in `mean`, the jobs they are of are given. */
  const spreadOf = (pool: readonly Column[], w: Float64Array, share: number): number[] => {
    const touched: number[] = [];
    for (let i = 0; i < pool.length; i++) {
      if (w[i]! < 1e-12) continue;
      const { jobs, yields } = pool[i]!;
      for (let j = 0; j < jobs.length; j++) {
        const k = jobs[j]!;
        if (mean[k] === 0 && yields[j]! !== 0) touched.push(k);
        mean[k]! += w[i]! * yields[j]!;
        for (let h = 0; h < jobs.length; h++)
          hessian[k * n + jobs[h]!]! += (share * w[i]! * yields[j]! * yields[h]!) / mu;
      }
    }
    return touched;
  };
  let ridge = Math.min(firstRidge, MOST_FIRST_RIDGE);
  for (let turn = 0; turn < MOST_STEPS; turn++) {
    gradient.fill(0);
    hessian.fill(0);
    for (let k = 0; k < n; k++) {
      const { slopes, widths } = rewards[k]!;
      for (let i = 0; i < slopes.length; i++) {
        const x = ((slopes[i]! - prices[k]!) * widths[i]!) / mu;
        const s = x > 30 ? 1 : x < -30 ? 0 : 1 / (1 + Math.exp(-x));
        gradient[k]! -= widths[i]! * s;
        hessian[k * n + k]! += (widths[i]! ** 2 / mu) * s * (1 - s);
      }
      gradient[k]! -= mu / prices[k]!;
      hessian[k * n + k]! += mu / prices[k]! ** 2;
    }
    for (let c = 0; c < choices.length; c++) {
      const { places } = choices[c]!;
      const all: number[] = [];
      for (let p = 0; p < places.length; p++) {
        const share = shares[c]![p]!;
        if (share < 1e-12) continue;
        const here: number[] = [];
        for (const l of places[p]!.lanes) {
          const touched = spreadOf(pools[l]!, weights[l]!, share);
          for (const k of touched) {
            if (place[k] === 0) here.push(k);
            place[k]! += mean[k]!;
            for (const h of touched) hessian[k * n + h]! -= (share * mean[k]! * mean[h]!) / mu;
          }
          for (const k of touched) mean[k] = 0;
        }
        for (const k of here) {
          if (night[k] === 0) all.push(k);
          night[k]! += share * place[k]!;
          for (const h of here) hessian[k * n + h]! += (share * place[k]! * place[h]!) / mu;
        }
        for (const k of here) place[k] = 0;
      }
      for (const k of all) {
        gradient[k]! += night[k]!;
        for (const h of all) hessian[k * n + h]! -= (night[k]! * night[h]!) / mu;
      }
      for (const k of all) night[k] = 0;
    }
    // A ridge, grown until no price moves too far in one step.
    ridge = Math.max(LEAST_RIDGE, ridge / RIDGE_EASES);
    for (let tries = 0; tries < 60; tries++) {
      system.set(hessian);
      for (let k = 0; k < n; k++) {
        system[k * n + k]! += ridge * (hessian[k * n + k]! + 1);
        step[k] = -gradient[k]!;
      }
      const isSolved = cholesky(system, step, n);
      let move = 0;
      for (let k = 0; k < n; k++) move = Math.max(move, Math.abs(step[k]!) / tops[k]!);
      if (isSolved && move <= LARGEST_MOVE) break;
      ridge *= 4;
    }
    let length = 1;
    for (let k = 0; k < n; k++) if (step[k]! < 0) length = Math.min(length, (-0.9 * prices[k]!) / step[k]!);
    let slope = 0;
    for (let k = 0; k < n; k++) slope += gradient[k]! * step[k]!;
    if (!(slope < 0)) break;
    let found = Number.POSITIVE_INFINITY;
    let isLower = false;
    for (let tries = 0; tries < 30; tries++) {
      for (let k = 0; k < n; k++) next[k] = prices[k]! + length * step[k]!;
      found = evaluate(next);
      if (found <= value + 1e-4 * length * slope) {
        isLower = true;
        break;
      }
      length /= 2;
    }
    if (!isLower) {
      evaluate(prices);
      break;
    }
    prices.set(next);
    const gain = value - found;
    value = found;
    if (gain < ENOUGH * Math.abs(value)) break;
  }
  // What the mixture brings, counted exactly.
  const amounts = new Float64Array(n);
  let mixed = 0;
  choices.forEach(({ places }, c) =>
    places.forEach(({ lanes, cost: going }, p) => {
      const share = shares[c]![p]!;
      // Going there costs nothing where every programme is idle.
      const idle = lanes.reduce(
        (odds, l) => odds * (weights[l]![pools[l]!.findIndex((x) => x.blocks.length === 0)] ?? 0),
        1,
      );
      mixed -= share * (1 - idle) * going;
      for (const l of lanes)
        pools[l]!.forEach(({ jobs, yields, cost }, i) => {
          const part = share * weights[l]![i]!;
          mixed -= part * cost;
          jobs.forEach((k, j) => (amounts[k]! += part * yields[j]!));
        });
    }),
  );
  rewards.forEach((r, k) => (mixed += valueOf(r, amounts[k]!)));
  return { prices, weights, shares, ridge, mixed };
}
