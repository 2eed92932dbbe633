import { addNights, MINUTE_MS, nightsBetween, type NightDate } from "~/core/time";
import { lockConflicts, lockedNight, type LockConflict } from "./locks";
import type { Lane, Programme, Programmes, SeasonTask } from "./model";
import { bestProgramme, columnOf, nightTable, scratchFor } from "./night";
import { riskReward, topSlope } from "./reward";
import { playSeasons, type SeasonOdds } from "./seasons";
import { drivesOf, requestOf, usableChannels, type NightStock, type SeasonQuestion } from "./question";
import { solveSeason, type SeasonAnswer } from "./solve";
import { eveningsFrom, isWork, keyOfJob, keyOfLane, type Evening } from "./evening";
import { seasonTables, SLOT_MIN, type JobKey, type SeasonTables } from "./tables";

/** What a project still wants in a channel, and what the plan brings of it. */
export interface PlannedJob extends JobKey {
  readonly needMin: number;
  /** In expectation, clouds taken in; minutes at the target's best. */
  readonly expectedMin: number;
  /** What one more minute of it would add to the plan's worth. */
  readonly price: number;
}

/** When a project is done, over the seasons played. */
export interface FinishDates {
  readonly projectId: string;
  readonly tenth: NightDate | null;
  readonly half: NightDate | null;
  readonly ninetieth: NightDate | null;
  /** Share of seasons done by the end of each night. */
  readonly doneBy: readonly number[];
  /** Share done within the season. */
  readonly doneShare: number;
}

/** One plan for everything a person shoots. */
export interface SeasonPlan {
  readonly from: NightDate;
  readonly nights: number;
  readonly evenings: readonly Evening[];
  readonly jobs: readonly PlannedJob[];
  /** Expected minutes at their best towards all goals, weighed by priority; no plan brings more than the bound. */
  readonly value: number;
  readonly bound: number;
  readonly gap: number;
  /** Null until seasons have been played. */
  readonly odds: readonly FinishDates[] | null;
  readonly runs: number;
  readonly conflicts: readonly LockConflict[];
  /** A first plan, a better one, the last one, and that one with its odds. */
  readonly stage: "first" | "better" | "settled" | "whole";
}

/** What the plan was worked out with: for asking why, and for planning on from it. */
export interface SeasonWork {
  readonly question: SeasonQuestion;
  readonly tables: SeasonTables;
  /** With clouds in its rewards. */
  readonly task: SeasonTask;
  readonly answer: SeasonAnswer;
}

const NO_WORTH = (lane: Lane): Lane => ({ chance: lane.chance, worth: lane.worth.map((s) => s.map(() => 0)) });

/**
 * Nobody is at two places on one night: where more than one could be used, the night goes to the one worth most at the prices, the
 * road to it and back taken off, or as many hours as it has to bring more. Gives the lanes that are left and which were closed for it.
 */
function atOnePlace(tables: SeasonTables, prices: readonly number[], question: SeasonQuestion) {
  const { lanes, task } = tables;
  const travel = new Map(question.places.map((p) => [p.id, p.place.travelMin ?? 0]));
  const closed = new Set<number>();
  const byNight = new Map<NightDate, number[]>();
  lanes.forEach(({ night }, l) => byNight.set(night, [...(byNight.get(night) ?? []), l]));
  const night = lanes.map((_, l) => nightTable(task, task.lanes[l]!));
  const scratch = scratchFor(task, night);
  for (const mine of byNight.values()) {
    const places = [...new Set(mine.map((l) => lanes[l]!.placeId))];
    if (places.length < 2) continue;
    const worth = places.map((id) => {
      const there = mine.filter((l) => lanes[l]!.placeId === id);
      const sum = there.reduce((s, l) => s + bestProgramme(task, night[l]!, prices, scratch).value, 0);
      const chance = Math.max(0, ...there.map((l) => night[l]!.chance));
      const wanted = question.rules.drives?.find((d) => d.placeId === id)?.fromHours ?? 0;
      return sum - chance * Math.max(2 * (travel.get(id) ?? 0), 60 * wanted);
    });
    const best = worth.indexOf(Math.max(...worth));
    for (const l of mine) if (lanes[l]!.placeId !== places[best]) closed.add(l);
  }
  return {
    closed,
    task:
      closed.size === 0
        ? task
        : { ...task, lanes: task.lanes.map((lane, l) => (closed.has(l) ? NO_WORTH(lane) : lane)) },
  };
}

const LEAST_PRICE = 0.03; // of its priority: what is covered on average is still worth having

/** Prices of a plan for the jobs of a task: what it does not know counts in full. */
export const pricesOf = (plan: SeasonPlan, keys: readonly string[], task: SeasonTask): number[] =>
  task.jobs.map(({ reward }, k) => {
    const known = plan.jobs.find((j) => keyOfJob(j) === keys[k]);
    return Math.max(known?.price ?? topSlope(reward), LEAST_PRICE * topSlope(reward));
  });

const BOOSTS = 12;

/** A lane that has to do some things, one of each list of jobs: the programme at the prices if it has them all, else the prices raised until it does. */
function forced(
  task: SeasonTask,
  lane: number,
  wanted: readonly (readonly number[])[],
  prices: readonly number[],
): Programme | null {
  const table = nightTable(task, { chance: 1, worth: task.lanes[lane]!.worth });
  const scratch = scratchFor(task, [table]);
  const raised = prices.map((p, k) => (wanted.some((some) => some.includes(k)) ? Math.max(p, 1) : p));
  for (let i = 0; i < BOOSTS; i++) {
    const { blocks } = bestProgramme(task, table, raised, scratch);
    const missing = wanted.filter((some) => !blocks.some(([k]) => some.includes(k)));
    if (missing.length === 0) return blocks;
    for (const k of missing.flat()) raised[k]! *= 2;
  }
  return null;
}

/** The spread of what a plan brings, by job: clouds take nights whole, and clear ones come in runs. */
function spreads(task: SeasonTask, plan: Programmes, persistence: number): number[] {
  const variance = task.jobs.map(() => 0);
  const inflation = (1 + persistence) / (1 - persistence);
  plan.forEach((blocks, l) => {
    const lane = task.lanes[l]!;
    const column = columnOf(task, nightTable(task, { ...lane, chance: 1 }), blocks);
    column?.jobs.forEach(
      (k, j) => (variance[k]! += inflation * lane.chance * (1 - lane.chance) * column.yields[j]! ** 2),
    );
  });
  return variance.map(Math.sqrt);
}

/** A task whose rewards reckon with clouds: what is covered on average is not covered yet. */
const riskyTask = (task: SeasonTask, jobs: SeasonTables["jobs"], sigma: readonly number[]): SeasonTask => ({
  ...task,
  jobs: task.jobs.map((job, k) => ({
    ...job,
    reward: riskReward(jobs[k]!.needMin, sigma[k]!, topSlope(job.reward)),
  })),
});

const byId = (a: { readonly id: string }, b: { readonly id: string }) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** The same question with everything in one order, so that the order in which things were stored changes nothing. */
const inOrder = (question: SeasonQuestion): SeasonQuestion => ({
  ...question,
  places: [...question.places].sort(byId),
  rigs: [...question.rigs].sort(byId),
  projects: [...question.projects].sort(byId).map((p) => ({
    ...p,
    wants: [...p.wants].sort((a, b) => (a.channel < b.channel ? -1 : a.channel > b.channel ? 1 : a.subSec - b.subSec)),
  })),
  locks: [...question.locks].sort(byId),
});

const SEED = 20_261_205; // fixed, so that two plans differ by their inputs only
const QUICK = { wantedGap: 0.02, mostRounds: 2 };
const GOOD_GAP = 0.004;
const WORK = 280_000; // lanes × jobs × rounds: about three seconds of a slow machine

/** How far a plan is bettered: nearer for small seasons, in counted rounds for large ones. */
const roundsFor = (task: SeasonTask): number =>
  Math.max(4, Math.min(24, Math.round(WORK / Math.max(1, task.lanes.length * task.jobs.length))));

/**
 * Plans a season: tables, a first plan, the spread that clouds give it, the plan that reckons with them, and the odds of following
 * it. Gives every plan that is better than the one before; the last has its odds. `before` makes a plan that changes little start
 * from the last one; `isSame` says that it answers this very question, so that only what it was worked out with is put together
 * again. Deterministic.
 */
export function* planSeason(
  asked: SeasonQuestion,
  stock: NightStock = new Map(),
  before: SeasonPlan | null = null,
  isSame = false,
): Generator<SeasonPlan, { readonly plan: SeasonPlan; readonly work: SeasonWork }> {
  const question = inOrder(asked);
  const { projects, rules, persistence } = question;
  const usable = new Map<string, ReturnType<typeof usableChannels>>();
  const usableOn = (id: string, night: NightDate) => {
    const key = `${id} ${night}`;
    const known = usable.get(key) ?? usableChannels(question, id, night, stock);
    usable.set(key, known);
    return known;
  };
  const conflicts = lockConflicts(
    question.locks,
    projects.map((p) => ({ ...p, hasWork: p.wants.some((w) => w.remainingMin > 0.5) })),
    { ...rules, drives: drivesOf(question), usable: usableOn },
  );
  const set = new Set(conflicts.flatMap((c) => c.locks));
  const locks = question.locks.filter((l) => !set.has(l.id) && nightsBetween(question.from, l.night) >= 0);
  const tables = seasonTables(requestOf(question, locks, stock));
  const { lanes, jobs } = tables;
  const warmPrices = jobs.map(
    (j, k) => before?.jobs.find((b) => keyOfJob(b) === keyOfJob(j))?.price ?? topSlope(tables.task.jobs[k]!.reward) / 2,
  );
  const placed = atOnePlace(tables, warmPrices, question);
  const hold = (task: SeasonTask, prices: readonly number[], plan: Programmes): SeasonTask => {
    const fixes = lanes.map((lane, l) => {
      if (placed.closed.has(l)) return null;
      const wanted = lockedNight(locks, lane.night).fixed.flatMap((fix) => {
        const p = projects.find((x) => x.id === fix.projectId);
        if (!p || !lane.rigIds.includes(p.rigId)) return [];
        return [jobs.flatMap((job, k) => (isWork(job, fix) ? [k] : []))];
      });
      const has = wanted.every((some) => plan[l]?.some(([k]) => some.includes(k)));
      return has ? null : forced(task, l, wanted, prices);
    });
    return fixes.some(Boolean)
      ? { ...task, lanes: task.lanes.map((lane, l) => (fixes[l] ? { ...lane, fixed: fixes[l] } : lane)) }
      : task;
  };
  const evenings = eveningsFrom(question, tables, locks, placed.closed);
  const shown = (answer: SeasonAnswer, odds: SeasonOdds | null, stage: SeasonPlan["stage"]): SeasonPlan => ({
    from: question.from,
    nights: question.nights,
    evenings: evenings(answer.plan),
    jobs: jobs.map((job, k) => ({
      projectId: job.projectId,
      channel: job.channel,
      subSec: job.subSec,
      ...(job.turn ? { turn: job.turn } : {}),
      needMin: job.needMin,
      expectedMin: answer.yields[k]!,
      price: answer.prices[k]!,
    })),
    value: answer.value,
    bound: answer.bound,
    gap: answer.gap,
    odds: odds?.projects.map((o) => finishOf(question, o)) ?? null,
    runs: odds?.runs ?? 0,
    conflicts,
    stage,
  });
  const start = before === null ? null : programmesOf(before, tables);
  if (before && start && isSame) {
    const task = riskyTask(placed.task, jobs, spreads(placed.task, start, persistence));
    const answer = { plan: start, value: before.value, bound: before.bound, gap: before.gap, yields: before.jobs.map((j) => j.expectedMin), prices: warmPrices, rounds: 0, pools: [] }; // prettier-ignore
    return { plan: before, work: { question, tables, task, answer } };
  }
  const quick = solveSeason(placed.task, start ? { ...QUICK, warm: { prices: warmPrices, plan: start } } : QUICK);
  let first = quick.next();
  if (!first.done) yield shown(first.value, null, "first");
  while (!first.done) first = quick.next();
  const sigma = spreads(placed.task, first.value.plan, persistence);
  const risky = riskyTask(placed.task, jobs, sigma);
  let task = hold(risky, first.value.prices, first.value.plan);
  let answer: SeasonAnswer = first.value;
  // Once more where what is fixed by hand fell out again, because it is covered without it: then it is held.
  for (let again = true; again;) {
    const solve = solveSeason(task, {
      wantedGap: GOOD_GAP,
      mostRounds: roundsFor(task),
      warm: { prices: answer.prices, plan: answer.plan },
    });
    let step = solve.next();
    while (!step.done) {
      yield shown(step.value, null, "better");
      step = solve.next();
    }
    answer = step.value;
    const held = hold(task, answer.prices, answer.plan);
    again = held !== task;
    task = held;
  }
  yield shown(answer, null, "settled");
  const weather = {
    nightOf: lanes.map((l) => nightsBetween(question.from, l.night)),
    placeOf: lanes.map((l) => l.placeId),
    persistence,
    // What is known of the night before is in the chances of the first nights.
    wasClear: null,
  };
  const odds = playSeasons({ ...task, jobs: placed.task.jobs }, answer.plan, answer.pools, weather, {
    runs: question.runs,
    seed: SEED,
  });
  return { plan: shown(answer, odds, "whole"), work: { question, tables, task, answer } };
}

/** The odds of a project by date. */
function finishOf(
  question: SeasonQuestion,
  { project, tenth, half, ninetieth, doneBy }: SeasonOdds["projects"][number],
): FinishDates {
  const date = (n: number | null) => (n === null ? null : addNights(question.from, n));
  return {
    projectId: question.projects[project]!.id,
    tenth: date(tenth),
    half: date(half),
    ninetieth: date(ninetieth),
    doneBy,
    doneShare: doneBy.at(-1) ?? 0,
  };
}

/** The evenings of a plan as programmes of other tables: blocks that are still possible where they were. */
function programmesOf(plan: SeasonPlan, { lanes, jobs }: SeasonTables): Programmes {
  const evenings = new Map(plan.evenings.map((e) => [keyOfLane(e), e]));
  const numbers = new Map(jobs.map((j, k) => [keyOfJob(j), k]));
  const slot = SLOT_MIN * MINUTE_MS;
  return lanes.map((lane) =>
    (evenings.get(keyOfLane(lane))?.blocks ?? []).flatMap((b) => {
      const job = numbers.get(keyOfJob(b));
      const from = Math.floor((b.startMs - lane.startMs) / slot);
      return job === undefined ? [] : [[job, from, Math.ceil((b.endMs - lane.startMs) / slot)] as const];
    }),
  );
}

/** The plan, with nothing of the way to it. */
export function plannedSeason(question: SeasonQuestion, stock?: NightStock, before?: SeasonPlan | null) {
  const work = planSeason(question, stock, before);
  for (let step = work.next(); ; step = work.next()) if (step.done) return step.value;
}

/** The evenings of a night: one for each rig that has something to do, or could have. */
export const eveningsOf = (plan: SeasonPlan, night: NightDate): Evening[] =>
  plan.evenings.filter((e) => e.night === night);
