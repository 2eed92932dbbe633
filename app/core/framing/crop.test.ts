import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { largestCrop, pictureSize, uncovered } from "./crop";

const sides = { planeWidthArcmin: 30, planeHeightArcmin: 20 };
const at = (xArcmin: number, yArcmin: number) => ({ xArcmin, yArcmin });
const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);

describe("the picture that is cut out", () => {
  it("is the whole of one frame and of a full grid, and of that shape which is asked for", () => {
    expect(largestCrop([at(0, 0)], sides)).toEqual({ ...at(0, 0), widthArcmin: 30, heightArcmin: 20 });
    const grid = [at(-12, 8), at(12, 8), at(-12, -8), at(12, -8)];
    expect(largestCrop(grid, sides)).toEqual({ ...at(0, 0), widthArcmin: 54, heightArcmin: 36 });
    expect(largestCrop(grid, sides, 1)).toMatchObject({ widthArcmin: 36, heightArcmin: 36 });
    expect(largestCrop(grid, sides, 3)).toMatchObject({ widthArcmin: 54, heightArcmin: 18 });
    expect(largestCrop([], sides)).toBeNull();
  });
  it("goes round a corner that is missing, and says how much of a larger one would stay empty", () => {
    const corner = [at(-13, 8), at(13, 8), at(-13, -8)];
    const best = largestCrop(corner, sides)!;
    expect(best).toEqual({ ...at(0, 8), widthArcmin: 56, heightArcmin: 20 });
    expect(uncovered(best, corner, sides)).toBe(0);
    const whole = { ...at(0, 0), widthArcmin: 56, heightArcmin: 36 };
    // The missing corner: 26 × 16 of 56 × 36 square arcminutes.
    expect(uncovered(whole, corner, sides)).toBeCloseTo((26 * 16) / (56 * 36), 1);
  });
  it("has no gap, and no rectangle on the panels' edges without one is larger (a law, by brute force)", () => {
    const panel = fc.record({ xArcmin: fc.integer({ min: -40, max: 40 }), yArcmin: fc.integer({ min: -30, max: 30 }) });
    fc.assert(
      fc.property(fc.array(panel, { minLength: 1, maxLength: 5 }), (panels) => {
        const found = largestCrop(panels, sides)!;
        expect(uncovered(found, panels, sides)).toBe(0);
        const xs = [...new Set(panels.flatMap((p) => [p.xArcmin - 15, p.xArcmin + 15]))];
        const ys = [...new Set(panels.flatMap((p) => [p.yArcmin - 10, p.yArcmin + 10]))];
        for (const left of xs)
          for (const right of xs)
            for (const bottom of ys)
              for (const top of ys) {
                if (right <= left || top <= bottom) continue;
                if ((right - left) * (top - bottom) <= found.widthArcmin * found.heightArcmin + 1e-6) continue;
                // Larger: on whole arcminutes, so half-arcminute points tell whether it is covered.
                let isFull = true;
                for (let x = left + 0.5; x < right && isFull; x++)
                  for (let y = bottom + 0.5; y < top && isFull; y++)
                    isFull = panels.some((p) => Math.abs(p.xArcmin - x) < 15 && Math.abs(p.yArcmin - y) < 10);
                expect(isFull).toBe(false);
              }
      }),
      { numRuns: runs(60, 1500) },
    );
  });
  it("comes to whole pixels and to centimetres at 300 dots an inch", () => {
    // 4144 × 2822 pixels at 2″ are 138.13′ × 94.07′; 4144/300 inches are 35.09 cm.
    const size = pictureSize({ widthArcmin: (4144 * 2) / 60, heightArcmin: (2822 * 2) / 60 }, 2);
    expect([size.widthPx, size.heightPx]).toEqual([4144, 2822]);
    expect(size.printWidthCm).toBeCloseTo(35.086, 3);
    expect(size.printHeightCm).toBeCloseTo(23.893, 3);
  });
});
