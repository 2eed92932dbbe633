import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { frameSketch, sketchPoint } from "./sketch";
import { skyToFrame } from "./seams";

const at = (raDeg: number, decDeg: number) => ({ frame: "icrs" as const, raDeg, decDeg });
const layout = { centre: at(10, 40), positionAngleDeg: 0, planeWidthArcmin: 60, planeHeightArcmin: 40, columns: 1, rows: 1, overlap: 0.1 }; // prettier-ignore

describe("a frame as a small drawing", () => {
  it("has north up and east left", () => {
    const [northX, northY] = sketchPoint(at(10, 40), at(10, 40.5))!;
    expect(northX).toBeCloseTo(0, 9);
    expect(northY).toBeCloseTo(-30, 1);
    expect(sketchPoint(at(10, 40), at(10.5, 40))![0]).toBeLessThan(-20);
    expect(sketchPoint(at(10, 40), at(190, -40))).toBeNull();
  });

  it("turns from north through east, so that a frame at 90° lies on its side", () => {
    const flat = frameSketch(layout);
    expect(flat.halfArcmin).toBeCloseTo(30, 6);
    expect(flat.panels[0]!.corners[0]).toEqual([expect.closeTo(-30, 6), expect.closeTo(-20, 6)]); // top left
    const turned = frameSketch({ ...layout, positionAngleDeg: 90 }).panels[0]!.corners;
    // Its up axis points east, to the left of the drawing: what was top left is now bottom left.
    expect(turned[0]).toEqual([expect.closeTo(-20, 6), expect.closeTo(30, 6)]);
  });

  it("holds every panel of a mosaic, each as large as a frame: by the rule for stars in the frame", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: -89, max: 89, noNaN: true }),
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 4 }),
        (raDeg, decDeg, positionAngleDeg, columns, rows) => {
          const mosaic = { ...layout, centre: at(raDeg, decDeg), positionAngleDeg, columns, rows };
          const { panels, halfArcmin } = frameSketch(mosaic);
          expect(panels).toHaveLength(columns * rows);
          for (const { corners } of panels)
            for (const [x, y] of corners) expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThanOrEqual(halfArcmin);
          // A star on the sky lies in the same distance from the centre in the frame and in the drawing.
          const star = at(raDeg, Math.max(-89.5, Math.min(89.5, decDeg + 0.3)));
          const here = sketchPoint(mosaic.centre, star)!;
          const there = skyToFrame(mosaic, star)!;
          expect(Math.hypot(...here)).toBeCloseTo(Math.hypot(there.xArcmin, there.yArcmin), 6);
        },
      ),
    );
  });
});
