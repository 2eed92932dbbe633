import type { Channel } from "~/core/exposure";
import { panelName, type Panel } from "~/core/framing";
import { groupBy } from "~/core/numeric";
import { hoursFor, type PanelGoal } from "~/core/plan";
import type { ContributionData, CullReason } from "./contribution";
import type { CountedEntry } from "./counted";

/** One cell of the loom: a panel in a channel. */
export interface LoomCell {
  readonly panel: string;
  readonly channel: Channel;
  /** A short set beside the long subs of the same channel. */
  readonly isShort: boolean;
  readonly goalMin: number;
  readonly takenMin: number;
  readonly keptMin: number;
  /** What the kept minutes count towards the goal: `countedEntries`. */
  readonly countedMin: number;
  /** What counts, over the goal; may exceed 1. */
  readonly share: number;
}

/** What is collected in a channel over all panels. */
export type ChannelSum = Pick<LoomCell, "channel" | "isShort" | "goalMin" | "keptMin" | "countedMin" | "share">;

/** Panels taken together, channel by channel. What a panel has too much of is nothing that another one lacks: no panel gives more than its goal to the share. */
export function channelSums(cells: readonly LoomCell[]): ChannelSum[] {
  const groups = groupBy(cells, (c) => `${c.channel} ${c.isShort}`).values();
  return [...groups].flatMap((of): ChannelSum[] => {
    const [first] = of;
    if (!first) return [];
    const sum = (what: (c: LoomCell) => number) => of.reduce((s, c) => s + what(c), 0);
    const goalMin = sum((c) => c.goalMin);
    return [
      {
        channel: first.channel,
        isShort: first.isShort,
        goalMin,
        keptMin: sum((c) => c.keptMin),
        countedMin: sum((c) => c.countedMin),
        share: goalMin > 0 ? sum((c) => Math.min(c.countedMin, c.goalMin)) / goalMin : 0,
      },
    ];
  });
}

/** Whether a sub belongs to the short set of its channel: nearer to its length than to that of the long subs, by ratio. */
export function isOfShortSet(
  goals: readonly PanelGoal[],
  { channel, exposureSec }: Pick<ContributionData, "channel" | "exposureSec">,
): boolean {
  const mine = goals.filter((g) => g.channel === channel);
  const short = mine.find((g) => g.isShort);
  if (!short) return false;
  const long = mine.find((g) => !g.isShort);
  return !long || exposureSec < Math.sqrt(short.subSec * long.subSec);
}

/** The name of a cell: "P1 L", or "P1 L short". */
export const cellKey = (panel: string, channel: Channel, isShort: boolean): string =>
  `${panel} ${channel}${isShort ? " short" : ""}`;

/** Minutes that count by panel, channel and set, under `cellKey`. */
export function countedByCell(counted: readonly CountedEntry[], goals: readonly PanelGoal[]): Map<string, number> {
  const sums = new Map<string, number>();
  for (const c of counted) {
    const cell = cellKey(c.panel, c.channel, isOfShortSet(goals, c));
    sums.set(cell, (sums.get(cell) ?? 0) + c.countedMin);
  }
  return sums;
}

/** Panels × channels against their goals, in panel order; work outside the goals gets cells of goal 0. */
export function loomOf(
  goals: readonly PanelGoal[],
  shot: readonly Pick<Panel, "number">[],
  counted: readonly CountedEntry[],
): LoomCell[] {
  const panels = shot.map((p) => panelName(p.number));
  const extraPanels = [...new Set(counted.map((c) => c.panel))].filter((p) => !panels.includes(p));
  const setOf = (c: ContributionData) => ({ channel: c.channel, isShort: isOfShortSet(goals, c) });
  const sets = [...goals.map((g) => ({ channel: g.channel, isShort: g.isShort ?? false })), ...counted.map(setOf)];
  const channels = [...new Map(sets.map((s) => [cellKey("", s.channel, s.isShort), s])).values()];
  const byCell = new Map<string, CountedEntry[]>();
  for (const c of counted) {
    const key = cellKey(c.panel, c.channel, setOf(c).isShort);
    const cell = byCell.get(key);
    if (cell) cell.push(c);
    else byCell.set(key, [c]);
  }
  return [...panels, ...extraPanels].flatMap((panel) =>
    channels.flatMap(({ channel, isShort }): LoomCell[] => {
      const mine = byCell.get(cellKey(panel, channel, isShort)) ?? [];
      const goal = goals.find((g) => g.channel === channel && (g.isShort ?? false) === isShort);
      const goalMin = goal && panels.includes(panel) ? hoursFor(goal, panel) * 60 : 0;
      if (goalMin === 0 && mine.length === 0) return [];
      const minutes = (of: (c: CountedEntry) => number) =>
        mine.reduce((sum, c) => sum + (of(c) * c.exposureSec) / 60, 0);
      const countedMin = mine.reduce((sum, c) => sum + c.countedMin, 0);
      return [
        {
          panel,
          channel,
          isShort,
          goalMin,
          takenMin: minutes((c) => c.taken),
          keptMin: minutes((c) => c.kept),
          countedMin,
          share: goalMin > 0 ? countedMin / goalMin : 1,
        },
      ];
    }),
  );
}

/** What one member took of one panel and channel in one night at one sub length, and the entries that say so. */
export interface NightTotal<E> {
  readonly projectId: string;
  readonly night: string;
  readonly memberId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly exposureSec: number;
  readonly taken: number;
  readonly kept: number;
  readonly keptMin: number;
  readonly reasons: readonly CullReason[];
  readonly entries: readonly E[];
}

interface Group<E> {
  taken: number;
  kept: number;
  reasons: CullReason[];
  entries: E[];
}

/** Entries summed by project, night, member, panel, channel and sub length; latest night first, then panels by number. */
export function nightTotals<E extends { readonly data: ContributionData }>(entries: readonly E[]): NightTotal<E>[] {
  const groups = new Map<string, Group<E>>();
  for (const entry of entries) {
    const c = entry.data;
    const key = `${c.projectId}|${c.night}|${c.memberId}|${c.panel}|${c.channel}|${c.exposureSec}`;
    const group = groups.get(key) ?? { taken: 0, kept: 0, reasons: [], entries: [] };
    groups.set(key, group);
    group.taken += c.taken;
    group.kept += c.kept;
    if (c.reason !== "" && !group.reasons.includes(c.reason)) group.reasons.push(c.reason);
    group.entries.push(entry);
  }
  const totals = [...groups.values()].map(({ taken, kept, reasons, entries: mine }): NightTotal<E> => {
    const { projectId, night, memberId, panel, channel, exposureSec } = mine[0]!.data;
    const keptMin = (kept * exposureSec) / 60;
    return { projectId, night, memberId, panel, channel, exposureSec, taken, kept, keptMin, reasons, entries: mine };
  });
  const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0); // dates sort as text; a collator is slow
  const number = (panel: string) => Number(panel.slice(1)) || 0;
  return totals.sort(
    (a, b) =>
      byText(b.night, a.night) ||
      byText(a.projectId, b.projectId) ||
      number(a.panel) - number(b.panel) ||
      byText(a.channel, b.channel) ||
      byText(a.memberId, b.memberId) ||
      a.exposureSec - b.exposureSec,
  );
}

/** Minutes that count by the end of a night, all nights before included. */
export interface Collected {
  readonly night: string;
  readonly countedMin: number;
}

/** How what counts grew, night by night; nights without any are left out. */
export function collectedByNight(counted: readonly CountedEntry[]): Collected[] {
  const byNight = new Map<string, number>();
  for (const c of counted) byNight.set(c.night, (byNight.get(c.night) ?? 0) + c.countedMin);
  let countedMin = 0;
  return [...byNight]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([night, minutes]) => (minutes > 0 ? [{ night, countedMin: (countedMin += minutes) }] : []));
}
