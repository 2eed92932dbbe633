import { efficiencyOf, type Channel, type Overheads } from "~/core/exposure";
import { MINUTE_MS, type UtcInterval } from "~/core/time";
import { dealPanels } from "./panels";
import type { Need, ProjectData } from "./project";
import { turnEfficiency, turnShares, type PlannedBlock, type TurnStep } from "./season";

/** Exposure of one panel in one channel, in the order of a night. */
export interface Visit {
  readonly panel: string;
  readonly channel: Channel;
  readonly subSec: number;
  readonly exposureMin: number;
  /** The rounds that it belongs to, where panels or channels are shot in turn. */
  readonly turn?: string;
}

/** What a project's rules make of its panels. */
interface Shot {
  readonly id: string;
  readonly needs: readonly Need[];
  readonly school: ProjectData["school"];
  readonly roundSubs?: number;
}

/**
 * What a stretch of an evening does, panel by panel and channel by channel: all of a panel at once, or in turn, round after round.
 * What is given to a panel is taken off `left`. `rate` is what a minute of exposure counts; `setsMs` when a panel goes down.
 */
export function visitsOf(
  block: PlannedBlock,
  at: {
    readonly project: Shot;
    readonly left: Map<Need, number>;
    readonly rate: number;
    readonly span: UtcInterval;
    readonly overheads: Overheads;
    readonly flips: boolean;
    readonly setsMs: (panel: string) => number;
  },
): Visit[] {
  const { project, left, rate, overheads: o } = at;
  const { channel, subSec } = block;
  const round = project.school === "allPanelsEveryNight" ? project.roundSubs : undefined;
  const steps: readonly TurnStep[] = block.turn ?? [{ channel, subSec, subs: round ?? 1 }];
  const shares = turnShares(steps);
  const leftOf = (n: Need) => left.get(n) ?? n.remainingMin;
  const needOf = (panel: string, step: TurnStep) =>
    project.needs.find((n) => n.panel === panel && n.channel === step.channel && n.subSec === step.subSec);
  // A panel wants of a round what all its channels want together.
  const panels = [...new Set(project.needs.map((n) => n.panel))].flatMap((panel): Need[] => {
    const mine = steps.flatMap((s) => needOf(panel, s) ?? []);
    if (mine.length < steps.length) return [];
    const together = (of: (n: Need) => number) => Math.min(...mine.map((n, i) => of(n) / shares[i]!));
    return [{ panel, channel, subSec, goalMin: together((n) => n.goalMin), remainingMin: together(leftOf) }];
  });
  const isInTurn = block.turn !== undefined || (round !== undefined && panels.length > 1);
  const clockMin = (at.span.endMs - at.span.startMs) / MINUTE_MS;
  // What is done before the first sub, between panels and at the meridian is no exposure, nor is half a sub a panel.
  const pointings = isInTurn ? 1 : project.school === "allPanelsEveryNight" ? panels.length : 1;
  const leadMin =
    (pointings * (o.panelChangeSec + subSec / 2) + o.filterChangeSec) / 60 + o.focusMin + (at.flips ? o.flipMin : 0);
  const efficiency = isInTurn ? turnEfficiency(steps, round !== undefined && panels.length > 1, o) : efficiencyOf(subSec, o); // prettier-ignore
  const exposureMin = Math.max(0, clockMin - leadMin) * efficiency;
  const dealt = dealPanels(panels, new Map(), exposureMin, rate, project.school, at.setsMs);
  for (const { panel, exposureMin: minutes } of dealt)
    steps.forEach((step, i) => {
      const need = needOf(panel, step)!;
      left.set(need, Math.max(0, leftOf(need) - minutes * shares[i]! * rate));
    });
  if (!isInTurn) return dealt.map(({ panel, exposureMin: minutes }) => ({ panel, channel, subSec, exposureMin: minutes })); // prettier-ignore
  const turn = `${project.id} ${block.startMs}`;
  const roundMin = steps.reduce((sum, s) => sum + (s.subs * s.subSec) / 60, 0);
  const roundsOf = dealt.map((d) => Math.max(1, Math.round(d.exposureMin / roundMin)));
  const once = (panel: string) => steps.map((s): Visit => ({ panel, channel: s.channel, subSec: s.subSec, exposureMin: (s.subs * s.subSec) / 60, turn })); // prettier-ignore
  // By panel, and within it round after round; or round after round, and within it by panel.
  if (round === undefined) return dealt.flatMap((d, i) => Array.from({ length: roundsOf[i]! }, () => once(d.panel)).flat()); // prettier-ignore
  return Array.from({ length: Math.max(0, ...roundsOf) }, (_, r) =>
    dealt.flatMap((d, i) => (r < roundsOf[i]! ? once(d.panel) : [])),
  ).flat();
}
