import { expect, it } from "vitest";
import { nightDate, utcMs } from "~/core/time";
import type { Evening } from "./blocks";
import { idleFit, idleNights } from "./idle";
import type { SeasonPlan } from "./season-plan";

const night = (day: number) => nightDate(`2026-11-0${day}`);
const evening = (day: number, more: Partial<Evening>): Evening => ({ night: night(day), placeId: "home", rigIds: ["a"], chance: 0.4, usableMin: 300, blocks: [], isFixed: false, closed: null, ...more }); // prettier-ignore
const block = { projectId: "p", channel: "L" as const, subSec: 60, startMs: utcMs(0), endMs: utcMs(1), countsMin: 1, exposureMin: 1 }; // prettier-ignore
const plan = (evenings: readonly Evening[]): SeasonPlan => ({ from: night(1), nights: 5, evenings, jobs: [], value: 0, bound: 0, gap: 0, odds: null, literally: null, runs: 0, conflicts: [], stage: "whole" }); // prettier-ignore

it("idle nights are those on which no rig has anything to do though its owner is free; they give another target their clear hours", () => {
  const idle = idleNights(
    plan([
      evening(1, {}),
      evening(2, {}),
      evening(2, { rigIds: ["b"], blocks: [block] }), // the other rig works
      evening(3, { closed: "busy" }),
      evening(4, { closed: "elsewhere" }),
      evening(4, { placeId: "away", chance: 0.6 }),
      evening(5, { closed: "forbidden" }),
    ]),
  );
  expect(idle).toEqual([
    { night: night(1), chance: 0.4 },
    { night: night(4), chance: 0.6 },
  ]);
  const usable = { [night(1)]: 120, [night(2)]: 300, [night(4)]: 44 };
  expect(idleFit(idle, usable, 45)).toEqual({ nights: 1, hours: 0.8, first: night(1) });
  expect(idleFit(idle, {}, 45)).toEqual({ nights: 0, hours: 0, first: null });
});
