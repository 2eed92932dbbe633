import { randomFrom } from "~/core/numeric";
import { balance } from "./dual";
import { IDLE, type Block, type Column, type Programme, type Programmes, type SeasonTask } from "./model";
import { bestProgramme, columnOf, nightTable, scratchFor, type NightTable } from "./night";
import { conjugate, slopeAt, topSlope, valueOf } from "./reward";

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

const POOL = 64; // programmes kept a lane
const RANKED = 12; // of them told
const ROUNDINGS = 16;
const SEED = 7;
const SAME_MIXED = 0.0003; // of the bound: the pools have all they need
const EPS = 1e-9;

/** What is known while a season is being solved. */
export class Season {
  readonly tables: readonly NightTable[];
  readonly #scratch;
  readonly pools: Column[][];
  readonly #known: Set<string>[];
  /** The programme each lane has now, and what they bring together. */
  chosen: Column[];
  readonly yields: Float64Array;

  constructor(readonly task: SeasonTask) {
    this.tables = task.lanes.map((lane) => nightTable(task, lane));
    this.#scratch = scratchFor(task, this.tables);
    const fixed = this.tables.map((t) => (t.fixed ? (columnOf(task, t, t.fixed) ?? IDLE) : null));
    this.pools = fixed.map((c) => [c ?? IDLE]);
    this.#known = this.pools.map(([c]) => new Set([keyOf(c!.blocks)]));
    this.chosen = fixed.map((c) => c ?? IDLE);
    this.yields = new Float64Array(task.jobs.length);
    for (const c of this.chosen) this.add(c, 1);
  }

  add({ jobs, yields }: Column, sign: 1 | -1): void {
    for (let j = 0; j < jobs.length; j++) this.yields[jobs[j]!]! += sign * yields[j]!;
  }

  isFree(lane: number): boolean {
    return this.tables[lane]!.fixed === null;
  }

  /** What a lane's programme brings at prices, at most; the programme goes into its pool. */
  price(lane: number, prices: ArrayLike<number>): number {
    const table = this.tables[lane]!;
    if (!this.isFree(lane)) {
      const { jobs, yields, cost } = this.chosen[lane]!;
      return jobs.reduce((sum, k, j) => sum + prices[k]! * yields[j]!, -cost);
    }
    const { value, blocks } = bestProgramme(this.task, table, prices, this.#scratch);
    this.#keep(lane, blocks);
    return value;
  }

  /** The programme that is best at prices, counted exactly. */
  bestAt(lane: number, prices: ArrayLike<number>): Column {
    return (
      columnOf(
        this.task,
        this.tables[lane]!,
        bestProgramme(this.task, this.tables[lane]!, prices, this.#scratch).blocks,
      ) ?? IDLE
    );
  }

  #keep(lane: number, blocks: Programme): void {
    const key = keyOf(blocks);
    if (this.#known[lane]!.has(key)) return;
    const column = columnOf(this.task, this.tables[lane]!, blocks);
    if (column) this.keep(lane, column);
  }

  keep(lane: number, column: Column): void {
    const key = keyOf(column.blocks);
    if (this.#known[lane]!.has(key)) return;
    this.#known[lane]!.add(key);
    this.pools[lane]!.push(column);
  }

  /** Lets go of programmes that hardly take part in the mixture, where a pool has grown too large. */
  thin(weights: readonly Float64Array[]): void {
    this.pools.forEach((pool, lane) => {
      if (pool.length <= POOL) return;
      const ranked = pool
        .map((column, i) => ({ column, weight: weights[lane]?.[i] ?? 1 }))
        .sort((a, b) => b.weight - a.weight)
        .slice(0, POOL / 2)
        .map((x) => x.column);
      const kept = ranked.includes(IDLE) ? ranked : [IDLE, ...ranked];
      this.pools[lane] = kept;
      this.#known[lane] = new Set(kept.map((c) => keyOf(c.blocks)));
    });
  }

  /** The best programmes of each lane at prices, best first. */
  ranked(prices: ArrayLike<number>): Programme[][] {
    const worth = ({ jobs, yields, cost }: Column) => jobs.reduce((sum, k, j) => sum + prices[k]! * yields[j]!, -cost);
    return this.pools.map((pool) =>
      pool
        .map((column) => ({ column, value: worth(column) }))
        .sort((a, b) => b.value - a.value)
        .slice(0, RANKED)
        .map((x) => x.column.blocks),
    );
  }

  value(): number {
    let value = 0;
    this.task.jobs.forEach((job, k) => (value += valueOf(job.reward, this.yields[k]!)));
    for (const c of this.chosen) value -= c.cost;
    return value;
  }

  /** What taking another programme for a lane changes, exactly. */
  change(lane: number, next: Column): number {
    const now = this.chosen[lane]!;
    if (now === next) return 0;
    let delta = now.cost - next.cost;
    for (let j = 0; j < now.jobs.length; j++) {
      const k = now.jobs[j]!;
      const at = next.jobs.indexOf(k);
      delta += this.#differs(k, (at === -1 ? 0 : next.yields[at]!) - now.yields[j]!);
    }
    for (let j = 0; j < next.jobs.length; j++)
      if (!now.jobs.includes(next.jobs[j]!)) delta += this.#differs(next.jobs[j]!, next.yields[j]!);
    return delta;
  }

  #differs(job: number, by: number): number {
    const { reward } = this.task.jobs[job]!;
    const y = this.yields[job]!;
    return valueOf(reward, y + by) - valueOf(reward, y);
  }

  take(lane: number, next: Column): void {
    this.add(this.chosen[lane]!, -1);
    this.add(next, 1);
    this.chosen[lane] = next;
  }

  /** Takes a programme if that gains. */
  offer(lane: number, next: Column): boolean {
    if (!this.isFree(lane) || this.change(lane, next) <= EPS) return false;
    this.take(lane, next);
    return true;
  }

  /** Starts over from given programmes. */
  restart(columns: readonly Column[]): void {
    this.chosen = columns.map((c, l) => (this.isFree(l) ? c : this.chosen[l]!));
    this.yields.fill(0);
    for (const c of this.chosen) this.add(c, 1);
  }
}

const keyOf = (blocks: Programme): string => blocks.map((b) => b.join()).join(";");

/** Prices of what is still open, as seen by a lane: the secant over what it gives now, else the slope. */
function marginal(season: Season, lane: number, out: Float64Array): Float64Array {
  const { jobs } = season.task;
  const own = season.chosen[lane]!;
  jobs.forEach(({ reward }, k) => (out[k] = slopeAt(reward, season.yields[k]!)));
  own.jobs.forEach((k, j) => {
    const given = own.yields[j]!;
    if (given <= EPS) return;
    const { reward } = jobs[k]!;
    const y = season.yields[k]!;
    out[k] = (valueOf(reward, y) - valueOf(reward, y - given)) / given;
  });
  return out;
}

/** Lanes in order, each by the best programme at the prices of what is still open. */
function firstPlan(season: Season): void {
  const prices = new Float64Array(season.task.jobs.length);
  season.tables.forEach((_, lane) => {
    if (!season.isFree(lane)) return;
    season.task.jobs.forEach(({ reward }, k) => (prices[k] = slopeAt(reward, season.yields[k]!)));
    const column = season.bestAt(lane, prices);
    season.keep(lane, column);
    season.offer(lane, column);
  });
}

/** Every lane once more, at prices as it sees them. */
function improve(season: Season): void {
  const prices = new Float64Array(season.task.jobs.length);
  season.tables.forEach((_, lane) => {
    if (!season.isFree(lane)) return;
    const column = season.bestAt(lane, marginal(season, lane, prices));
    season.keep(lane, column);
    season.offer(lane, column);
  });
}

/** Every programme of every pool, as long as one gains. */
function poolPass(season: Season, passes = 3): void {
  for (let pass = 0; pass < passes; pass++) {
    let isBetter = false;
    season.pools.forEach((pool, lane) => {
      let best: Column | null = null;
      let most = EPS;
      if (!season.isFree(lane)) return;
      for (const column of pool) {
        const gain = season.change(lane, column);
        if (gain > most) {
          most = gain;
          best = column;
        }
      }
      if (best) {
        season.take(lane, best);
        isBetter = true;
      }
    });
    if (!isBetter) return;
  }
}

/** Small changes of a programme: ends of blocks moved, boundaries shifted, a block dropped or handed to another job. */
function* variants(blocks: Programme, wanted: readonly number[]): Generator<Programme> {
  const withBlock = (i: number, block: Block) => blocks.map((b, j) => (j === i ? block : b));
  for (let i = 0; i < blocks.length; i++) {
    const [job, from, to] = blocks[i]!;
    for (const d of [-2, -1, 1, 2]) yield withBlock(i, [job, from + d, to]);
    for (const d of [-2, -1, 1]) yield withBlock(i, [job, from, to + d]);
    const next = blocks[i + 1];
    if (next)
      for (const d of [-3, -2, -1, 1, 2, 3])
        yield blocks.map((b, j) => (j === i ? [job, from, to + d] : j === i + 1 ? [next[0], next[1] + d, next[2]] : b));
    yield blocks.filter((_, j) => j !== i);
    for (const k of wanted) if (k !== job) yield withBlock(i, [k, from, to]);
  }
}

/** Small changes of every lane, as long as one gains. */
function polish(season: Season, passes = 2): void {
  for (let pass = 0; pass < passes; pass++) {
    let isBetter = false;
    season.tables.forEach((table, lane) => {
      if (!season.isFree(lane)) return;
      const wanted = [...table.jobs].filter((k) => slopeAt(season.task.jobs[k]!.reward, season.yields[k]!) > 0);
      for (const blocks of variants(season.chosen[lane]!.blocks, wanted)) {
        const column = columnOf(season.task, table, blocks);
        if (!column || !season.offer(lane, column)) continue;
        season.keep(lane, column);
        isBetter = true;
        break;
      }
    });
    if (!isBetter) return;
  }
}

/** Each lane's heaviest programme, or one drawn by its weight. */
function rounded(season: Season, weights: readonly Float64Array[], random: (() => number) | null): Column[] {
  return season.pools.map((pool, lane) => {
    const w = weights[lane]!;
    if (!random) return pool[w.reduce((best, x, i) => (x > w[best]! ? i : best), 0)]!;
    let left = random();
    for (let i = 0; i < pool.length; i++) if ((left -= w[i] ?? 0) <= 0) return pool[i]!;
    return pool[0]!;
  });
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
  const evaluate = (prices: Float64Array): void => {
    let sum = rewards.reduce((s, r, k) => s + conjugate(r, prices[k]!), 0);
    for (let lane = 0; lane < lanes; lane++) sum += season.price(lane, prices);
    if (sum >= bound) return;
    bound = sum;
    bestPrices = prices;
  };

  if (options.warm) {
    season.restart(options.warm.plan.map((blocks, l) => columnOf(task, season.tables[l]!, blocks) ?? IDLE));
    season.chosen.forEach((c, l) => season.keep(l, c));
    improve(season);
  } else firstPlan(season);
  keepBest();
  yield answer();
  season.restart(best);
  improve(season);
  polish(season);
  keepBest();
  let prices: Float64Array = Float64Array.from(rewards, (r, k) => options.warm?.prices[k] ?? topSlope(r) / 2);
  evaluate(prices);
  let mu = (0.02 * bound) / Math.max(1, lanes);
  let weights: readonly Float64Array[] = [];
  while (rounds < options.mostRounds && gap() > options.wantedGap) {
    rounds++;
    const found = balance(rewards, season.pools, prices, mu);
    weights = found.weights;
    season.restart(rounded(season, weights, null));
    poolPass(season);
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
    const { weights: last } = balance(rewards, season.pools, prices, mu);
    for (let i = 0; i < ROUNDINGS && gap() > options.wantedGap; i++) {
      season.restart(rounded(season, last, random));
      poolPass(season);
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
