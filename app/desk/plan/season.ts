import { coversOf, keeps } from "./plan-fits";
import { isProvisional } from "./asking";
import { readyQuestion, seasonQuestion } from "./season-question";
import { type SeasonPlan, type SeasonQuestion } from "~/core/season";
import type { Library } from "~/desk/records/library";
import { choiceOf } from "~/desk/sky/choice";
import { ownContextsOf } from "~/desk/projects/project";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";
import { slot, type Desk } from "~/desk/desk";
import { createKeptPlans, readKeptPlan, type KeptPlan } from "~/storage/kept-plan";

/** What is under way with the plan. */
interface UnderWay {
  /** The plan that its owner has had before their eyes on the season's page: what moved is told against it. */
  seen: SeasonPlan | null;
  /** The plan that screens showed last: evenings stay as they were in it unless a change is worth more than staying. Read once from what the browser kept. */
  shown: Promise<KeptPlan | null> | null;
  /** The plan that ships with the demo, fetched once. */
  shipped: Promise<KeptPlan | null> | null;
  run: { readonly sum: string; readonly butLocks: string; readonly it: SeasonRun } | null;
  /** How often a plan was asked for, and for which of them the run under way was begun. */
  calls: number;
  begunFor: number;
}
const underWay = slot((): UnderWay => ({
  seen: null,
  shown: null,
  shipped: null,
  run: null,
  calls: 0,
  begunFor: 0,
}));

/** Plans that were made in this browser. */
export const thePlans = slot(({ cupboard }) => createKeptPlans(cupboard));

/** A plan being made: the best so far, and the ones still to come. */
export interface SeasonRun {
  readonly question: SeasonQuestion;
  /** Of the question: under it the plan is kept. */
  readonly sum: string;
  /** The plan that its owner saw last; null where none was seen. */
  readonly before: () => SeasonPlan | null;
  /** The plan that this one took the place of; null where there was none. */
  readonly previous: () => SeasonPlan | null;
  /** The best plan so far; null before the first. */
  readonly latest: () => SeasonPlan | null;
  /** Hears of every better plan; gives the way to stop listening. */
  readonly listen: (onPlan: (plan: SeasonPlan) => void) => () => void;
  /** What the next evenings look like, at once: the plan its owner saw last, or these evenings planned by themselves; later the plan itself. */
  readonly soon: Promise<SeasonPlan>;
  /** The plan that is not bettered any more. */
  readonly settled: Promise<SeasonPlan>;
  /** The same with its odds. */
  readonly whole: Promise<SeasonPlan>;
}

/** Its owner has had this plan before their eyes: the next one is compared with it. */
export const markSeen = (desk: Desk, plan: SeasonPlan): void => void (desk.at(underWay).seen = plan);

function shownLast(desk: Desk): Promise<KeptPlan | null> {
  const at = desk.at(underWay);
  return (at.shown ??= desk
    .at(thePlans)
    .shown()
    .catch(() => null));
}

const readShipped = async (desk: Desk): Promise<KeptPlan | null> =>
  desk.isDemo ? readKeptPlan(await desk.supplies.plan().catch(() => null)) : null;

/** The plan that ships with the demo, for a first visit; null elsewhere. */
const shipped = (desk: Desk): Promise<KeptPlan | null> => (desk.at(underWay).shipped ??= readShipped(desk));

/** What a plan in the making starts from. */
interface Start {
  readonly question: SeasonQuestion;
  readonly sum: string;
  /** The plan before, of this session; null where it never settled. */
  readonly last: SeasonPlan | null;
  /** A plan that answers this question but for locks that it keeps anyhow. */
  readonly agreed: SeasonPlan | null;
}

function begin(desk: Desk, { question, sum, last, agreed }: Start): SeasonRun {
  const [at, plans] = [desk.at(underWay), desk.at(thePlans)];
  const planner = desk.workers.season;
  const listeners = new Set<(plan: SeasonPlan) => void>();
  let best: SeasonPlan | null = null;
  let before = at.seen;
  let previous = last;
  let settle: (plan: SeasonPlan) => void = () => undefined;
  let fail: (error: unknown) => void = () => undefined;
  const settled = new Promise<SeasonPlan>((resolve, reject) => ([settle, fail] = [resolve, reject]));
  let hasSoon: (plan: SeasonPlan) => void = () => undefined;
  const early = new Promise<SeasonPlan>((resolve) => (hasSoon = resolve));
  let left: SeasonPlan | null = null;
  /** The run whose question took the place of this one. */
  let newer: SeasonRun | null = null;
  const leave = (plan: SeasonPlan, waits?: KeptPlan["waits"]) => {
    if (question.projects.length === 0) return; // nothing was seen
    // What is planned while forecasts are still being asked anchors nothing.
    const isShown = !isProvisional(desk);
    const kept = { sum, plan, ...(waits ? { waits } : {}) };
    if (isShown) at.shown = Promise.resolve(kept);
    void plans.leave(kept, isShown).catch(() => undefined); // it can always be made anew
  };
  const tell = (plan: SeasonPlan) => {
    if (plan.stage === "soon") return hasSoon(plan);
    best = plan;
    if (plan.stage === "settled" || plan.stage === "whole") settle(plan);
    // Screens show it from now on: whoever leaves before its odds are there meets it again.
    if (plan.stage === "settled" && plan !== left) leave((left = plan));
    for (const listener of listeners) listener(plan);
  };
  const work = async (): Promise<SeasonPlan> => {
    const stays = await shownLast(desk);
    // What was shown is what its owner saw last.
    if (stays && !at.seen) before = at.seen = stays.plan;
    previous ??= stays?.plan ?? null;
    const isNew = !agreed && last === null;
    const ships = isNew && !stays ? await shipped(desk) : null;
    const kept = agreed ? null : ((await plans.of(sum).catch(() => null)) ?? (ships?.sum === sum ? ships : null));
    if (kept?.plan.stage === "whole") {
      // The very question was answered before, here or where the demo was made: nothing is planned.
      tell(kept.plan);
      planner.know(question, kept.plan);
      if (stays?.sum !== sum) leave(kept.plan, kept.waits);
      return kept.plan;
    }
    // In a tab that has none yet, what was seen last stands for the plan until it is made, on a first visit of the demo what ships
    // with it; and the plan stays with it.
    const known = stays?.plan ?? (ships && coversOf(ships.plan, question) ? ships.plan : null);
    const stands = isNew && known && coversOf(known, question) ? known : null;
    if (stands) hasSoon({ ...stands, stage: "soon" });
    const plan = await planner.plan(
      question,
      {
        before: agreed ?? last ?? known,
        seen: known,
        isSame: agreed !== null,
        isSoon: isNew && !stands,
      },
      agreed ? () => undefined : tell,
    );
    if (!plan) {
      // A newer question took its place: its answer is the answer, and whoever follows this run follows that one from now on.
      const other = (newer = at.run!.it);
      const hear = (its: SeasonPlan) => {
        for (const listener of listeners) listener(its);
      };
      other.listen(hear);
      const there = other.latest();
      if (there) hear(there);
      other.settled.then(settle, fail);
      return other.whole;
    }
    tell(plan);
    settle(plan);
    if (plan.stage === "whole") leave(plan);
    return plan;
  };
  const whole = work().catch((error: unknown) => {
    fail(error);
    at.run = null; // the next to ask begins anew
    throw error;
  });
  whole.catch(() => undefined);
  settled.catch(() => undefined);
  return {
    question,
    sum,
    before: () => before,
    previous: () => previous,
    latest: () => newer?.latest() ?? best,
    listen: (onPlan) => {
      listeners.add(onPlan);
      return () => listeners.delete(onPlan);
    },
    soon: Promise.race([early, settled]),
    settled,
    whole,
  };
}

/** Digits of a figure that count in a question: browsers differ in the last ones of a sine. */
const DIGITS = 10;

/** The sum of a question: the same in every browser that is asked it. */
const sumOf = (what: unknown): string => {
  const text = JSON.stringify(what, (_, value: unknown) =>
    typeof value === "number" && !Number.isInteger(value) ? Number(value.toPrecision(DIGITS)) : value,
  );
  return bytesToHex(sha256(utf8ToBytes(text)));
};

/**
 * The plan of the owner of a library: one for all screens, made anew when anything it is made from has changed. A question that was
 * answered before has the plan it had, so that undoing brings it back; one that differs only by locks which the plan keeps has that
 * plan; any other starts from the plan shown last, and stays with it where a change is not worth it.
 */
export function seasonRun(library: Library): SeasonRun {
  const { desk } = library;
  const at = desk.at(underWay);
  const { run } = at;
  const question = seasonQuestion(library);
  if (run?.it.question === question) return run.it;
  const sum = sumOf(question);
  if (run?.sum === sum) return run.it;
  const butLocks = sumOf({ ...question, locks: [] });
  // What was still being bettered starts nothing: the plan would hang on how far it had come.
  const latest = run?.it.latest() ?? null;
  const last = latest && (latest.stage === "settled" || latest.stage === "whole") ? latest : null;
  const isMore = run !== null && run.it.question.locks.every((l) => question.locks.some((x) => x.id === l.id));
  const agreed =
    run?.butLocks === butLocks && isMore && last?.stage === "whole" && keeps(last, question.locks) ? last : null;
  const it = begin(desk, { question, sum, last, agreed });
  at.run = { sum, butLocks, it };
  return it;
}

/** A plan that came with a backup, and how it is kept for good, or forgotten again. */
export interface TakenPlan {
  readonly keep: () => Promise<void>;
  readonly forget: () => void;
}

/**
 * Takes the plan that came with a backup as the one that its owner saw last, unless this browser has one of its own: before its records
 * come in, so that what is planned of them at once stays with it.
 */
export async function takeShownPlan(desk: Desk, raw: unknown): Promise<TakenPlan | null> {
  const kept = readKeptPlan(raw);
  if (!kept || (await shownLast(desk)) !== null) return null;
  const mine = Promise.resolve(kept);
  const at = desk.at(underWay);
  at.shown = mine;
  return {
    keep: () => desk.at(thePlans).leave(kept, at.shown === mine),
    forget: () => {
      if (at.shown === mine) at.shown = null;
    },
  };
}

/** The plan that its owner saw last, for their own backup; null where none was made. */
export const planForBackup = (desk: Desk): Promise<KeptPlan | null> => shownLast(desk);

/** As `seasonRun`, its question put together in turns: how screens ask. Where another library was asked for meanwhile, its run is the answer. */
export async function seasonInTurns(library: Library): Promise<SeasonRun> {
  const at = library.desk.at(underWay);
  const call = ++at.calls;
  await readyQuestion(library);
  if (at.run && at.begunFor > call) return at.run.it;
  at.begunFor = call;
  return seasonRun(library);
}

/** What is known of the next evenings, and the plan that this one took the place of. */
export interface SoonPlan {
  /** The plan where there is one, else what stands for it; its stage says which. */
  readonly plan: SeasonPlan;
  readonly previous: SeasonPlan | null;
}

/** The plan its owner saw last, or what stands for it on a first visit; read while the library is. */
export const lookAhead = async (desk: Desk): Promise<SoonPlan | null> => {
  const seen = (await shownLast(desk))?.plan ?? null;
  const plan = seen ?? (await shipped(desk))?.plan ?? null;
  return plan && { plan, previous: seen };
};

/** What is known of the next evenings at once: before anything was planned in this tab, the plan its owner saw last. */
export async function eveningsSoon(library: Library): Promise<SoonPlan> {
  const { desk } = library;
  if (!desk.at(underWay).run) {
    const known = await lookAhead(desk);
    const own = ownContextsOf(library);
    const { today } = choiceOf(library, new URLSearchParams());
    if (known && coversOf(known.plan, { from: today, projects: own, rigs: own.map((c) => c.rig) }))
      return { plan: { ...known.plan, stage: "soon" }, previous: known.previous };
  }
  const run = await seasonInTurns(library);
  return { plan: await run.soon, previous: run.previous() };
}

/** The plan that screens go by. */
export const seasonPlan = async (library: Library): Promise<SeasonPlan> => (await seasonInTurns(library)).settled;

/** Ends the plan under way; the best so far stays. */
export const stopPlanning = (desk: Desk): void => desk.workers.season.stop();
