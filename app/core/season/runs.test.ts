import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { addNights, nightDate } from "~/core/time";
import { runOdds, runStanding } from "./runs";

const from = nightDate("2026-11-02");

describe("a night of a run of clear ones", () => {
  it("is one as often as adding up all weathers says (law, by enumeration)", () => {
    const night = fc.double({ min: 0.01, max: 0.99, noNaN: true });
    fc.assert(
      fc.property(fc.array(night, { minLength: 1, maxLength: 7 }), fc.integer({ min: 1, max: 4 }), fc.double({ min: 0, max: 0.8, noNaN: true }), (chances, run, r) => {
        const [is, of, begins] = [0, 0, 0].map(() => chances.map(() => 0)) as [number[], number[], number[]];
        for (let code = 0; code < 1 << chances.length; code++) {
          const clear = chances.map((_, i) => ((code >> i) & 1) === 1);
          let weight = 1;
          chances.forEach((p, i) => {
            // Each night keeps its chance; two neighbours are clear together as correlated coins are.
            const q = chances[i - 1] ?? 0;
            const both = Math.min(p, q, Math.max(0, p + q - 1, p * q + r * Math.sqrt(p * (1 - p) * q * (1 - q))));
            const odds = i === 0 ? p : clear[i - 1] ? both / q : (p - both) / (1 - q);
            weight *= clear[i] ? odds : 1 - odds;
          });
          clear.forEach((c, n) => {
            if (!c) return;
            let [a, b] = [n, n];
            while (clear[a - 1]) a--;
            while (clear[b + 1]) b++;
            of[n]! += weight;
            if (b - a + 1 >= run) is[n]! += weight;
            if (b - n + 1 >= run) begins[n]! += weight;
          });
        }
        // Nights past the end are as the last, so only runs that end within are held against the sum; the night before was clouded.
        const found = runOdds(chances, run, r, false);
        chances.forEach((_, n) => {
          if (n + run > chances.length) return;
          expect(found.share[n]!).toBeCloseTo(is[n]! / of[n]!, 9);
        });
        expect(found.begins[0]!).toBeCloseTo(run <= chances.length ? begins[0]! : found.begins[0]!, 9);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 100 },
    ); // prettier-ignore
  });

  it("goes on where the night before was clear, waits where the next is not to be, and names the night it is likeliest to begin", () => {
    expect(runOdds([0.4, 0.1], 2, 0.35, true).share[0]).toBe(1);
    const clouded = runStanding(from, [0.7, 0.05, 0.9, 0.9, 0.4], 2, 0.35, false);
    expect(clouded.waits).toBe(true);
    expect(clouded.best.night).toBe(addNights(from, 2));
    expect(runStanding(from, [0.7, 0.9, 0.4], 2, 0.35, false).waits).toBe(false);
  });
});
