import { proxy, wrap, type Remote } from "comlink";
import { planEvenings } from "~/core/plan";
import {
  whyEvening,
  type Evening,
  type NightStock,
  type SeasonPlan,
  type SeasonQuestion,
  type SeasonWork,
  type WhyEvening,
} from "~/core/season";
import { runJob } from "./job";
import type { PlanStart, SeasonApi } from "./season.worker";

/** One worker for all plans: it keeps the nights of the places and goes on from the last plan. */
let worker: { readonly api: Remote<SeasonApi>; readonly failed: Promise<never> } | null = null;

function started(): NonNullable<typeof worker> {
  if (worker) return worker;
  const made = new Worker(new URL("./season.worker.ts", import.meta.url), { type: "module" });
  const failed = new Promise<never>((_, reject) =>
    made.addEventListener("error", ({ message }) => {
      worker = null; // the next plan tries again
      reject(new Error(message || "the planner did not load"));
    }),
  );
  failed.catch(() => undefined);
  worker = { api: wrap<SeasonApi>(made), failed };
  return worker;
}

/** A plan that was known already: what it was worked out with is made when somebody asks why. */
let known: { readonly question: SeasonQuestion; readonly plan: SeasonPlan } | null = null;

/** Takes a whole plan that an earlier visit made for the very same question; nothing is planned. What is under way ends. */
export function knowPlan(question: SeasonQuestion, plan: SeasonPlan): void {
  known = { question, plan };
  void worker?.api.end();
}

/** Works a known plan's tables out, where that was put off. */
async function caughtUp(): Promise<void> {
  if (!known) return;
  const mine = known;
  const { question, plan } = mine;
  try {
    await planSeasonInWorker(question, { before: plan, seen: plan, isSame: true }, () => undefined);
  } catch (error) {
    known ??= mine; // whoever asks next tries again
    throw error;
  }
}

const stock: NightStock = new Map();
let workHere: SeasonWork | null = null;

/** Where there are no workers: the same plan, at once. */
function planHere(question: SeasonQuestion, from: PlanStart, onPlan: (plan: SeasonPlan) => void): SeasonPlan {
  const steps = planEvenings(question, { ...from, stock });
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) {
      workHere = step.value.work;
      return step.value.plan;
    }
    onPlan(step.value);
  }
}

/** Plans a season off the main thread; `onPlan` hears of every plan that is better than the one before. Null when a newer question came. */
export async function planSeasonInWorker(
  question: SeasonQuestion,
  from: PlanStart,
  onPlan: (plan: SeasonPlan) => void,
): Promise<SeasonPlan | null> {
  known = null;
  if (typeof Worker === "undefined") return planHere(question, from, onPlan);
  const { api, failed } = started();
  return Promise.race([api.plan(question, from, proxy(onPlan)), failed]);
}

/** Ends the plan under way; the best so far stays. */
export const stopPlanning = (): void => void worker?.api.stop();

/** Why the last whole plan has an evening as it is; null where there is none. */
export async function whyInWorker(evening: Pick<Evening, "night" | "placeId" | "rigIds">): Promise<WhyEvening | null> {
  await caughtUp();
  if (typeof Worker === "undefined") return workHere ? whyEvening(workHere, evening) : null;
  const { api, failed } = started();
  return Promise.race([api.why(evening), failed]);
}

/** Plans another question beside the plan that is followed, in a worker of its own; cancels by `signal`. */
export async function planApart(
  question: SeasonQuestion,
  before: SeasonPlan | null,
  signal: AbortSignal,
): Promise<SeasonPlan> {
  if (typeof Worker === "undefined") return planHere(question, { before, seen: before }, () => undefined);
  const plan = await runJob<SeasonApi, SeasonPlan | null>(
    new Worker(new URL("./season.worker.ts", import.meta.url), { type: "module" }),
    signal,
    (api) =>
      api.plan(
        question,
        { before, seen: before },
        proxy(() => undefined),
      ),
  );
  if (!plan) throw new Error("the plan was stopped");
  return plan;
}

/** How likely each project is done in the season if it waits some weeks; told one by one as they are worked out. */
export async function waitsInWorker(
  weeks: number,
  onWait: (projectId: string, doneShare: number) => void,
): Promise<void> {
  if (typeof Worker === "undefined") return;
  await caughtUp();
  const { api, failed } = started();
  await Promise.race([api.waits(weeks, proxy(onWait)), failed]);
}
