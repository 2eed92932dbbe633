import { describe, expect, it } from "vitest";
import demo from "~/data/demo-plan.json";
import { memoryDrawer, type Drawer } from "./driver";
import { createKeptPlans, readKeptPlan, type KeptPlan } from "./kept-plan";

const sound = readKeptPlan(demo)!;
const named = (sum: string): KeptPlan => ({ ...sound, sum });

/** A browser's drawer of plans, and what tabs of it see. */
function browser() {
  const drawer: Drawer = memoryDrawer();
  return { drawer, tab: () => createKeptPlans({ open: () => Promise.resolve({ ...drawer, isLasting: true }) }) };
}

describe("plans that are kept", () => {
  it("are there for the tab that comes after, by their question; only one is what screens showed last", async () => {
    const { tab } = browser();
    const first = tab();
    expect([await first.shown(), await first.of("a")]).toEqual([null, null]);
    await first.leave(named("a"), true);
    await first.leave(named("b"), false);
    const later = tab();
    expect((await later.of("b"))?.plan).toEqual(sound.plan);
    expect((await later.shown())?.sum).toBe("a"); // b was planned while forecasts were still being asked
    await later.leave(named("b"), true);
    expect((await first.shown())?.sum).toBe("b");
    expect(await first.of("c")).toBeNull();
  });

  it("are thirty-two at most, the oldest go first; one left anew is young again, and what is shown stays", async () => {
    const { tab, drawer } = browser();
    const plans = tab();
    await plans.leave(named("shown"), true);
    for (let i = 0; i < 31; i++) await plans.leave(named(`p${i}`), false);
    await plans.leave(named("p0"), false);
    for (let i = 31; i < 35; i++) await plans.leave(named(`p${i}`), false);
    const there = await Promise.all(["shown", "p0", "p1", "p2", "p3", "p4", "p34"].map(async (sum) => (await plans.of(sum)) !== null)); // prettier-ignore
    expect(there).toEqual([true, true, false, false, false, true, true]);
    expect((await plans.shown())?.sum).toBe("shown");
    // What went is gone from the drawer, not from its index alone.
    expect(await drawer.read("plan p1")).toBeFalsy();
  });

  it("are written one after the other, so that none is forgotten; one that cannot be written stops none after it", async () => {
    const { tab, drawer } = browser();
    const plans = tab();
    await Promise.all(["a", "b", "c"].map((sum) => plans.leave(named(sum), sum === "b")));
    expect(await drawer.read("index")).toMatchObject({ sums: ["a", "b", "c"], shown: "b" });
    let isFull = true;
    const refusing = createKeptPlans({
      open: () =>
        Promise.resolve({
          ...drawer,
          isLasting: true,
          write: (all) => (isFull ? Promise.reject(new Error("full")) : drawer.write(all)),
        }),
    });
    await expect(refusing.leave(named("d"), true)).rejects.toThrow("full");
    isFull = false;
    await refusing.leave(named("e"), true);
    expect(((await drawer.read("index")) as { sums: string[] }).sums).toEqual(["a", "b", "c", "e"]);
  });

  it("are passed over where they were built otherwise, lie under another name, or do not read", async () => {
    const { tab, drawer } = browser();
    const plans = tab();
    await plans.leave(named("a"), true);
    const kept = (await drawer.read("plan a")) as object;
    await drawer.write(new Map([["plan a", { ...kept, sum: "b" }]]));
    expect(await plans.of("a")).toBeNull();
    await drawer.write(new Map([["plan a", { ...kept, layout: 1 }]]));
    expect([await plans.of("a"), await plans.shown()]).toEqual([null, null]);
    await drawer.write(new Map([["index", { layout: 1, sums: ["a"], shown: "a" }]]));
    expect(await tab().shown()).toBeNull();
    const broken = createKeptPlans({
      open: () => Promise.resolve({ ...drawer, isLasting: true, read: () => Promise.reject(new Error("torn")) }),
    });
    expect([await broken.of("a"), await broken.shown()]).toEqual([null, null]);
  });
});

it("a plan from a file is one that could be begun from, or none", () => {
  const { plan } = sound;
  expect(readKeptPlan({ sum: "a", plan })).toEqual({ sum: "a", plan });
  const waits = { one: 0.4 };
  expect(readKeptPlan({ sum: "a", plan, waits })).toEqual({ sum: "a", plan, waits });
  for (const wrong of [7, null, { one: "much" }])
    expect(readKeptPlan({ sum: "a", plan, waits: wrong })).toEqual({ sum: "a", plan });
  expect(readKeptPlan({ sum: "a", plan: { ...plan, stage: "settled", odds: null } })).not.toBeNull();
  const [evening] = plan.evenings;
  for (const raw of [
    null,
    "plan",
    { plan },
    { sum: 3, plan },
    { sum: "a" },
    { sum: "a", plan: { ...plan, evenings: null } },
    { sum: "a", plan: { ...plan, jobs: {} } },
    { sum: "a", plan: { ...plan, stage: "first" } },
    { sum: "a", plan: { ...plan, stage: "whole", odds: null } },
    { sum: "a", plan: { ...plan, from: 5 } },
    ...(["night", "placeId", "rigIds", "blocks"] as const).map((field) => ({
      sum: "a",
      plan: { ...plan, evenings: [evening, { ...evening, [field]: 7 }] },
    })),
    { sum: "a", plan: { ...plan, evenings: [null] } },
  ])
    expect(readKeptPlan(raw)).toBeNull();
});
