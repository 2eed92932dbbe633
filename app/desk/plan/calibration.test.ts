import { describe, expect, it } from "vitest";
import type { ContributionData } from "~/core/ledger";
import { cameraSetsOf } from "./calibration";

const subs = (n: number, more: Partial<ContributionData>): ContributionData[] =>
  Array.from({ length: n }, (_, i) => ({
    projectId: "p", panel: "P1", channel: "Ha", night: "2026-12-05", memberId: "m", rigId: "r", placeId: "x", exposureSec: 300, taken: 1, kept: 1, reason: "", worthRate: 1, startMs: i, fileName: "", note: "", ...more,
  })); // prettier-ignore

describe("how a camera is set", () => {
  it("is what most subs of the last night that tells have: one odd sub hides no shelf of darks (reported)", () => {
    const log = [...subs(20, { gain: 100, offset: 30 }), ...subs(1, { gain: 0, startMs: 9999 })];
    expect(cameraSetsOf(log).get("Ha")).toEqual({ gain: 100, offset: 30, binning: null });
  });
  it("changes with the night on which it was changed, for each channel by itself", () => {
    const log = [...subs(20, { gain: 100 }), ...subs(3, { gain: 0, night: "2026-12-06" }), ...subs(2, { channel: "L", gain: 50 }), ...subs(2, { night: "2026-12-07" })]; // prettier-ignore
    expect(cameraSetsOf(log).get("Ha")!.gain).toBe(0);
    expect(cameraSetsOf(log).get("L")!.gain).toBe(50);
    expect(cameraSetsOf(subs(2, {})).get("Ha")).toEqual({ gain: null, offset: null, binning: null });
  });
});
