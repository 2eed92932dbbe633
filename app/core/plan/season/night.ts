import { IDLE, type Block, type Column, type Lane, type Programme, type SeasonTask } from "./model";

/** A lane with what is asked of it again and again, cut to the slots in which anything is usable. */
export interface NightTable {
  readonly chance: number;
  /** First usable slot; slots below are counted from it. */
  readonly first: number;
  readonly slots: number;
  /** Jobs that are usable in some slot. */
  readonly jobs: Int32Array;
  /** Worth of a slot by place in `jobs`: slot · jobs + place. */
  readonly worth: Float64Array;
  /** Sums of the slots before, (slots + 1) × jobs. */
  readonly sums: Float64Array;
  /** How many slots up to this one are usable without a break. */
  readonly run: Int32Array;
  /** Place of a job in `jobs`; −1 = not usable. */
  readonly placeOf: Int32Array;
  readonly fixed: Programme | null;
}

/** Prepares a lane. */
export function nightTable(task: SeasonTask, lane: Lane): NightTable {
  const { worth, chance } = lane;
  const isUsable = worth.map((slot) => slot.some((w) => w > 0));
  const first = Math.max(0, isUsable.indexOf(true));
  const slots = isUsable.lastIndexOf(true) + 1 - first;
  const count = task.jobs.length;
  const usable: number[] = [];
  for (let k = 0; k < count; k++) if (worth.some((slot) => slot[k]! > 0)) usable.push(k);
  const jobs = Int32Array.from(usable);
  const placeOf = new Int32Array(count).fill(-1);
  jobs.forEach((k, a) => (placeOf[k] = a));
  const n = jobs.length;
  const table = new Float64Array(Math.max(0, slots) * n);
  const sums = new Float64Array((Math.max(0, slots) + 1) * n);
  const run = new Int32Array((Math.max(0, slots) + 1) * n);
  for (let s = 0; s < slots; s++)
    for (let a = 0; a < n; a++) {
      const w = worth[first + s]![jobs[a]!]!;
      table[s * n + a] = w;
      sums[(s + 1) * n + a] = sums[s * n + a]! + w;
      run[(s + 1) * n + a] = w > 0 ? run[s * n + a]! + 1 : 0;
    }
  return {
    chance,
    first,
    slots: Math.max(0, slots),
    jobs,
    worth: table,
    sums,
    run,
    placeOf,
    fixed: lane.fixed ?? null,
  };
}

/** Minutes lost at the head of a block, by the block before it. */
function lostAt(task: SeasonTask, job: number, before: number | null): number {
  const { start, target, filter } = task.lostMin;
  if (before === null) return start;
  return task.jobs[job]!.project === task.jobs[before]!.project ? filter : target;
}

/** Slots that a block of a job takes at least. */
export const minSlotsOf = (task: SeasonTask, job: number): number => task.jobs[job]!.minSlots ?? task.minSlots;

/** A programme with its yields; null where it breaks a rule: overlap, too short, through an unusable slot, too many targets. */
export function columnOf(task: SeasonTask, table: NightTable, blocks: Programme): Column | null {
  if (blocks.length === 0) return IDLE;
  const n = table.jobs.length;
  const jobs: number[] = [];
  const yields: number[] = [];
  let before: Block | null = null;
  let stretches = 0;
  for (const block of blocks) {
    const [job, from, to] = block;
    const [s, e] = [from - table.first, to - table.first];
    const a = table.placeOf[job]!;
    if (a === -1 || s < 0 || e > table.slots || e - s < minSlotsOf(task, job) || (before && from < before[2]))
      return null;
    if (table.run[e * n + a]! < e - s) return null;
    if (!before || task.jobs[before[0]]!.project !== task.jobs[job]!.project) stretches++;
    const lost = lostAt(task, job, before ? before[0] : null) / task.slotMin;
    const amount = table.chance * (table.sums[e * n + a]! - table.sums[s * n + a]! - lost * table.worth[s * n + a]!);
    const at = jobs.indexOf(job);
    if (at === -1) {
      jobs.push(job);
      yields.push(amount);
    } else yields[at] = yields[at]! + amount;
    before = block;
  }
  return stretches > task.targetsANight ? null : { blocks, jobs, yields, cost: task.tick * blocks.length };
}

/** Room for the dynamic program of any lane of a task. */
export interface Scratch {
  readonly open: Float64Array;
  readonly how: Int32Array;
  /** Best end of a block up to a slot, by stretches used; and the best of another project than that one. */
  readonly best: Float64Array;
  readonly bestAt: Int32Array;
  readonly other: Float64Array;
  readonly otherAt: Int32Array;
  /** The same by the project of the last block. */
  readonly mine: Float64Array;
  readonly mineAt: Int32Array;
  /** Jobs' projects, numbered without gaps. */
  readonly projectOf: Int32Array;
  readonly projects: number;
}

/** Makes room for the largest lane. */
export function scratchFor(task: SeasonTask, tables: readonly NightTable[]): Scratch {
  const numbers = [...new Set(task.jobs.map((j) => j.project))];
  const slots = Math.max(1, ...tables.map((t) => t.slots + 1));
  const jobs = Math.max(1, ...tables.map((t) => t.jobs.length));
  const k = task.targetsANight + 1;
  return {
    open: new Float64Array(slots * k * jobs),
    how: new Int32Array(slots * k * jobs),
    best: new Float64Array(slots * k),
    bestAt: new Int32Array(slots * k),
    other: new Float64Array(slots * k),
    otherAt: new Int32Array(slots * k),
    mine: new Float64Array(slots * k * numbers.length),
    mineAt: new Int32Array(slots * k * numbers.length),
    projectOf: Int32Array.from(task.jobs.map((j) => numbers.indexOf(j.project))),
    projects: numbers.length,
  };
}

const [EXTENDS, STARTS, FROM_BEST, FROM_OTHER, FROM_MINE] = [1, 2, 3, 4, 5] as const;
const NEVER = Number.NEGATIVE_INFINITY;

/**
 * The best programme of a lane at prices a worth minute: the greatest sum of price times expected yield less cost, by dynamic
 * program over slots, stretches used and the job that is open; exact. Jobs at price 0 stay in: a worthless first block can take the
 * loss of the start. The value is 0 at least: doing nothing.
 */
export function bestProgramme(
  task: SeasonTask,
  table: NightTable,
  prices: ArrayLike<number>,
  scratch: Scratch,
): { readonly value: number; readonly blocks: Programme } {
  const { slots, jobs, worth, sums, run, chance, first } = table;
  const n = jobs.length;
  const [most, tick] = [task.targetsANight, task.tick];
  if (slots < 1 || n === 0 || most < 1) return { value: 0, blocks: [] };
  const least = Int32Array.from(jobs, (k) => minSlotsOf(task, k));
  const { open, how, best, bestAt, other, otherAt, mine, mineAt, projectOf, projects } = scratch;
  const start = task.lostMin.start / task.slotMin;
  const target = task.lostMin.target / task.slotMin;
  const filter = task.lostMin.filter / task.slotMin;
  const stride = most + 1;
  const at = (s: number, c: number) => s * stride + c;
  for (let s = 0; s <= slots; s++)
    for (let c = 1; c <= most; c++) {
      const here = at(s, c);
      const before = at(s - 1, c);
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
        let value = NEVER;
        let from = 0;
        const job = jobs[a]!;
        const price = chance * prices[job]!;
        const p = projectOf[job]!;
        const length = run[s * n + a]!;
        const m = least[a]!;
        if (s > 0 && length > 0) {
          const kept = open[before * n + a]!;
          if (kept > NEVER) {
            value = kept + price * worth[(s - 1) * n + a]!;
            from = EXTENDS;
          }
        }
        if (length >= m) {
          const gain = price * (sums[s * n + a]! - sums[(s - m) * n + a]!) - tick;
          const head = price * worth[(s - m) * n + a]!;
          if (c === 1) {
            const fresh = gain - start * head;
            if (fresh > value) {
              value = fresh;
              from = STARTS;
            }
          } else {
            const last = at(s - m, c - 1);
            const wasMine = bestAt[last]! >= 0 && projectOf[jobs[bestAt[last]! % n]!]! === p;
            const base = wasMine ? other[last]! : best[last]!;
            const changed = base + gain - target * head;
            if (changed > value) {
              value = changed;
              from = wasMine ? FROM_OTHER : FROM_BEST;
            }
          }
          const same = mine[at(s - m, c) * projects + p]! + gain - filter * head;
          if (same > value) {
            value = same;
            from = FROM_MINE;
          }
        }
        open[state] = value;
        how[state] = from;
        if (value === NEVER) continue;
        const end = s * n + a;
        if (value > mine[here * projects + p]!) {
          mine[here * projects + p] = value;
          mineAt[here * projects + p] = end;
        }
        const holder = bestAt[here] >= 0 ? projectOf[jobs[bestAt[here] % n]!]! : -1;
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
    if (best[at(slots, c)]! > top) {
      top = best[at(slots, c)]!;
      used = c;
    }
  if (used === 0) return { value: 0, blocks: [] };
  const blocks: Block[] = [];
  let end = bestAt[at(slots, used)]!;
  let c = used;
  while (end >= 0) {
    const a = end % n;
    const to = (end - a) / n;
    let s = to;
    while (how[at(s, c) * n + a] === EXTENDS) s--;
    const from = s - least[a]!;
    blocks.push([jobs[a]!, first + from, first + to]);
    const came = how[at(s, c) * n + a]!;
    if (came === STARTS) break;
    if (came === FROM_MINE) end = mineAt[at(from, c) * projects + projectOf[jobs[a]!]!]!;
    else {
      end = came === FROM_BEST ? bestAt[at(from, c - 1)]! : otherAt[at(from, c - 1)]!;
      c--;
    }
  }
  return { value: top, blocks: blocks.reverse() };
}
