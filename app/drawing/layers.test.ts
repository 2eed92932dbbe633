import type { SkyData } from "~/core/catalog";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawnBrightness, packStars, starZones, unpackStars, type CatalogEntry } from "~/core/catalog";
import { chartView, toScreen, type ChartView } from "~/core/framing";
import { offsetBy, unitVector } from "~/core/sky";
import { drawCompass } from "./marks-layer";
import { drawObjects, drawPatches, patchStrength } from "./object-layers";
import type { Ink } from "./pen";
import { drawStars, faintestAt, starName } from "./sky-layers";

interface Drawn {
  readonly arcs: { x: number; y: number; r: number; style: string }[];
  readonly words: { text: string; x: number; y: number }[];
  readonly dashes: number[][];
  readonly scales: number[];
  readonly turns: number[];
  /** Colours of each patch from the middle out. */
  readonly stops: string[][];
  strokes: number;
}

/** A canvas that writes down what is drawn on it; letters are 6 px wide. */
function paper(): { ctx: CanvasRenderingContext2D; drawn: Drawn } {
  const drawn: Drawn = { arcs: [], words: [], dashes: [], scales: [], turns: [], stops: [], strokes: 0 };
  const ctx = {
    fillStyle: "",
    arc: (x: number, y: number, r: number) => drawn.arcs.push({ x, y, r, style: ctx.fillStyle }),
    fillText: (text: string, x: number, y: number) => drawn.words.push({ text, x, y }),
    measureText: (text: string) => ({ width: 6 * text.length }),
    scale: (_: number, y: number) => drawn.scales.push(y),
    rotate: (turn: number) => drawn.turns.push(turn),
    stroke: () => drawn.strokes++,
    createRadialGradient: () => {
      const stops: string[] = [];
      drawn.stops.push(stops);
      return { addColorStop: (_: number, colour: string) => stops.push(colour) };
    },
    setLineDash: (dash: number[]) => drawn.dashes.push(dash),
    ...Object.fromEntries(
      ["beginPath", "moveTo", "lineTo", "fill", "closePath", "save", "restore", "translate"].map((name) => [
        name,
        () => undefined,
      ]),
    ),
  };
  return { ctx: ctx as unknown as CanvasRenderingContext2D, drawn };
}

const ink = Object.fromEntries(["ground", "rule", "ink", "soft", "faint", "lamp", "moonlit", "rust", "sage", "twilight"].map((n) => [n, n])) as unknown as Ink; // prettier-ignore
const star = (raDeg: number, decDeg: number, magnitude: number, hip: number, colour: number | null = 0.5) => ({ raDeg, decDeg, magnitude, hip, colour }); // prettier-ignore
function skyOf(stars: readonly ReturnType<typeof star>[], names: Readonly<Record<number, string>> = {}): SkyData {
  const table = unpackStars(packStars([...stars].sort((a, b) => a.magnitude - b.magnitude)));
  if (!table.ok) throw new Error("stars do not unpack");
  const named = stars.flatMap((s) => (names[s.hip] ? [[s.raDeg, s.decDeg, s.magnitude, names[s.hip]!, s.hip] as const] : [])); // prettier-ignore
  return { stars: starZones(table.value), named, nameOf: new Map(Object.entries(names).map(([hip, name]) => [Number(hip), name])), figures: [], borders: [] }; // prettier-ignore
}
const viewAt = (decDeg: number, heightDeg: number, isMirrored = false): ChartView =>
  chartView({ centre: { frame: "icrs", raDeg: 100, decDeg }, heightDeg, widthPx: 800, heightPx: 600, isMirrored });
const entry = (id: string, raDeg: number, decDeg: number, more: Partial<CatalogEntry> = {}): CatalogEntry => ({
  id, name: "", aliases: [], kind: "galaxy", at: { frame: "icrs", raDeg, decDeg }, majorArcmin: 20, minorArcmin: 10, positionAngleDeg: 0,
  magnitude: 8, constellation: "Gem", rank: 60, curated: null, ...more,
}); // prettier-ignore

describe("stars on the chart", () => {
  it("go fainter the closer one looks, everything of the catalogue below 3° (law)", () => {
    const height = fc.double({ min: 0.083, max: 60, noNaN: true });
    fc.assert(
      fc.property(height, height, (a, b) => {
        expect(faintestAt(Math.min(a, b))).toBeGreaterThanOrEqual(faintestAt(Math.max(a, b)));
      }),
    );
    expect([faintestAt(60), faintestAt(3) > 10, faintestAt(0.083) <= 14]).toEqual([6, true, true]);
  });

  it("stand where the map says, brighter ones larger, those too faint for the scale not at all", () => {
    const { ctx, drawn } = paper();
    const view = viewAt(20, 10);
    drawStars(ctx, view, skyOf([star(100, 20, 2, 1), star(101, 21, 6, 2), star(99, 19, 13.5, 3)]), ink);
    expect(drawn.arcs).toHaveLength(2);
    const [bright, faint] = [...drawn.arcs].sort((a, b) => b.r - a.r);
    expect(Math.hypot(bright!.x - 400, bright!.y - 300)).toBeLessThan(1e-6);
    const at = toScreen(view, unitVector({ raDeg: 101, decDeg: 21 }))!;
    expect(faint!.x).toBeCloseTo(at.x, 6);
    expect(faint!.x).toBeLessThan(400); // east is left
  });

  it("are tinted by their colour, plain where it is unknown, and named by name or Hipparcos number", () => {
    const { ctx, drawn } = paper();
    const sky = skyOf([star(100, 20, 2, 11, -0.1), star(100.5, 20, 2.1, 12, 1.6), star(99.5, 20, 2.2, 13, null)], { 11: "Tester" }); // prettier-ignore
    drawStars(ctx, viewAt(20, 10), sky, ink);
    const styles = drawn.arcs.sort((a, b) => b.x - a.x).map((a) => a.style);
    expect(styles[0]).toBe("ink");
    expect(styles[1]).toContain("moonlit");
    expect(styles[2]).toContain("lamp");
    expect(drawn.words.map((w) => w.text)).toEqual(["Tester"]);
    expect([0, 1].map((row) => starName(sky, row))).toEqual(["Tester", "HIP 12"]);
  });
});

describe("objects on the chart", () => {
  it("never write one label over another, nor into the foot of the chart (law)", () => {
    const place = fc.record({ ra: fc.double({ min: 95, max: 105, noNaN: true }), dec: fc.double({ min: 15, max: 25, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(place, { minLength: 2, maxLength: 40 }), (places) => {
        const { ctx, drawn } = paper();
        drawObjects(ctx, viewAt(20, 8), places.map((p, i) => entry(`NGC ${i + 1}`, p.ra, p.dec)), new Set(), ink); // prettier-ignore
        drawn.words.forEach((a, i) => {
          expect(a.y).toBeLessThanOrEqual(600 - 22);
          for (const b of drawn.words.slice(i + 1)) {
            const apart = Math.abs(a.y - b.y) >= 14 || a.x >= b.x + 6 * b.text.length || b.x >= a.x + 6 * a.text.length;
            expect(apart).toBe(true);
          }
        });
      }),
      { numRuns: 50 },
    );
  });

  it("leaves out what is too small to see at the scale, writes names where there is room, and outlines what is chosen alone", () => {
    const { ctx, drawn } = paper();
    const objects = [
      entry("NGC 1", 100, 20, { name: "Wide One", majorArcmin: 120 }),
      entry("NGC 2", 102, 21, { majorArcmin: 1 }),
      entry("B 3", 98, 19, { kind: "darkNebula", majorArcmin: 30 }),
    ];
    drawObjects(ctx, viewAt(20, 10), objects, new Set(), ink);
    expect(drawn.words.map((w) => w.text)).toEqual(["NGC 1 Wide One", "B 3"]);
    expect(drawn.strokes).toBe(0);
    drawObjects(ctx, viewAt(20, 10), objects, new Set(["B 3"]), ink);
    expect(drawn.strokes).toBe(1);
    expect(drawn.dashes.filter((d) => d.length > 0)).toHaveLength(1); // a dark nebula is dashed
  });
  it("are soft patches of their size and angle, weaker the fainter their surface; clusters are their stars", () => {
    const { ctx, drawn } = paper();
    const view = viewAt(20, 5);
    const flat = { majorArcmin: 40, minorArcmin: 10, positionAngleDeg: 90 };
    drawPatches(ctx, view, [entry("G 1", 100, 20, { ...flat, magnitude: 7 }), entry("G 2", 101, 21, { ...flat, magnitude: 13 }), entry("C 3", 99, 19, { kind: "openCluster" }), entry("D 4", 99, 21, { kind: "darkNebula" })], ink); // prettier-ignore
    expect(drawn.arcs.map((a) => a.r)).toEqual([40, 40, 20].map((size) => (size / 120) * view.pxPerDeg));
    expect(drawn.scales[0]).toBeCloseTo(0.25, 9);
    expect(Math.abs(Math.sin(drawn.turns[0]!))).toBeCloseTo(0, 2); // PA 90° lies across the chart
    const middle = (i: number) => Number(/([\d.]+)%/.exec(drawn.stops[i]![0]!)![1]);
    expect(middle(0)).toBeGreaterThan(2 * middle(1));
    expect(drawn.stops[2]![0]).toContain("ground"); // a dark nebula takes light away
    expect(drawn.stops.every((s) => /\b0%, transparent/.test(s.at(-1)!))).toBe(true); // no hard rim
  });
  it("never get stronger when they get fainter, and never vanish (law)", () => {
    const mag = fc.double({ min: 10, max: 35, noNaN: true });
    fc.assert(
      fc.property(mag, mag, (a, b) => {
        expect(patchStrength(Math.max(a, b))).toBeLessThanOrEqual(patchStrength(Math.min(a, b)));
        expect(patchStrength(a)).toBeGreaterThan(0.05);
      }),
    );
    // A galaxy by magnitude and size (a definition); a nebula by its class, else as its kind is usually.
    expect(drawnBrightness(entry("G", 0, 0, { magnitude: 10, majorArcmin: 1, minorArcmin: 1 }))).toBeCloseTo(
      18.6285,
      3,
    );
    expect(drawnBrightness(entry("N", 0, 0, { kind: "supernovaRemnant" }))).toBe(25.3);
    expect(drawnBrightness(entry("C", 0, 0, { kind: "openCluster" }))).toBeNull();
  });
});

it("points the compass to north and east as the chart shows them, mirrored or not", () => {
  for (const isMirrored of [false, true]) {
    const { ctx, drawn } = paper();
    const view = viewAt(40, 5, isMirrored);
    drawCompass(ctx, view, ink);
    const [n, e] = ["N", "E"].map((word) => drawn.words.find((w) => w.text === word)!);
    expect(n!.y).toBeLessThan(e!.y);
    const east = toScreen(view, unitVector(offsetBy(view.centre, { positionAngleDeg: 90, distanceDeg: 1 })))!;
    expect(Math.sign(e!.x - n!.x)).toBe(Math.sign(east.x - 400));
    expect(Math.sign(e!.x - n!.x)).toBe(isMirrored ? 1 : -1);
  }
});
