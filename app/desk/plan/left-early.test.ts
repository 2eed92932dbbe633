import { expect, it, vi } from "vitest";
import type { SeasonPlan, SeasonQuestion } from "~/core/season";
import { memoryBrowser, plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { seasonPlan, seasonRun, thePlans } from "./season";

const planOf = (question: SeasonQuestion, stage: "settled" | "whole"): SeasonPlan => ({
  from: question.from, nights: 1, evenings: [], jobs: [], value: 1, bound: 1, gap: 0, odds: [], literally: [], runs: 0, conflicts: [], stage,
}); // prettier-ignore

/** A planner that is watched, and tabs of one browser that ask it. */
function watched(plan: ReturnType<typeof plannerHere>["plan"]) {
  const planner = { ...plannerHere(), plan: vi.fn(plan), know: vi.fn<() => void>() };
  const browser = memoryBrowser();
  return { planner, tab: () => demoDesk({ browser, season: planner }) };
}

it("whoever leaves before the odds are there meets the plan they saw again (reported: another evening after a reload)", async () => {
  const { planner, tab } = watched((question, _from, onPlan) => {
    onPlan(planOf(question, "settled"));
    return new Promise(() => undefined); // the page is left before
  });
  const plan = await seasonPlan(demoLibrary(tab()));
  expect(plan.stage).toBe("settled");
  await vi.waitFor(async () => expect((await tab().at(thePlans).shown())?.plan).toEqual(plan));
  // The next visit starts from it, and stays with it where a change is not worth it.
  void seasonPlan(demoLibrary(tab()));
  await vi.waitFor(() => expect(planner.plan).toHaveBeenCalledTimes(2));
  expect(planner.plan.mock.calls[1]![1]).toMatchObject({ before: plan, seen: plan, isSame: false });
});

it("a question that was answered in whole before is not planned again", async () => {
  const { planner, tab } = watched((question) => Promise.resolve(planOf(question, "whole")));
  const plan = await seasonRun(demoLibrary(tab())).whole;
  await vi.waitFor(async () => expect((await tab().at(thePlans).shown())?.plan.stage).toBe("whole"));
  expect(planner.plan).toHaveBeenCalledTimes(1);
  const run = seasonRun(demoLibrary(tab()));
  expect(await run.whole).toEqual(plan);
  expect(await run.soon).toEqual(plan);
  expect(planner.plan).toHaveBeenCalledTimes(1);
  expect(planner.know).toHaveBeenCalledTimes(1);
});
