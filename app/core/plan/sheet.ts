import { runSheet, targetNight, type PackUpBy, type PlaceNight, type RunSheet, type WorkItem } from "~/core/night";
import { panelName, type Panel } from "~/core/framing";
import type { Channel, Overheads } from "~/core/exposure";
import { nightEvents, nextTransitMs, sunPassesMs } from "~/core/sky";
import { utcMs, type UtcInterval } from "~/core/time";
import { needKey, subsLeft, visitsOf, type Shot } from "./visits";
import type { Need } from "./project";
import type { Evening, PlannedBlock } from "~/core/season";

const STARS_SUN_DEG = -8; // the pole star shows in a camera; common practice, no source
const DAWN_SUN_DEG = -6; // light enough to pack up by; common practice, no source

/** What a sheet needs to know of a project that takes part in an evening. */
export interface SheetProject extends Shot {
  readonly night: PlaceNight;
  readonly panels: readonly Pick<Panel, "number" | "centre">[];
  readonly filterName: (channel: Channel) => string;
}

/** An evening to be laid out. */
export interface SheetQuestion {
  readonly evening: Evening;
  readonly projects: readonly SheetProject[];
  readonly night: PlaceNight;
  readonly overheads: Overheads;
  readonly flips: boolean;
  /** Absent = it has several. */
  readonly changesFilters?: boolean;
  readonly standsBeforeDark: boolean;
  /** The kit stands already: nothing is set up any more. */
  readonly isSetUp?: boolean;
  /** The part of the night that is clear; null = all of it. */
  readonly within: UtcInterval | null;
  /** When everything has to be under a roof because of rain; absent = none is in sight. */
  readonly rainMs?: number | null;
}

/** The slots that are kept for a block. */
const slotsOf = (b: PlannedBlock): UtcInterval => b.slots ?? b;

/** What a minute of exposure in a block counts towards its goal. */
const rateOf = (b: PlannedBlock): number => b.rate ?? (b.exposureMin > 0 ? b.countsMin / b.exposureMin : 1);

/**
 * The run sheet of an evening: what the plan has for one rig on one night, laid out by the clock: stretches in their order, the
 * panels of each dealt by its project's school, whole subs, and none more than is wanted. A stretch that is done early hands over early.
 */
export function nightSheet(at: SheetQuestion): RunSheet {
  const { sky } = at.night;
  const { blocks } = at.evening;
  const most = new Map<string, number>();
  const keep = (project: SheetProject, need: Need, rate: number) => {
    const key = needKey(project.id, need);
    if (!most.has(key)) most.set(key, subsLeft(need, rate));
  };
  for (const block of blocks) {
    const project = at.projects.find((p) => p.id === block.projectId);
    const steps = block.turn ?? [{ channel: block.channel, subSec: block.subSec }];
    for (const need of project?.needs ?? [])
      if (steps.some((s) => s.channel === need.channel && s.subSec === need.subSec))
        keep(project!, need, rateOf(block));
  }
  const left = new Map(most);
  // A stretch may begin as soon as the one it follows without a break: it does when that has nothing left to do.
  const starts = blocks.map((b) => slotsOf(b).startMs);
  const opens = blocks.map((b, i) => {
    let from = i;
    while (from > 0 && slotsOf(blocks[from - 1]!).endMs >= slotsOf(blocks[from]!).startMs) from--;
    return starts[from]!;
  });
  const items = blocks.flatMap((block, stage): WorkItem[] => {
    const project = at.projects.find((p) => p.id === block.projectId);
    const [span] = clipped([slotsOf(block)], at.within);
    if (!project || !span) return [];
    const open = { startMs: utcMs(Math.max(opens[stage]!, at.within?.startMs ?? 0)), endMs: span.endMs };
    const targetOf = (panel: string, channel: Channel) => {
      const drawn = project.panels.find((p) => panelName(p.number) === panel);
      return drawn ? targetNight(project.night, drawn.centre, channel, project.own[channel]) : null;
    };
    const visits = visitsOf(block, {
      project,
      left,
      span,
      overheads: at.overheads,
      flips: at.flips,
      setsMs: (panel) => Math.max(0, ...(targetOf(panel, block.channel)?.windows ?? []).map((w) => w.endMs)),
    });
    return visits.flatMap(({ panel, channel, subSec, subs, inOrder, turn }) => {
      const target = targetOf(panel, channel);
      if (!target) return [];
      return [
        {
          projectId: project.id,
          panel,
          channel,
          filterName: project.filterName(channel),
          subSec,
          subs,
          need: needKey(project.id, { panel, channel, subSec }),
          stage,
          windows: clipped(target.windows, open),
          transitMs: nextTransitMs(sky, target.ofDate),
          ...(inOrder ? { inOrder } : {}),
          ...(turn === undefined ? {} : { turn }),
        },
      ];
    });
  });
  const { horizon } = nightEvents(sky);
  const dawnMs = sunPassesMs(sky, DAWN_SUN_DEG)?.upMs ?? null;
  return runSheet(
    items,
    at.overheads,
    {
      flips: at.flips,
      standsBeforeDark: at.standsBeforeDark,
      ...(at.isSetUp ? { isSetUp: true } : {}),
      ...(at.changesFilters === undefined ? {} : { changesFilters: at.changesFilters }),
      sunsetMs: horizon.kind === "passes" ? horizon.downMs : null,
      starsMs: sunPassesMs(sky, STARS_SUN_DEG)?.downMs ?? null,
      packUpBy: packUpBy(at.rainMs ?? null, dawnMs),
      stagesFromMs: starts,
    },
    most,
  );
}

/** By when everything has to be under a roof: before rain, else before it is light. */
function packUpBy(rainMs: number | null, dawnMs: number | null): PackUpBy | null {
  if (rainMs !== null && (dawnMs === null || rainMs < dawnMs)) return { ms: utcMs(rainMs), why: "rain" };
  return dawnMs === null ? null : { ms: utcMs(dawnMs), why: "dawn" };
}

/** The part of some stretches that lies within another. */
function clipped(windows: readonly UtcInterval[], within: UtcInterval | null): readonly UtcInterval[] {
  if (!within) return windows;
  return windows.flatMap((w) => {
    const [startMs, endMs] = [Math.max(w.startMs, within.startMs), Math.min(w.endMs, within.endMs)];
    return endMs > startMs ? [{ startMs: utcMs(startMs), endMs: utcMs(endMs) }] : [];
  });
}

/**
 * An evening as its sheet has it: each stretch from its first act to its last sub, with the exposure that is really taken; stretches
 * that come to no sub are left out. So the plan, and everything shown of it, says what the sheet does.
 */
export function laidOut(at: SheetQuestion): Evening {
  const { lines } = nightSheet(at);
  const blocks = at.evening.blocks.flatMap((b, stage): PlannedBlock[] => {
    const mine = lines.flatMap((l, i) => (l.kind === "block" && l.stage === stage ? [i] : []));
    const [first, last] = [mine[0], mine.at(-1)];
    if (first === undefined || last === undefined) return [];
    // It begins with what is done for its first sub: centring, filter, focus.
    let from = first;
    while (from > 0 && ["centre", "filter", "focus", "flip"].includes(lines[from - 1]!.kind)) from--;
    const exposureMin = mine.reduce((sum, i) => {
      const l = lines[i]!;
      return sum + (l.kind === "block" ? (l.subs * l.subSec) / 60 : 0);
    }, 0);
    const subs = mine.reduce(
      (sum, i) => sum + (lines[i]!.kind === "block" ? (lines[i] as { subs: number }).subs : 0),
      0,
    );
    return [
      {
        ...b,
        slots: slotsOf(b),
        startMs: lines[from]!.startMs,
        endMs: lines[last]!.endMs,
        exposureMin,
        subs,
        countsMin: exposureMin * rateOf(b),
      },
    ];
  });
  const [first] = lines;
  return { ...at.evening, blocks, ...(first ? { setUpMs: first.startMs } : {}) };
}
