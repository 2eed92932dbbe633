import { nightsBetween } from "~/core/time";
import { columnOf } from "./columns";
import { IDLE, type Block, type Column, type Programme, type SeasonTask } from "./model";
import { NO_USE, valueAt } from "./night";
import { shortFirst, withShort } from "./short-first";
import type { SeasonAnswer } from "./solve";
import { Season } from "./state";
import { minSlotsOf, priorityOf, type NightTable } from "./table";
import type { SeasonLane } from "./request";

const LEAST_MIN = 20; // worth minutes of an evening that is used while something is unfinished; a proposal of this project
const LEAST_PRICE = 0.3; // of its priority: on a clear night what is left to do is worth having, however surely later nights would bring it
const MOST_STEPS = 200; // of one night
const EPS = 1e-6;

/**
 * What a plan is when its nights come: a night is conditional, and if it is clear, what is left to do may be all of it. So no usable
 * evening is left empty before what could use it is done in expectation, and no usable hour of a planned evening stands idle beside
 * unfinished work. What is put there comes off nothing; later nights become a reserve. Worth and bound stay those of the plan before
 * it was filled: it has lost nothing of them.
 */
export function filled(task: SeasonTask, answer: SeasonAnswer, lanes: readonly SeasonLane[]): SeasonAnswer {
  const [first] = lanes;
  if (!first) return answer;
  const season = new Season(task);
  season.restart(answer.plan.map((blocks, l) => season.column(l, blocks) ?? IDLE));
  const order = lanes.map((_, l) => l).sort((a, b) => nightsBetween(lanes[b]!.night, lanes[a]!.night) || a - b);
  const had = new Float64Array(task.jobs.length);
  const needs = task.jobs.map(({ need, reward }) => need ?? reward.widths.reduce((a, b) => a + b, 0));
  const worthHaving = answer.prices.map((p, k) => Math.max(p, LEAST_PRICE * priorityOf(task, k)));
  for (const lane of order) {
    if (season.isOpen(lane) && season.chosen[lane] === IDLE) {
      const prices = task.jobs.map((_, k) => (had[k]! < needs[k]! - 1 ? priorityOf(task, k) : NO_USE));
      const column = season.bestAt(lane, prices);
      const { chance } = season.tables[lane]!;
      const clear = column.yields.reduce((a, b) => a + b, 0) / Math.max(1e-6, chance);
      if (column !== IDLE && clear >= LEAST_MIN) season.take(lane, column);
    }
    if (season.isOpen(lane) && season.chosen[lane] !== IDLE) {
      const full = fuller(task, season.tables[lane]!, season.chosen[lane]!, worthHaving);
      if (full !== season.chosen[lane]) season.take(lane, season.column(lane, full.blocks) ?? full);
    }
    if (season.isOpen(lane)) {
      const table = season.tables[lane]!;
      const begun = withShort(task, table, season.chosen[lane]!, (k) => had[k]! < needs[k]! - 1);
      const ordered = shortFirst(task, table, begun);
      if (ordered !== season.chosen[lane]) season.take(lane, season.column(lane, ordered.blocks) ?? ordered);
    }
    const { jobs, yields } = season.chosen[lane]!;
    jobs.forEach((k, j) => (had[k]! += yields[j]!));
  }
  return { ...answer, plan: season.chosen.map((c) => c.blocks), yields: [...season.yields] };
}

/** A programme whose blocks reach further, and with more blocks in what it leaves idle, as long as that gains; none of it is taken away. */
export function fuller(task: SeasonTask, table: NightTable, from: Column, prices: ArrayLike<number>): Column {
  // What staying is worth is no reason to leave hours idle: it is kept, and added to.
  const bare = columnOf(task, table, from.blocks) ?? from;
  let best = bare;
  const worth = (c: Column) => valueAt({ ...c, cost: costOf(task, table, c) }, prices);
  for (let step = 0; step < MOST_STEPS; step++) {
    let next: Column | null = null;
    let most = worth(best) + EPS;
    for (const blocks of growths(task, table, best.blocks, prices)) {
      const column = columnOf(task, table, blocks);
      if (!column) continue;
      const value = worth(column);
      if (value > most) [next, most] = [column, value];
    }
    if (!next) break;
    best = next;
  }
  return best === bare ? from : best;
}

/** Its cost but for how late in the season it is: on the night itself there is nothing to put off. */
const costOf = (task: SeasonTask, table: NightTable, { blocks, cost }: Column): number =>
  cost - table.chance * blocks.reduce((sum, b) => sum + latenessOf(task, table, b), 0);

function latenessOf(task: SeasonTask, table: NightTable, [job, from, to]: Block): number {
  const n = table.jobs.length;
  const a = table.placeOf[job]!;
  const [s, e] = [from - table.first, to - table.first];
  return table.lateness * priorityOf(task, job) * (table.sums[e * n + a]! - table.sums[s * n + a]!);
}

/** A programme with one block a slot longer, or one more block in a gap. */
function* growths(
  task: SeasonTask,
  table: NightTable,
  blocks: Programme,
  prices: ArrayLike<number>,
): Generator<Programme> {
  const n = table.jobs.length;
  const end = table.first + table.slots;
  for (let i = 0; i <= blocks.length; i++) {
    const [low, high] = [blocks[i - 1]?.[2] ?? table.first, blocks[i]?.[1] ?? end];
    if (high <= low) continue;
    const [before, after] = [blocks[i - 1], blocks[i]];
    if (before) yield blocks.map((b) => (b === before ? [b[0], b[1], b[2] + 1] : b));
    if (after) yield blocks.map((b) => (b === after ? [b[0], b[1] - 1, b[2]] : b));
    for (let a = 0; a < n; a++) {
      const job = table.jobs[a]!;
      if (!(prices[job]! > 0)) continue;
      const least = minSlotsOf(task, job);
      for (let s = low; s + least <= high; s++)
        // Where none begins there is nothing to try.
        if (table.firstEnd[(s - table.first) * n + a]! <= high - table.first)
          for (const e of new Set([s + least, s + least + 1, s + least + 2]))
            if (e <= high) yield [...blocks.slice(0, i), [job, s, e], ...blocks.slice(i)];
    }
  }
}
