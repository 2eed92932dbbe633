import { describe, expect, it } from "vitest";
import { testRig } from "~/core/test-data";
import checks from "../../../reference/maths/checks.json";
import { compareRig, lightGrasp } from ".";

const rig = (focalLengthMm: number, apertureMm: number) => ({ ...testRig, focalLengthMm, apertureMm });
const frameOf = (focalLengthMm: number) => {
  const side = (px: number) => ((px * 3.76e-3) / focalLengthMm) * (180 / Math.PI) * 60;
  return { widthArcmin: side(6248), heightArcmin: side(4176) };
};

describe("one frame with a short lens against a mosaic with a long one (MATHS C1.10)", () => {
  const short = rig(250, 50);
  const long = rig(1000, 200);
  const of = compareRig({
    first: short,
    other: long,
    ...frameOf(250),
    overlap: 0.15,
    hoursPerPanel: 10,
    subSec: 120,
    mayTurn: false,
  });
  it("takes 5 × 5 panels, four times the detail", () => {
    expect([of.columns, of.rows]).toEqual([5, 5]);
    expect(of.detail).toBeCloseTo(checks["C1.10"].outputs.detail, 9);
  });
  it("takes 7 × 3 with the camera across, which is fewer (plain arithmetic: 0.25 of 3:2 sides)", () => {
    const across = compareRig({
      first: short,
      other: long,
      ...frameOf(250),
      overlap: 0.15,
      hoursPerPanel: 10,
      subSec: 120,
    });
    expect([across.columns, across.rows]).toEqual([7, 3]);
  });
  it("gets 0.64 of the light per area in the same total time: 15.6 h for the same depth", () => {
    expect(of.lightRatio / 25).toBeCloseTo(checks["C1.10"].outputs.ratio, 9);
    expect(of.hours).toBeCloseTo(10 / 0.64, 6);
  });
});

describe("light", () => {
  it("per area is that of the published pair, B over A 2.7281 (MATHS C1.9)", () => {
    const a = { ...testRig, apertureMm: 106, focalLengthMm: 530, throughput: 0.95, quantumEfficiency: 0.8 };
    const b = {
      ...testRig,
      apertureMm: 200,
      focalLengthMm: 800,
      obstruction: 0.3,
      throughput: 0.8,
      quantumEfficiency: 0.8,
    };
    expect(lightGrasp(b) / lightGrasp(a)).toBeCloseTo(checks["C1.9"].outputs.am_ratio, 6);
  });
  it("turns the camera when that saves panels, and asks nothing of itself", () => {
    const { widthArcmin, heightArcmin } = frameOf(480);
    const at = { first: testRig, other: testRig, overlap: 0.15, hoursPerPanel: 4, subSec: 300 };
    const same = compareRig({ ...at, widthArcmin, heightArcmin });
    expect([same.columns, same.rows, same.hours, same.detail]).toEqual([1, 1, 4, 1]);
    const upright = compareRig({ ...at, widthArcmin: heightArcmin, heightArcmin: widthArcmin });
    expect(upright.columns * upright.rows).toBe(1);
    expect(same.megabytes).toBeCloseTo(((4 * 3600) / 300) * 6248 * 4176 * 2e-6, 3);
  });
});
