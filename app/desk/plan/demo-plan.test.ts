import { expect, it, vi } from "vitest";
import demo from "~/data/demo-plan.json";
import { plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary } from "~/desk/demo-library.test-data";
import { eveningsSoon, seasonRun } from "./season";

const ships = (raw: unknown) => ({ plan: vi.fn(() => Promise.resolve(raw)) });

it("the plan that ships with the demo is the one that is made of it", async () => {
  const made = await seasonRun(demoLibrary()).whole;
  // Made anew by `npx tsx scripts/demo/plan.ts` when records of the demo, or the way plans are made, have changed.
  expect(JSON.parse(JSON.stringify(made))).toEqual(demo.plan);
});

it("a first visit is shown it, as provisional, before anything is planned; it is fetched once, and the plan starts from it", async () => {
  const planner = { ...plannerHere(), plan: vi.fn<ReturnType<typeof plannerHere>["plan"]>(() => new Promise(() => undefined)) }; // prettier-ignore
  const supplies = ships(demo);
  const desk = demoDesk({ season: planner, supplies });
  const library = demoLibrary(desk);
  const { plan: soon, previous } = await eveningsSoon(library);
  expect(previous).toBeNull();
  expect(planner.plan).not.toHaveBeenCalled();
  expect(await seasonRun(library).soon).toEqual(soon);
  expect([soon.stage, JSON.parse(JSON.stringify(soon.evenings)) as unknown]).toEqual(["soon", demo.plan.evenings]);
  await vi.waitFor(() => expect(planner.plan).toHaveBeenCalled());
  const { before, isSoon } = planner.plan.mock.calls[0]![1];
  expect([JSON.parse(JSON.stringify(before!.evenings)), isSoon]).toEqual([demo.plan.evenings, false]);
  expect(supplies.plan).toHaveBeenCalledTimes(1);
});

it("it is passed over where it is none, or of another evening, and nobody else asks for it", async () => {
  const wanted = async (of: Parameters<typeof demoDesk>[0]) => {
    const planner = { ...plannerHere(), plan: vi.fn<ReturnType<typeof plannerHere>["plan"]>(() => new Promise(() => undefined)) }; // prettier-ignore
    void seasonRun(demoLibrary(demoDesk({ season: planner, ...of })));
    await vi.waitFor(() => expect(planner.plan).toHaveBeenCalled());
    return planner.plan.mock.calls[0]![1].isSoon;
  };
  expect(await wanted({ supplies: ships({ sum: "of nothing" }) })).toBe(true);
  expect(await wanted({ supplies: ships(demo), now: "2027-09-01T16:40:00Z" })).toBe(true);
  const supplies = ships(demo);
  expect(await wanted({ supplies, isDemo: false })).toBe(true);
  expect(supplies.plan).not.toHaveBeenCalled();
});
