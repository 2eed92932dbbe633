import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { mosaicPanels, type MosaicLayout } from "~/core/framing";
import { testFilter, testRig } from "~/core/test-data";
import type { ContributionData } from "./contribution";
import { coveredShare, memberWeights, type ShotFrame, type WeightContext } from "./equivalence";

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
  const entry = (memberId: string, hours: number, more: Partial<ContributionData> = {}): ContributionData => ({ projectId: "p", panel: "P1", channel: testFilter.channel, night: "2026-12-05", memberId, rigId: "r", placeId: "home", exposureSec: 3600, taken: hours, kept: hours, reason: "", worthRate: 1, startMs: null, fileName: "", note: "", ...more }); // prettier-ignore
  const kit = (skyMagPerArcsec2: number) => ({ rig: testRig, filters: [testFilter], skyMagPerArcsec2 });
  const at: WeightContext = {
    reference: kit(20),
    kitOf: (e) => (e.placeId === "gone" ? null : kit(e.placeId === "dark" ? 21 : 20)),
    coverOf: (e) => (e.panel === "P2" ? 0.16 : 1),
  };
  it("a magnitude darker is 2.512 times as much (10^0.4), the Moon and the direction count, and so does the field", () => {
    const of = (e: ContributionData) => memberWeights([e], at)[0]!;
    expect(of(entry("a", 10)).equivalentHours).toBeCloseTo(10, 9);
    expect(of(entry("a", 10, { placeId: "dark" })).equivalentHours).toBeCloseTo(25.12, 2);
    expect(of(entry("a", 10, { worthRate: 0.4 })).equivalentHours).toBeCloseTo(4, 9);
    expect(of(entry("a", 94, { panel: "P2" }))).toMatchObject({ keptHours: 94, covers: 0.16 });
    expect(of(entry("a", 94, { panel: "P2" })).equivalentHours).toBeCloseTo(15.04, 9);
    expect(of(entry("a", 10, { placeId: "gone", worthRate: null }))).toMatchObject({ hourIs: null, equivalentHours: 10 }); // prettier-ignore
  });
  it("weigh as the square of the signal to noise: the published shares (MATHS C4.9)", () => {
    const weights = memberWeights([entry("a", 100), entry("b", 225), entry("c", 49)], at);
    expect(weights.map((w) => [w.memberId, w.share.toFixed(4)])).toEqual([["b", "0.6016"], ["a", "0.2674"], ["c", "0.1310"]]); // prettier-ignore
    expect(memberWeights([entry("a", 0)], at)).toEqual([]);
  });
});
