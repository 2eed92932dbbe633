import { IDLE, type Block, type Column, type Programme, type SeasonTask } from "./model";
import { columnOf } from "./columns";
import { valueAt } from "./night";
import { Season } from "./state";
import { minSlotsOf, type NightTable } from "./table";
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
  readonly yields: readonly number[];
  /** False when the work was too much, so that the plan is only the best found. */
  readonly isProven: boolean;
}

/**
 * The best plan there is, for small seasons. At the prices of the bound every programme has a reduced cost; a plan better than the
 * best known has reduced costs that together stay under what is left between it and the bound. Depth first over programmes in order
 * of that cost, cut by it. Not for nights of which one of several places has to be chosen. Gives up, with what is known, where a lane
 * has more programmes than `mostProgrammes` or the search more nodes than `mostNodes`.
 */
export function exactSeason(
  task: SeasonTask,
  known: SeasonAnswer,
  { mostNodes = 200_000, mostProgrammes = Number.POSITIVE_INFINITY } = {},
): ExactAnswer {
  const season = new Season(task);
  const { prices } = known;
  const lanes: { readonly column: Column; readonly excess: number; readonly most: number }[][] = [];
  for (const [l, table] of season.tables.entries()) {
    const columns: Column[] = [];
    for (const blocks of table.fixed ? [table.fixed] : everyProgramme(task, table)) {
      columns.push(season.column(l, blocks) ?? IDLE);
      if (columns.length > mostProgrammes)
        return { plan: known.plan, value: known.value, yields: known.yields, isProven: false };
    }
    const valued = columns.map((column) => ({ column, value: valueAt(column, prices) }));
    const most = valued.reduce((m, v) => Math.max(m, v.value), Number.NEGATIVE_INFINITY);
    lanes.push(
      valued.map((v) => ({ column: v.column, excess: most - v.value, most })).sort((a, b) => a.excess - b.excess),
    );
  }
  const bound =
    task.jobs.reduce((sum, { reward }, k) => sum + conjugate(reward, prices[k]!), 0) +
    lanes.reduce((sum, lane) => sum + (lane[0]?.most ?? 0), 0);
  let best = known.value;
  let plan: readonly Programme[] = known.plan;
  let brings: readonly number[] = known.yields;
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
        brings = [...yields];
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
  return { plan, value: best, yields: brings, isProven: nodes <= mostNodes };
}
