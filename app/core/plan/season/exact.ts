import { IDLE, type Block, type Column, type Programme, type SeasonTask } from "./model";
import { columnOf, minSlotsOf, nightTable, type NightTable } from "./night";
import { conjugate, valueOf } from "./reward";
import type { SeasonAnswer } from "./solve";

/** Every programme of a lane that keeps the rules; their number grows fast, so only for small lanes. */
export function* everyProgramme(task: SeasonTask, table: NightTable): Generator<Programme> {
  const last = table.first + table.slots;
  function* after(blocks: readonly Block[], from: number): Generator<Programme> {
    yield blocks;
    for (const job of table.jobs)
      for (let s = from; s + minSlotsOf(task, job) <= last; s++)
        for (let e = s + minSlotsOf(task, job); e <= last; e++) {
          const before = blocks.at(-1);
          if (before?.[0] === job && before[2] === s) continue; // one longer block
          const next: readonly Block[] = [...blocks, [job, s, e]];
          if (columnOf(task, table, next)) yield* after(next, e);
        }
  }
  yield* after([], table.first);
}

/** A better plan than the one given, or the proof that there is none. */
export interface ExactAnswer {
  readonly plan: readonly Programme[];
  readonly value: number;
  /** False when the work was too much, so that the plan is only the best found. */
  readonly isProven: boolean;
}

/**
 * The best plan there is, for small seasons. At the prices of the bound every programme has a reduced cost; a plan better than the
 * best known has reduced costs that together stay under what is left between it and the bound. Depth first over programmes in order
 * of that cost, cut by it.
 */
export function exactSeason(task: SeasonTask, known: SeasonAnswer, mostNodes = 200_000): ExactAnswer {
  const tables = task.lanes.map((lane) => nightTable(task, lane));
  const { prices } = known;
  const lanes = tables.map((table) => {
    const columns = table.fixed
      ? [columnOf(task, table, table.fixed) ?? IDLE]
      : [...everyProgramme(task, table)].flatMap((blocks) => columnOf(task, table, blocks) ?? []);
    const valued = columns.map((column) => ({
      column,
      value: column.jobs.reduce((sum, k, j) => sum + prices[k]! * column.yields[j]!, -column.cost),
    }));
    const most = Math.max(...valued.map((v) => v.value));
    return valued.map((v) => ({ column: v.column, excess: most - v.value, most })).sort((a, b) => a.excess - b.excess);
  });
  const bound =
    task.jobs.reduce((sum, { reward }, k) => sum + conjugate(reward, prices[k]!), 0) +
    lanes.reduce((sum, lane) => sum + (lane[0]?.most ?? 0), 0);
  let best = known.value;
  let plan: readonly Programme[] = known.plan;
  let nodes = 0;
  const yields = new Float64Array(task.jobs.length);
  const chosen: Column[] = [];
  const descend = (lane: number, spent: number, cost: number): void => {
    if (nodes++ > mostNodes) return;
    if (lane === lanes.length) {
      const value = task.jobs.reduce((sum, { reward }, k) => sum + valueOf(reward, yields[k]!), -cost);
      if (value > best + 1e-9) {
        best = value;
        plan = chosen.map((c) => c.blocks);
      }
      return;
    }
    for (const { column, excess } of lanes[lane]!) {
      if (spent + excess >= bound - best - 1e-9) return;
      column.jobs.forEach((k, j) => (yields[k]! += column.yields[j]!));
      chosen.push(column);
      descend(lane + 1, spent + excess, cost + column.cost);
      chosen.pop();
      column.jobs.forEach((k, j) => (yields[k]! -= column.yields[j]!));
    }
  };
  descend(0, 0, 0);
  return { plan, value: best, isProven: nodes <= mostNodes };
}
