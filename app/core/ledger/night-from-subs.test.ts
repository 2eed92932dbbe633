import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { turnTo } from "~/core/units";
import type { ContributionData } from "./contribution";
import { toldByFiles } from "./night-from-subs";

const sub = (minute: number, more: Partial<ContributionData> = {}): ContributionData => ({
  projectId: "p", panel: "P1", channel: "Ha", night: "2026-12-05", memberId: "m", rigId: "r", placeId: "pl", exposureSec: 300, taken: 1, kept: 1, reason: "", worthRate: null, startMs: Date.UTC(2026, 11, 5, 18, minute), fileName: "", note: "", ...more,
}); // prettier-ignore
const measured = (fwhmPx: number) => ({ fwhmPx, eccentricity: null, stars: null, background: null, from: "header" as const }); // prettier-ignore

describe("a night by its own files", () => {
  it("tells the air, the focuser from first to last, and the stars' width as at the zenith; nothing where they are silent", () => {
    const subs = [
      sub(0, { airC: 4, focusSteps: 12_000, measure: measured(2.5) }),
      sub(10, { airC: 2, focusSteps: 12_300, measure: measured(2.7) }),
      sub(20, { airC: 1, focusSteps: 12_180, measure: measured(2.6) }),
      sub(30),
    ];
    const told = toldByFiles([...subs].reverse(), 1.6, () => 2);
    expect(told).toMatchObject({
      airC: { value: 2, subs: 3 },
      focusMoves: { value: 180, subs: 3 },
      cameraAngleDeg: null,
    });
    expect(told.seeingArcsec!.value).toBeCloseTo((2.6 * 1.6) / 2 ** 0.6, 9); // MATHS 2.9
    expect(toldByFiles(subs, 1.6, () => null).seeingArcsec).toBeNull();
    expect(toldByFiles([sub(0, { focusSteps: 5 })], 1.6, () => 1).focusMoves).toBeNull();
    expect(toldByFiles([], 1.6, () => 1)).toEqual({ airC: null, focusMoves: null, cameraAngleDeg: null, seeingArcsec: null }); // prettier-ignore
  });
  it("tells one camera angle on either side of a flip, wherever north is (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.array(fc.record({ off: fc.double({ min: -0.4, max: 0.4, noNaN: true }), flip: fc.boolean() }), {
          minLength: 1,
          maxLength: 40,
        }),
        (true_, list) => {
          const subs = list.map(({ off, flip }, i) =>
            sub(i, { at: { raDeg: 0, decDeg: 0, positionAngleDeg: true_ + off + (flip ? 180 : 0) } }),
          );
          const { value } = toldByFiles(subs, 1, () => 1).cameraAngleDeg!;
          expect(Math.abs(turnTo(value, true_))).toBeLessThanOrEqual(0.4 + 1e-9);
        },
      ),
    );
  });
});
