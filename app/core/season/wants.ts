import { efficiencyOf, type Channel, type Overheads } from "~/core/exposure";
import { turnEfficiency, turnShares, type CycleStep, type TurnStep } from "./rules";
import type { ChannelWant, SeasonProject } from "./request";

/** One channel of a want, and the share of its exposure. */
export interface WantPart {
  readonly want: ChannelWant;
  readonly share: number;
}

/** What is planned as one: a channel, or channels shot in turn. */
export interface PlannedWant {
  readonly channel: Channel;
  readonly subSec: number;
  /** Minutes at the target's best; of channels in turn, of all of them together. */
  readonly remainingMin: number;
  readonly parts: readonly WantPart[];
  /** What is shot in turn; null = one channel by itself. */
  readonly turn: readonly TurnStep[] | null;
  /** Share of the clock that is exposure. */
  readonly efficiency: number;
}

/** Whether it is a short set by itself: what stars keep in it does not hang on the sky. */
export const isShort = ({ parts }: PlannedWant): boolean => parts.every((p) => p.want.isShort === true);

const DONE_MIN = 0.5;

/** Whether something is left to do: half a minute of exposure is not. */
export const hasLeft = ({ remainingMin }: { readonly remainingMin: number }): boolean => remainingMin > DONE_MIN;

/** The steps of a cycle that still have work, each with what it wants; fewer than two are no cycle. */
function turnOf(cycle: readonly CycleStep[], wants: readonly ChannelWant[]) {
  const steps = cycle.flatMap(({ channel, subs }) => {
    const want = wants.filter((w) => w.channel === channel && hasLeft(w)).sort((a, b) => b.subSec - a.subSec)[0];
    return want && subs > 0 ? [{ want, step: { channel, subSec: want.subSec, subs } }] : [];
  });
  const isOnce = new Set(steps.map((s) => s.want)).size === steps.length;
  return steps.length > 1 && isOnce ? steps : null;
}

/**
 * What of a project is planned as one: channels in turn together until the first of them is done, the rest of each by itself.
 */
export function plannedWants(project: SeasonProject, o: Overheads | undefined): PlannedWant[] {
  const { wants, cycle, round } = project;
  const single = (want: ChannelWant, remainingMin: number): PlannedWant[] => {
    if (!hasLeft({ remainingMin })) return [];
    const { channel, subSec } = want;
    const inRounds = round && o ? turnEfficiency([{ channel, subSec, subs: round }], true, o) : null;
    const efficiency = inRounds ?? (o ? efficiencyOf(subSec, o) : 1);
    return [{ channel, subSec, remainingMin, parts: [{ want, share: 1 }], turn: null, efficiency }];
  };
  const steps = cycle ? turnOf(cycle, wants) : null;
  if (!steps) return wants.flatMap((w) => single(w, w.remainingMin));
  const turn = steps.map((s) => s.step);
  const shares = turnShares(turn);
  const together = Math.min(...steps.map(({ want }, i) => want.remainingMin / shares[i]!));
  const shared = new Map(steps.map(({ want }, i) => [want, shares[i]! * together]));
  const [first] = turn;
  return [
    {
      channel: first!.channel,
      subSec: first!.subSec,
      remainingMin: together,
      parts: steps.map(({ want }, i) => ({ want, share: shares[i]! })),
      turn,
      efficiency: o ? turnEfficiency(turn, round !== undefined, o) : 1,
    },
    ...wants.flatMap((w) => single(w, w.remainingMin - (shared.get(w) ?? 0))),
  ];
}
