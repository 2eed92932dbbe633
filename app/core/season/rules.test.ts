import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CHANNELS, cycleSec, DEFAULT_OVERHEADS as o } from "~/core/exposure";
import { cycleText, readCycle, turnEfficiency, turnShares, weightOf } from "./rules";

describe("channels in turn", () => {
  it("are read as people write them, and written so that they read the same (law)", () => {
    const [L, R, G, B] = ["L", "R", "G", "B"].map((channel) => ({ channel, subs: 1 }));
    const LLL = { channel: "L", subs: 3 };
    expect(readCycle("LLL RGB", CHANNELS)).toEqual([LLL, R, G, B]);
    expect(readCycle("3xL, 1x R, g, B", CHANNELS)).toEqual([LLL, R, G, B]);
    expect(readCycle("L·R·G·B", CHANNELS)).toEqual([L, R, G, B]);
    for (const bad of ["", "L", "LL", "L R L", "L X", "0 L, R", "99 L, R"]) expect(readCycle(bad, CHANNELS)).toBeNull();
    expect(readCycle("L, Ha", ["L", "R"])).toBeNull(); // not a channel of it
    const step = fc.record({ channel: fc.constantFrom(...CHANNELS), subs: fc.integer({ min: 1, max: 50 }) });
    fc.assert(
      fc.property(fc.uniqueArray(step, { minLength: 2, maxLength: 6, selector: (s) => s.channel }), (cycle) => {
        expect(readCycle(cycleText(cycle), CHANNELS)).toEqual(cycle);
      }),
    );
  });

  it("take the clock that their subs, filters and pointings take, added up by hand", () => {
    const steps = [
      { channel: "L" as const, subSec: 120, subs: 3 },
      { channel: "R" as const, subSec: 180, subs: 1 },
    ];
    expect(turnShares(steps)).toEqual([360 / 540, 180 / 540]);
    const clock = 3 * cycleSec(120, o) + cycleSec(180, o) + 2 * o.filterChangeSec + o.panelChangeSec;
    expect(turnEfficiency(steps, true, o)).toBeCloseTo((540 / clock) * (1 - o.focusMin / o.focusEveryMin), 12);
    expect(turnEfficiency([steps[0]!], false, o)).toBeCloseTo((120 / cycleSec(120, o)) * (1 - o.focusMin / o.focusEveryMin), 12); // prettier-ignore
  });
});

it("what is to be finished counts up to double, the nearer it is; what is not counts the same all along", () => {
  expect([weightOf(2, false, 600, 10), weightOf(2, true, 600, 600), weightOf(2, true, 600, 0)]).toEqual([2, 2, 4]);
  expect(weightOf(1, true, 600, 300)).toBeCloseTo(1.5, 12);
});
