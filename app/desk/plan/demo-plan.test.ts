import { expect, it, vi } from "vitest";
import type { SeasonPlan } from "~/core/season";
import shipped from "~/data/demo-plan.json";
import { plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { seasonRun } from "./season";

it("the plan that ships with the demo is the one that is made of it: a first visit is shown it without planning", async () => {
  const planner = { ...plannerHere(), plan: vi.fn(plannerHere().plan) };
  const made = await seasonRun(demoLibrary(demoDesk({ season: planner }))).whole;
  // Made anew by `npx tsx scripts/demo/plan.ts` when records of the demo, or the way plans are made, have changed.
  expect(JSON.parse(JSON.stringify(made))).toEqual(shipped.plan);
  expect(planner.plan).toHaveBeenCalledTimes(1);
  const plan = () => Promise.resolve<unknown>(shipped);
  const first = seasonRun(demoLibrary(demoDesk({ season: planner, supplies: { plan } })));
  expect((await first.soon).stage).toBe("whole");
  expect(await first.whole).toEqual(shipped.plan);
  expect(planner.plan).toHaveBeenCalledTimes(1);
});

it("it is passed over where it answers another question, or is none", async () => {
  const planned = vi.fn(() => Promise.resolve(shipped.plan as unknown as SeasonPlan));
  const wrong = [{ ...shipped, sum: "another" }, { sum: shipped.sum }, null];
  for (const answer of wrong) {
    const plan = () => Promise.resolve<unknown>(answer);
    const desk = demoDesk({ season: { ...plannerHere(), plan: planned }, supplies: { plan } });
    await seasonRun(demoLibrary(desk)).settled;
  }
  expect(planned).toHaveBeenCalledTimes(wrong.length);
});
