import type { Scratch } from "./night-scratch";
import { columnOf, fitted } from "./columns";
import { IDLE, type Block, type Column, type Programme, type SeasonTask } from "./model";
import type { NightTable } from "./table";

const [STARTS, FROM_BEST, FROM_OTHER, FROM_MINE] = [2, 3, 4, 5] as const;
const NEVER = Number.NEGATIVE_INFINITY;
const NOT_AT_ALL = 1e4;

/** The price of a job that a night is not to be used for. */
export const NO_USE = -1e9;

/** What a block is expected to bring, cut at the need by what it brings when it is clear. */
const cutAt = (need: number, clear: number, expected: number): number =>
  clear > need ? (expected * need) / clear : expected;

/** A programme of a lane and its value at prices. */
export interface Valued {
  readonly value: number;
  readonly blocks: Programme;
}

/**
 * The best programme of a lane at prices a worth minute: the greatest sum over its blocks of price times expected yield, each block
 * cut at the need, less cost, by dynamic program over slots, stretches used and the job that is open; exact where no job has two
 * blocks that together exceed its need, else too high. Jobs at price 0 stay in: a worthless first block can take the loss of the
 * start. The value is 0 at least: doing nothing.
 */
function blockProgramme(task: SeasonTask, table: NightTable, prices: ArrayLike<number>, scratch: Scratch): Valued {
  const { slots, jobs, worth, charge, sums, clearSums, chargeSums, run, firstEnd, lastStart, need, isCapped } = table;
  const { chance, first } = table;
  const n = jobs.length;
  const [most, tick] = [task.targetsANight, task.tick];
  if (slots < 1 || n === 0 || most < 1) return { value: 0, blocks: [] };
  const { open, begin, how, best, bestAt, other, otherAt, mine, mineAt, projectOf, projects } = scratch;
  const start = task.lostMin.start / task.slotMin;
  const target = task.lostMin.target / task.slotMin;
  const filter = task.lostMin.filter / task.slotMin;
  const mostLost = Math.max(start, target, filter);
  const stride = most + 1;
  const priceOf = Float64Array.from(jobs, (k) => chance * prices[k]!);
  const projectAt = Int32Array.from(jobs, (k) => projectOf[k]!);
  for (let s = 0; s <= slots; s++)
    for (let c = 1; c <= most; c++) {
      const here = s * stride + c;
      const before = here - stride;
      // What was best up to the slot before stays it, unless a block that ends here is better.
      best[here] = s > 0 ? best[before]! : NEVER;
      bestAt[here] = s > 0 ? bestAt[before]! : -1;
      other[here] = s > 0 ? other[before]! : NEVER;
      otherAt[here] = s > 0 ? otherAt[before]! : -1;
      for (let p = 0; p < projects; p++) {
        mine[here * projects + p] = s > 0 ? mine[before * projects + p]! : NEVER;
        mineAt[here * projects + p] = s > 0 ? mineAt[before * projects + p]! : -1;
      }
      for (let a = 0; a < n; a++) {
        const state = here * n + a;
        const price = priceOf[a]!;
        if (price < -NOT_AT_ALL) {
          open[state] = NEVER;
          continue;
        }
        const end = s * n + a;
        const p = projectAt[a]!;
        let value = NEVER;
        let from = 0;
        let began = 0;
        if (isCapped[a] === 0) {
          if (s > 0 && run[end]! > 0) {
            const kept = open[before * n + a]!;
            if (kept > NEVER) {
              value = kept + price * worth[end - n]! - chance * charge[end - n]!;
              from = how[before * n + a]!;
              began = begin[before * n + a]!;
            }
          }
          // Longer ones go on from those that are just long enough.
          for (let f = lastStart[end]!; f >= 0 && firstEnd[f * n + a] === s; f--) {
            const at = f * n + a;
            const head = price * worth[at]!;
            const gain = price * (sums[end]! - sums[at]!) - tick - chance * (chargeSums[end]! - chargeSums[at]!);
            if (c === 1) {
              if (gain - start * head > value) {
                value = gain - start * head;
                from = STARTS;
                began = f;
              }
            } else {
              const last = f * stride + c - 1;
              const wasMine = bestAt[last]! >= 0 && projectAt[bestAt[last]! % n]! === p;
              const changed = (wasMine ? other[last]! : best[last]!) + gain - target * head;
              if (changed > value) {
                value = changed;
                from = wasMine ? FROM_OTHER : FROM_BEST;
                began = f;
              }
            }
            const same = mine[(f * stride + c) * projects + p]! + gain - filter * head;
            if (same > value) {
              value = same;
              from = FROM_MINE;
              began = f;
            }
          }
        } else {
          const most = need[a]!;
          const length = run[end]!;
          for (let f = lastStart[end]!; f >= s - length && f >= 0; f--) {
            const at = f * n + a;
            if (firstEnd[at]! > s) continue;
            const headClear = clearSums[at + n]! - clearSums[at]!;
            // A slot less would be as much as is wanted: so would every longer block.
            if (firstEnd[at] !== s && clearSums[end - n]! - clearSums[at]! - mostLost * headClear >= most) break;
            const whole = clearSums[end]! - clearSums[at]!;
            const gross = sums[end]! - sums[at]!;
            const head = worth[at]!;
            const cost = tick + chance * (chargeSums[end]! - chargeSums[at]!);
            if (c === 1) {
              const fresh = price * cutAt(most, whole - start * headClear, gross - start * head) - cost;
              if (fresh > value) {
                value = fresh;
                from = STARTS;
                began = f;
              }
            } else {
              const last = f * stride + c - 1;
              const wasMine = bestAt[last]! >= 0 && projectAt[bestAt[last]! % n]! === p;
              const changed =
                (wasMine ? other[last]! : best[last]!) +
                price * cutAt(most, whole - target * headClear, gross - target * head) -
                cost;
              if (changed > value) {
                value = changed;
                from = wasMine ? FROM_OTHER : FROM_BEST;
                began = f;
              }
            }
            const own = mine[(f * stride + c) * projects + p]!;
            if (own === NEVER) continue;
            const same = own + price * cutAt(most, whole - filter * headClear, gross - filter * head) - cost;
            if (same > value) {
              value = same;
              from = FROM_MINE;
              began = f;
            }
          }
        }
        open[state] = value;
        how[state] = from;
        begin[state] = began;
        if (value === NEVER) continue;
        if (value > mine[here * projects + p]!) {
          mine[here * projects + p] = value;
          mineAt[here * projects + p] = end;
        }
        const holder = bestAt[here] >= 0 ? projectAt[bestAt[here] % n]! : -1;
        if (value > best[here]) {
          if (holder !== p && holder !== -1) {
            other[here] = best[here]!;
            otherAt[here] = bestAt[here]!;
          }
          best[here] = value;
          bestAt[here] = end;
        } else if (holder !== p && value > other[here]) {
          other[here] = value;
          otherAt[here] = end;
        }
      }
    }
  let top = 0;
  let used = 0;
  for (let c = 1; c <= most; c++)
    if (best[slots * stride + c]! > top) {
      top = best[slots * stride + c]!;
      used = c;
    }
  if (used === 0) return { value: 0, blocks: [] };
  const blocks: Block[] = [];
  let end = bestAt[slots * stride + used]!;
  let c = used;
  while (end >= 0) {
    const a = end % n;
    const to = (end - a) / n;
    const state = (to * stride + c) * n + a;
    const from = begin[state]!;
    const came = how[state]!;
    blocks.push([jobs[a]!, first + from, first + to]);
    if (came === STARTS) break;
    if (came === FROM_MINE) end = mineAt[(from * stride + c) * projects + projectAt[a]!]!;
    else {
      c--;
      end = came === FROM_BEST ? bestAt[from * stride + c]! : otherAt[from * stride + c]!;
    }
  }
  return { value: top, blocks: blocks.reverse() };
}

const BISECTIONS = 5;
const MOST_JOBS = 3; // of one night that exceed their needs by several blocks; more are rare, and the bound only widens
const EPS = 1e-9;

/** The first job whose blocks together bring more than it needs, those that are known left out; −1 = none. */
function exceeding(table: NightTable, blocks: Programme, known: ReadonlySet<number>): number {
  const n = table.jobs.length;
  const clear = new Map<number, { amount: number; count: number }>();
  for (const [job, from, to] of blocks) {
    const a = table.placeOf[job]!;
    const sum = clear.get(job) ?? { amount: 0, count: 0 };
    sum.amount += table.clearSums[(to - table.first) * n + a]! - table.clearSums[(from - table.first) * n + a]!;
    sum.count++;
    clear.set(job, sum);
    if (sum.count > 1 && sum.amount > table.need[a]! + EPS && !known.has(job)) return job;
  }
  return -1;
}

/**
 * What a lane can bring at prices, at most, and the programmes met on the way, each within the needs. Where a job's blocks together
 * exceed its need, part of its price is moved to the need itself, by bisection: min over mu of V(price − mu) + mu · need is over the
 * truth for every mu.
 */
export function bestProgrammes(
  task: SeasonTask,
  table: NightTable,
  prices: ArrayLike<number>,
  scratch: Scratch,
): { readonly bound: number; readonly found: readonly Programme[] } {
  const plain = blockProgramme(task, table, prices, scratch);
  const found: Programme[] = [plain.blocks];
  const known = new Set<number>();
  let bound = plain.value;
  let last = plain.blocks;
  let job = exceeding(table, last, known);
  if (job === -1) return { bound, found };
  const at = Float64Array.from(prices);
  let paid = 0;
  for (let i = 0; i < MOST_JOBS && job !== -1; i++) {
    known.add(job);
    const a = table.placeOf[job]!;
    const price = at[job]!;
    const unit = table.chance * table.need[a]! * table.mostRate[a]!;
    let [low, high] = [0, Math.max(0, price)];
    let best = { bound, mu: 0, blocks: last };
    for (let turn = 0; turn < BISECTIONS; turn++) {
      const mu = (low + high) / 2;
      at[job] = price - mu;
      const { value, blocks } = blockProgramme(task, table, at, scratch);
      found.push(blocks);
      if (value + paid + mu * unit < best.bound) best = { bound: value + paid + mu * unit, mu, blocks };
      if (exceeding(table, blocks, new Set([...known].filter((k) => k !== job))) === job) low = mu;
      else high = mu;
    }
    at[job] = price - best.mu;
    paid += best.mu * unit;
    bound = best.bound;
    last = best.blocks;
    job = exceeding(table, last, known);
  }
  const fits = found.flatMap((blocks) => [fitted(task, table, blocks), fitted(task, table, blocks, false)]);
  return { bound, found: fits };
}

/** What a column is worth at prices. */
export function valueAt({ jobs, yields, cost }: Column, prices: ArrayLike<number>): number {
  let value = -cost;
  for (let j = 0; j < jobs.length; j++) value += prices[jobs[j]!]! * yields[j]!;
  return value;
}

/** The best programme of a lane at prices, counted exactly, needs kept; doing nothing where nothing gains. */
export function bestColumn(task: SeasonTask, table: NightTable, prices: ArrayLike<number>, scratch: Scratch): Column {
  let best = IDLE;
  let most = EPS;
  for (const blocks of bestProgrammes(task, table, prices, scratch).found) {
    const column = columnOf(task, table, blocks) ?? columnOf(task, table, fitted(task, table, blocks));
    if (!column) continue;
    const value = valueAt(column, prices);
    if (value > most) [best, most] = [column, value];
  }
  return best;
}
