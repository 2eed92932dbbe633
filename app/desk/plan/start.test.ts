import { expect, it, vi } from "vitest";
import type { SeasonPlan } from "~/core/season";
import demo from "~/data/demo-plan.json";
import { plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import { seasonInTurns, seasonRun } from "./season";

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

it("a library that was asked for later has the plan, also where an earlier one took longer to ask about", async () => {
  const plan = vi.fn<Plan>(() => new Promise(() => undefined));
  const desk = demoDesk({ season: { ...plannerHere(), plan } });
  const all = demoLibrary(desk);
  const none = libraryOfRecords(demoRecords().filter((r) => r.kind !== "project"), desk); // prettier-ignore
  // Every step takes a turn: the library with projects has more of them.
  let ms = 0;
  const clock = vi.spyOn(performance, "now").mockImplementation(() => (ms += 50));
  const done: string[] = [];
  const [earlier, later] = [
    seasonInTurns(all).then((run) => (done.push("all"), run)),
    seasonInTurns(none).then((run) => (done.push("none"), run)),
  ];
  const runs = await Promise.all([earlier, later]);
  clock.mockRestore();
  expect(done).toEqual(["none", "all"]);
  expect(runs[0]).toBe(runs[1]);
  expect(runs[0].question.projects).toEqual([]);
});
