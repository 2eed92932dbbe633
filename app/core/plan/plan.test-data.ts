import { DEFAULT_OVERHEADS } from "~/core/exposure";
import { bestRate, targetNight, USUAL_MOON, type Place, type PlaceNight } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import type { NightDate } from "~/core/time";
import type { Need } from "./project";
import { USUAL_PERSON_RULES, type Evening, type PlannedBlock, type SeasonQuestion } from "~/core/season";

/** A project of a test: what it points at and what it wants. */
export interface TestProject {
  readonly id: string;
  readonly target: Equatorial<"icrs">;
  readonly needs: readonly Need[];
  readonly rigId?: string;
  readonly placeId?: string;
  readonly priority?: number;
  readonly counts?: "kept" | "light";
}

/** A question about projects at one place, or at several. */
export function testQuestion(
  projects: readonly TestProject[],
  at: {
    readonly places: Readonly<Record<string, Place>>;
    readonly from: NightDate;
    readonly nights: number;
    readonly chance?: number;
  },
  more: Partial<SeasonQuestion> = {},
): SeasonQuestion {
  const [home] = Object.keys(at.places);
  return {
    from: at.from,
    nights: at.nights,
    fromMs: null,
    places: Object.entries(at.places).map(([id, place]) => ({
      id,
      place,
      chances: Array<number>(at.nights).fill(at.chance ?? 0.4),
      hours: {},
      within: {},
    })),
    rigs: [...new Set(projects.map((p) => p.rigId ?? "rig"))].map((id) => ({ id, overheads: DEFAULT_OVERHEADS })),
    projects: projects.map((p) => {
      const placeId = p.placeId ?? home!;
      const keys = [...new Set(p.needs.map((n) => `${n.channel} ${n.subSec}`))];
      return {
        id: p.id,
        priority: p.priority ?? 1,
        counts: p.counts ?? "light",
        target: p.target,
        placeId,
        rigId: p.rigId ?? "rig",
        moon: USUAL_MOON,
        wants: keys.map((key) => {
          const mine = p.needs.filter((n) => `${n.channel} ${n.subSec}` === key);
          const { channel, subSec } = mine[0]!;
          return {
            channel,
            subSec,
            goalMin: mine.reduce((s, n) => s + n.goalMin, 0),
            remainingMin: mine.reduce((s, n) => s + n.remainingMin, 0),
            bestRate: bestRate(at.places[placeId]!, p.target, channel),
          };
        }),
      };
    }),
    rules: USUAL_PERSON_RULES,
    locks: [],
    trips: [],
    persistence: 0.35,
    wasClear: null,
    runs: 300,
    ...more,
  };
}

/** A block from the first to the last usable moment of a target. */
export function wholeBlock(
  night: PlaceNight,
  project: Pick<TestProject, "id" | "target">,
  channel: Need["channel"],
  subSec = 300,
): PlannedBlock {
  const { windows, usableMin, worthMin } = targetNight(night, project.target, channel);
  const [first, last] = [windows[0]!, windows.at(-1)!];
  return {
    projectId: project.id,
    channel,
    subSec,
    startMs: first.startMs,
    endMs: last.endMs,
    countsMin: worthMin,
    exposureMin: usableMin,
  };
}

/** An evening of given blocks. */
export const testEvening = (night: PlaceNight, blocks: readonly PlannedBlock[]): Evening => ({
  night: night.date,
  placeId: "home",
  rigIds: ["rig"],
  chance: 0.4,
  usableMin: 600,
  blocks,
  isFixed: false,
  closed: null,
});
