import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { chartView, fromScreen } from "~/core/framing";
import { positionAngleDeg, separationDeg } from "~/core/sky";
import { pinched, twisted, zoomed, type Fingers } from "./gestures";

const lie = { rollDeg: 0, isMirrored: false, widthPx: 390, heightPx: 400 };
const gazeAt = (raDeg: number, decDeg: number, heightDeg: number) => ({
  centre: { frame: "icrs" as const, raDeg, decDeg },
  heightDeg,
});
const point = fc.record({
  x: fc.double({ min: 60, max: 330, noNaN: true }),
  y: fc.double({ min: 60, max: 340, noNaN: true }),
});

describe("fingers on the chart", () => {
  it("two that part twice as far show half as much, and keep the sky between them where they are", () => {
    const before: Fingers = [{ x: 150, y: 200 }, { x: 250, y: 200 }]; // prettier-ignore
    const now: Fingers = [{ x: 100, y: 200 }, { x: 300, y: 200 }]; // prettier-ignore
    const gaze = gazeAt(83, 22, 4);
    const after = pinched(gaze, lie, before, now);
    expect(after.heightDeg).toBeCloseTo(2, 9);
    const middle = { x: 200, y: 200 };
    const held = fromScreen(chartView({ ...gaze, ...lie }), middle);
    expect(separationDeg(fromScreen(chartView({ ...after, ...lie }), middle), held)).toBeLessThan(0.001); // a fifth of a pixel
  });

  it("never lose what they hold by more than a pixel (in fields up to 12°), and stay within 5′ and 60°", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: -65, max: 65, noNaN: true }),
        fc.double({ min: 0.2, max: 6, noNaN: true }),
        fc.double({ min: 0.2, max: 5, noNaN: true }),
        point,
        point,
        fc.boolean(),
        (raDeg, decDeg, heightDeg, factor, from, to, isMirrored) => {
          const at = { ...lie, isMirrored };
          const gaze = gazeAt(raDeg, decDeg, heightDeg);
          const after = zoomed(gaze, at, factor, from, to);
          expect(after.heightDeg).toBeGreaterThanOrEqual(5 / 60);
          expect(after.heightDeg).toBeLessThanOrEqual(60);
          const held = fromScreen(chartView({ ...gaze, ...at }), from);
          const view = chartView({ ...after, ...at });
          const px = separationDeg(fromScreen(view, to), held) * view.pxPerDeg;
          // At 30° across the plane is bent too much for the rounds taken: a few pixels then.
          expect(px).toBeLessThan(after.heightDeg <= 12 ? 1 : 12);
        },
      ),
    );
  });

  it("turn the frame as they turn, once the twist is meant, and the other way round where east is on the right", () => {
    const level: Fingers = [{ x: 100, y: 200 }, { x: 300, y: 200 }]; // prettier-ignore
    const round = (deg: number): Fingers => {
      const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
      return [{ x: 200 - 100 * c, y: 200 - 100 * s }, { x: 200 + 100 * c, y: 200 + 100 * s }]; // prettier-ignore
    };
    expect(twisted(level, round(8), false)).toBe(0);
    // With the clock on the screen is towards smaller position angles: east lies to the left.
    expect(twisted(level, round(42), false)).toBeCloseTo(-30, 9);
    expect(twisted(level, round(-42), false)).toBeCloseTo(30, 9);
    expect(twisted(level, round(42), true)).toBeCloseTo(30, 9);
    expect(twisted(round(170), round(-170), false)).toBeCloseTo(-8, 9); // over the seam of the circle
    // By the chart's own figures: what lies up from the centre has position angle 0, to the left of it 90°.
    const view = chartView({ ...gazeAt(83, 22, 4), ...lie });
    const centre = gazeAt(83, 22, 4).centre;
    expect(positionAngleDeg(centre, fromScreen(view, { x: 100, y: 200 }))).toBeCloseTo(90, 0);
  });
});
