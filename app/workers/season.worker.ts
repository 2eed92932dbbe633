import { expose } from "comlink";
import { nextEvenings, planEvenings, waitingOdds } from "~/core/plan";
import {
  whyEvening,
  type Evening,
  type NightStock,
  type Planning,
  type SeasonPlan,
  type SeasonQuestion,
  type SeasonWork,
  type WhyEvening,
} from "~/core/season";

/** What a plan starts from, as it crosses to the worker. */
export interface PlanStart extends Pick<Planning, "before" | "seen" | "isSame"> {
  /** The next evenings are wanted first, by themselves. */
  readonly isSoon?: boolean;
}

const MOST_NIGHTS = 900; // kept over places: more than a season at each of four
const stock: NightStock = new Map();
let turn = 0;
let isStopped = false;
let last: SeasonWork | null = null;
let current: Promise<SeasonPlan | null> = Promise.resolve(null);

/** How likely each project is done in the season if nothing of it is done for some weeks, one after the other; ends when a newer plan begins. */
async function waits(weeks: number, onWait: (projectId: string, doneShare: number) => void): Promise<boolean> {
  const before = await current;
  if (!last || !before) return false;
  const mine = turn;
  for (const odds of waitingOdds(last.question, weeks, { stock, plan: before })) {
    if (odds) onWait(odds.projectId, odds.doneShare);
    await breath();
    if (turn !== mine) return false;
  }
  return true;
}

/** Lets messages in between two rounds. */
const breath = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 0));

async function work(
  question: SeasonQuestion,
  from: PlanStart,
  onPlan: (plan: SeasonPlan) => void,
): Promise<SeasonPlan | null> {
  const mine = ++turn;
  isStopped = false;
  if (stock.size > MOST_NIGHTS) stock.clear();
  if (from.isSoon) {
    onPlan(nextEvenings(question, stock));
    await breath();
    if (turn !== mine) return null;
  }
  const steps = planEvenings(question, { ...from, stock });
  let told: SeasonPlan | null = null;
  for (let step = steps.next(); ; step = steps.next()) {
    if (step.done) {
      last = step.value.work;
      return step.value.plan;
    }
    if (step.value !== told) onPlan(step.value);
    told = step.value;
    await breath();
    if (turn !== mine) return null;
    if (isStopped) return step.value;
  }
}

const api = {
  /** Plans, and tells every plan that is better than the one before. A newer question ends an older one: null. */
  plan(question: SeasonQuestion, from: PlanStart, onPlan: (plan: SeasonPlan) => void): Promise<SeasonPlan | null> {
    const job = work(question, from, onPlan);
    current = job;
    return job;
  },
  /** Ends the work under way: nobody wants its answer any more. */
  end(): void {
    turn++;
  },
  /** Ends the work under way; the best plan so far stays. */
  stop(): void {
    isStopped = true;
  },
  /** Why the plan has an evening as it is, once it is worked out; null when it was stopped before. */
  async why(evening: Pick<Evening, "night" | "placeId" | "rigIds">): Promise<WhyEvening | null> {
    await current;
    return last ? whyEvening(last, evening) : null;
  },
  waits,
};

export type SeasonApi = typeof api;
expose(api);
