import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { directionAt, drawnBy, nearest, REACH_PX, spotOf } from "./reach";

const direction = fc.record({
  azimuthDeg: fc.double({ min: 0, max: 359.9, noNaN: true }),
  altitudeDeg: fc.double({ min: 0, max: 80, noNaN: true }),
});
const width = fc.integer({ min: 240, max: 1800 });

describe("a finger on the panorama", () => {
  it("finds again the direction that it drew", () => {
    fc.assert(
      fc.property(direction, width, (at, widthPx) => {
        const again = directionAt(spotOf(at, widthPx), widthPx);
        expect(again.azimuthDeg).toBeCloseTo(at.azimuthDeg, 6);
        expect(again.altitudeDeg).toBeCloseTo(at.altitudeDeg, 6);
      }),
    );
  });

  it("means the nearest of what lies in its reach, and nothing when all is farther", () => {
    expect(nearest([{ x: 10, y: 10 }, { x: 40, y: 10 }], { x: 30, y: 12 })).toBe(1); // prettier-ignore
    expect(nearest([{ x: 10, y: 10 }, { x: 40, y: 10 }], { x: 22, y: 10 })).toBe(0); // prettier-ignore
    expect(nearest([{ x: 10, y: 10 }], { x: 10 + REACH_PX + 1, y: 10 })).toBe(-1);
    expect(nearest([], { x: 1, y: 1 })).toBe(-1);
  });

  it("turns by less than 22° when it goes 30 px, on any phone, and by what the panorama’s scale says over four", () => {
    fc.assert(
      fc.property(direction, fc.integer({ min: 320, max: 430 }), (at, widthPx) => {
        const then = drawnBy(at, { x: 100, y: 50 }, { x: 130, y: 50 }, widthPx);
        expect(then.azimuthDeg - at.azimuthDeg).toBeLessThan(9);
        expect(then.azimuthDeg - at.azimuthDeg).toBeCloseTo((30 * 360) / widthPx / 4, 9);
        expect(then.altitudeDeg).toBeCloseTo(at.altitudeDeg, 9);
      }),
    );
  });

  it("lifts what it holds as it goes up, never below the horizon", () => {
    const held = { azimuthDeg: 90, altitudeDeg: 3 };
    expect(drawnBy(held, { x: 0, y: 60 }, { x: 0, y: 20 }, 390).altitudeDeg).toBeCloseTo(
      3 + (40 * 900 * 80) / (390 * 4 * 250),
      9,
    );
    expect(drawnBy(held, { x: 0, y: 20 }, { x: 0, y: 120 }, 390).altitudeDeg).toBe(0);
  });
});
