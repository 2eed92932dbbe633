import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addNights, nightDate, utcMs } from "~/core/time";
import { chanceOfRun, phasesOf } from "./phases";
import type { Evening } from "./blocks";
import type { SeasonPlan } from "./season-plan";

const from = nightDate("2026-09-20");
const evening = (n: number, channel: "L" | "Ha"): Evening => ({
  night: addNights(from, n), placeId: "home", rigIds: ["rig"], chance: 0.4, usableMin: 300, isFixed: false, closed: null,
  blocks: [{ projectId: "p", channel, subSec: 300, startMs: utcMs(0), endMs: utcMs(3_600_000), countsMin: 50, exposureMin: 55 }],
}); // prettier-ignore
const plan = (kinds: string): SeasonPlan => ({
  from, nights: 60, jobs: [], value: 1, bound: 1, gap: 0, odds: null, literally: null, runs: 0, conflicts: [], stage: "whole",
  evenings: [...kinds].flatMap((k, n) => (k === "." ? [] : [evening(n, k === "n" ? "Ha" : "L")])),
}); // prettier-ignore

describe("phases", () => {
  it("are the runs of narrow and broad bands, a night or two in between left out", () => {
    expect(phasesOf(plan("nnn..nnnbnnnn.bbbbb.b"), "rig")).toEqual([
      { kind: "narrow", from, to: addNights(from, 12) },
      { kind: "broad", from: addNights(from, 14), to: addNights(from, 20) },
    ]);
    expect(phasesOf(plan("nnnnnn"), "rig")).toEqual([]);
    expect(phasesOf(plan("nnnbbb"), "another")).toEqual([]);
  });
});

describe("clear nights in a row", () => {
  it("have the chance that adding up all weathers gives (law, by enumeration)", () => {
    const night = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.array(night, { minLength: 1, maxLength: 8 }), fc.integer({ min: 1, max: 4 }), fc.double({ min: 0, max: 0.8, noNaN: true }), (chances, run, r) => {
        let sum = 0;
        for (let code = 0; code < 1 << chances.length; code++) {
          let weight = 1;
          let last: boolean | null = null;
          let [row, longest] = [0, 0];
          chances.forEach((p, i) => {
            const is: boolean = ((code >> i) & 1) === 1;
            // Two neighbours are clear together as correlated coins are; each keeps its chance.
            const q = chances[i - 1] ?? 0;
            const both = Math.min(p, q, Math.max(0, p + q - 1, p * q + r * Math.sqrt(p * (1 - p) * q * (1 - q))));
            const clear: number = last === null ? p : last ? both / q : (p - both) / (1 - q);
            if (weight > 0) weight *= is ? clear : 1 - clear;
            row = is ? row + 1 : 0;
            longest = Math.max(longest, row);
            last = is;
          });
          if (longest >= run) sum += weight;
        }
        expect(chanceOfRun(chances, run, r)).toBeCloseTo(sum, 9);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 100 },
    ); // prettier-ignore
  });
});
