import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { SeasonPlan, SeasonQuestion } from "~/core/season";
import { shownPlan } from "~/storage/kept-plan";
import { demoLibrary } from "./demo-library.test-data";

type OnPlan = (plan: SeasonPlan) => void;
const planner = vi.hoisted(() => ({
  planSeasonInWorker: vi.fn<(question: SeasonQuestion, from: unknown, onPlan: OnPlan) => Promise<SeasonPlan | null>>(),
  knowPlan: vi.fn<(question: SeasonQuestion, plan: SeasonPlan) => void>(),
}));
vi.mock("~/workers/season", () => planner);

const planOf = (question: SeasonQuestion, stage: "settled" | "whole"): SeasonPlan => ({
  from: question.from, nights: 1, evenings: [], jobs: [], value: 1, bound: 1, gap: 0, odds: [], literally: [], runs: 0, conflicts: [], stage,
}); // prettier-ignore
/** The season as a page that was just loaded has it. */
const loaded = async () => {
  vi.resetModules();
  return import("./season");
};
beforeEach(() => {
  document.documentElement.dataset["now"] = String(Date.parse("2026-12-05T16:40:00Z"));
});
afterEach(() => {
  vi.resetAllMocks();
  delete document.documentElement.dataset["now"];
});

it("whoever leaves before the odds are there meets the plan they saw again (reported: another evening after a reload)", async () => {
  planner.planSeasonInWorker.mockImplementation((question, _from, onPlan) => {
    onPlan(planOf(question, "settled"));
    return new Promise(() => undefined); // the page is left before
  });
  const plan = await (await loaded()).seasonPlan(demoLibrary());
  expect(plan.stage).toBe("settled");
  await vi.waitFor(async () => expect((await shownPlan())?.plan).toEqual(plan));
});

it("a question that was answered in whole before is not planned again", async () => {
  planner.planSeasonInWorker.mockImplementation((question) => Promise.resolve(planOf(question, "whole")));
  const first = await loaded();
  const plan = await first.seasonRun(demoLibrary()).whole;
  await vi.waitFor(async () => expect((await shownPlan())?.plan.stage).toBe("whole"));
  expect(planner.planSeasonInWorker).toHaveBeenCalledTimes(1);
  const run = (await loaded()).seasonRun(demoLibrary());
  expect(await run.whole).toEqual(plan);
  expect(await run.soon).toEqual(plan);
  expect(planner.planSeasonInWorker).toHaveBeenCalledTimes(1);
  expect(planner.knowPlan).toHaveBeenCalledTimes(1);
});
