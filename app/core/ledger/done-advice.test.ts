import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { doneAdvice } from "./done-advice";
import type { LoomCell } from "./progress";

const cell = (panel: string, hours: number, goal = 4, channel: LoomCell["channel"] = "Ha"): LoomCell => ({ panel, channel, isShort: false, goalMin: goal * 60, takenMin: hours * 60, keptMin: hours * 60, countedMin: hours * 60, share: goal > 0 ? hours / goal : 1 }); // prettier-ignore

describe("done, or more?", () => {
  it("names the weakest first, and what an hour more gives: 41 % on one hour, 12 % on four (√ of the hours)", () => {
    const { cells } = doneAdvice([cell("P1", 4), cell("P2", 1), cell("P3", 0)]);
    expect(cells.map((c) => c.cell.panel)).toEqual(["P3", "P2", "P1"]);
    expect(cells.map((c) => c.gain.toFixed(3))).toEqual(["Infinity", "1.414", "1.118"]);
    expect(cells.map((c) => c.shortMag?.toFixed(4) ?? null)).toEqual([null, "0.7526", "0.0000"]); // MATHS C4.14
  });
  it("levels panels: hours to the deepest, and hours until nothing shows (MATHS C5.13, 5.10)", () => {
    const { unlevel } = doneAdvice([cell("P1", 8), cell("P2", 2), cell("P3", 8, 8, "OIII")]);
    expect(unlevel).toMatchObject([{ channel: "Ha", ratio: 2, levelHours: 6, weakest: "P2" }]);
    expect(unlevel[0]!.softHours).toBeCloseTo(8 / 1.44 - 2, 9);
    expect(doneAdvice([cell("P1", 8), cell("P2", 6)]).unlevel).toEqual([]); // 1.155
    expect(doneAdvice([cell("P1", 8), cell("P2", 0)]).unlevel[0]!.ratio).toBe(Infinity);
  });
  it("says done at the goals, enough where nothing missing would be seen, else more", () => {
    expect(doneAdvice([cell("P1", 4), cell("P2", 5)]).verdict).toBe("done");
    expect(doneAdvice([cell("P1", 3), cell("P2", 3)]).verdict).toBe("enough"); // 0.156 mag short
    expect(doneAdvice([cell("P1", 2.5), cell("P2", 3)]).verdict).toBe("more"); // 0.255 mag short
    expect(doneAdvice([cell("P1", 10), cell("P2", 4)]).verdict).toBe("done"); // goals met; the step is told beside
    expect(doneAdvice([cell("P1", 0)]).verdict).toBe("more");
    expect(doneAdvice([]).verdict).toBe("done");
  });
  it("leaves nothing to see once the hours it asks for are there (law)", () => {
    const hours = fc.array(fc.double({ min: 0, max: 30, noNaN: true }), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(hours, (list) => {
        const { unlevel } = doneAdvice(list.map((h, i) => cell(`P${i}`, h)));
        const floor = Math.max(...list) / 1.44;
        const lifted = list.map((h) => Math.max(h, floor));
        const asked = lifted.reduce((a, b) => a + b, 0) - list.reduce((a, b) => a + b, 0);
        expect(unlevel[0]?.softHours ?? 0).toBeCloseTo(asked, 6);
        expect(doneAdvice(lifted.map((h, i) => cell(`P${i}`, h))).unlevel).toEqual([]);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 100 },
    );
  });
});
