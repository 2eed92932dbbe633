import type { Lane, Programme, SeasonTask } from "./model";
import { topSlope } from "./reward";

/** A lane with what is asked of it again and again, cut to the slots in which anything is usable. Slots count from `first`. */
export interface NightTable {
  readonly chance: number;
  readonly first: number;
  readonly slots: number;
  /** Jobs that are usable in some slot. */
  readonly jobs: Int32Array;
  /** Place of a job in `jobs`; −1 = not usable. */
  readonly placeOf: Int32Array;
  /** Worth of a slot by place in `jobs`: slot · jobs + place; and what it costs beside its time. */
  readonly worth: Float64Array;
  readonly charge: Float64Array;
  /** Sums of the slots before, (slots + 1) × jobs: of worth, of worth when clear, of cost. */
  readonly sums: Float64Array;
  readonly clearSums: Float64Array;
  readonly chargeSums: Float64Array;
  /** How many slots up to this one are usable without a break. */
  readonly run: Int32Array;
  /** Where the shortest block that begins with a slot ends, slots × jobs; more than `slots` = none does. */
  readonly firstEnd: Int32Array;
  /** The last slot with which a block begins that can end before a slot, (slots + 1) × jobs; −1 = none. */
  readonly lastStart: Int32Array;
  /** By place in `jobs`: what is left to do, and whether a single run of slots can bring more than that. */
  readonly need: Float64Array;
  readonly isCapped: Uint8Array;
  /** By place in `jobs`: the most that a clear worth minute of some slot counts here, forecasts taken in. */
  readonly mostRate: Float64Array;
  /** How late in the season it is: `Lane.lateness`. */
  readonly lateness: number;
  readonly fixed: Programme | null;
}

/** Slots that a block of a job takes at least. */
export const minSlotsOf = (task: SeasonTask, job: number): number => task.jobs[job]!.minSlots ?? task.minSlots;

/** What a worth minute of a job counts. */
export const priorityOf = (task: SeasonTask, job: number): number =>
  task.jobs[job]!.priority ?? topSlope(task.jobs[job]!.reward);

const AS_GOOD = 1e-9;

/** Prepares a lane. */
export function nightTable(task: SeasonTask, lane: Lane): NightTable {
  const { worth, chance } = lane;
  const isUsable = worth.map((slot) => slot.some((w) => w > 0));
  const first = Math.max(0, isUsable.indexOf(true));
  const slots = Math.max(0, isUsable.lastIndexOf(true) + 1 - first);
  const usable: number[] = [];
  for (let k = 0; k < task.jobs.length; k++) if (worth.some((slot) => slot[k]! > 0)) usable.push(k);
  const jobs = Int32Array.from(usable);
  const placeOf = new Int32Array(task.jobs.length).fill(-1);
  jobs.forEach((k, a) => (placeOf[k] = a));
  const n = jobs.length;
  const room = () => new Float64Array((slots + 1) * n);
  const [table, charge, sums, clearSums, chargeSums, minutes] = [room(), room(), room(), room(), room(), room()];
  const run = new Int32Array((slots + 1) * n);
  const mostRate = new Float64Array(n).fill(1);
  for (let s = 0; s < slots; s++)
    for (let a = 0; a < n; a++) {
      const k = jobs[a]!;
      const at = s * n + a;
      const w = worth[first + s]![k]!;
      const clear = lane.clear?.[first + s]?.[k] ?? w;
      const cost = (lane.lateness ?? 0) * priorityOf(task, k) * w + (lane.charge?.[first + s]?.[k] ?? 0);
      table[at] = w;
      charge[at] = cost;
      sums[at + n] = sums[at]! + w;
      clearSums[at + n] = clearSums[at]! + clear;
      chargeSums[at + n] = chargeSums[at]! + cost;
      minutes[at + n] = minutes[at]! + (lane.minutes?.[first + s]?.[k] ?? task.slotMin);
      run[at + n] = w > 0 ? run[at]! + 1 : 0;
      if (clear > 0) mostRate[a] = Math.max(mostRate[a]!, w / clear);
    }
  const need = Float64Array.from(jobs, (k) => task.jobs[k]!.need ?? Number.POSITIVE_INFINITY);
  const isCapped = new Uint8Array(n);
  const firstEnd = new Int32Array((slots + 1) * n).fill(slots + 1);
  const lastStart = new Int32Array((slots + 1) * n).fill(-1);
  for (let a = 0; a < n; a++) {
    const k = jobs[a]!;
    const least = lane.leastSlots ?? minSlotsOf(task, k);
    const leastMin = lane.leastMin ?? task.jobs[k]!.leastMin ?? task.leastMin ?? 0;
    for (let s = 0; s < slots; s++)
      for (let e = s + least; e <= slots && run[e * n + a]! >= e - s; e++)
        if (minutes[e * n + a]! - minutes[s * n + a]! >= leastMin - AS_GOOD) {
          firstEnd[s * n + a] = e;
          break;
        }
    for (let s = 0; s < slots; s++) {
      const e = firstEnd[s * n + a]!;
      if (e <= slots) lastStart[e * n + a] = s;
    }
    // Whoever can begin late enough for an earlier end can for a later one.
    for (let e = 1; e <= slots; e++)
      if (run[e * n + a]! > 0 && lastStart[e * n + a] === -1) lastStart[e * n + a] = lastStart[(e - 1) * n + a]!;
    for (let e = 0; e <= slots; e++)
      if (clearSums[e * n + a]! - clearSums[(e - run[e * n + a]!) * n + a]! > need[a]!) isCapped[a] = 1;
  }
  return {
    chance,
    first,
    slots,
    jobs,
    placeOf,
    worth: table,
    charge,
    sums,
    clearSums,
    chargeSums,
    run,
    firstEnd,
    lastStart,
    need,
    isCapped,
    mostRate,
    lateness: lane.lateness ?? 0,
    fixed: lane.fixed ?? null,
  };
}
