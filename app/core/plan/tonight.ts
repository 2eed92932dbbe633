import { hasLeft } from "~/core/season";
import type { Channel } from "~/core/exposure";
import { targetNight, type NightSteps, type PlaceNight, type Walk } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import { utcMs, type UtcMs } from "~/core/time";
import { inNightOrder } from "./channel-order";
import type { Need, OwnByChannel } from "./project";
import type { Evening, PlannedBlock } from "~/core/season";

/** A project on one night, in the channel that the plan has for it, else the one that it would use. */
export interface TonightProject {
  readonly id: string;
  readonly channel: Channel;
  readonly walk: Walk;
  readonly usableMin: number;
  readonly worthMin: number;
  /** Panels of that channel with work left, weakest first. */
  readonly panels: readonly string[];
  readonly remainingMin: number;
  readonly isPlanned: boolean;
}

/** A stretch of the evening with the walk of its target. */
export interface TonightBlock extends PlannedBlock {
  readonly rigIds: readonly string[];
  readonly walk: Walk;
}

/** What to shoot on a night: what the plan has for it, or nothing, and why. */
export type TonightChoice =
  | {
      readonly kind: "stayIn";
      readonly reason:
        | "noDarkness"
        | "tooLight"
        | "nothingUp"
        | "allDone"
        /** By the person's own rules and locks. */
        | "busy"
        | "forbidden"
        /** What is left is as good as done without it. */
        | "leftFree";
    }
  | {
      readonly kind: "go";
      /** Stretches of all rigs, by their start. */
      readonly blocks: readonly TonightBlock[];
      readonly startMs: UtcMs;
      readonly endMs: UtcMs;
    };

const LEAST_MIN = 45; // less is not worth setting up for; common practice, no source

/** What a night has for a project: in the channel planned, else the first in the order of the night that finds time. */
export function projectTonight(
  night: PlaceNight,
  project: {
    readonly id: string;
    readonly target: Equatorial<"icrs">;
    readonly needs: readonly Need[];
    readonly own: OwnByChannel;
  },
  planned: readonly Channel[],
): TonightProject | null {
  const open = project.needs.filter(hasLeft);
  const share = (n: Need) => n.remainingMin / Math.max(1, n.goalMin);
  const candidates = [...new Set(open.map((n) => n.channel))].map((channel) => {
    const target = targetNight(night, project.target, channel, project.own[channel]);
    const mine = open.filter((n) => n.channel === channel).sort((a, b) => share(b) - share(a));
    return {
      id: project.id,
      channel,
      walk: target.walk,
      usableMin: target.usableMin,
      worthMin: target.worthMin,
      moonlessWorthMin: target.moonlessWorthMin,
      lacking: share(mine[0]!),
      panels: mine.map((n) => n.panel),
      remainingMin: mine.reduce((sum, n) => sum + n.remainingMin, 0),
      isPlanned: planned.includes(channel),
    };
  });
  const ordered = inNightOrder(candidates);
  return (
    ordered.find((c) => c.channel === planned[0]) ??
    ordered.find((c) => c.usableMin >= LEAST_MIN) ??
    [...ordered].sort((a, b) => b.usableMin - a.usableMin)[0] ??
    null
  );
}

/** What the evenings of a night come to: their stretches with the walks of their targets, or why there are none. */
export function chooseTonight(
  evenings: readonly Evening[],
  at: {
    readonly steps: NightSteps;
    /** Whether it gets dark enough overhead at all. */
    readonly isDark: boolean;
    readonly projects: readonly TonightProject[];
    readonly walkOf: (block: PlannedBlock) => Walk | null;
  },
): TonightChoice {
  const { steps, projects } = at;
  if (steps.count === 0) return { kind: "stayIn", reason: "noDarkness" };
  const blocks = evenings
    .flatMap(({ rigIds, blocks: mine }) =>
      mine.flatMap((block): TonightBlock[] => {
        const walk = at.walkOf(block);
        return walk ? [{ ...block, rigIds, walk }] : [];
      }),
    )
    .sort((a, b) => a.startMs - b.startMs || a.projectId.localeCompare(b.projectId));
  const [first] = blocks;
  if (first)
    return { kind: "go", blocks, startMs: first.startMs, endMs: utcMs(Math.max(...blocks.map((b) => b.endMs))) };
  if (projects.length === 0) return { kind: "stayIn", reason: "allDone" };
  const closed = evenings.find((e) => e.closed === "busy" || e.closed === "forbidden")?.closed;
  if (closed === "busy" || closed === "forbidden") return { kind: "stayIn", reason: closed };
  if (projects.some((p) => p.usableMin >= LEAST_MIN)) return { kind: "stayIn", reason: "leftFree" };
  return { kind: "stayIn", reason: at.isDark ? "nothingUp" : "tooLight" };
}
