import { geoGnomonic } from "d3-geo";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeSky } from "~/core/night";
import { apparentVector, horizontalAt, type Horizontal } from "~/core/sky";
import { nightDate, utcMs } from "~/core/time";
import { testPlace } from "../test-data";
import { chartFrame, chartPoint, chartSkyline, turned } from ".";

const horizontal = fc.record({
  azimuthDeg: fc.double({ min: 0, max: 359.9, noNaN: true }),
  altitudeDeg: fc.double({ min: 5, max: 85, noNaN: true }),
});
const at = (azimuthDeg: number, altitudeDeg: number) => ({ azimuthDeg, altitudeDeg }) as Horizontal;

describe("a finder chart", () => {
  it("is the gnomonic projection of the horizon as d3-geo draws it (law, independent library)", () => {
    fc.assert(
      fc.property(horizontal, horizontal, (centre, star) => {
        const point = chartPoint(at(centre.azimuthDeg, centre.altitudeDeg), at(star.azimuthDeg, star.altitudeDeg));
        // d3: longitude grows to the right, one radian at the middle is `scale`; y grows downwards.
        const draw = geoGnomonic().rotate([-centre.azimuthDeg, -centre.altitudeDeg]).translate([0, 0]).scale(180 / Math.PI).clipAngle(null); // prettier-ignore
        const [x, y] = draw([star.azimuthDeg, star.altitudeDeg])!;
        if (!point) return;
        expect(point.rightDeg).toBeCloseTo(x, 6);
        expect(point.upDeg).toBeCloseTo(-y, 6);
      }),
    );
  });
  it("shows nothing that stands behind", () => {
    expect(chartPoint(at(180, 30), at(0, 10))).toBeNull();
  });
  it("is turned as the instrument turns it: twice is nothing, and mirrored swaps left and right only", () => {
    const p = { rightDeg: 3, upDeg: -2 };
    expect(turned(turned(p, "upsideDown"), "upsideDown")).toEqual(p);
    expect(turned(turned(p, "mirrored"), "mirrored")).toEqual(p);
    expect([turned(p, "eye"), turned(p, "mirrored"), turned(p, "upsideDown")]).toEqual([p, { rightDeg: -3, upDeg: -2 }, { rightDeg: -3, upDeg: 2 }]); // prettier-ignore
  });
  it("holds all of the way with a margin", () => {
    const sky = placeSky(testPlace, nightDate("2026-12-05"));
    const ms = utcMs(sky.window.startMs + 8 * 3_600_000);
    const vectors = [[40, 50], [46, 41], [52, 48]].map(([raDeg, decDeg]) => apparentVector(sky, { frame: "icrs", raDeg: raDeg!, decDeg: decDeg! })); // prettier-ignore
    const { centre, radiusDeg } = chartFrame(sky, ms, vectors);
    for (const v of vectors) {
      const p = chartPoint(centre, horizontalAt(sky, v, ms))!;
      expect(Math.hypot(p.rightDeg, p.upDeg)).toBeLessThan(radiusDeg);
    }
    expect(radiusDeg).toBeGreaterThan(5.9);
  });
  it("draws the skyline from left to right", () => {
    const place = { ...testPlace, skyline: [at(90, 20), at(270, 10)] };
    const edge = chartSkyline(place, at(180, 25), 20);
    expect(edge.length).toBeGreaterThan(60);
    expect(edge.every((p, i) => i === 0 || p.rightDeg > edge[i - 1]!.rightDeg)).toBe(true);
  });
});
