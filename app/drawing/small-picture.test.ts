import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { CatalogEntry } from "~/core/catalog";
import { chartView, frameCorners, mosaicPanels, toScreen, type MosaicLayout } from "~/core/framing";
import { separationDeg, unitVector } from "~/core/sky";
import { drawSmallPicture, smallPictureDeg } from "./small-picture";
import type { Ink, Pen } from "./pen";

const INK = Object.fromEntries(
  ["ground", "rule", "ink", "soft", "faint", "lamp", "moonlit", "rust", "sage", "twilight"].map((n) => [n, n]),
) as unknown as Ink;

/** A canvas that writes down its patches, lines and words. */
function paper() {
  const drawn = { patches: [] as { x: number; y: number; a: number }[], points: [] as [number, number][], words: 0, images: 0 }; // prettier-ignore
  let at = { x: 0, y: 0 };
  const point = (x: number, y: number) => void drawn.points.push([x, y]);
  const nothing = () => undefined;
  const ctx = {
    translate: (x: number, y: number) => void (at = { x, y }),
    createRadialGradient: (_x: number, _y: number, _r: number, _x2: number, _y2: number, a: number) => {
      drawn.patches.push({ ...at, a });
      return { addColorStop: nothing };
    },
    moveTo: point,
    lineTo: point,
    fillText: () => void drawn.words++,
    drawImage: () => void drawn.images++,
    ...Object.fromEntries(["save", "restore", "rotate", "scale", "transform", "beginPath", "closePath", "fill", "stroke", "arc", "fillRect"].map((n) => [n, nothing])), // prettier-ignore
  };
  return { ctx: ctx as unknown as Pen, drawn };
}

const nebula = (raDeg: number, decDeg: number, majorArcmin: number): CatalogEntry =>
  ({ id: "x", kind: "emissionNebula", at: { frame: "icrs", raDeg, decDeg }, majorArcmin, minorArcmin: majorArcmin / 2, positionAngleDeg: 30, magnitude: 8, surfaceBrightness: 22 }) as unknown as CatalogEntry; // prettier-ignore

const layouts = fc.record({
  raDeg: fc.double({ min: 0, max: 359.9, noNaN: true }),
  decDeg: fc.double({ min: -89, max: 89, noNaN: true }),
  positionAngleDeg: fc.double({ min: 0, max: 359.9, noNaN: true }),
  planeWidthArcmin: fc.double({ min: 8, max: 600, noNaN: true }),
  planeHeightArcmin: fc.double({ min: 8, max: 600, noNaN: true }),
  columns: fc.integer({ min: 1, max: 3 }),
  rows: fc.integer({ min: 1, max: 3 }),
}).map(({ raDeg, decDeg, ...rest }): MosaicLayout => ({ centre: { frame: "icrs", raDeg, decDeg }, overlap: 0.15, ...rest })); // prettier-ignore

describe("a small picture", () => {
  it("holds every corner of every panel however the frame lies, and wastes no more than half its side", () => {
    fc.assert(
      fc.property(layouts, (layout) => {
        const heightDeg = smallPictureDeg(null, layout);
        const view = chartView({ centre: layout.centre, heightDeg, widthPx: 120, heightPx: 120 });
        const corners = mosaicPanels(layout).flatMap((p) => frameCorners(p, layout.planeWidthArcmin, layout.planeHeightArcmin)); // prettier-ignore
        for (const corner of corners) {
          const at = toScreen(view, unitVector(corner))!;
          expect(Math.max(Math.abs(at.x - 60), Math.abs(at.y - 60))).toBeLessThan(60);
        }
        // Measured on the sky itself: the farthest corner is at least a quarter of the picture's side away.
        const farDeg = Math.max(...corners.map((c) => separationDeg(layout.centre, c)));
        expect(farDeg).toBeGreaterThan(Math.min(0.05, heightDeg / 4));
      }),
    );
  });

  it("shows all of an object larger than the frame, at its place and size, without a word", () => {
    const frame: MosaicLayout = { centre: { frame: "icrs", raDeg: 80, decDeg: 34 }, positionAngleDeg: 0, planeWidthArcmin: 60, planeHeightArcmin: 40, columns: 1, rows: 1, overlap: 0.15 }; // prettier-ignore
    const entry = nebula(80, 34, 180);
    const heightDeg = smallPictureDeg(entry, frame);
    expect(heightDeg).toBeGreaterThan(3);
    const { ctx, drawn } = paper();
    const view = chartView({ centre: frame.centre, heightDeg, widthPx: 96, heightPx: 96 });
    drawSmallPicture(ctx, view, { backdrop: null, objects: [entry], stars: null, frame }, INK);
    expect(drawn.patches).toHaveLength(1);
    const [patch] = drawn.patches;
    expect(patch!.x).toBeCloseTo(48, 5);
    expect(patch!.y).toBeCloseTo(48, 5);
    expect(patch!.a).toBeCloseTo((1.5 / heightDeg) * 96, 0); // half of 3°
    // The frame is 1° wide: a third of the object.
    const xs = drawn.points.map(([x]) => x);
    expect(Math.max(...xs) - Math.min(...xs)).toBeCloseTo((1 / heightDeg) * 96, 0);
    expect(drawn.words).toBe(0);
  });

  it("takes a picture of the sky in place of what would be drawn of it, and keeps the frame on it", () => {
    const frame: MosaicLayout = { centre: { frame: "icrs", raDeg: 10, decDeg: 0 }, positionAngleDeg: 45, planeWidthArcmin: 60, planeHeightArcmin: 40, columns: 2, rows: 1, overlap: 0.15 }; // prettier-ignore
    const chart = { centre: frame.centre, heightDeg: 3, widthPx: 96, heightPx: 96 };
    const { ctx, drawn } = paper();
    const backdrop = { image: {} as CanvasImageSource, chart };
    drawSmallPicture(ctx, chartView(chart), { backdrop, objects: [nebula(10, 0, 60)], stars: null, frame }, INK);
    expect([drawn.images, drawn.patches.length]).toEqual([1, 0]);
    expect(drawn.points.length).toBeGreaterThan(2 * 30);
  });

  it("has room for a point, and goes no wider than a chart can be drawn", () => {
    expect(smallPictureDeg(nebula(0, 0, 0.1), null)).toBe(0.2);
    expect(smallPictureDeg(nebula(0, 0, 100_000), null)).toBe(80);
  });
});
