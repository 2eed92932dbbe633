import type { SeasonTask } from "./model";
import type { NightTable } from "./table";

/** Room for the dynamic program of any lane of a task. */
export interface Scratch {
  /** Best value of a block that is open through a slot, by stretches used and job; where it began, and after what. */
  readonly open: Float64Array;
  readonly begin: Int32Array;
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
    begin: new Int32Array(slots * k * jobs),
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
