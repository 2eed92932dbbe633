import type { Channel } from "~/core/exposure";
import type { NightDate } from "~/core/time";
import { nightsBetween } from "~/core/time";
import { IDLE, type Column } from "./model";
import { NO_USE } from "./night";
import { slopeAt, topSlope } from "./reward";
import { Season } from "./state";
import type { Evening } from "./blocks";
import type { SeasonWork } from "./season-plan";

/** A project that could have had an evening, and what the season would lose by it. */
export interface Rival {
  readonly projectId: string;
  readonly channels: readonly Channel[];
  /** What it would bring that evening if it is clear, minutes at its best. */
  readonly countsMin: number;
  /** What the whole plan would lose in expectation if the evening went to it. */
  readonly lossMin: number;
  /** Evenings that the plan has for it elsewhere. */
  readonly otherNights: number;
}

/** A night that would do instead of another, and what the plan loses by it. */
export interface Instead {
  readonly night: NightDate;
  readonly lossMin: number;
}

/** What an evening brings a project, if it is clear. */
export interface Brings {
  readonly projectId: string;
  /** Of its whole goal, [0, 1]; and minutes that count. */
  readonly share: number;
  readonly countsMin: number;
  /** When its hours are there in expectation, with this evening and without it; null = not within the season. */
  readonly endWith: NightDate | null;
  readonly endWithout: NightDate | null;
  /** The next night that would bring as much; null = none of the next ones. */
  readonly asGood: NightDate | null;
}

/** Why an evening is as it is. */
export interface WhyEvening {
  readonly brings: readonly Brings[];
  /** What the plan would lose if nothing were done. */
  readonly idleLossMin: number;
  readonly rivals: readonly Rival[];
  /** For each project of the evening, the two nights that would do best instead. */
  readonly instead: Readonly<Record<string, readonly Instead[]>>;
}

const LOOK_AHEAD = 30; // nights; what comes later is no substitute
const ALTERNATIVES = 2;

/** The plan as the solver holds it, so that single evenings can be changed and weighed. */
function restored({ task, answer }: SeasonWork): Season {
  const season = new Season(task);
  season.restart(answer.plan.map((blocks, l) => season.column(l, blocks) ?? IDLE));
  return season;
}

/** The best an evening can do for one project alone, at the prices of what is still open. */
function aloneFor(season: Season, lane: number, project: number): Column {
  const { jobs } = season.task;
  const prices = jobs.map(({ project: p, reward }, k) =>
    p === project ? Math.max(slopeAt(reward, season.yields[k]!), 1e-3 * topSlope(reward)) : NO_USE,
  );
  return season.bestAt(lane, prices);
}

const AS_GOOD = 0.9; // of what it brings

/** The night by which a project has its hours in expectation, one lane left out; null where the season does not bring them. */
function expectedEnd(
  season: Season,
  { tables }: SeasonWork,
  project: number,
  without: number | null,
  now: Column,
  lane: number,
): NightDate | null {
  const { jobs } = season.task;
  const left = jobs.map((j) => (j.project === project ? (j.need ?? 0) : 0));
  const order = tables.lanes
    .map((_, l) => l)
    .sort((a, b) => nightsBetween(tables.lanes[b]!.night, tables.lanes[a]!.night));
  for (const l of order) {
    if (l === without) continue;
    const { jobs: given, yields } = l === lane ? now : season.chosen[l]!;
    given.forEach((k, j) => (left[k]! -= yields[j]!));
    if (left.every((min) => min <= 0.5)) return tables.lanes[l]!.night;
  }
  return null;
}

/** Why the plan has an evening as it is: what else competed, what each would cost, and which nights would do instead. */
export function whyEvening(
  work: SeasonWork,
  evening: Pick<Evening, "night" | "placeId" | "rigIds">,
): WhyEvening | null {
  const { tables, question } = work;
  const isIt = (l: (typeof tables.lanes)[number]) =>
    l.night === evening.night && l.placeId === evening.placeId && l.rigIds.join() === evening.rigIds.join();
  const lane = tables.lanes.findIndex(isIt);
  if (lane === -1) return null;
  const season = restored(work);
  const { task } = season;
  const now = season.chosen[lane]!;
  const idleLossMin = -season.change(lane, IDLE);
  season.take(lane, IDLE);
  const { chance } = task.lanes[lane]!;
  const planned = new Set(now.jobs.map((k) => task.jobs[k]!.project));
  const usable = [...new Set([...season.tables[lane]!.jobs].map((k) => task.jobs[k]!.project))];
  const rivals = usable
    .filter((p) => !planned.has(p))
    .flatMap((project): Rival[] => {
      const column = aloneFor(season, lane, project);
      if (column === IDLE) return [];
      const has = (c: Column) => c.jobs.some((k) => task.jobs[k]!.project === project);
      return [
        {
          projectId: question.projects[project]!.id,
          channels: [...new Set(column.jobs.map((k) => tables.jobs[k]!.channel))],
          countsMin: column.yields.reduce((a, b) => a + b, 0) / Math.max(chance, 1e-6),
          lossMin: idleLossMin - season.change(lane, column),
          otherNights: season.chosen.filter(has).length,
        },
      ];
    })
    .sort((a, b) => a.lossMin - b.lossMin);
  const instead: Record<string, Instead[]> = {};
  for (const project of planned) {
    const found = tables.lanes.flatMap((other, l): Instead[] => {
      const ahead = nightsBetween(evening.night, other.night);
      if (ahead <= 0 || ahead > LOOK_AHEAD || other.rigIds.join() !== evening.rigIds.join() || !season.isFree(l))
        return [];
      if (season.chosen[l]!.jobs.some((k) => task.jobs[k]!.project === project)) return [];
      const column = aloneFor(season, l, project);
      return column === IDLE ? [] : [{ night: other.night, lossMin: idleLossMin - season.change(l, column) }];
    });
    instead[question.projects[project]!.id] = found
      .sort((a, b) => a.lossMin - b.lossMin || (a.night < b.night ? -1 : 1))
      .slice(0, ALTERNATIVES)
      .sort((a, b) => (a.night < b.night ? -1 : 1));
  }
  const brings = [...planned].map((project): Brings => {
    const mine = now.jobs.flatMap((k, j) =>
      task.jobs[k]!.project === project ? [{ k, min: now.yields[j]! / Math.max(chance, 1e-6) }] : [],
    );
    const countsMin = mine.reduce((sum, m) => sum + m.min, 0);
    const goalMin = question.projects[project]!.wants.reduce((sum, w) => sum + w.goalMin, 0);
    const asGood = tables.lanes.flatMap((other, l) => {
      const ahead = nightsBetween(evening.night, other.night);
      if (ahead <= 0 || ahead > LOOK_AHEAD || other.rigIds.join() !== evening.rigIds.join() || !season.isFree(l))
        return [];
      const column = aloneFor(season, l, project);
      const there = column.yields.reduce((a, b) => a + b, 0) / Math.max(task.lanes[l]!.chance, 1e-6);
      return there >= AS_GOOD * countsMin ? [other.night] : [];
    });
    return {
      projectId: question.projects[project]!.id,
      share: goalMin > 0 ? countsMin / goalMin : 0,
      countsMin,
      endWith: expectedEnd(season, work, project, null, now, lane),
      endWithout: expectedEnd(season, work, project, lane, now, lane),
      asGood: asGood.sort()[0] ?? null,
    };
  });
  return { idleLossMin, rivals, instead, brings };
}
