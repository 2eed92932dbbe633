import { IDLE, type Block, type Column, type Programme, type SeasonTask } from "./model";
import type { NightTable } from "./table";

const EPS = 1e-9;

/** Share of a slot that is lost at the head of a block, by the block before it. */
export function lostAt(task: SeasonTask, job: number, before: number | null): number {
  const { start, target, filter } = task.lostMin;
  if (before === null) return start / task.slotMin;
  return (task.jobs[job]!.project === task.jobs[before]!.project ? filter : target) / task.slotMin;
}

/** What blocks bring a job: when it is clear, and by the forecasts of the hour; and how many blocks. */
interface Brought {
  clear: number;
  worth: number;
}

/** Whether a block can end where it does: long enough, and no longer than what is left to do. */
function isFitting(table: NightTable, a: number, s: number, e: number, lost: number, had: number): boolean {
  const n = table.jobs.length;
  const { clearSums, need, firstEnd, run } = table;
  if (firstEnd[s * n + a]! > e || run[e * n + a]! < e - s) return false;
  if (!Number.isFinite(need[a]!)) return true;
  if (had >= need[a]! - EPS) return false;
  if (firstEnd[s * n + a] === e) return true;
  const head = lost * (clearSums[(s + 1) * n + a]! - clearSums[s * n + a]!);
  return had + clearSums[(e - 1) * n + a]! - clearSums[s * n + a]! - head < need[a]! - EPS;
}

/** A programme in which blocks of one job that follow each other without a break are one. */
export function joined(blocks: Programme): Programme {
  const isBroken = blocks.some((b, i) => i > 0 && b[0] === blocks[i - 1]![0] && b[1] === blocks[i - 1]![2]);
  if (!isBroken) return blocks;
  const out: Block[] = [];
  for (const b of blocks) {
    const last = out.at(-1);
    if (last?.[0] === b[0] && last[2] === b[1]) out[out.length - 1] = [b[0], last[1], b[2]];
    else out.push(b);
  }
  return out;
}

/**
 * A programme with its yields; null where it breaks a rule: overlap, too short, through an unusable slot, too many targets, longer
 * than what is left to do. What it brings a job is never more than the job's need.
 */
export function columnOf(task: SeasonTask, table: NightTable, given: Programme): Column | null {
  const blocks = joined(given);
  if (blocks.length === 0) return IDLE;
  const n = table.jobs.length;
  const brought = new Map<number, Brought>();
  let before: Block | null = null;
  let stretches = 0;
  let charge = 0;
  for (const block of blocks) {
    const [job, from, to] = block;
    const [s, e] = [from - table.first, to - table.first];
    const a = table.placeOf[job] ?? -1;
    if (a === -1 || s < 0 || e <= s || e > table.slots || (before && from < before[2])) return null;
    const lost = lostAt(task, job, before ? before[0] : null);
    const mine = brought.get(job) ?? { clear: 0, worth: 0 };
    if (!isFitting(table, a, s, e, lost, mine.clear)) return null;
    if (!before || task.jobs[before[0]]!.project !== task.jobs[job]!.project) stretches++;
    const { sums, clearSums, chargeSums } = table;
    const between = (t: Float64Array) => t[e * n + a]! - t[s * n + a]!;
    const head = (t: Float64Array) => lost * (t[(s + 1) * n + a]! - t[s * n + a]!);
    mine.clear += between(clearSums) - head(clearSums);
    mine.worth += between(sums) - head(sums);
    charge += between(chargeSums);
    brought.set(job, mine);
    before = block;
  }
  if (stretches > task.targetsANight) return null;
  const jobs = [...brought.keys()];
  const yields = [...brought].map(([job, { clear, worth }]) => {
    const need = table.need[table.placeOf[job]!]!;
    return table.chance * (clear > need ? (worth * need) / clear : worth);
  });
  return { blocks, jobs, yields, cost: task.tick * blocks.length + table.chance * charge };
}

/** A block cut to the slots in which it is usable: its longest such run; null where none is long enough. */
function usablePart(table: NightTable, [job, from, to]: Block): Block | null {
  const n = table.jobs.length;
  const a = table.placeOf[job] ?? -1;
  if (a === -1) return null;
  let best: Block | null = null;
  const [low, high] = [Math.max(0, from - table.first), Math.min(table.slots, to - table.first)];
  for (let e = low + 1; e <= high; e++) {
    if (e < high && table.run[(e + 1) * n + a]! > 0) continue;
    const s = Math.max(low, e - table.run[e * n + a]!);
    if (e > s && table.firstEnd[s * n + a]! <= e && (!best || e - s > best[2] - best[1]))
      best = [job, s + table.first, e + table.first];
  }
  return best;
}

/**
 * A programme cut so that it keeps the rules of a lane: to usable slots, and to what is left to do. What is over the need goes from
 * the end of the night, or from its beginning (`fromEnd` false).
 */
export function fitted(task: SeasonTask, table: NightTable, blocks: Programme, fromEnd = true): Programme {
  const n = table.jobs.length;
  const usable = joined(blocks).flatMap((b): Block[] => {
    const part = usablePart(table, b);
    return part ? [part] : [];
  });
  const order = fromEnd ? usable : [...usable].reverse();
  const had = new Map<number, number>();
  const kept: Block[] = [];
  for (const [i, block] of order.entries()) {
    const [job, from, to] = block;
    const a = table.placeOf[job]!;
    const before = fromEnd ? (kept.at(-1)?.[0] ?? null) : (order[i + 1]?.[0] ?? null);
    const lost = lostAt(task, job, before);
    const sofar = had.get(job) ?? 0;
    if (sofar >= table.need[a]! - EPS) continue;
    let [s, e] = [from - table.first, to - table.first];
    const { clearSums, firstEnd, need } = table;
    const amount = (x: number, y: number) =>
      clearSums[y * n + a]! - clearSums[x * n + a]! - lost * (clearSums[(x + 1) * n + a]! - clearSums[x * n + a]!);
    if (fromEnd) while (firstEnd[s * n + a]! < e && sofar + amount(s, e - 1) >= need[a]! - EPS) e--;
    else {
      while (firstEnd[(s + 1) * n + a]! <= e && sofar + amount(s + 1, e) >= need[a]! - EPS) s++;
      while (firstEnd[s * n + a]! < e && sofar + amount(s, e - 1) >= need[a]! - EPS) e--;
    }
    had.set(job, sofar + amount(s, e));
    kept.push([job, s + table.first, e + table.first]);
  }
  return fromEnd ? kept : kept.reverse();
}
