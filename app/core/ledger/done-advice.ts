import type { LoomCell } from "./progress";
import { VISIBLE_STEP } from "~/core/framing";
import { groupBy } from "~/core/numeric";
import type { Channel } from "~/core/exposure";

/** How a cell of the loom stands, and what an hour more would do there. */
export interface CellAdvice {
  readonly cell: LoomCell;
  /** Signal to noise after one more hour over now, as a ratio; Infinity where there is nothing yet. */
  readonly gain: number;
  /** Depth short of the goal, magnitudes: 1.25 log10(goal/counted); 0 at the goal, null where there is nothing yet. MATHS 4.6. */
  readonly shortMag: number | null;
}

/** A channel whose panels are not alike. */
export interface Unlevel {
  readonly channel: Channel;
  readonly isShort: boolean;
  /** √ of the deepest over the shallowest panel: how much noisier that is; Infinity where a panel has nothing. */
  readonly ratio: number;
  /** Hours that bring every panel to the deepest one. */
  readonly levelHours: number;
  /** Hours that make every step between panels too small to be seen. */
  readonly softHours: number;
  readonly weakest: string;
}

/** Whether a picture is done, and where more would help most. */
export interface DoneAdvice {
  /** Weakest first: by their share of the goal. Without those beyond the goals. */
  readonly cells: readonly CellAdvice[];
  readonly unlevel: readonly Unlevel[];
  /** "done": every goal is met. "enough": nothing that is missing would be seen. "more": it would. */
  readonly verdict: "done" | "enough" | "more";
}

const SEEN_MAG = 0.2; // depth that nobody misses in a finished picture: 70 % of the hours; common practice, no source

/** Hours that lift all that are below a floor up to it. */
const lift = (hours: readonly number[], floor: number) => hours.reduce((sum, h) => sum + Math.max(0, floor - h), 0);

/**
 * Where a picture stands: weakest cells first, what one more hour gives in each (√((W + 1)/W), sky-limited), channels whose panels
 * differ so much that a step will show (MATHS 5.10), and whether it is good enough.
 */
export function doneAdvice(cells: readonly LoomCell[]): DoneAdvice {
  const wanted = cells.filter((c) => c.goalMin > 0);
  const advice = wanted
    .map((cell): CellAdvice => {
      const hours = cell.countedMin / 60;
      return {
        cell,
        gain: hours > 0 ? Math.sqrt((hours + 1) / hours) : Infinity,
        shortMag: hours > 0 ? Math.max(0, 1.25 * Math.log10(cell.goalMin / cell.countedMin)) : null,
      };
    })
    .sort((a, b) => a.cell.share - b.cell.share);
  const unlevel = [...groupBy(wanted, (c) => `${c.channel} ${c.isShort}`).values()].flatMap((group): Unlevel[] => {
    const hours = group.map((c) => c.countedMin / 60);
    const [deep, shallow] = [Math.max(...hours), Math.min(...hours)];
    if (group.length < 2 || deep === 0 || deep / VISIBLE_STEP ** 2 <= shallow * (1 + 1e-9)) return [];
    const { channel, isShort } = group[0]!;
    return [
      {
        channel,
        isShort,
        ratio: shallow > 0 ? Math.sqrt(deep / shallow) : Infinity,
        levelHours: lift(hours, deep),
        softHours: lift(hours, deep / VISIBLE_STEP ** 2),
        weakest: group[hours.indexOf(shallow)]!.panel,
      },
    ];
  });
  const isDone = wanted.every((c) => c.share >= 0.995);
  const isEnough = unlevel.length === 0 && advice.every((a) => a.shortMag !== null && a.shortMag <= SEEN_MAG);
  return { cells: advice, unlevel, verdict: isDone ? "done" : isEnough ? "enough" : "more" };
}
