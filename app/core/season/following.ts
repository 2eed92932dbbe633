import { normalCdf } from "~/core/numeric";
import { columnOf, fitted } from "./columns";
import { fuller } from "./fill";
import { IDLE, type Column, type Programmes, type SeasonTask } from "./model";
import { bestColumn, valueAt, NO_USE } from "./night";
import { scratchFor, type Scratch } from "./night-scratch";
import { keyOf } from "./state";
import { nightTable, priorityOf, type NightTable } from "./table";

/** A lane as it is followed: alone, when it is clear, with what is left instead of what was needed at first. */
interface Followed {
  readonly table: NightTable;
  readonly own: Column;
  /** Lanes with nothing to choose do what the plan says. */
  readonly isFree: boolean;
  /** By place among its jobs: the most a run of slots brings. */
  readonly mostRun: Float64Array;
}

/** What a lane yet to come may do, at the prices of the day. */
interface Ahead {
  readonly night: number;
  readonly chance: number;
  readonly columns: readonly Column[];
}

const SOFT = 0.05; // of what a lane is worth on average: how sharply the better of two programmes is taken to be planned
const STEPS = 3; // towards prices that bear themselves out, a night
const FIRST_STEPS = 20;
const ROOT_TWO_PI = Math.sqrt(2 * Math.PI);
const ENOUGH = 0.02; // of a priority: no price moves further
const LEAST_SHARE = 0.02; // of its priority: what is covered on average is still worth having
const FILLING = 0.3; // of its priority, as plans are filled
// What the plan's own programme may fall short of the best one and is still followed, worth minutes: plans stay, night after night, and
// each time that counts again. Against true planning anew 6 and 24 are too few, 60 and more make no difference.
const STAYING = 60;
const MOST_COLUMNS = 8; // of a lane yet to come

/**
 * What the app would have its owner do on a clear night of a season that has come as it came: planning anew, without planning anew.
 * A plan is prices (what one more minute of each job is worth) and, at them, the best programme of every night. So the prices are
 * carried from night to night: each job's is its priority times the chance that what is yet to come falls short of what is left, and
 * what is yet to come is what nights would bring at these prices, of the programmes the solver has met for them. The night itself is
 * chosen by its own exact program, capped at what is left.
 */
export class Follower {
  readonly #free: SeasonTask;
  readonly #lanes: readonly Followed[];
  readonly #ahead: readonly Ahead[];
  readonly #firstOf: readonly number[];
  readonly #scratch: Scratch;
  readonly #priority: readonly number[];
  readonly #scale: readonly number[];
  readonly #mu: number;
  readonly #prices: Float64Array;
  readonly #start: Float64Array;
  readonly #supply: Float64Array;
  readonly #slope: Float64Array;
  readonly #weights = new Float64Array(MOST_COLUMNS + 2); // with the plan's own, and nothing at all
  #isFirst = true;

  constructor(
    task: SeasonTask,
    at: {
      readonly plan: Programmes;
      readonly prices: readonly number[];
      readonly pools: readonly Programmes[];
      readonly nightOf: readonly number[];
      /** Lanes at the places where their nights are spent. */
      readonly isOpen: (lane: number) => boolean;
      readonly persistence: number;
    },
  ) {
    this.#free = { ...task, tick: 0 };
    this.#lanes = task.lanes.map((_, l) => followed(task, at.plan, l));
    this.#scratch = scratchFor(
      task,
      this.#lanes.map((f) => f.table),
    );
    this.#priority = task.jobs.map((_, k) => priorityOf(task, k));
    const ahead = task.lanes.flatMap((lane, l): Ahead[] => {
      if (!at.isOpen(l) || !(lane.chance > 0)) return [];
      const table = nightTable(task, lane);
      const known = lane.fixed ? [lane.fixed] : [at.plan[l] ?? [], ...(at.pools[l] ?? []).slice(0, MOST_COLUMNS), []];
      const columns = known.flatMap((blocks) => columnOf(task, table, blocks) ?? []);
      if (columns.every((c) => c === IDLE)) return [];
      return [{ night: at.nightOf[l]!, chance: lane.chance, columns: [...new Set(columns)] }];
    });
    this.#ahead = ahead.sort((a, b) => a.night - b.night);
    const nights = Math.max(0, ...at.nightOf.map((n) => n + 1));
    this.#firstOf = Array.from({ length: nights }, (_, n) => {
      const i = this.#ahead.findIndex((a) => a.night >= n);
      return i === -1 ? this.#ahead.length : i;
    });
    const jobs = task.jobs.length;
    const [mean, variance] = [new Float64Array(jobs), new Float64Array(jobs)];
    let worth = 0;
    task.lanes.forEach(({ chance }, l) => {
      const { own } = this.#lanes[l]!;
      own.jobs.forEach((k, j) => {
        const y = own.yields[j]!;
        mean[k]! += chance * y;
        variance[k]! += chance * (1 - chance) * y ** 2;
        worth += chance * y * (at.prices[k] ?? 0);
      });
    });
    const inflation = (1 + at.persistence) / (1 - at.persistence);
    this.#scale = [...mean].map((m, k) => (m > 0 ? (inflation * variance[k]!) / m : 0));
    this.#mu = Math.max(1e-6, (SOFT * worth) / Math.max(1, this.#ahead.length));
    this.#start = Float64Array.from(at.prices);
    this.#prices = Float64Array.from(at.prices);
    this.#supply = new Float64Array(jobs);
    this.#slope = new Float64Array(jobs);
  }

  /** A season begins. */
  begin(): void {
    this.#prices.set(this.#start);
    this.#isFirst = true;
  }

  /** What nights from one on would bring at the prices, and how that rises with the price of each job. */
  #reckon(night: number, left: Float64Array): void {
    const [supply, slope, prices, weights] = [this.#supply, this.#slope, this.#prices, this.#weights];
    const mu = this.#mu;
    supply.fill(0);
    slope.fill(0);
    for (let i = this.#firstOf[night] ?? 0; i < this.#ahead.length; i++) {
      const { columns, chance } = this.#ahead[i]!;
      let most = Number.NEGATIVE_INFINITY;
      for (let c = 0; c < columns.length; c++) {
        const { jobs, yields, cost } = columns[c]!;
        let value = -cost;
        for (let j = 0; j < jobs.length; j++) {
          const k = jobs[j]!;
          value += prices[k]! * Math.min(yields[j]!, chance * left[k]!);
        }
        weights[c] = value;
        if (value > most) most = value;
      }
      let total = 0;
      for (let c = 0; c < columns.length; c++) total += weights[c] = Math.exp((weights[c]! - most) / mu);
      for (let c = 0; c < columns.length; c++) {
        const w = weights[c]! / total;
        if (w < 1e-6) continue;
        const { jobs, yields } = columns[c]!;
        for (let j = 0; j < jobs.length; j++) {
          const k = jobs[j]!;
          const y = Math.min(yields[j]!, chance * left[k]!);
          supply[k]! += w * y;
          slope[k]! += (w * (1 - w) * y * y) / mu;
        }
      }
    }
  }

  /** Prices that bear themselves out, nearly: a few steps from those of the night before. */
  #settle(night: number, left: Float64Array): void {
    const [prices, supply, slope] = [this.#prices, this.#supply, this.#slope];
    const steps = this.#isFirst ? FIRST_STEPS : STEPS;
    this.#isFirst = false;
    for (let step = 0; step < steps; step++) {
      this.#reckon(night, left);
      let moved = 0;
      for (let k = 0; k < prices.length; k++) {
        const top = this.#priority[k]!;
        const spread = Math.sqrt(Math.max(1e-9, this.#scale[k]! * Math.max(supply[k]!, 1)));
        const x = (left[k]! - supply[k]!) / spread;
        const wanted = top * normalCdf(x);
        const fall = (top * Math.exp((-x * x) / 2) * slope[k]!) / (ROOT_TWO_PI * spread);
        const by = (wanted - prices[k]!) / (1 + fall);
        prices[k]! += by;
        moved = Math.max(moved, Math.abs(by) / top);
      }
      if (moved < ENOUGH) return;
    }
  }

  /** What is done on a clear night with what is left of every job; jobs with no more left than `spare` are done. */
  choose(lane: number, night: number, left: Float64Array, spare: readonly number[], isNew: boolean): Column {
    const { table, own, isFree, mostRun } = this.#lanes[lane]!;
    if (!isFree) return own;
    if (isNew) this.#settle(night, left);
    let isWanted = false;
    const at = new Float64Array(this.#prices.length);
    table.jobs.forEach((k, a) => {
      table.need[a] = left[k]!;
      table.isCapped[a] = mostRun[a]! > left[k]! ? 1 : 0;
      at[k] = left[k]! > spare[k]! ? Math.max(LEAST_SHARE * this.#priority[k]!, this.#prices[k]!) : NO_USE;
      if (left[k]! > spare[k]!) isWanted = true;
    });
    if (!isWanted) return IDLE;
    const kept = this.#keptOf(own, table, left, spare);
    const enough = kept === null ? -1 : valueAt(kept, at) + STAYING;
    // Most nights every slot at its best would not be worth a change: no need to look for how.
    const isSure = enough >= mostOf(table, at);
    const best = isSure ? IDLE : bestColumn(this.#free, table, at, this.#scratch);
    const isKept = kept !== null && (isSure || enough >= valueAt(best, at));
    // What is followed uncut was filled when it was planned.
    if (isKept && isSame(kept, own)) return kept;
    // As plans are filled: what is left to do is not put off beside idle hours.
    for (const k of table.jobs) if (at[k]! > 0) at[k] = Math.max(at[k]!, FILLING * this.#priority[k]!);
    const followed = isKept ? kept : best;
    return followed === IDLE
      ? bestColumn(this.#free, table, at, this.#scratch)
      : fuller(this.#free, table, followed, at);
  }

  /** What the plan had for the night, cut to what is left; null where that is nothing. */
  #keptOf(own: Column, table: NightTable, left: Float64Array, spare: readonly number[]): Column | null {
    const open = own.blocks.filter(([k]) => left[k]! > spare[k]!);
    const kept = fitted(this.#free, table, open);
    return kept.length > 0 ? columnOf(this.#free, table, kept) : null;
  }

  /** What the plan says, whatever is left. */
  asPlanned = (lane: number): Column => this.#lanes[lane]!.own;
}

/** What every slot would bring if it went to whatever is worth most in it, and nothing were lost between: no programme is worth more. */
function mostOf({ slots, jobs, worth, charge }: NightTable, prices: Float64Array): number {
  const n = jobs.length;
  let sum = 0;
  for (let s = 0; s < slots; s++) {
    let most = 0;
    for (let a = 0; a < n; a++) most = Math.max(most, prices[jobs[a]!]! * worth[s * n + a]! - charge[s * n + a]!);
    sum += most;
  }
  return sum;
}

const isSame = (a: Column, b: Column): boolean => keyOf(a.blocks) === keyOf(b.blocks);

function followed(task: SeasonTask, plan: Programmes, lane: number): Followed {
  // Lateness orders nights of a plan; on a night that is clear there is nothing to put off.
  const { lateness: _late, seen: _seen, ...rest } = task.lanes[lane]!;
  const table = nightTable(task, { ...rest, worth: rest.clear ?? rest.worth, chance: 1 });
  const { jobs, slots, clearSums, run } = table;
  const n = jobs.length;
  const mostRun = new Float64Array(n);
  for (let e = 0; e <= slots; e++)
    for (let a = 0; a < n; a++)
      mostRun[a] = Math.max(mostRun[a]!, clearSums[e * n + a]! - clearSums[(e - run[e * n + a]!) * n + a]!);
  return { table, own: columnOf(task, table, plan[lane] ?? []) ?? IDLE, isFree: table.fixed === null, mostRun };
}
