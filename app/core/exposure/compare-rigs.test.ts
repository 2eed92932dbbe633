import { describe, expect, it } from "vitest";
import { testRig } from "~/core/test-data";
import checks from "../../../reference/maths/checks.json";
import { compareRig, lightGrasp, type Filter, type ObjectLight } from ".";

/** Limited by the sky alone, as the published pairs are: no reading, no dark current, an object of no light. */
const ideal = { ...testRig, readNoiseE: 1e-6, darkEPerSec: 0 };
const NO_LIGHT: ObjectLight = { ha: 1e-17, oiii: 1e-17, sii: 1e-17, magPerArcsec2: 45 };
const rig = (focalLengthMm: number, apertureMm: number) => ({ ...ideal, focalLengthMm, apertureMm });
const frameOf = (focalLengthMm: number) => {
  const side = (px: number) => ((px * 3.76e-3) / focalLengthMm) * (180 / Math.PI) * 60;
  return { widthArcmin: side(6248), heightArcmin: side(4176) };
};
const filter = (channel: Filter["channel"], centreNm: number, bandwidthNm: number): Filter => ({
  name: channel, channel, centreNm, bandwidthNm, transmission: 0.9,
}); // prettier-ignore
const L = filter("L", 550, 300);
const under = (r: typeof testRig, filters: readonly Filter[], skyMagPerArcsec2 = 20) => ({
  rig: r,
  filters,
  skyMagPerArcsec2,
});
const tenHours = [{ channel: "L" as const, hoursPerPanel: 10, subSec: 120 }];

describe("one frame with a short lens against a mosaic with a long one (MATHS C1.10)", () => {
  const at = {
    light: NO_LIGHT,
    first: under(rig(250, 50), [L]),
    other: under(rig(1000, 200), [L]),
    ...frameOf(250),
    overlap: 0.15,
    goals: tenHours,
  };
  const of = compareRig({ ...at, mayTurn: false });
  it("takes 5 × 5 panels, four times the detail", () => {
    expect([of.columns, of.rows]).toEqual([5, 5]);
    expect(of.detail).toBeCloseTo(checks["C1.10"].outputs.detail, 9);
  });
  it("takes 7 × 3 with the camera across, which is fewer (plain arithmetic: 0.25 of 3:2 sides)", () => {
    const across = compareRig(at);
    expect([across.columns, across.rows]).toEqual([7, 3]);
  });
  it("gets 0.64 of the light per area in the same total time: 15.6 h for the same depth", () => {
    expect(10 / of.hours!).toBeCloseTo(checks["C1.10"].outputs.ratio, 9);
  });
});

describe("light", () => {
  it("per area is that of the published pair, B over A 2.7281 (MATHS C1.9)", () => {
    const a = { ...testRig, apertureMm: 106, focalLengthMm: 530, throughput: 0.95, quantumEfficiency: 0.8 };
    const b = { ...testRig, apertureMm: 200, focalLengthMm: 800, obstruction: 0.3, throughput: 0.8, quantumEfficiency: 0.8 }; // prettier-ignore
    expect(lightGrasp(b) / lightGrasp(a)).toBeCloseTo(checks["C1.9"].outputs.am_ratio, 6);
  });
  it("turns the camera when that saves panels, and asks nothing of itself", () => {
    const { widthArcmin, heightArcmin } = frameOf(480);
    const kit = under(testRig, [L]);
    const at = { first: kit, other: kit, overlap: 0.15, goals: [{ channel: "L" as const, hoursPerPanel: 4, subSec: 300 }] }; // prettier-ignore
    const same = compareRig({ ...at, widthArcmin, heightArcmin });
    expect([same.columns, same.rows, same.hours, same.detail]).toEqual([1, 1, 4, 1]);
    const upright = compareRig({ ...at, widthArcmin: heightArcmin, heightArcmin: widthArcmin });
    expect(upright.columns * upright.rows).toBe(1);
    expect(same.megabytes).toBeCloseTo(((4 * 3600) / 300) * 6248 * 4176 * 2e-6, 3);
  });
});

describe("channel by channel", () => {
  const lines = [filter("Ha", 656.3, 5), filter("OIII", 500.7, 5)];
  const colour = { ...ideal, isColour: true };
  const goals = [
    { channel: "Ha" as const, hoursPerPanel: 10, subSec: 300 },
    { channel: "OIII" as const, hoursPerPanel: 10, subSec: 300 },
  ];
  const at = { light: NO_LIGHT, first: under(ideal, lines), goals, ...frameOf(480), overlap: 0.15 };
  it("ranks no colour camera without a line filter beside lines (reported: 11 h against 27 h)", () => {
    const of = compareRig({ ...at, other: under(colour, [filter("Colour", 550, 300)]) });
    expect(of).toMatchObject({ missing: ["Ha", "OIII"], hours: null });
  });
  it("counts an hour behind a dual-band filter as 0.2125 h of Ha and 0.5125 h of OIII in mono (MATHS C4.12), both at once", () => {
    const of = compareRig({ ...at, other: under(colour, [filter("Dual", 500.7, 10)]) });
    const [ha, oiii] = of.channels.map((c) => 10 / c.hoursPerPanel!);
    expect(ha).toBeCloseTo(0.2125, 6);
    expect(oiii).toBeCloseTo(0.5125, 6);
    expect(of.hoursPerPanel).toBeCloseTo(10 / 0.2125, 6); // the longer of the two, not their sum
  });
  it("takes R, G and B at once as a quarter, half and quarter of the pixels (MATHS C4.11), and no luminance", () => {
    const rgb = [filter("R", 640, 100), filter("G", 530, 100), filter("B", 445, 100)];
    const want = (["R", "G", "B"] as const).map((channel) => ({ channel, hoursPerPanel: 1, subSec: 60 }));
    const of = compareRig({ ...at, goals: want, first: under(ideal, rgb), other: under(colour, [filter("Colour", 550, 300)]) }); // prettier-ignore
    const shares = of.channels.map((c) => 1 / c.hoursPerPanel!);
    expect(shares[0]! / 0.25).toBeCloseTo(0.85, 6); // the dye (from memory) on top of the share of pixels
    expect(shares[1]! / 0.5).toBeCloseTo(0.8, 6);
    expect(of.hours).toBeCloseTo(Math.max(...of.channels.map((c) => c.hoursPerPanel!)), 9);
    expect(compareRig({ ...at, goals: tenHours, first: under(ideal, [L]), other: under(colour, [filter("Colour", 550, 300)]) }).missing).toEqual(["L"]); // prettier-ignore
  });
  it("judges a friend's rig under the friend's sky: 2.5 mag darker takes a tenth of the hours (definition of the magnitude)", () => {
    const dark = compareRig({ ...at, other: under(ideal, lines, 22.5), first: under(ideal, lines, 20) });
    expect(dark.hoursPerPanel).toBeCloseTo(20 / 10, 9);
  });
  it("needs half the hours with half the bandwidth for a line, twice for a broad band", () => {
    const half = compareRig({ ...at, other: under(ideal, [filter("Ha", 656.3, 2.5), filter("OIII", 500.7, 2.5)]) });
    expect(half.hoursPerPanel).toBeCloseTo(10, 9);
    const broad = compareRig({ ...at, goals: tenHours, first: under(ideal, [L]), other: under(ideal, [{ ...L, bandwidthNm: 150 }]) }); // prettier-ignore
    expect(broad.hoursPerPanel).toBeCloseTo(20, 8);
  });
});
