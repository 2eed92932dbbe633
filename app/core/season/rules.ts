import { cycleSec, type Channel, type Overheads } from "~/core/exposure";

/** Subs of one channel in a row, within a cycle of channels. */
export interface CycleStep {
  readonly channel: Channel;
  readonly subs: number;
}

/** How a picture is shot, where its owner wants it otherwise than usual; absent = as usual. */
export interface ShootingRules {
  /** Panels in turn, so many subs of each before the next, round after round; absent = once a night each. */
  readonly roundSubs?: number;
  /** Done in all panels before anything else of the project is begun. */
  readonly first?: Channel;
  /** Channels in turn, round after round: "three of L, then one each of R, G, B". */
  readonly cycle?: readonly CycleStep[];
  /** The shortest stretch worth pointing at it, minutes. */
  readonly leastMin?: number;
  /** The nearer it is to its goals, the more it counts against others. */
  readonly isToFinish?: boolean;
  /** So many clear nights in a row, or none. */
  readonly clearRun?: number;
}

/** One channel of what is shot in turn: its sub length, and how many subs in a row. */
export interface TurnStep {
  readonly channel: Channel;
  readonly subSec: number;
  readonly subs: number;
}

/**
 * Share of the clock that is exposure where pointings or filters are changed round after round: per round its cycles, one change of
 * filter for each channel, a pointing where panels are many. Focus is shared out as usual: filters shot in turn are taken as equal in
 * focus, or of known offset.
 */
export function turnEfficiency(steps: readonly TurnStep[], hasPanels: boolean, o: Overheads): number {
  const exposure = steps.reduce((sum, s) => sum + s.subs * s.subSec, 0);
  const cycles = steps.reduce((sum, s) => sum + s.subs * cycleSec(s.subSec, o), 0);
  const filters = steps.length > 1 ? steps.length * o.filterChangeSec : 0;
  const pointing = hasPanels ? o.panelChangeSec : 0;
  return (exposure / Math.max(1e-9, cycles + filters + pointing)) * (1 - o.focusMin / o.focusEveryMin);
}

/** Of the exposure of a round, the share of each of its steps. */
export function turnShares(steps: readonly TurnStep[]): number[] {
  const all = steps.reduce((sum, s) => sum + s.subs * s.subSec, 0);
  return steps.map((s) => (s.subs * s.subSec) / Math.max(1e-9, all));
}

/** What a project counts against others: its priority, up to double where it is to be finished and nearly is. */
export const weightOf = (priority: number, isToFinish: boolean, goalMin: number, remainingMin: number): number =>
  priority * (isToFinish && goalMin > 0 ? 1 + Math.min(1, Math.max(0, 1 - remainingMin / goalMin)) : 1);

/** Channels in turn as people write them: "3 L, R, G, B". */
export const cycleText = (cycle: readonly CycleStep[]): string =>
  cycle.map(({ channel, subs }) => (subs === 1 ? channel : `${subs} ${channel}`)).join(", ");

/** The channels of a job in words: its own ("Ha", "Ha short"), or those it is shot in turn with. */
export const channelsText = (job: {
  readonly channel: Channel;
  readonly turn?: readonly CycleStep[];
  readonly isShort?: boolean;
}): string => (job.turn ? cycleText(job.turn) : job.isShort ? `${job.channel} short` : job.channel);

const MOST_SUBS = 50;

/** Reads "3 L, R, G, B", "LLL RGB" or "3xL 1xR": each channel once, or in a row; null where it is none, or of one channel only. */
export function readCycle(text: string, channels: readonly Channel[]): CycleStep[] | null {
  const names = [...channels].sort((a, b) => b.length - a.length);
  const steps: { channel: Channel; subs: number }[] = [];
  let rest = text.trim();
  while (rest !== "") {
    const [whole, count] = /^(\d*)\s*[x×]?\s*/.exec(rest)!;
    rest = rest.slice(whole.length);
    const channel = names.find((n) => rest.toLowerCase().startsWith(n.toLowerCase()));
    if (!channel) return null;
    rest = rest.slice(channel.length).replace(/^[\s,;+·-]+/, "");
    const subs = count === "" ? 1 : Number(count);
    const last = steps.at(-1);
    if (last?.channel === channel) last.subs += subs;
    else if (steps.some((s) => s.channel === channel)) return null;
    else steps.push({ channel, subs });
  }
  return steps.length > 1 && steps.every((s) => s.subs > 0 && s.subs <= MOST_SUBS) ? steps : null;
}
