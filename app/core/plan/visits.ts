import { cycleSec, type Channel, type Overheads } from "~/core/exposure";
import type { UtcInterval } from "~/core/time";
import { dealPanels } from "./panels";
import type { Need, OwnByChannel, ProjectData } from "./project";
import type { PlannedBlock, TurnStep } from "~/core/season";

/** Subs of one panel in one channel, in the order of a night. */
export interface Visit {
  readonly panel: string;
  readonly channel: Channel;
  readonly subSec: number;
  readonly subs: number;
  /** Panels in the order given, not by whichever goes down first. */
  readonly inOrder?: boolean;
  /** The rounds that it belongs to, where panels or channels are shot in turn. */
  readonly turn?: string;
}

/** What a project's rules make of its panels. */
export interface Shot {
  readonly id: string;
  readonly needs: readonly Need[];
  readonly school: ProjectData["school"];
  readonly roundSubs?: number;
  /** By what its minutes are weighed where it is shot. */
  readonly own: OwnByChannel;
}

/** A need's name. */
export const needKey = (projectId: string, n: Pick<Need, "panel" | "channel" | "subSec">): string =>
  `${projectId} ${n.panel} ${n.channel} ${n.subSec}`;

const ROUNDING = 0.05; // of a sub: a goal that is met but for that is met

/** Whole subs that are left of a need; `rate` = what a minute of exposure counts towards it. */
export const subsLeft = (n: Need, rate: number): number =>
  Math.max(0, Math.ceil((n.remainingMin * 60) / Math.max(0.05, rate) / n.subSec - ROUNDING));

const MOST_ROUNDS = 400; // of a night; more are no rounds

/**
 * What a stretch of an evening does, panel by panel and channel by channel: all of a panel at once, or in turn, round after round. What
 * is dealt is taken off `left` (subs, by `needKey`). `setsMs` when a panel goes down.
 */
export function visitsOf(
  block: PlannedBlock,
  at: {
    readonly project: Shot;
    readonly left: Map<string, number>;
    readonly span: UtcInterval;
    readonly overheads: Overheads;
    readonly flips: boolean;
    readonly setsMs: (panel: string) => number;
  },
): Visit[] {
  const { project, left, overheads: o } = at;
  const { channel, subSec } = block;
  const round = project.school === "allPanelsEveryNight" ? project.roundSubs : undefined;
  const steps: readonly TurnStep[] = block.turn ?? [{ channel, subSec, subs: round ?? 1 }];
  const names = [...new Set(project.needs.map((n) => n.panel))];
  const needOf = (panel: string, step: TurnStep) =>
    project.needs.find((n) => n.panel === panel && n.channel === step.channel && n.subSec === step.subSec);
  const leftOf = (n: Need) => left.get(needKey(project.id, n)) ?? 0;
  const take = (n: Need, subs: number) => left.set(needKey(project.id, n), Math.max(0, leftOf(n) - subs));
  const clockSec = (at.span.endMs - at.span.startMs) / 1000;
  const isInTurn = block.turn !== undefined || (round !== undefined && names.length > 1);
  const doneOf = (some: readonly Need[]) => Math.min(...some.map((n) => 1 - n.remainingMin / Math.max(1, n.goalMin)));
  if (!isInTurn) {
    const needs = names.flatMap((panel) => {
      const need = needOf(panel, steps[0]!);
      return need ? [{ panel, done: doneOf([need]), subs: leftOf(need) }] : [];
    });
    // What is done before the first sub and between panels is no exposure; a flip may come and may not: what is left goes on with.
    const pointings = project.school === "allPanelsEveryNight" ? needs.filter((n) => n.subs > 0).length : 1;
    const leadSec = pointings * o.panelChangeSec + o.filterChangeSec + o.focusMin * 60;
    const focus = 1 - o.focusMin / o.focusEveryMin;
    const room = Math.max(0, Math.ceil(((clockSec - leadSec) * focus) / cycleSec(subSec, o)));
    const dealt = dealPanels(needs, room, subSec / 60, project.school, at.setsMs);
    const inOrder = project.school !== "allPanelsEveryNight";
    return dealt.map(({ panel, subs }) => {
      take(needOf(panel, steps[0]!)!, subs);
      return { panel, channel, subSec, subs, ...(inOrder ? { inOrder } : {}) };
    });
  }
  const turn = `${project.id} ${block.startMs}`;
  const roundSec = steps.reduce((sum, s) => sum + s.subs * cycleSec(s.subSec, o), 0);
  const most = Math.min(MOST_ROUNDS, Math.ceil(clockSec / roundSec) + names.length);
  // Weakest first; each in whole rounds, the last of them as many subs as are left.
  const panels = names
    .map((panel) => ({ panel, needs: steps.map((s) => needOf(panel, s)) }))
    .filter(({ needs }) => needs.every((n) => n !== undefined && leftOf(n) > 0))
    .map(({ panel, needs }) => ({ panel, needs: needs as Need[] }))
    .sort((a, b) => doneOf(a.needs) - doneOf(b.needs) || a.panel.localeCompare(b.panel, "en", { numeric: true }));
  const once = ({ panel, needs }: (typeof panels)[number]): Visit[] =>
    steps.flatMap((s, i) => {
      const subs = Math.min(s.subs, leftOf(needs[i]!));
      take(needs[i]!, subs);
      return subs > 0 ? [{ panel, channel: s.channel, subSec: s.subSec, subs, turn }] : [];
    });
  const isOpen = ({ needs }: (typeof panels)[number]) => needs.every((n) => leftOf(n) > 0);
  const out: Visit[] = [];
  let rounds = 0;
  // Round after round, and within it by panel; or by panel, and within it round after round.
  if (round !== undefined)
    while (rounds < most && panels.some(isOpen))
      for (const p of panels.filter(isOpen)) {
        rounds++;
        out.push(...once(p));
      }
  else
    for (const p of panels)
      while (rounds < most && isOpen(p)) {
        rounds++;
        out.push(...once(p));
      }
  return out;
}
