import { describe, expect, it } from "vitest";
import demoPlan from "~/data/demo-plan.json";
import { memoryBrowser, plannerHere, testDesk } from "~/desk/desk.test-data";
import { readKeptPlan } from "~/storage/kept-plan";
import { oddsIfWaiting } from "./waits";

const { plan } = readKeptPlan(demoPlan)!;
const run = { sum: "one question", whole: Promise.resolve(plan) };

/** A planner that tells of two projects, and of how often it was asked. */
function planner(isAll: boolean) {
  let asked = 0;
  return {
    asked: () => asked,
    client: {
      ...plannerHere(),
      waits: (_: number, onWait: (projectId: string, doneShare: number) => void) => {
        asked++;
        onWait("one", 0.4);
        if (isAll) onWait("two", 0.25);
        return Promise.resolve(isAll);
      },
    },
  };
}

describe("odds of projects that wait", () => {
  it("come one by one, and are not worked out again for the same question", async () => {
    const browser = memoryBrowser();
    const { client, asked } = planner(true);
    const told: number[] = [];
    await oddsIfWaiting(testDesk({ browser, season: client }), run, (by) => told.push(by.size));
    expect(told).toEqual([1, 2]);
    let later: ReadonlyMap<string, number> = new Map();
    await oddsIfWaiting(testDesk({ browser, season: client }), run, (by) => (later = by));
    expect([...later]).toEqual([["one", 0.4], ["two", 0.25]]); // prettier-ignore
    expect(asked()).toBe(1);
    await oddsIfWaiting(testDesk({ browser, season: client }), { ...run, sum: "another" }, () => undefined);
    expect(asked()).toBe(2);
  });

  it("are not kept where a newer question ended the work", async () => {
    const browser = memoryBrowser();
    const { client, asked } = planner(false);
    const desk = testDesk({ browser, season: client });
    await oddsIfWaiting(desk, run, () => undefined);
    await oddsIfWaiting(desk, run, () => undefined);
    expect(asked()).toBe(2);
  });
});
