import { MINUTE_MS, nightsBetween, type NightDate } from "~/core/time";
import { fitted } from "./columns";
import { keyOfJob, keyOfLane } from "./evening";
import type { Evening } from "./blocks";
import type { Lane, Programme, Programmes, SeasonTask } from "./model";
import type { SeasonPlan } from "./season-plan";
import type { SeasonQuestion } from "./question";
import type { SeasonTables } from "./request";
import { topSlope } from "./reward";
import { nightTable } from "./table";
import { SLOT_MIN } from "./tables";

const LEAST_PRICE = 0.03; // of its priority: what is covered on average is still worth having

/** Prices of a plan for the jobs of a task: what it does not know counts in full. */
export const pricesOf = (plan: SeasonPlan, keys: readonly string[], task: SeasonTask): number[] =>
  task.jobs.map(({ reward }, k) => {
    const known = plan.jobs.find((j) => keyOfJob(j) === keys[k]);
    return Math.max(known?.price ?? topSlope(reward), LEAST_PRICE * topSlope(reward));
  });

/** The evenings of a plan as programmes of other tables: blocks that are still possible where they were. */
export function programmesOf(plan: SeasonPlan, tables: SeasonTables): Programmes {
  const evenings = new Map(plan.evenings.map((e) => [keyOfLane(e), e]));
  return tables.lanes.map((lane, l) => programmeOf(evenings.get(keyOfLane(lane))?.blocks ?? [], tables, l));
}

/** Blocks as the programme of a lane. */
function programmeOf(blocks: Evening["blocks"], { lanes, jobs }: SeasonTables, lane: number): Programme {
  const { startMs } = lanes[lane]!;
  const slot = SLOT_MIN * MINUTE_MS;
  return blocks.flatMap((b) => {
    const job = jobs.findIndex((j) => keyOfJob(j) === keyOfJob(b));
    const from = Math.floor(((b.slots ?? b).startMs - startMs) / slot);
    return job === -1 ? [] : [[job, from, Math.ceil(((b.slots ?? b).endMs - startMs) / slot)] as const];
  });
}

/** What keeping an evening as its owner saw it is worth, minutes at their best, by nights ahead; a proposal of this project (PLAN.md 8.4). */
const STAYING = [
  { nights: 1, bonus: 24 },
  { nights: 7, bonus: 12 },
  { nights: 30, bonus: 4 },
] as const;

const UNDER_WAY_MIN = 15; // worth pointing at once the kit stands

/** The lanes of a night that has begun: as they were planned then, or, once it is planned anew, without what only an evening that is yet to come asks. */
export function underWay(task: SeasonTask, tables: SeasonTables, { begun, from }: SeasonQuestion): SeasonTask {
  if (!begun) return task;
  return {
    ...task,
    lanes: task.lanes.map((lane, l): Lane => {
      const { night, placeId, rigIds } = tables.lanes[l]!;
      if (night !== from) return lane;
      if (begun.fromMs !== null) return { ...lane, leastSlots: 1, leastMin: UNDER_WAY_MIN };
      const kept = begun.evenings.find((e) => e.placeId === placeId && e.rigIds.join() === rigIds.join());
      const blocks = kept ? programmeOf(kept.blocks, tables, l) : [];
      const { fixed: _fixed, ...free } = lane;
      return { ...lane, fixed: fitted(task, nightTable(task, { ...free, leastSlots: 1, leastMin: 0 }), blocks) };
    }),
  };
}

/** Evenings with the night that has begun as it was planned then, as long as nothing has changed that. */
export function asBegun({ begun, from }: SeasonQuestion, evenings: readonly Evening[]): readonly Evening[] {
  if (!begun || begun.fromMs !== null) return evenings;
  return evenings.map((e) => {
    if (e.night !== from) return e;
    const kept = begun.evenings.find((x) => x.placeId === e.placeId && x.rigIds.join() === e.rigIds.join());
    return { ...e, blocks: kept?.blocks ?? [] };
  });
}

/** A task that knows what its owner saw planned. */
export function staying(task: SeasonTask, tables: SeasonTables, seen: SeasonPlan | null, from: NightDate): SeasonTask {
  if (!seen) return task;
  const before = programmesOf(seen, tables);
  return {
    ...task,
    lanes: task.lanes.map((lane, l) => {
      const ahead = nightsBetween(from, tables.lanes[l]!.night);
      const bonus = STAYING.find((s) => ahead <= s.nights)?.bonus ?? 0;
      return bonus > 0 && before[l]!.length > 0 ? { ...lane, seen: { blocks: before[l]!, bonus } } : lane;
    }),
  };
}
