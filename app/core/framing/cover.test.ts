import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { coverOutlines, emptyPanels, isInPanel, mosaicArea, toleratedTurnDeg, mosaicBounds, mosaicPanels, seamsOf, starsInSeams, frameToSky, type MosaicLayout, type PlaneVertex } from "."; // prettier-ignore

const panel = { planeWidthArcmin: 120, planeHeightArcmin: 84, overlap: 0.15 };
const outline: PlaneVertex[] = [[0, 0], [216, 150], [180, 204], [-36, 54]]; // prettier-ignore

/** Panels along one axis, by the plain formula at one angle. */
function countAt(points: readonly PlaneVertex[], turnDeg: number, size: typeof panel): [number, number] {
  const t = (turnDeg * Math.PI) / 180;
  const reach = (f: (p: PlaneVertex) => number) => Math.max(...points.map(f)) - Math.min(...points.map(f));
  const n = (length: number, side: number) =>
    Math.max(1, Math.ceil((length - side) / (side * (1 - size.overlap)) - 1e-9) + 1);
  return [
    n(
      reach(([x, y]) => x * Math.cos(t) + y * Math.sin(t)),
      size.planeWidthArcmin,
    ),
    n(
      reach(([x, y]) => -x * Math.sin(t) + y * Math.cos(t)),
      size.planeHeightArcmin,
    ),
  ];
}

describe("smallest grid that holds outlines", () => {
  it("is 3 panels between 30.60° and 39.00°, 3 × 3 at 0° and 2 × 4 at 90° (MATHS C5.11)", () => {
    const [best] = coverOutlines([outline], panel);
    expect(best!.columns * best!.rows).toBe(3);
    // The published ends come from a sweep in hundredths of a degree.
    expect(Math.abs(best!.fromDeg - 30.6)).toBeLessThan(0.01);
    expect(Math.abs(best!.toDeg - 39)).toBeLessThan(0.01);
    const at = (turn: number) => {
      const [c] = coverOutlines([outline], panel, turn);
      return [c!.columns, c!.rows];
    };
    expect(at(0)).toEqual([3, 3]);
    expect(at(90)).toEqual([2, 4]);
  });
  it("has no smaller one at any angle: against a sweep in hundredths of a degree (brute force, plain formula)", () => {
    const vertex = fc.tuple(
      fc.double({ min: -200, max: 200, noNaN: true }),
      fc.double({ min: -150, max: 150, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(vertex, { minLength: 3, maxLength: 9 }), (points) => {
        let fewest = Number.POSITIVE_INFINITY;
        for (let i = 0; i < 18_000; i++) {
          const [c, r] = countAt(points, i / 100, panel);
          fewest = Math.min(fewest, c * r);
        }
        const [best] = coverOutlines([points], panel);
        expect(best!.columns * best!.rows).toBeLessThanOrEqual(fewest);
        // and it is true where it says so
        const [c, r] = countAt(points, best!.turnDeg, panel);
        expect(c * r).toBe(best!.columns * best!.rows);
      }),
      { numRuns: 12 },
    );
  });
  it("holds every vertex at the turn and centre it names, over all its alternatives (law)", () => {
    const vertex = fc.tuple(
      fc.double({ min: -200, max: 200, noNaN: true }),
      fc.double({ min: -150, max: 150, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(vertex, { minLength: 1, maxLength: 12 }), (points) => {
        for (const cover of coverOutlines([points], panel)) {
          const t = (cover.turnDeg * Math.PI) / 180;
          const width = panel.planeWidthArcmin * (1 + (cover.columns - 1) * 0.85);
          const height = panel.planeHeightArcmin * (1 + (cover.rows - 1) * 0.85);
          for (const [x, y] of points) {
            const [dx, dy] = [x - cover.centre[0], y - cover.centre[1]];
            expect(Math.abs(dx * Math.cos(t) + dy * Math.sin(t))).toBeLessThanOrEqual(width / 2 + 1e-6);
            expect(Math.abs(-dx * Math.sin(t) + dy * Math.cos(t))).toBeLessThanOrEqual(height / 2 + 1e-6);
          }
        }
      }),
      { numRuns: 60 },
    );
  });
  it("names panels of a ragged outline that hold nothing of it", () => {
    const layout: MosaicLayout = {
      ...panel,
      centre: { frame: "icrs", raDeg: 40, decDeg: 30 },
      positionAngleDeg: 0,
      columns: 3,
      rows: 3,
    };
    const ell: PlaneVertex[] = [[-150, -100], [150, -100], [150, -60], [-120, -60], [-120, 100], [-150, 100]]; // prettier-ignore
    expect(emptyPanels(layout, [ell])).toEqual([2, 3, 5, 6]);
    expect(emptyPanels(layout, [ell, [[0, 0], [1, 0], [0, 1]]])).toEqual([2, 3, 6]); // prettier-ignore
  });
});

describe("grids that are not plain", () => {
  const base: MosaicLayout = {
    centre: { frame: "icrs", raDeg: 40, decDeg: 30 },
    positionAngleDeg: 20,
    planeWidthArcmin: 180,
    planeHeightArcmin: 120,
    columns: 3,
    rows: 2,
    overlap: 0.15,
  };
  it("cover 29.97 of 36 square degrees in 3 × 2 of 3° × 2° (MATHS C5.8)", () => {
    const { uniqueDeg2, framesDeg2 } = mosaicArea(base);
    expect(uniqueDeg2).toBeCloseTo(29.97, 6);
    expect(framesDeg2).toBeCloseTo(36, 9);
  });
  it("keep their numbers when panels are left out, and lose their seams", () => {
    const less = { ...base, skipped: [2] };
    expect(mosaicPanels(less).map((p) => p.number)).toEqual([1, 3, 4, 5, 6]);
    expect(seamsOf(less).map((s) => s.between)).toEqual([[1, 4], [3, 6], [4, 5], [5, 6]]); // prettier-ignore
    expect(mosaicArea(less).uniqueDeg2).toBeLessThan(29.97);
  });
  it("move rows against each other: every panel then has seams with two below it", () => {
    const bricks = { ...base, rowShift: 0.5 };
    const [first, , , fourth] = mosaicPanels(bricks);
    expect(fourth!.xArcmin - first!.xArcmin).toBeCloseTo(0.5 * 180 * 0.85, 9);
    expect(seamsOf(bricks).filter((s) => s.between[0] === 2).map((s) => s.between[1])).toEqual([3, 4, 5]); // prettier-ignore
    const { left, right } = mosaicBounds(bricks);
    expect(right).toBeCloseTo(-left, 9);
  });
  it("take panels put down by hand, numbered after the grid", () => {
    const more = { ...base, extra: [{ xArcmin: 300, yArcmin: 100 }] };
    expect(mosaicPanels(more).at(-1)).toMatchObject({ number: 7, row: 0, column: 0 });
    expect(mosaicBounds(more).right).toBe(390);
    expect(seamsOf(more).some((s) => s.between[1] === 7)).toBe(true);
  });
  it("have another overlap between rows when asked", () => {
    const rows = mosaicPanels({ ...base, overlapRows: 0.25 }).map((p) => p.yArcmin);
    expect(rows[0]! - rows[3]!).toBeCloseTo(120 * 0.75, 9);
  });
  it("list a star as in a seam just when two panels hold it, whatever the grid (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -320, max: 320, noNaN: true }),
        fc.double({ min: -220, max: 220, noNaN: true }),
        fc.double({ min: -0.5, max: 0.5, noNaN: true }),
        fc.double({ min: 0.1, max: 0.3, noNaN: true }),
        (x, y, rowShift, overlap) => {
          const layout = { ...base, rowShift, overlap };
          const star = { ...frameToSky(layout, x, y), magnitude: 5 };
          const holding = mosaicPanels(layout).filter((p) => isInPanel(layout, p, { xArcmin: x, yArcmin: y })).length;
          expect(starsInSeams(layout, [star]).length).toBe(holding > 1 ? 1 : 0);
        },
      ),
      { numRuns: 300 },
    );
  });
});

it("bears a camera angle wrong by 3.82° with 10 % overlap of a 3:2 frame (MATHS C5.9)", () => {
  const grid = { planeWidthArcmin: 180, planeHeightArcmin: 120, columns: 2, rows: 2, overlap: 0.1 };
  expect(toleratedTurnDeg(grid)).toBeCloseTo(3.8226, 3);
  expect(toleratedTurnDeg({ ...grid, overlap: 0 })).toBe(0);
});
