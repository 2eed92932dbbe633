import { addNights, nightsBetween, type NightDate } from "~/core/time";
import { asBegun, programmesOf, staying, underWay } from "./before";
import { columnOf } from "./columns";
import { eveningsFrom, keyOfJob, keyOfLane } from "./evening";
import type { Evening } from "./blocks";
import { filled } from "./fill";
import { exactSeason } from "./exact";
import { holding, placesFor } from "./hold";
import { lockConflicts, type LockConflict } from "./locks";
import type { Programmes, SeasonTask } from "./model";
import { drivesOf, requestOf, usableChannels, type NightStock, type SeasonQuestion } from "./question";
import { riskReward, topSlope } from "./reward";
import { seasonsPlayed, type SeasonOdds } from "./seasons";
import { solveSeason, type SeasonAnswer } from "./solve";
import { nightTable } from "./table";
import type { FinishDates, SeasonPlan, SeasonWork } from "./season-plan";
import { seasonTables } from "./tables";
import { hasLeft } from "./wants";

/** How much of its mean the variance of what a plan brings is, by job: clouds take nights whole, and clear ones come in runs. */
function spreads(task: SeasonTask, plan: Programmes, persistence: number): number[] {
  const variance = task.jobs.map(() => 0);
  const mean = task.jobs.map(() => 0);
  const inflation = (1 + persistence) / (1 - persistence);
  plan.forEach((blocks, l) => {
    const lane = task.lanes[l]!;
    const column = columnOf(task, nightTable(task, { ...lane, chance: 1 }), blocks);
    column?.jobs.forEach((k, j) => {
      variance[k]! += inflation * lane.chance * (1 - lane.chance) * column.yields[j]! ** 2;
      mean[k]! += lane.chance * column.yields[j]!;
    });
  });
  return variance.map((v, k) => (mean[k]! > 0 ? v / mean[k]! : 0));
}

/** A task whose rewards reckon with clouds: what is covered on average is not covered yet. */
const riskyTask = (task: SeasonTask, scale: readonly number[]): SeasonTask => ({
  ...task,
  jobs: task.jobs.map((job, k) => ({
    ...job,
    reward: riskReward(job.need ?? 0, scale[k]!, job.priority ?? topSlope(job.reward)),
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
const SMALL = 14; // lanes with anything to do, up to which the plan is finished exactly
const EXACT_NODES = 60_000;
const EXACT_PROGRAMMES = 1500; // of a lane

/** How far a plan is bettered: nearer for small seasons, in counted rounds for large ones. */
const roundsFor = (task: SeasonTask): number =>
  Math.max(4, Math.min(24, Math.round(WORK / Math.max(1, task.lanes.length * task.jobs.length))));

/** What a plan may start from, and who lays its evenings out by the clock. */
export interface Planning {
  /** Nights over places that are known already. */
  readonly stock?: NightStock;
  /** An answer to nearly the same question, to start from. */
  readonly before?: SeasonPlan | null;
  /** The plan that its owner saw last: evenings stay as they were unless a change is worth more than that. */
  readonly seen?: SeasonPlan | null;
  /** `before` answers this very question, or this one but for locks that it keeps anyhow: it is the plan. */
  readonly isSame?: boolean;
  /** Lays the evenings of a settled plan out by the clock; absent = as the slots come. */
  readonly lay?: (evenings: readonly Evening[]) => readonly Evening[];
}

/**
 * Plans a season: tables, a first plan, the spread that clouds give it, the plan that reckons with them, and the odds of following
 * it. Gives every plan that is better than the one before; the last has its odds. Deterministic.
 */
export function* planSeason(
  asked: SeasonQuestion,
  { stock = new Map(), before = null, seen = null, isSame = false, lay = (e) => e }: Planning = {},
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
    projects.map((p) => ({ ...p, hasWork: p.wants.some(hasLeft) })),
    { ...rules, drives: drivesOf(question), usable: usableOn },
  );
  const set = new Set(conflicts.flatMap((c) => c.locks));
  const locks = question.locks.filter((l) => !set.has(l.id) && nightsBetween(question.from, l.night) >= 0);
  const tables = seasonTables(requestOf(question, locks, stock));
  const { lanes, jobs } = tables;
  const warmPrices = jobs.map(
    (j, k) => before?.jobs.find((b) => keyOfJob(b) === keyOfJob(j))?.price ?? topSlope(tables.task.jobs[k]!.reward) / 2,
  );
  const plain: SeasonTask = staying(
    underWay({ ...tables.task, choices: placesFor(tables, question, locks) }, tables, question),
    tables,
    seen,
    question.from,
  );
  const eveningsOfSlots = eveningsFrom(question, { ...tables, task: plain }, locks);
  const evenings = (plan: Programmes) => asBegun(question, eveningsOfSlots(plan));
  const shown = (answer: SeasonAnswer, odds: SeasonOdds | null, stage: SeasonPlan["stage"]): SeasonPlan => ({
    from: question.from,
    nights: question.nights,
    evenings: evenings(answer.plan),
    jobs: jobs.map((job, k) => ({
      projectId: job.projectId,
      channel: job.channel,
      subSec: job.subSec,
      ...(job.turn ? { turn: job.turn } : {}),
      ...(job.isShort ? { isShort: true } : {}),
      needMin: job.needMin,
      expectedMin: answer.yields[k]!,
      price: answer.prices[k]!,
    })),
    value: answer.value,
    bound: answer.bound,
    gap: answer.gap,
    odds: odds?.projects.map((o) => finishOf(question, o)) ?? null,
    literally: null,
    runs: odds?.runs ?? 0,
    conflicts,
    stage,
  });
  const start = before === null ? null : programmesOf(before, tables);
  if (before && start && isSame) {
    const task = riskyTask(plain, spreads(plain, start, persistence));
    const answer = {
      plan: start,
      value: before.value,
      bound: before.bound,
      gap: before.gap,
      yields: before.jobs.map((j) => j.expectedMin),
      prices: warmPrices,
      rounds: 0,
      pools: [],
    };
    return { plan: relocked(before, evenings(start), conflicts), work: { question, tables, task, answer } };
  }
  const quick = solveSeason(plain, start ? { ...QUICK, warm: { prices: warmPrices, plan: start } } : QUICK);
  let first = quick.next();
  if (!first.done) yield shown(first.value, null, "first");
  while (!first.done) first = quick.next();
  const hold = holding(tables, question, locks);
  let task = hold(riskyTask(plain, spreads(plain, first.value.plan, persistence)), first.value);
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
    answer = finished(task, step.value);
    const held = hold(task, answer);
    again = held !== task;
    task = held;
  }
  answer = filled(task, answer, lanes);
  const settled = shown(answer, null, "settled");
  const laid = { ...settled, evenings: asBegun(question, lay(settled.evenings)) };
  yield laid;
  const weather = {
    nightOf: lanes.map((l) => nightsBetween(question.from, l.night)),
    placeOf: lanes.map((l) => l.placeId),
    persistence,
  };
  const spare = jobs.map((j) => j.subSec / 60); // at most one sub left is done
  const play = (playing: "anew" | "literally", runs: number) =>
    seasonsPlayed(plain, answer, weather, { runs, seed: SEED, spare, playing });
  const literal = play("literally", question.runs);
  let kept = literal.next();
  while (!kept.done) kept = literal.next();
  const anew = play("anew", question.runs);
  let odds = anew.next();
  while (!odds.done) {
    yield laid; // so that a newer question can end this one
    odds = anew.next();
  }
  const plan: SeasonPlan = {
    ...laid,
    odds: odds.value.projects.map((o) => finishOf(question, o)),
    literally: kept.value.projects.map((o) => finishOf(question, o)),
    runs: odds.value.runs,
    stage: "whole",
  };
  return { plan, work: { question, tables, task, answer } };
}

/** A plan under other locks, all of which it keeps: what is kept or closed by hand is said anew. */
function relocked(plan: SeasonPlan, fresh: readonly Evening[], conflicts: readonly LockConflict[]): SeasonPlan {
  const now = new Map(fresh.map((e) => [keyOfLane(e), e]));
  const evenings = plan.evenings.map((e) => {
    const { isFixed = e.isFixed, closed = e.closed } = now.get(keyOfLane(e)) ?? {};
    return isFixed === e.isFixed && closed === e.closed ? e : { ...e, isFixed, closed };
  });
  return { ...plan, evenings, conflicts };
}

/** A small season finished exactly, as far as that is little work. */
function finished(task: SeasonTask, answer: SeasonAnswer): SeasonAnswer {
  const busy = task.lanes.filter((l) => l.chance > 0 && l.worth.some((slot) => slot.some((w) => w > 0)));
  const hasChoice = (task.choices ?? []).some((c) => c.places.length > 1);
  if (answer.gap <= GOOD_GAP || hasChoice || busy.length > SMALL || task.jobs.length > 4) return answer;
  const exact = exactSeason(task, answer, { mostNodes: EXACT_NODES, mostProgrammes: EXACT_PROGRAMMES });
  const bound = exact.isProven ? exact.value : answer.bound;
  return {
    ...answer,
    plan: exact.plan,
    value: exact.value,
    bound,
    yields: exact.yields,
    gap: bound > 0 ? Math.max(0, (bound - exact.value) / bound) : 0,
  };
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

/** The plan, with nothing of the way to it. */
export function plannedSeason(question: SeasonQuestion, from: Planning = {}) {
  const work = planSeason(question, from);
  for (let step = work.next(); ; step = work.next()) if (step.done) return step.value;
}

/** The evenings of a night: one for each rig that has something to do, or could have. */
export const eveningsOf = (plan: SeasonPlan, night: NightDate): Evening[] =>
  plan.evenings.filter((e) => e.night === night);
