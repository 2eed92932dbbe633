import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { offsetBy, positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";
import { degToRad, radToDeg, wrap180, wrap360 } from "~/core/units";
import { compositions, type Beside, type Composition } from "./composition";
import { angleAlong } from "./fit";
import type { MosaicLayout } from "./mosaic";
import { ellipseOutline } from "./outline";

const frame = (part: Partial<MosaicLayout> = {}): MosaicLayout => ({
  centre: { frame: "icrs", raDeg: 80, decDeg: 34 },
  positionAngleDeg: 0,
  planeWidthArcmin: 180,
  planeHeightArcmin: 120,
  columns: 1,
  rows: 1,
  overlap: 0.15,
  ...part,
});
const thing = (raDeg: number, decDeg: number, majorArcmin: number, rank = 0, minorArcmin = majorArcmin, pa = 0): Beside => ({ at: { frame: "icrs", raDeg, decDeg }, majorArcmin, minorArcmin, positionAngleDeg: pa, rank }); // prettier-ignore

/** Where a direction falls in a frame, arcmin right and up, by spherical trigonometry: a gnomonic chart keeps bearings, and lengths go as the tangent. */
function placeIn(layout: MosaicLayout, at: Equatorial<"icrs">): readonly [number, number] {
  const far = 60 * radToDeg(Math.tan(degToRad(separationDeg(layout.centre, at))));
  const left = degToRad(positionAngleDeg(layout.centre, at) - layout.positionAngleDeg);
  return [-far * Math.sin(left), far * Math.cos(left)];
}

/** Full width and height of a plain grid: w(1 + (n − 1)(1 − o)). */
const sidesOf = (l: MosaicLayout) =>
  [
    l.planeWidthArcmin * (1 + (l.columns - 1) * (1 - l.overlap)),
    l.planeHeightArcmin * (1 + (l.rows - 1) * (1 - l.overlap)),
  ] as const;

/** Whether an object lies in a frame, a twentieth of each side left free, give or take a tenth of a minute. */
function liesIn(layout: MosaicLayout, it: Beside): boolean {
  const [w, h] = sidesOf(layout);
  return ellipseOutline(it).every((p) => {
    const [x, y] = placeIn(layout, p);
    return Math.abs(x) <= 0.45 * w + 0.1 && Math.abs(y) <= 0.45 * h + 0.1;
  });
}

const by = (found: readonly Composition<Beside>[], how: string) => found.find((c) => c.how === how);

describe("a side along a line", () => {
  it("law: the longer side runs along it, by a turn of a quarter at most, wherever it lies", () => {
    const within = (max: number) => fc.double({ min: -max, max, noNaN: true });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), within(85), fc.integer({ min: 0, max: 359 }), fc.boolean(), fc.array(within(2), { minLength: 4, maxLength: 4 }), (raDeg, decDeg, pa, isWide, [a, b, c, d]) => {
        const centre = { frame: "icrs", raDeg, decDeg } as const;
        const layout = frame({ centre, positionAngleDeg: pa, planeWidthArcmin: isWide ? 200 : 90 });
        const [from, to] = [[a!, b!], [c!, d!]].map(([x, y]) => offsetBy(centre, { positionAngleDeg: wrap360(radToDeg(Math.atan2(x!, y!))), distanceDeg: Math.hypot(x!, y!) }));
        if (separationDeg(from!, to!) < 0.01) return;
        const turned = angleAlong(layout, from!, to!)!;
        expect(Math.abs(wrap180(turned - pa))).toBeLessThanOrEqual(90.000001);
        const [p, q] = [from!, to!].map((at) => placeIn({ ...layout, positionAngleDeg: turned }, at));
        const across = isWide ? q![1] - p![1] : q![0] - p![0];
        expect(Math.abs(across)).toBeLessThan(1e-6 * 60);
      }), // prettier-ignore
    );
    expect(angleAlong(frame(), frame().centre, frame().centre)).toBeNull();
  });
});

describe("ways to lay a frame", () => {
  it("put the target in the middle, and where the thirds cross with most of what is worth seeing", () => {
    const target = thing(80, 34, 20);
    // South-west of it: right and below. In the frame once the target is on the upper left crossing.
    const brought = thing(80 - 1.2 / Math.cos(degToRad(34)), 33.4, 10, 40);
    const found = compositions(frame(), target, [brought, thing(79.9, 35.4, 5, 30)]);
    expect(placeIn(by(found, "middle")!.layout, target.at).map((v) => Math.abs(v) < 0.11)).toEqual([true, true]);
    const third = by(found, "third")!;
    const [x, y] = placeIn(third.layout, target.at);
    expect([x, y]).toEqual([expect.closeTo(-30, 0), expect.closeTo(20, 0)]);
    expect(third.brings).toEqual([brought]);
    expect(third.layout.positionAngleDeg).toBe(0);
  });

  it("put what is too large for a crossing on one third of the longer side, and leave out what has no room", () => {
    const wide = by(compositions(frame(), thing(80, 34, 90), []), "third")!;
    expect(placeIn(wide.layout, thing(80, 34, 0).at)[1]).toBeCloseTo(0, 0);
    expect(compositions(frame(), thing(80, 34, 150), []).map((c) => c.how)).toEqual(["middle"]);
  });

  it("move for the most wanted neighbour, and turn only where moving is not enough", () => {
    const target = thing(80, 34, 20);
    const east = thing(80 + 2 / Math.cos(degToRad(34)), 34, 20, 50); // 2° along the width
    const moved = by(compositions(frame(), target, [east, thing(80, 34.1, 5, 90)]), "neighbour")!;
    expect(moved.brings[0]).toBe(east);
    expect(moved.layout.positionAngleDeg).toBe(0);
    const north = thing(80, 36, 20, 50); // 2° along the height: more than it holds
    const turned = by(compositions(frame(), target, [north]), "neighbour")!;
    const turn = Math.abs(wrap180(turned.layout.positionAngleDeg));
    // A box of c = cos, s = sin of the turn: 120 c + 20 high must come under 108: c = 0.733, 42.9°.
    expect(turn).toBe(43);
    expect([liesIn(turned.layout, target), liesIn(turned.layout, north)]).toEqual([true, true]);
    expect(by(compositions(frame(), target, [thing(80, 38, 20, 50)]), "neighbour")).toBeUndefined();
  });

  it("law: all keep the panels, hold the target whole, and bring in whole what they say; none turns but for a neighbour", () => {
    const arb = fc.record({
      raDeg: fc.double({ min: 0, max: 359.9, noNaN: true }),
      decDeg: fc.double({ min: -86, max: 86, noNaN: true }),
      positionAngleDeg: fc.integer({ min: 0, max: 359 }),
      w: fc.integer({ min: 10, max: 600 }),
      h: fc.integer({ min: 10, max: 600 }),
      columns: fc.integer({ min: 1, max: 3 }),
      rows: fc.integer({ min: 1, max: 3 }),
      share: fc.double({ min: 0, max: 1.2, noNaN: true }),
      thin: fc.double({ min: 0.2, max: 1, noNaN: true }),
      others: fc.array(
        fc.record({
          far: fc.double({ min: 0.05, max: 1.5, noNaN: true }),
          bearing: fc.integer({ min: 0, max: 359 }),
          size: fc.double({ min: 0, max: 0.5, noNaN: true }),
          rank: fc.integer({ min: 0, max: 100 }),
        }),
        { maxLength: 5 },
      ),
    });
    fc.assert(
      fc.property(arb, (v) => {
        const start = frame({ centre: { frame: "icrs", raDeg: v.raDeg, decDeg: v.decDeg }, positionAngleDeg: v.positionAngleDeg, planeWidthArcmin: v.w, planeHeightArcmin: v.h, columns: v.columns, rows: v.rows }); // prettier-ignore
        const [w, h] = sidesOf(start);
        const short = Math.min(w, h);
        const target = thing(v.raDeg, v.decDeg, v.share * short, 0, v.share * short * v.thin, 30);
        const others = v.others.map((o): Beside => {
          // Sides of a triangle, by the sine and cosine rules.
          const [d, b, rho] = [degToRad(v.decDeg), degToRad(o.bearing), degToRad((o.far * Math.max(w, h)) / 60)];
          const dec = Math.asin(Math.sin(d) * Math.cos(rho) + Math.cos(d) * Math.sin(rho) * Math.cos(b));
          const ra = Math.atan2(Math.sin(b) * Math.sin(rho) * Math.cos(d), Math.cos(rho) - Math.sin(d) * Math.sin(dec));
          return thing((v.raDeg + radToDeg(ra) + 360) % 360, radToDeg(dec), o.size * short, o.rank);
        });
        for (const { how, layout, brings } of compositions(start, target, others)) {
          const { centre: _, positionAngleDeg: pa, ...panels } = layout;
          const { centre: __, positionAngleDeg: was, ...same } = start;
          expect(panels).toEqual(same);
          if (how !== "middle") expect(liesIn(layout, target)).toBe(true);
          if (how !== "neighbour") expect(pa).toBe(was);
          else expect(brings.length).toBeGreaterThan(0);
          for (const other of brings) expect(liesIn(layout, other)).toBe(true);
        }
      }),
    );
  });
});
