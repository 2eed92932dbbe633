import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { matchedDithers } from "./dithers";
import { DEFAULT_OVERHEADS } from "./rig";

const with0 = (subSec: number) => ({ subSec, overheads: { ...DEFAULT_OVERHEADS, downloadSec: 0 } });

describe("dithers of two rigs", () => {
  it("agree: 120 s of one beside four of 30 s of the other, as 15 x 120 s beside 60 x 30 s are both 30 min (common practice, no source)", () => {
    expect(matchedDithers(with0(120), with0(30))).toEqual({ subsA: 1, subsB: 4, waste: 0 });
    expect(matchedDithers(with0(300), with0(300))).toEqual({ subsA: 1, subsB: 1, waste: 0 });
  });
  it("waste no more than any other pair within half an hour, but for near equals (law, by trying all)", () => {
    const sub = fc.integer({ min: 10, max: 900 });
    fc.assert(
      fc.property(sub, sub, (a, b) => {
        const found = matchedDithers(with0(a), with0(b))!;
        let least = 1;
        for (let i = 1; i * a <= 1800 && i <= 60; i++)
          for (let j = 1; j * b <= 1800 && j <= 60; j++)
            least = Math.min(least, Math.abs(i * a - j * b) / Math.max(i * a, j * b));
        expect(found.waste).toBeLessThanOrEqual(least + 0.03 + 1e-9);
        expect(found.waste).toBeCloseTo(
          Math.abs(found.subsA * a - found.subsB * b) / Math.max(found.subsA * a, found.subsB * b),
          12,
        );
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 60 },
    );
  });
  it("are not to be had where one sub is longer than half an hour", () => {
    expect(matchedDithers(with0(3600), with0(60))).toBeNull();
  });
});
