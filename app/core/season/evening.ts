import { lockedNight, type FixedWork, type Lock } from "./locks";
import type { Block, Lane, Programme, Programmes } from "./model";
import { columnOf } from "./columns";
import type { Evening, PlannedBlock } from "./blocks";
import { nightTable } from "./table";
import { isBusy, type SeasonQuestion } from "./question";
import { spanOf } from "./tables";
import type { JobKey, SeasonLane, SeasonTables } from "./request";

/** A job's name: channels in turn are another one than the first of them by itself. */
export const keyOfJob = ({ projectId, channel, subSec, turn }: JobKey): string =>
  [projectId, channel, subSec, ...(turn ?? []).map((t) => `${t.subs}${t.channel}`)].join(" ");

/** What a minute of exposure in a block counts on average, whatever is left to do. */
function rateOf(lane: SeasonLane, [job, from, to]: Block, exposureMin: number): number {
  let worth = 0;
  for (let s = from; s < to; s++) worth += lane.worth[s]?.[job] ?? 0;
  return exposureMin > 0 ? worth / exposureMin : 1;
}

const minutesOf = ({ minutes }: Lane): Pick<Lane, "minutes"> => (minutes ? { minutes } : {});

/** A lane's name. */
export const keyOfLane = (e: Pick<Evening, "night" | "placeId" | "rigIds">): string =>
  `${e.night} ${e.placeId} ${e.rigIds.join("+")}`;

/** Whether a job is what was fixed. */
export const isWork = (job: JobKey, { projectId, channel }: FixedWork): boolean =>
  job.projectId === projectId &&
  (channel === undefined || job.channel === channel || (job.turn?.some((t) => t.channel === channel) ?? false));

/** How programmes read as evenings: what does not depend on them is worked out once. */
export function eveningsFrom(
  question: SeasonQuestion,
  { lanes, jobs, task }: SeasonTables,
  locks: readonly Lock[],
): (plan: Programmes) => Evening[] {
  const clear = lanes.map((lane, l) =>
    nightTable(task, { chance: 1, worth: lane.worth, ...minutesOf(task.lanes[l]!) }),
  );
  const bare = lanes.map((lane, l): Evening & { readonly fixed: readonly FixedWork[] } => {
    let usableMin = 0;
    lane.worth.forEach((slot, s) => {
      if (slot.some((w) => w > 0)) usableMin += Math.max(...lane.usableMin[s]!);
    });
    const { isOpen, fixed } = lockedNight(locks, lane.night);
    return {
      night: lane.night,
      placeId: lane.placeId,
      rigIds: lane.rigIds,
      chance: task.lanes[l]!.chance,
      usableMin,
      blocks: [],
      isFixed: false,
      fixed,
      closed: isBusy(question.rules, lane.night, locks) ? "busy" : !isOpen ? "forbidden" : null,
    };
  });
  const blocksOf = (l: number, programme: Programme): PlannedBlock[] =>
    programme.map((block, b): PlannedBlock => {
      const job = jobs[block[0]]!;
      const { usableMin, startMs, endMs } = spanOf(lanes[l]!, block);
      const counts = (blocks: Programme) => {
        const column = columnOf(task, clear[l]!, blocks);
        return column?.yields[column.jobs.indexOf(block[0])] ?? 0;
      };
      return {
        projectId: job.projectId,
        channel: job.channel,
        subSec: job.subSec,
        ...(job.turn ? { turn: job.turn } : {}),
        ...(job.isShort ? { isShort: true } : {}),
        startMs,
        endMs,
        slots: { startMs, endMs },
        countsMin: counts(programme.slice(0, b + 1)) - counts(programme.slice(0, b)),
        exposureMin: usableMin * job.efficiency,
        rate: rateOf(lanes[l]!, block, usableMin * job.efficiency),
      };
    });
  /** Lanes at places where a night is not spent: it is spent where something is done, else at the nearest place. */
  const elsewhere = (plan: Programmes): ReadonlySet<number> =>
    new Set(
      (task.choices ?? []).flatMap(({ places }) => {
        const busy = Math.max(
          0,
          places.findIndex((p) => p.lanes.some((l) => plan[l]!.length > 0)),
        );
        return places.flatMap((p, i) => (i === busy ? [] : p.lanes));
      }),
    );
  return (plan) => {
    const away = elsewhere(plan);
    return bare.map(({ fixed, ...evening }, l) => {
      const blocks = blocksOf(l, plan[l]!);
      const closed = evening.closed ?? (away.has(l) ? "elsewhere" : null);
      return { ...evening, closed, blocks, isFixed: blocks.some((b) => fixed.some((f) => isWork(b, f))) };
    });
  };
}
