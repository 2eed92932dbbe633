import { expect, it, vi } from "vitest";
import type { SeasonPlan } from "~/core/season";
import demo from "~/data/demo-plan.json";
import { plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { seasonRun } from "./season";

type Plan = ReturnType<typeof plannerHere>["plan"];

/** A planner that tells one plan of this stage and goes on; what each later plan starts from. */
async function startsFrom(stage: SeasonPlan["stage"]) {
  const told = { ...demo.plan, stage } as unknown as SeasonPlan;
  const plan = vi.fn<Plan>((_question, _from, onPlan) => {
    onPlan(told);
    return new Promise(() => undefined);
  });
  const desk = demoDesk({ season: { ...plannerHere(), plan } });
  seasonRun(demoLibrary(desk));
  await vi.waitFor(() => expect(plan).toHaveBeenCalledTimes(1));
  desk.setNow("2026-12-06T16:40:00Z"); // another evening is another question
  seasonRun(demoLibrary(desk));
  await vi.waitFor(() => expect(plan).toHaveBeenCalledTimes(2));
  return { told, before: plan.mock.calls[1]![1].before };
}

it("a plan starts from the one that settled before it, never from one that was still being bettered", async () => {
  // Else the plan would hang on how far the one before had come when something was changed.
  expect((await startsFrom("first")).before).toBeNull();
  expect((await startsFrom("better")).before).toBeNull();
  const { told, before } = await startsFrom("settled");
  expect(before).toBe(told);
});
