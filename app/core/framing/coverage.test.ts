import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Equatorial } from "~/core/sky";
import { areaWhere, commonBox, coverageMap, depthSteps, softenedBy, weightAt, type CoveringFrame } from "./coverage";
import { frameCorners, mosaicPanels, type MosaicLayout } from "./mosaic";

const DEG = Math.PI / 180;
const planeArcmin = (fieldDeg: number) => (120 * Math.tan((fieldDeg / 2) * DEG)) / DEG;
/** MATHS C5.4: 2 × 2 of 3° × 2° at (314, +60), PA 30, overlap 15 %. */
const layout: MosaicLayout = { centre: { frame: "icrs", raDeg: 314, decDeg: 60 }, positionAngleDeg: 30, planeWidthArcmin: planeArcmin(3), planeHeightArcmin: planeArcmin(2), columns: 2, rows: 2, overlap: 0.15 }; // prettier-ignore
const one = (panel: Pick<MosaicLayout, "centre" | "positionAngleDeg">, weight = 1): CoveringFrame => ({ corners: frameCorners(panel, layout.planeWidthArcmin, layout.planeHeightArcmin), weight }); // prettier-ignore
const four = mosaicPanels(layout).map((p) => one(p));

type Vector = readonly [number, number, number];
const vector = ({ raDeg, decDeg }: Equatorial<"icrs">): Vector => [Math.cos(decDeg * DEG) * Math.cos(raDeg * DEG), Math.cos(decDeg * DEG) * Math.sin(raDeg * DEG), Math.sin(decDeg * DEG)]; // prettier-ignore
const cross = (a: Vector, b: Vector): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]; // prettier-ignore
const dot = (a: Vector, b: Vector) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/** On the sphere itself: on one side of every great circle through two corners. No plane is drawn. */
function isOnSphere(corners: readonly Equatorial<"icrs">[], at: Vector): boolean {
  const v = corners.map(vector);
  const signs = v.map((a, i) => Math.sign(dot(cross(a, v[(i + 1) % v.length]!), at)));
  return signs.every((s) => s === signs[0]);
}

/** Shares of a cap about a direction where a number of frames lie, by points spread evenly (a golden spiral), square degrees. */
function bySphere(
  frames: readonly CoveringFrame[],
  at: Equatorial<"icrs">,
  radiusDeg: number,
  is: (count: number) => boolean,
) {
  const points = 200_000;
  const z0 = Math.cos(radiusDeg * DEG);
  const up = vector(at);
  const east = cross([0, 0, 1], up).map((x) => x / Math.hypot(...cross([0, 0, 1], up))) as unknown as Vector;
  const north = cross(up, east);
  let hits = 0;
  for (let i = 0; i < points; i++) {
    const z = 1 - ((i + 0.5) / points) * (1 - z0);
    const [r, phi] = [Math.sqrt(1 - z * z), i * Math.PI * (3 - Math.sqrt(5))];
    const p = [0, 1, 2].map((k) => z * up[k]! + r * Math.cos(phi) * east[k]! + r * Math.sin(phi) * north[k]!) as unknown as Vector; // prettier-ignore
    if (is(frames.filter((f) => isOnSphere(f.corners, p)).length)) hits++;
  }
  return (hits / points) * 2 * Math.PI * (1 - z0) * (1 / DEG) ** 2;
}

describe("a coverage map", () => {
  const map = coverageMap(layout, four)!;
  it("of a 2 × 2 holds the published areas: union 20.52 ± 0.1, fourfold core 0.140 ± 0.01 square degrees (MATHS C5.14, C5.15)", () => {
    expect(areaWhere(map, (w) => w > 0)).toBeGreaterThan(20.42);
    expect(areaWhere(map, (w) => w > 0)).toBeLessThan(20.62);
    expect(areaWhere(map, (w) => w >= 4)).toBeGreaterThan(0.13);
    expect(areaWhere(map, (w) => w >= 4)).toBeLessThan(0.15);
  });
  it("agrees with points thrown on the sphere, fold by fold (own Monte Carlo, great circles only)", () => {
    for (const fold of [1, 2, 4])
      expect(Math.abs(areaWhere(map, (w) => w === fold) - bySphere(four, layout.centre, 4.2, (n) => n === fold))).toBeLessThan(0.1); // prettier-ignore
  });
  it("holds the same area however it is turned, and wherever it is centred (law)", () => {
    const whole = areaWhere(map, (w) => w > 0);
    const turn = fc.record({ positionAngleDeg: fc.integer({ min: 0, max: 359 }), off: fc.double({ min: -2, max: 2, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(turn, ({ positionAngleDeg, off }) => {
        const view = { centre: { ...layout.centre, decDeg: 60 + off }, positionAngleDeg };
        expect(Math.abs(areaWhere(coverageMap(view, four)!, (w) => w > 0) - whole)).toBeLessThan(0.2); // half a cell along the rim
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 2000 : 12 },
    );
  });
  it("adds weights up: what is in it is what the frames bring, by area (law)", () => {
    const some = fc.array(fc.record({ x: fc.integer({ min: -90, max: 90 }), turn: fc.integer({ min: 0, max: 179 }), weight: fc.double({ min: 0.1, max: 50, noNaN: true }) }), { minLength: 1, maxLength: 8 }); // prettier-ignore
    const area = areaWhere(coverageMap(layout, [four[0]!])!, (w) => w > 0);
    fc.assert(
      fc.property(some, (list) => {
        const frames = list.map((f) => one({ centre: { ...layout.centre, raDeg: 314 + f.x / 60 }, positionAngleDeg: f.turn }, f.weight)); // prettier-ignore
        const m = coverageMap(layout, frames)!;
        let sum = 0;
        for (const w of new Set(m.weights)) sum += w * areaWhere(m, (x) => x === w);
        const brought = list.reduce((s, f) => s + f.weight, 0) * area;
        expect(Math.abs(sum / brought - 1)).toBeLessThan(0.02);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 1000 : 15 },
    );
  });
  it("tells frames that no plane about the centre holds, and is nothing without any", () => {
    const far = one({ centre: { frame: "icrs", raDeg: 134, decDeg: -60 }, positionAngleDeg: 0 });
    expect(coverageMap(layout, [far])).toBeNull();
    expect(coverageMap(layout, [...four, far])!.beyond).toBe(1);
  });
});

describe("steps that show", () => {
  const small = { corners: frameCorners(layout, 60, 40), weight: 0 };
  const wide = { corners: frameCorners(layout, 180, 120), weight: 4 };
  const steps = (weight: number) => {
    const frames = [wide, { ...small, weight }];
    return depthSteps(coverageMap(layout, frames)!, frames);
  };
  it("are the four edges of a tight field on a wide one, by the published ratios (MATHS C5.13: depths of 1.5, 2, 4)", () => {
    for (const [depth, ratio] of [
      [1.5, "1.225"],
      [2, "1.414"],
      [4, "2.000"],
    ] as const) {
      const found = steps(4 * depth - 4);
      expect(found).toHaveLength(4);
      expect(found.map((s) => s.ratio.toFixed(3))).toEqual([ratio, ratio, ratio, ratio]);
      expect(found.reduce((s, e) => s + e.lengthArcmin, 0)).toBeCloseTo(200, 6);
      expect([found[0]!.shallow, found[0]!.deep]).toEqual([4, 4 * depth]);
    }
    expect(steps(1)).toEqual([]); // 1.118: nobody sees it
  });
  it("are the ends of a tight field inside the one that is wanted, too, and none where it fills that one", () => {
    const alone = [{ ...small, weight: 6 }];
    const map = coverageMap(layout, [...alone, { ...wide, weight: 0 }])!;
    expect(depthSteps(map, alone)).toEqual([]); // nothing is beside it
    const ends = depthSteps(map, alone, [wide]);
    expect(ends).toHaveLength(4);
    expect(ends.reduce((s, e) => s + e.lengthArcmin, 0)).toBeCloseTo(200, 6);
    expect(ends.every((e) => e.ratio === Infinity && e.shallow === 0 && e.deep === 6)).toBe(true);
    expect(softenedBy(ends[0]!)).toBeCloseTo(6 / 1.44, 9);
    expect(depthSteps(map, alone, [small])).toEqual([]);
    // Of what is wanted, so much has something: by points thrown on the sphere, none of the map's own code.
    const share = areaWhere(map, (w) => w > 0, [wide]) / areaWhere(map, () => true, [wide]);
    const sphere = (f: CoveringFrame) => bySphere([f], layout.centre, 4, (n) => n === 1);
    expect(share).toBeCloseTo(sphere(small) / sphere(wide), 2);
    expect(areaWhere(map, () => true, [small])).toBeCloseTo(sphere(small), 1);
  });
  it("outside the wanted field are nobody's", () => {
    const frames = [wide, { ...small, weight: 12 }];
    expect(depthSteps(coverageMap(layout, frames)!, frames, [{ ...small, corners: small.corners }])).toEqual([]);
  });
  it("vanish with as many hours on the shallow side as it lacks (law)", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 60, noNaN: true }), (weight) => {
        const [step] = steps(weight);
        if (!step) return;
        expect(step.deep / (step.shallow + softenedBy(step))).toBeCloseTo(1.44, 9);
      }),
      { numRuns: 40 },
    );
  });
});

describe("the common crop", () => {
  it("is the tight field inside the wide one, the overlap of two beside each other, nothing of two apart", () => {
    const field = (x: number, w: number, h: number): CoveringFrame => ({ corners: frameCorners({ centre: { ...layout.centre, decDeg: 0, raDeg: 100 - x / 60 }, positionAngleDeg: 0 }, w, h), weight: 1 }); // prettier-ignore
    const view = { centre: { ...layout.centre, decDeg: 0, raDeg: 100 }, positionAngleDeg: 0 };
    const of = (...frames: CoveringFrame[]) =>
      commonBox(
        coverageMap(view, frames)!,
        frames.map((f) => [f]),
      );
    const inside = of(field(0, 180, 120), field(20, 60, 40))!;
    expect([inside.widthArcmin, inside.heightArcmin, inside.xArcmin].map((v) => Math.round(v))).toEqual([60, 40, 20]);
    const beside = of(field(-40, 120, 80), field(40, 120, 80))!;
    expect([beside.widthArcmin, beside.heightArcmin, beside.xArcmin].map((v) => Math.round(v))).toEqual([40, 80, 0]);
    expect(of(field(-100, 60, 40), field(100, 60, 40))).toBeNull();
    expect(weightAt(coverageMap(view, [field(0, 60, 40)])!, 0, 0)).toBe(1);
    expect(weightAt(coverageMap(view, [field(0, 60, 40)])!, 300, 0)).toBe(0);
  });
});
