import { proxy } from "comlink";
import type { Evening, SeasonPlan, SeasonQuestion, WhyEvening } from "~/core/season";
import { client, runJob } from "./client";
import type { PlanStart, SeasonApi } from "./season.worker";

export type { PlanStart } from "./season.worker";

/** Plans seasons off the main thread. */
export interface SeasonClient {
  /** Plans; `onPlan` hears of every plan that is better than the one before. Null when a newer question came. */
  readonly plan: (
    question: SeasonQuestion,
    from: PlanStart,
    onPlan: (plan: SeasonPlan) => void,
  ) => Promise<SeasonPlan | null>;
  /** Takes a whole plan that an earlier visit made for the very same question; nothing is planned. What is under way ends. */
  readonly know: (question: SeasonQuestion, plan: SeasonPlan) => void;
  /** Ends the plan under way; the best so far stays. */
  readonly stop: () => void;
  /** Why the last whole plan has an evening as it is; null where there is none. */
  readonly why: (evening: Pick<Evening, "night" | "placeId" | "rigIds">) => Promise<WhyEvening | null>;
  /** How likely each project is done in the season if it waits some weeks; told one by one as they are worked out. Whether all were told. */
  readonly waits: (weeks: number, onWait: (projectId: string, doneShare: number) => void) => Promise<boolean>;
  /** Plans another question beside the plan that is followed, in a worker of its own; cancels by `signal`. */
  readonly apart: (question: SeasonQuestion, before: SeasonPlan | null, signal: AbortSignal) => Promise<SeasonPlan>;
}

const start = () => new Worker(new URL("./season.worker.ts", import.meta.url), { type: "module" });

/** One worker for all plans: it keeps the nights of the places and goes on from the last plan. */
export function createSeasonClient(): SeasonClient {
  const worker = client<SeasonApi>(start);
  /** A plan that was known already: what it was worked out with is made when somebody asks why. */
  let known: { readonly question: SeasonQuestion; readonly plan: SeasonPlan } | null = null;

  const plan: SeasonClient["plan"] = (question, from, onPlan) => {
    known = null;
    return worker.ask((planner) => planner.plan(question, from, proxy(onPlan)));
  };
  /** Works a known plan's tables out, where that was put off. */
  async function caughtUp(): Promise<void> {
    if (!known) return;
    const mine = known;
    try {
      await plan(mine.question, { before: mine.plan, seen: mine.plan, isSame: true }, () => undefined);
    } catch (error) {
      known ??= mine; // whoever asks next tries again
      throw error;
    }
  }
  return {
    plan,
    know(question, whole) {
      known = { question, plan: whole };
      worker.tell((planner) => planner.end());
    },
    stop: () => worker.tell((planner) => planner.stop()),
    async why(evening) {
      await caughtUp();
      return worker.ask((planner) => planner.why(evening));
    },
    async waits(weeks, onWait) {
      await caughtUp();
      return worker.ask((planner) => planner.waits(weeks, proxy(onWait)));
    },
    async apart(question, before, signal) {
      const from = { before, seen: before };
      const made = await runJob<SeasonApi, SeasonPlan | null>(start(), signal, (planner) =>
        planner.plan(
          question,
          from,
          proxy(() => undefined),
        ),
      );
      if (!made) throw new Error("the plan was stopped");
      return made;
    },
  };
}
