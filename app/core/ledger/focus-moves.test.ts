import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Channel } from "~/core/exposure";
import type { ContributionData } from ".";
import { focusMoves } from ".";

const sub = (channel: Channel, minute: number, focusSteps?: number, night = "2026-12-04") =>
  ({ channel, night, startMs: Date.parse(`${night}T20:00:00Z`) + minute * 60_000, exposureSec: 300, ...(focusSteps === undefined ? {} : { focusSteps }) }) as ContributionData; // prettier-ignore

describe("moves of the focuser from filter to filter", () => {
  it("are read over each change, and are the same move back", () => {
    const moves = focusMoves([sub("L", 0, 5000), sub("Ha", 10, 5120), sub("Ha", 15, 5120), sub("L", 25, 5004)]);
    expect(moves("L", "Ha")).toEqual({ steps: 118, changes: 2, spread: 2 });
    expect(moves("Ha", "L")).toEqual({ steps: -118, changes: 2, spread: 2 });
    expect(moves("L", "OIII")).toBeNull();
  });

  it("are not read over a long break, from night to night, or where a file is silent", () => {
    const moves = focusMoves([sub("L", 0, 5000), sub("Ha", 200, 4800), sub("L", 205), sub("OIII", 215, 5050), sub("L", 0, 9000, "2026-12-05")]); // prettier-ignore
    expect(moves("L", "Ha")).toBeNull();
    expect(moves("OIII", "L")).toBeNull();
    // L says nothing here: what is known are Ha and OIII, one after the other.
    expect(moves("Ha", "OIII")).toMatchObject({ steps: 250, changes: 1, spread: null });
  });

  it("are those of a focuser that also follows the cold, to the error of its autofocus (law)", () => {
    const offsets = fc.record({ L: fc.constant(0), Ha: fc.integer({ min: -400, max: 400 }), OIII: fc.integer({ min: -400, max: 400 }) }); // prettier-ignore
    fc.assert(
      fc.property(offsets, fc.integer({ min: -60, max: 60 }), fc.integer({ min: 0, max: 1e6 }), (truth, perHour, seed) => {
        // There and back all night: L Ha OIII Ha L …, half an hour each, the focus drifting with the cold and met to ± 5 steps.
        const order = ["L", "Ha", "OIII", "Ha"] as const;
        const noise = (i: number) => (((seed + 1) * (i + 7) * 7919) % 11) - 5;
        const subs = Array.from({ length: 17 }, (_, i) => {
          const channel = order[i % 4]!;
          return sub(channel, i * 30, 5000 + truth[channel] + Math.round((perHour * i) / 2) + noise(i));
        });
        const moves = focusMoves(subs);
        for (const [from, to] of [["L", "Ha"], ["Ha", "OIII"], ["OIII", "Ha"]] as const)
          expect(Math.abs(moves(from, to)!.steps - (truth[to] - truth[from]))).toBeLessThanOrEqual(11);
      }),
    ); // prettier-ignore
  });
});
