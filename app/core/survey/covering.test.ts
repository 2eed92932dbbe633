import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { offsetBy, unitVector, type Equatorial } from "~/core/sky";
import { cellPoint, tileAt } from "./cells";
import { cellsCovering, coverageOrder, DEEPEST_ORDER, type SkyCells } from "./covering";

const read = (name: string): unknown => JSON.parse(readFileSync(`reference/tables/${name}.json`, "utf8"));
const mosaics = read("mosaic") as {
  readonly cases: readonly { readonly id: string; readonly panels: readonly { readonly corners_mosaic_plane: readonly (readonly [number, number])[] }[] }[];
}; // prettier-ignore
const cells = read("moc") as {
  readonly cases: readonly { readonly id: string; readonly order: number; readonly middles: readonly (readonly [number, number])[]; readonly touched: readonly (readonly [number, number])[] }[];
}; // prettier-ignore

const icrs = (raDeg: number, decDeg: number): Equatorial<"icrs"> => ({ frame: "icrs", raDeg, decDeg });
const flat = (runs: readonly (readonly [number, number])[]) => new Set(runs.flatMap(([first, count]) => Array.from({ length: count }, (_, i) => first + i))); // prettier-ignore
/** All cells at the finest order. */
const finest = ({ order, byOrder }: SkyCells): number[] =>
  [...byOrder].flatMap(([at, list]) => {
    const many = 4 ** (order - at);
    return list.flatMap((cell) => Array.from({ length: many }, (_, i) => cell * many + i));
  });
const cellOf = (at: Equatorial<"icrs">, order: number): number => {
  const { base, x, y } = cellPoint(unitVector(at));
  return tileAt(order, base, x, y);
};
const holds = ({ byOrder }: SkyCells, cell: number, order: number): boolean =>
  [...byOrder].some(([at, list]) => list.includes(Math.floor(cell / 4 ** (order - at))));

describe("cells that cover an area", () => {
  it.each(mosaics.cases.map((m) => [m.id, m] as const))("are those of healpy for mosaic %s", (id, mosaic) => {
    const { order, middles, touched } = cells.cases.find((c) => c.id === id)!;
    const areas = mosaic.panels.map((p) => p.corners_mosaic_plane.map(([ra, dec]) => icrs(ra, dec)));
    const mine = finest(cellsCovering(areas, order));
    const found = new Set(mine);
    expect(found.size).toBe(mine.length); // none twice
    expect([...flat(middles)].filter((cell) => !found.has(cell))).toEqual([]);
    const known = flat(touched);
    expect(mine.filter((cell) => !known.has(cell)).length).toBeLessThanOrEqual(0.002 * mine.length);
  });

  it("law: nothing of an area is left out, wherever it lies; four that belong together are one", () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.99, noNaN: true }),
        fc.double({ min: -90, max: 90, noNaN: true }),
        fc.double({ min: 0.05, max: 20, noNaN: true }),
        fc.integer({ min: 0, max: 359 }),
        fc.array(fc.tuple(share, share), { minLength: 10, maxLength: 10 }),
        (raDeg, decDeg, halfDeg, pa, points) => {
          const middle = icrs(raDeg, decDeg);
          const corners = [45, 135, 225, 315].map((turn) => offsetBy(middle, { positionAngleDeg: (pa + turn) % 360, distanceDeg: halfDeg })); // prettier-ignore
          const order = Math.min(9, coverageOrder(halfDeg));
          const covering = cellsCovering([corners], order);
          for (const [s, t] of points) {
            // A point between the corners: a mean of their directions, weighted, lies on the inner side of every edge.
            const weights = [s * t, s * (1 - t), (1 - s) * (1 - t), (1 - s) * t];
            const v = corners.map((c) => unitVector(c)).reduce((sum, u, i) => [sum[0] + weights[i]! * u[0], sum[1] + weights[i]! * u[1], sum[2] + weights[i]! * u[2]] as const, [0, 0, 0] as const); // prettier-ignore
            const ra = (Math.atan2(v[1], v[0]) * 180) / Math.PI;
            const at = icrs((ra + 360) % 360, (Math.atan2(v[2], Math.hypot(v[0], v[1])) * 180) / Math.PI);
            expect(holds(covering, cellOf(at, order), order)).toBe(true);
          }
          for (const [at, list] of covering.byOrder) {
            expect([...list].sort((a, b) => a - b)).toEqual(list);
            if (at === 0) continue;
            const siblings = new Map<number, number>();
            for (const cell of list) siblings.set(Math.floor(cell / 4), (siblings.get(Math.floor(cell / 4)) ?? 0) + 1);
            expect(Math.max(...siblings.values())).toBeLessThan(4);
          }
        },
      ),
    );
  });

  it("are as fine as a field wants it, and no finer than there is", () => {
    expect([coverageOrder(1.5), coverageOrder(20), coverageOrder(1e-4), coverageOrder(1000)]).toEqual([
      12,
      8,
      DEEPEST_ORDER,
      3,
    ]);
    expect(() => coverageOrder(0)).toThrow(RangeError);
    expect(() => cellsCovering([], 15)).toThrow(RangeError);
    expect(() => cellsCovering([[icrs(1, 1), icrs(1, 1), icrs(2, 2)]], 5)).toThrow(RangeError);
    expect(cellsCovering([], 5).byOrder.size).toBe(0);
  });
});
