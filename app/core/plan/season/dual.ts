import type { Column } from "./model";
import { topSlope, valueOf, type Reward } from "./reward";

/** Prices a worth minute that balance the programmes known so far, and how these are mixed at them. */
export interface Balance {
  readonly prices: Float64Array;
  /** Share of each programme of each lane's pool, by place. */
  readonly weights: readonly Float64Array[];
  /** Value of that mixture: what the pools allow if programmes could be mixed; at most. */
  readonly mixed: number;
}

const MOST_STEPS = 40;
const LARGEST_MOVE = 0.3; // of a job's highest price, in one step
const ENOUGH = 1e-7;

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
  from: Float64Array,
  mu: number,
): Balance {
  const n = rewards.length;
  const tops = rewards.map((r) => Math.max(1e-9, topSlope(r)));
  const prices = Float64Array.from(from, (p, k) => Math.min(tops[k]! * 1.5, Math.max(1e-6 * tops[k]!, p)));
  const weights = pools.map((pool) => new Float64Array(pool.length));
  const mean = new Float64Array(n);

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
    for (let l = 0; l < pools.length; l++) {
      const pool = pools[l]!;
      const w = weights[l]!;
      const touched: number[] = [];
      for (let i = 0; i < pool.length; i++) {
        if (w[i]! < 1e-12) continue;
        const { jobs, yields } = pool[i]!;
        for (let j = 0; j < jobs.length; j++) {
          const k = jobs[j]!;
          if (mean[k] === 0) touched.push(k);
          mean[k]! += w[i]! * yields[j]!;
          for (let h = 0; h < jobs.length; h++) hessian[k * n + jobs[h]!]! += (w[i]! * yields[j]! * yields[h]!) / mu;
        }
      }
      for (const k of touched) {
        gradient[k]! += mean[k]!;
        for (const h of touched) hessian[k * n + h]! -= (mean[k]! * mean[h]!) / mu;
      }
      for (const k of touched) mean[k] = 0;
    }
    // A ridge, grown until no price moves too far in one step.
    let ridge = 1e-9;
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
  pools.forEach((pool, l) =>
    pool.forEach(({ jobs, yields, cost }, i) => {
      const share = weights[l]![i]!;
      mixed -= share * cost;
      jobs.forEach((k, j) => (amounts[k]! += share * yields[j]!));
    }),
  );
  rewards.forEach((r, k) => (mixed += valueOf(r, amounts[k]!)));
  return { prices, weights, mixed };
}
