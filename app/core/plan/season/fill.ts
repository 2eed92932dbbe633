import { nightsBetween } from "~/core/time";
import { IDLE } from "./model";
import { NO_USE } from "./night";
import type { SeasonTask } from "./model";
import type { SeasonAnswer } from "./solve";
import { Season } from "./state";
import { priorityOf } from "./table";
import type { SeasonLane } from "./tables";

const LEAST_MIN = 20; // worth minutes of an evening that is used while something is unfinished; a proposal of this project

/**
 * No usable evening is left empty before what could use it is done in expectation: nobody stays in under a clear sky with work to do
 * because some later night is as good. What is put there comes off nothing: later nights become a reserve, and the next plan may free
 * them.
 */
export function neverEmpty(task: SeasonTask, answer: SeasonAnswer, lanes: readonly SeasonLane[]): SeasonAnswer {
  const season = new Season(task);
  season.restart(answer.plan.map((blocks, l) => season.column(l, blocks) ?? IDLE));
  const [first] = lanes;
  if (!first) return answer;
  const order = lanes.map((_, l) => l).sort((a, b) => nightsBetween(lanes[b]!.night, lanes[a]!.night) || a - b);
  const had = new Float64Array(task.jobs.length);
  const needs = task.jobs.map(({ need, reward }) => need ?? reward.widths.reduce((a, b) => a + b, 0));
  let isChanged = false;
  for (const lane of order) {
    if (season.isOpen(lane) && season.chosen[lane] === IDLE) {
      const prices = task.jobs.map((_, k) => (had[k]! < needs[k]! - 1 ? priorityOf(task, k) : NO_USE));
      const column = season.bestAt(lane, prices);
      const { chance } = season.tables[lane]!;
      const clear = column.yields.reduce((a, b) => a + b, 0) / Math.max(1e-6, chance);
      if (column !== IDLE && clear >= LEAST_MIN) {
        season.keep(lane, column);
        season.take(lane, column);
        isChanged = true;
      }
    }
    const { jobs, yields } = season.chosen[lane]!;
    jobs.forEach((k, j) => (had[k]! += yields[j]!));
  }
  if (!isChanged) return answer;
  const value = season.value();
  const bound = Math.max(answer.bound, value);
  return {
    ...answer,
    plan: season.chosen.map((c) => c.blocks),
    value,
    bound,
    gap: bound > 1e-9 ? Math.max(0, (bound - value) / bound) : 0,
    yields: [...season.yields],
  };
}
