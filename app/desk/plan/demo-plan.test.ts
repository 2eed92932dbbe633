import { expect, it, vi } from "vitest";
import type { Place } from "~/core/night";
import demo from "~/data/demo-plan.json";
import { plannerHere } from "~/desk/desk.test-data";
import type { Desk } from "~/desk/desk";
import { demoDesk, demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import { eveningsSoon, seasonRun, thePlans } from "./season";

const ships = (raw: unknown) => ({ plan: vi.fn(() => Promise.resolve(raw)) });

it("the plan that ships with the demo is the one that is made of it", async () => {
  const made = await seasonRun(demoLibrary()).whole;
  // Made anew by `npx tsx scripts/demo/plan.ts` when records of the demo, or the way plans are made, have changed.
  expect(made).toEqual(demo.plan);
});

/** A planner that nobody gets an answer from. */
const silent = () => ({
  ...plannerHere(),
  plan: vi.fn<ReturnType<typeof plannerHere>["plan"]>(() => new Promise(() => undefined)),
  know: vi.fn(),
});

/** The demo with the sky of every place another in the last digit of its brightness. */
const nudged = (desk: Desk) =>
  libraryOfRecords(
    demoRecords().map((head) => {
      if (head.kind !== "place") return head;
      const data = head.data as Place;
      return { ...head, data: { ...data, skyMagPerArcsec2: data.skyMagPerArcsec2 * (1 + 2 ** -52) } };
    }),
    desk,
  );

it.each([
  ["on this machine", demoLibrary],
  ["where figures of the question differ in their last digit", nudged],
])("a first visit takes it for the answer, %s: nothing is planned, and it is kept with its odds", async (_, open) => {
  const planner = silent();
  const desk = demoDesk({ season: planner, supplies: ships(demo) });
  const run = seasonRun(open(desk));
  expect(await run.whole).toEqual(demo.plan);
  expect([run.before(), run.previous()]).toEqual([null, null]); // nobody had seen it before
  expect(planner.plan).not.toHaveBeenCalled();
  expect(planner.know).toHaveBeenCalledTimes(1);
  await vi.waitFor(async () => expect(await desk.at(thePlans).shown()).toEqual(demo));
});

it("under another question it stands for the plan until there is one, and the plan starts from it; it is fetched once", async () => {
  const planner = silent();
  const supplies = ships({ ...demo, sum: "of another question" });
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
    const planner = silent();
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
