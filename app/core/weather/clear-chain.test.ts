import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { clearAfter } from "./clear-chain";

describe("clear nights in a row", () => {
  it.each([
    [0.9, 0.1, 0.1111, 0],
    [0.5, 0.5, 0.675, 0.325],
    [0.7, 0.4, 0.5122, 0.1381],
    [0.57, 0.46, 0.6115, 0.2592],
  ])("after %d comes %d with the odds of MATHS C6.16", (first, second, clear, cloud) => {
    const found = clearAfter(first, second, 0.35);
    expect(found.afterClear).toBeCloseTo(clear, 4);
    expect(found.afterCloud).toBeCloseTo(cloud, 4);
  });
  it("keeps the stated chance of every night, whatever the one before is (law)", () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(share, share, fc.double({ min: 0, max: 0.95, noNaN: true }), (first, second, r) => {
        const { afterClear, afterCloud } = clearAfter(first, second, r);
        expect(first * afterClear + (1 - first) * afterCloud).toBeCloseTo(second, 9);
        for (const odds of [afterClear, afterCloud]) {
          expect(odds).toBeGreaterThanOrEqual(-1e-12);
          expect(odds).toBeLessThanOrEqual(1 + 1e-12);
        }
      }),
    );
  });
});
