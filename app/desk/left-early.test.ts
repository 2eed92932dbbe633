import { expect, it, vi } from "vitest";
import type { SeasonPlan, SeasonQuestion } from "~/core/season";
import { shownPlan } from "~/storage/kept-plan";
import { demoLibrary } from "./demo-library.test-data";
import { seasonPlan } from "./season";

// A worker whose plan settles, and whose odds never come: the page is left before.
vi.mock("~/workers/season", () => ({
  planSeasonInWorker: (question: SeasonQuestion, _from: unknown, onPlan: (plan: SeasonPlan) => void) => {
    onPlan({ from: question.from, nights: 1, evenings: [], jobs: [], value: 1, bound: 1, gap: 0, odds: null, literally: null, runs: 0, conflicts: [], stage: "settled" }); // prettier-ignore
    return new Promise(() => undefined);
  },
}));

it("whoever leaves before the odds are there meets the plan they saw again (reported: another evening after a reload)", async () => {
  document.documentElement.dataset["now"] = String(Date.parse("2026-12-05T16:40:00Z"));
  const plan = await seasonPlan(demoLibrary());
  expect(plan.stage).toBe("settled");
  await vi.waitFor(async () => expect((await shownPlan())?.plan).toEqual(plan));
  delete document.documentElement.dataset["now"];
});
