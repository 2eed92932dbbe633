import { efficiencyOf, type Channel, type Overheads } from "~/core/exposure";
import { placeNight, targetNight, withMoon, type MoonWishes, type Place, type PlaceNight } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import { addNights, MINUTE_MS, utcMs, type NightDate, type UtcMs } from "~/core/time";
import type { Lane, SeasonJob, SeasonTask } from "./model";
import { capReward } from "./reward";

/** What one project wants in one channel, in worth minutes (MATHS 6.2): minutes of exposure at the place's moonless zenith. */
export interface ChannelWant {
  readonly channel: Channel;
  readonly goalMin: number;
  readonly remainingMin: number;
  readonly subSec: number;
}

/** A project as it takes part in a season: with its owner's place and rig. */
export interface SeasonProject {
  readonly id: string;
  /** What a worth minute of it counts against one of the others. */
  readonly priority: number;
  readonly target: Equatorial<"icrs">;
  readonly placeId: string;
  readonly rigId: string;
  readonly moon: MoonWishes;
  readonly wants: readonly ChannelWant[];
  /** The last night that counts. */
  readonly deadline?: NightDate;
}

/** A person's season: what is to be shot, with what, from where, under which rules. */
export interface SeasonRequest {
  readonly from: NightDate;
  readonly nights: number;
  readonly places: readonly { readonly id: string; readonly place: Place }[];
  readonly rigs: readonly { readonly id: string; readonly overheads: Overheads }[];
  readonly projects: readonly SeasonProject[];
  /** Chance that a night is clear at a place, 0 to 1. */
  readonly chanceOf: (placeId: string, night: NightDate) => number;
  /** Whether the person can be out that night. */
  readonly isFree: (night: NightDate) => boolean;
  readonly targetsANight: number;
  readonly minBlockMin: number;
}

/** A lane as people know it. */
export interface SeasonLane {
  readonly night: NightDate;
  readonly placeId: string;
  readonly rigId: string;
  /** Start of its first slot. */
  readonly startMs: UtcMs;
}

/** A season as numbers, and what the numbers stand for. */
export interface SeasonTables {
  readonly task: SeasonTask;
  readonly lanes: readonly SeasonLane[];
  readonly jobs: readonly { readonly projectId: string; readonly channel: Channel }[];
}

/** Slots of a season: five steps of a night. */
export const SLOT_MIN = 15;
/** Worth minutes that a block costs by itself: of two like plans the one with fewer changes; a proposal of this project. */
const TICK = 0.5;
const DONE_MIN = 0.5; // half a minute of rest is none

/**
 * The tables of a season: for every rig at its place and every night, what each slot is worth to each project and channel when it
 * is clear. Sky and channels of a night are made once a place and shared. Judged at a project's centre: panels of a mosaic are one
 * job. `onNight` hears of each night done.
 */
export function seasonTables(request: SeasonRequest, onNight?: (done: number) => void): SeasonTables {
  const { projects, rigs, places } = request;
  const open = projects.flatMap((project, number) =>
    project.wants.flatMap((want) => (want.remainingMin > DONE_MIN ? [{ project, number, want }] : [])),
  );
  const jobs: SeasonJob[] = open.map(({ project, number, want }) => ({
    project: number,
    reward: capReward(want.remainingMin, project.priority),
  }));
  const overheadsOf = new Map(rigs.map((r) => [r.id, r.overheads]));
  const efficiency = open.map(({ project, want }) => {
    const overheads = overheadsOf.get(project.rigId);
    return overheads ? efficiencyOf(want.subSec, overheads) : 1;
  });
  const lanes: SeasonLane[] = [];
  const rows: Lane[] = [];
  // A rig stands where its projects say; one that is used at two places is two lanes.
  const stands = [...new Map(projects.map((p) => [`${p.rigId}\n${p.placeId}`, p])).values()];
  for (let n = 0; n < request.nights; n++) {
    const date = addNights(request.from, n);
    const skies = new Map<string, PlaceNight>();
    for (const { rigId, placeId } of stands) {
      const place = places.find((p) => p.id === placeId)?.place;
      if (!place) continue;
      const mine = open.map(({ project }) => project.rigId === rigId && project.placeId === placeId);
      const first = open.find((_, k) => mine[k]);
      if (!first) continue;
      const night = skies.get(placeId) ?? placeNight(place, date, first.project.moon);
      skies.set(placeId, night);
      const { steps } = night;
      const slotOf = (i: number) =>
        Math.floor((steps.startMs + (i + 0.5) * steps.stepMin * MINUTE_MS) / (SLOT_MIN * MINUTE_MS));
      const [from, to] = steps.count > 0 ? [slotOf(0), slotOf(steps.count - 1) + 1] : [0, 0];
      const worth = Array.from({ length: to - from }, () => open.map(() => 0));
      if (request.isFree(date))
        open.forEach(({ project, want }, k) => {
          if (!mine[k] || (project.deadline !== undefined && date > project.deadline)) return;
          const { walk } = targetNight(withMoon(night, project.moon), project.target, want.channel);
          for (let i = 0; i < steps.count; i++)
            if (walk.worth[i]! > 0) worth[slotOf(i) - from]![k]! += walk.worth[i]! * steps.stepMin * efficiency[k]!;
        });
      lanes.push({ night: date, placeId, rigId, startMs: utcMs(from * SLOT_MIN * MINUTE_MS) });
      rows.push({ chance: request.chanceOf(placeId, date), worth });
    }
    onNight?.(n + 1);
  }
  const set = rigs.map((r) => r.overheads);
  const most = (of: (o: Overheads) => number) => Math.min(SLOT_MIN, Math.max(0, ...set.map(of)));
  return {
    lanes,
    jobs: open.map(({ project, want }) => ({ projectId: project.id, channel: want.channel })),
    task: {
      slotMin: SLOT_MIN,
      targetsANight: request.targetsANight,
      minSlots: Math.max(1, Math.ceil(request.minBlockMin / SLOT_MIN)),
      lostMin: {
        start: most((o) => o.focusMin + o.panelChangeSec / 60),
        target: most((o) => o.panelChangeSec / 60 + o.focusMin + o.filterChangeSec / 60),
        filter: most((o) => o.filterChangeSec / 60 + o.focusMin),
      },
      tick: TICK,
      jobs,
      lanes: rows,
    },
  };
}
