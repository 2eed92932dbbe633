import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mosaicPanels, type MosaicLayout } from "~/core/framing";
import { coveredShare, filledPanels, type CountedEntry, type ShotFrame } from "./counted";
import { memberWeights, type WeightContext } from "./equivalence";

const layout: MosaicLayout = { centre: { frame: "icrs", raDeg: 70, decDeg: 46 }, positionAngleDeg: 20, planeWidthArcmin: 60, planeHeightArcmin: 40, columns: 1, rows: 1, overlap: 0.15 }; // prettier-ignore
const frame = (more: Partial<MosaicLayout> = {}): ShotFrame => {
  const l = { ...layout, ...more };
  return { layout: l, panels: mosaicPanels(l) };
};

describe("the share of a field that a frame covers", () => {
  it("is all of itself, a quarter with half the sides, nothing beside it, all of a mosaic's panel", () => {
    expect(coveredShare(frame(), frame())).toBe(1);
    expect(coveredShare(frame(), frame({ planeWidthArcmin: 30, planeHeightArcmin: 20 }))).toBeCloseTo(0.25, 2);
    expect(coveredShare(frame(), frame({ centre: { ...layout.centre, decDeg: 50 } }))).toBe(0);
    expect(coveredShare(frame(), frame({ columns: 3, rows: 3 }))).toBe(1);
    expect(coveredShare(frame(), frame({ positionAngleDeg: 200 }))).toBe(1); // half a turn is the same rectangle
  });
  it("is the same piece of sky from both sides: shares times areas agree (law)", () => {
    const some = fc.record({ width: fc.integer({ min: 20, max: 120 }), height: fc.integer({ min: 20, max: 120 }), turn: fc.integer({ min: 0, max: 180 }), dec: fc.double({ min: 45.4, max: 46.6, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(some, ({ width, height, turn, dec }) => {
        const other = frame({ planeWidthArcmin: width, planeHeightArcmin: height, positionAngleDeg: turn, centre: { ...layout.centre, decDeg: dec } }); // prettier-ignore
        const [there, back] = [coveredShare(frame(), other) * 60 * 40, coveredShare(other, frame()) * width * height];
        expect(Math.abs(there - back)).toBeLessThan(0.06 * Math.max(60 * 40, width * height));
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 6000 : 60 },
    );
  });
});

describe("hours at the reference", () => {
  const entry = (memberId: string, hours: number, more: Partial<CountedEntry> = {}): CountedEntry => ({ projectId: "p", panel: "P1", channel: "L", night: "2026-12-05", memberId, rigId: "r", placeId: "home", exposureSec: 3600, taken: hours, kept: hours, reason: "", worthRate: 1, startMs: null, fileName: "", note: "", countedMin: hours * 60, ...more }); // prettier-ignore
  const at: WeightContext = { hourIs: () => 1, coverOf: (e) => (e.panel === "P2" ? 0.16 : 1) };
  it("weigh as the square of the signal to noise: the published shares (MATHS C4.9)", () => {
    const weights = memberWeights([entry("a", 100), entry("b", 225), entry("c", 49)], at);
    expect(weights.map((w) => [w.memberId, w.share.toFixed(4)])).toEqual([["b", "0.6016"], ["a", "0.2674"], ["c", "0.1310"]]); // prettier-ignore
    expect(memberWeights([entry("a", 0)], at)).toEqual([]);
  });
  it("are summed over every panel that was filled; hours kept are told once", () => {
    const [w] = memberWeights([entry("a", 10, { panel: "P2", countedMin: 96 }), entry("a", 0, { countedMin: 60 })], at);
    expect(w).toMatchObject({ keptHours: 10, covers: 0.16, share: 1 });
    expect(w!.equivalentHours).toBeCloseTo(2.6, 9);
  });
});

describe("the panels of a frame that another one fills", () => {
  it("are those it lies over, the fullest first, by area: a panel of half the sides at the seam of two (planar geometry)", () => {
    const pair = frame({ columns: 2, rows: 1, overlap: 0 });
    const small = frame({ planeWidthArcmin: 30, planeHeightArcmin: 20 });
    const filled = filledPanels(pair, small);
    expect(filled.map((f) => f.panel)).toEqual(["P1", "P2"]);
    expect(filled.map((f) => f.share.toFixed(2))).toEqual(["0.13", "0.13"]); // 15′ × 20′ of 60′ × 40′
    expect(filledPanels(frame(), frame({ centre: { ...layout.centre, decDeg: 50 } }))).toEqual([]);
  });
});
