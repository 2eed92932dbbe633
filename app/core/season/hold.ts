import { bestColumn } from "./night";
import { scratchFor } from "./night-scratch";
import { isWork } from "./evening";
import { lockedNight, type Lock } from "./locks";
import type { NightChoice, Programme, SeasonTask } from "./model";
import type { SeasonQuestion } from "./question";
import type { SeasonAnswer } from "./solve";
import { nightTable } from "./table";
import type { SeasonTables } from "./request";

/** The lists of jobs of which a lane has to do one each, by what is fixed on its night. */
function wantedOn(tables: SeasonTables, question: SeasonQuestion, locks: readonly Lock[], lane: number): number[][] {
  const { night, rigIds } = tables.lanes[lane]!;
  return lockedNight(locks, night).fixed.flatMap((fix) => {
    const p = question.projects.find((x) => x.id === fix.projectId);
    if (!p || !rigIds.includes(p.rigId)) return [];
    return [tables.jobs.flatMap((job, k) => (isWork(job, fix) ? [k] : []))];
  });
}

/**
 * The nights that can be spent at several places, and what each costs: the road there and back, or as many minutes as it has to bring
 * more. Where something is fixed by hand only places stay at which it can be done.
 */
export function placesFor(tables: SeasonTables, question: SeasonQuestion, locks: readonly Lock[]): NightChoice[] {
  const { lanes, task } = tables;
  const travel = new Map(question.places.map((p) => [p.id, p.place.travelMin ?? 0]));
  const byNight = new Map<string, number[]>();
  lanes.forEach(({ night }, l) => byNight.set(night, [...(byNight.get(night) ?? []), l]));
  return [...byNight.values()].flatMap((mine): NightChoice[] => {
    const ids = [...new Set(mine.map((l) => lanes[l]!.placeId))].sort(
      (a, b) => (travel.get(a) ?? 0) - (travel.get(b) ?? 0) || (a < b ? -1 : 1),
    );
    if (ids.length < 2) return [];
    const places = ids.map((id) => {
      const there = mine.filter((l) => lanes[l]!.placeId === id);
      const chance = Math.max(0, ...there.map((l) => task.lanes[l]!.chance));
      const drive = question.rules.drives?.find((d) => d.placeId === id);
      const road = 2 * (travel.get(id) ?? 0);
      return { lanes: there, cost: chance * Math.max(road, 60 * (drive?.fromHours ?? 0)) };
    });
    const canDo = (some: readonly number[]) =>
      some.every((l) =>
        wantedOn(tables, question, locks, l).every((jobs) =>
          task.lanes[l]!.worth.some((slot) => jobs.some((k) => slot[k]! > 0)),
        ),
      );
    const isAsked = mine.some((l) => wantedOn(tables, question, locks, l).length > 0);
    const left = isAsked ? places.filter((p) => canDo(p.lanes)) : places;
    return [{ places: left.length > 0 ? left : places }];
  });
}

const BOOSTS = 12;

/** A lane that has to do some things, one of each list of jobs: the programme at the prices if it has them all, else the prices raised until it does. */
function forced(
  task: SeasonTask,
  lane: number,
  wanted: readonly (readonly number[])[],
  prices: readonly number[],
): Programme | null {
  const { lateness: _late, ...rest } = task.lanes[lane]!;
  const table = nightTable(task, { ...rest, worth: rest.clear ?? rest.worth, chance: 1 });
  const scratch = scratchFor(task, [table]);
  const raised = prices.map((p, k) => (wanted.some((some) => some.includes(k)) ? Math.max(p, 1) : p));
  for (let i = 0; i < BOOSTS; i++) {
    const { blocks } = bestColumn(task, table, raised, scratch);
    const missing = wanted.filter((some) => !blocks.some(([k]) => some.includes(k)));
    if (missing.length === 0) return blocks;
    for (const k of missing.flat()) raised[k]! *= 2;
  }
  return null;
}

/**
 * How what is fixed by hand is held: a lane whose plan has it stays as free as it was, one whose plan has not is given a programme that
 * has. Gives the same task where nothing had to be held.
 */
export function holding(
  tables: SeasonTables,
  question: SeasonQuestion,
  locks: readonly Lock[],
): (task: SeasonTask, answer: SeasonAnswer) => SeasonTask {
  const wanted = tables.lanes.map((_, l) => wantedOn(tables, question, locks, l));
  return (task, { plan, prices }) => {
    const placeOf = (l: number) => (task.choices ?? []).find((c) => c.places.some((p) => p.lanes.includes(l)));
    const fixes = tables.lanes.map((_, l) => {
      if (wanted[l]!.length === 0 || task.lanes[l]!.fixed) return null;
      const has = wanted[l]!.every((some) => plan[l]?.some(([k]) => some.includes(k)));
      if (has) return null;
      // Of several places the one where the night is spent, else the first.
      const choice = placeOf(l);
      if (choice) {
        const busy = choice.places.find((p) => p.lanes.some((x) => (plan[x]?.length ?? 0) > 0)) ?? choice.places[0]!;
        if (!busy.lanes.includes(l)) return null;
      }
      return forced(task, l, wanted[l]!, prices);
    });
    return fixes.some(Boolean)
      ? { ...task, lanes: task.lanes.map((lane, l) => (fixes[l] ? { ...lane, fixed: fixes[l] } : lane)) }
      : task;
  };
}
