import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { starZones, unpackCatalog, unpackStars, type PackedCatalog } from "~/core/catalog";
import { chartView, toScreen } from "~/core/framing";
import { separationDeg, unitVector, directionOf, type Equatorial } from "~/core/sky";
import {
  allSkyTiles,
  BASE_CELL_DEG,
  cellPoint,
  directionOfCell,
  drawSurvey,
  eachPixel,
  inFrameOf,
  orderFor,
  readSurvey,
  SIMULATED,
  simulatedTile,
  surveyFile,
  surveyText,
  tileAt,
  tilePath,
  tilesAround,
  tileSquare,
  type SurveyLook,
  type TilePixels,
} from ".";

type Cell = readonly [base: number, x: number, y: number];
/** Made with healpy 1.16 (the HEALPix authors' library) and astropy 5.2 (galactic coordinates; stereographic map by WCSLIB). */
const table = JSON.parse(readFileSync("reference/tables/healpix.json", "utf8")) as {
  /** Right ascension, declination, its cell of nside 2^20 counted in equatorial and in galactic coordinates. */
  readonly points: readonly (readonly [number, number, Cell, Cell])[];
  /** Centre, height and roll of a chart of 740 × 455 px, a pixel of it, and the cells under its middle. */
  readonly pixels: readonly (readonly [number, number, number, number, number, number, Cell, Cell])[];
};
const NSIDE = 2 ** 20;
const icrs = (raDeg: number, decDeg: number): Equatorial<"icrs"> => ({ frame: "icrs", raDeg, decDeg });
const view = (raDeg: number, decDeg: number, heightDeg: number, rollDeg = 0) =>
  chartView({ centre: icrs(raDeg, decDeg), heightDeg, rollDeg, widthPx: 740, heightPx: 455 });

describe("cells", () => {
  it("are those of healpy at poles, edges and 188 random directions, in equatorial and galactic counting", () => {
    for (const [raDeg, decDeg, equatorial, galactic] of table.points)
      for (const [frame, [base, x, y]] of [
        ["equatorial", equatorial],
        ["galactic", galactic],
      ] as const) {
        const mine = directionOfCell(cellPoint(inFrameOf(frame, unitVector({ raDeg, decDeg }))));
        const theirs = directionOfCell({ base, x: (x + 0.5) / NSIDE, y: (y + 0.5) / NSIDE });
        const [a, b] = [icrs(directionOf(mine).raDeg, directionOf(mine).decDeg), icrs(directionOf(theirs).raDeg, directionOf(theirs).decDeg)]; // prettier-ignore
        // A cell of that order is 0.2″; a galactic pole known to a hundred-thousandth of a degree.
        expect(separationDeg(a, b) * 3600, `${raDeg} ${decDeg} ${frame}`).toBeLessThan(
          frame === "equatorial" ? 0.2 : 0.4,
        );
      }
  });
  it("turn back into the direction they were found for (law)", () => {
    const sine = fc.double({ min: -1, max: 1, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 0, max: 360, maxExcluded: true, noNaN: true }), sine, (raDeg, s) => {
        const decDeg = (Math.asin(s) * 180) / Math.PI;
        const back = directionOf(directionOfCell(cellPoint(unitVector({ raDeg, decDeg }))));
        expect(separationDeg(icrs(back.raDeg, back.decDeg), icrs(raDeg, decDeg)) * 3600).toBeLessThan(0.01);
      }),
    );
  });
  it("of a disc are all that hold a point of it (law, by points thrown)", () => {
    const at = fc.record({
      raDeg: fc.double({ min: 0, max: 359.99, noNaN: true }),
      decDeg: fc.double({ min: -90, max: 90, noNaN: true }),
      radiusDeg: fc.double({ min: 0.05, max: 20, noNaN: true }),
      order: fc.integer({ min: 0, max: 7 }),
      towards: fc.double({ min: 0, max: 360, noNaN: true }),
      share: fc.double({ min: 0, max: 0.999, noNaN: true }),
    });
    fc.assert(
      fc.property(at, ({ raDeg, decDeg, radiusDeg, order, towards, share }) => {
        const tiles = tilesAround("equatorial", order, icrs(raDeg, decDeg), radiusDeg);
        const t = (towards * Math.PI) / 180;
        const chart = chartView({ centre: icrs(raDeg, decDeg), heightDeg: 1, widthPx: 2, heightPx: 2 });
        const [c, s] = [Math.cos((share * radiusDeg * Math.PI) / 180), Math.sin((share * radiusDeg * Math.PI) / 180)];
        const v = [0, 1, 2].map((i) => c * chart.sight[i]! + s * (Math.sin(t) * chart.east[i]! + Math.cos(t) * chart.north[i]!)); // prettier-ignore
        const { base, x, y } = cellPoint(v as [number, number, number]);
        expect(tiles).toContain(tileAt(order, base, x, y));
      }),
    );
  });
});

describe("pixels of a chart", () => {
  it("lie in the survey where astropy's map and healpy say, to a fifth of a pixel: poles, right ascension 0, rolls, 0.3° to 40°", () => {
    const asked = new Map<string, (typeof table.pixels)[number][]>();
    for (const p of table.pixels) {
      const key = p.slice(0, 4).join(" ");
      asked.set(key, [...(asked.get(key) ?? []), p]);
    }
    let compared = 0;
    for (const pixels of asked.values()) {
      const [raDeg, decDeg, heightDeg, rollDeg] = pixels[0]!;
      const chart = view(raDeg, decDeg, heightDeg, rollDeg);
      for (const which of [6, 7] as const)
        eachPixel(chart, which === 6 ? "equatorial" : "galactic", (column, row, base, x, y) => {
          const p = pixels.find((q) => q[4] === column && q[5] === row);
          if (!p) return;
          const [theirBase, theirX, theirY] = p[which];
          const mine = unitVector(directionOf(directionOfCell({ base, x, y })));
          const theirs = directionOfCell({ base: theirBase, x: (theirX + 0.5) / NSIDE, y: (theirY + 0.5) / NSIDE });
          const offDeg = (Math.hypot(...mine.map((m, i) => m - theirs[i]!)) * 180) / Math.PI;
          expect(offDeg * chart.pxPerDeg, `${p.join(" ")}`).toBeLessThan(0.2 + 0.0001 * chart.pxPerDeg);
          compared++;
        });
    }
    expect(compared).toBe(400);
  });
  it("are each visited once", () => {
    const seen = new Uint8Array(740 * 455);
    eachPixel(view(10, 41.7, 60), "galactic", (column, row) => {
      seen[row * 740 + column]!++;
    });
    expect(seen.every((n) => n === 1)).toBe(true);
  });
});

const stars = unpackStars(new Uint8Array(readFileSync("app/data/stars.bin")));
const objects = unpackCatalog(JSON.parse(readFileSync("app/data/objects.json", "utf8")) as PackedCatalog);
if (!stars.ok || !objects.ok) throw new Error("no sky");
const sky = { stars: starZones(stars.value), objects: objects.value };
const PLAIN: SurveyLook = { brightness: 0, contrast: 0, ink: "own" };

/** A chart drawn with tiles of the simulated sky, its stars alone. */
function drawn(chart: ReturnType<typeof view>, look = PLAIN) {
  const made = new Map<string, TilePixels>();
  const tileOf = (order: number, tile: number) => {
    if (order !== orderFor(chart, SIMULATED)) return null;
    const key = `${order}/${tile}`;
    if (!made.has(key)) made.set(key, simulatedTile(order, tile, { ...sky, objects: [] }));
    return made.get(key)!;
  };
  const rgba = new Uint8ClampedArray(4 * chart.widthPx * chart.heightPx);
  const missing = drawSurvey(chart, SIMULATED, orderFor(chart, SIMULATED), tileOf, look, rgba);
  return { rgba, missing };
}

describe("the simulated sky", () => {
  it.each([
    ["the belt of Orion", 84, -1.2, 4, 0],
    ["near the pole", 30, 88.9, 4, 25],
    ["across right ascension 0", 0.1, 29, 5, 180],
    ["on the edge of a cap", 45, 41.8, 6, 70],
  ])("has its stars where the chart draws them, within half a pixel: %s", (_, raDeg, decDeg, heightDeg, rollDeg) => {
    const chart = view(raDeg, decDeg, heightDeg, rollDeg);
    const { rgba, missing } = drawn(chart);
    expect(missing).toEqual([]);
    const light = (x: number, y: number) => rgba[4 * (y * 740 + x)]! + rgba[4 * (y * 740 + x) + 1]!;
    const places = Array.from(sky.stars.stars.raDeg, (ra, i) => ({
      at: toScreen(chart, unitVector({ raDeg: ra, decDeg: sky.stars.stars.decDeg[i]! })),
      magnitude: sky.stars.stars.magnitude[i]!,
    })).filter(({ at }) => at && at.x > 12 && at.y > 12 && at.x < 728 && at.y < 443);
    const REACH = 5;
    const lonely = places.filter(({ at, magnitude }) => magnitude < 8.5 && magnitude > 5 && places.every((o) => o.at === at || Math.hypot(o.at!.x - at!.x, o.at!.y - at!.y) > 14)); // prettier-ignore
    expect(lonely.length).toBeGreaterThan(3);
    for (const { at } of lonely) {
      const [cx, cy] = [Math.floor(at!.x), Math.floor(at!.y)];
      const ground = Math.min(...[-REACH, REACH].flatMap((d) => [light(cx + d, cy), light(cx, cy + d)]));
      let [sum, sx, sy] = [0, 0, 0];
      for (let y = cy - REACH; y <= cy + REACH; y++)
        for (let x = cx - REACH; x <= cx + REACH; x++) {
          const w = Math.max(0, light(x, y) - ground - 8);
          [sum, sx, sy] = [sum + w, sx + w * (x + 0.5), sy + w * (y + 0.5)];
        }
      expect(Math.hypot(sx / sum - at!.x, sy / sum - at!.y)).toBeLessThan(0.5);
    }
  });
  it("has a ground that goes on across the edge of tiles, whatever the tile and its neighbour (law)", () => {
    // Along the edge between two tiles of one base cell the last pixels of one and the first of the other are a pixel apart.
    const place = fc.record({
      base: fc.integer({ min: 0, max: 11 }),
      i: fc.integer({ min: 0, max: 6 }),
      j: fc.integer({ min: 0, max: 7 }),
    });
    const bare = { stars: starZones({ count: 0, raDeg: new Float64Array(), decDeg: new Float64Array(), magnitude: new Float32Array(), colour: new Float32Array(), hip: new Int32Array() }), objects: [] }; // prettier-ignore
    fc.assert(
      fc.property(place, ({ base, i, j }) => {
        const [west, east] = [
          tileAt(3, base, (j + 0.5) / 8, (i + 1.5) / 8),
          tileAt(3, base, (j + 0.5) / 8, (i + 0.5) / 8),
        ];
        const [a, b] = [simulatedTile(3, east, bare, 64), simulatedTile(3, west, bare, 64)];
        for (let row = 0; row < 64; row++)
          for (let k = 0; k < 3; k++)
            expect(Math.abs(a.rgba[4 * (row * 64 + 63) + k]! - b.rgba[4 * row * 64 + k]!)).toBeLessThan(4);
      }),
      { numRuns: 12 },
    );
  });
});

describe("drawing", () => {
  /** A tile of one colour. */
  const plain = (r: number, g: number, b: number, sidePx = 64, alpha = 255): TilePixels => ({
    sidePx,
    rgba: Uint8ClampedArray.from({ length: 4 * sidePx * sidePx }, (_, i) => [r, g, b, alpha][i % 4]!),
  });
  const small = chartView({ centre: icrs(120, 20), heightDeg: 3, widthPx: 60, heightPx: 40 });
  const survey = { ...SIMULATED, tilePx: 64 };
  it("shows coarser tiles where the wanted ones are not there yet, and tells which are missing", () => {
    const out = new Uint8ClampedArray(4 * 60 * 40);
    const missing = drawSurvey(small, survey, 5, (order) => (order === 3 ? plain(10, 20, 30) : null), PLAIN, out);
    expect([...out.slice(0, 4)]).toEqual([10, 20, 30, 255]);
    const { base, x, y } = cellPoint(unitVector(small.centre));
    expect(missing).toContain(tileAt(5, base, x, y));
    expect(drawSurvey(small, survey, 5, () => null, PLAIN, out).length).toBe(missing.length);
    expect(out.filter((_, i) => i % 4 === 3).every((alpha) => alpha === 0)).toBe(true);
  });
  it("leaves alone what a survey does not cover", () => {
    const out = new Uint8ClampedArray(4 * 60 * 40);
    drawSurvey(small, survey, 5, () => plain(9, 9, 9, 64, 0), PLAIN, out);
    expect(out.filter((_, i) => i % 4 === 3).every((alpha) => alpha === 0)).toBe(true);
  });
  it("is brighter, stronger, red or dark on light as asked", () => {
    const of = (look: SurveyLook) => {
      const out = new Uint8ClampedArray(4 * 60 * 40);
      drawSurvey(small, survey, 5, () => plain(100, 150, 60), look, out);
      return [...out.slice(0, 4)];
    };
    expect(of(PLAIN)).toEqual([100, 150, 60, 255]);
    expect(of({ ...PLAIN, ink: "red" })).toEqual([150, 0, 0, 255]);
    // Lightness 41 % becomes 59 %, green as before.
    expect(of({ ...PLAIN, ink: "onLight" })).toEqual([145, 195, 105, 255]);
    const [r, g, b] = of({ ...PLAIN, contrast: 0.5 }) as [number, number, number];
    expect([r < 100, g > 150, b < 60]).toEqual([true, true, true]);
    expect(of({ ...PLAIN, brightness: 0.3 })[0]).toBeGreaterThan(100);
  });
  it("has the northern corner of a tile at its top right and the eastern one at its top left, as on the sky", () => {
    // A picture of the sky seen from inside: north up, east to the left, once the tile is turned by an eighth.
    const corners = plain(0, 0, 0, 64);
    const mark = (x: number, y: number, k: number) => {
      for (let dy = 0; dy < 12; dy++)
        for (let dx = 0; dx < 12; dx++) corners.rgba[4 * ((y + dy) * 64 + x + dx) + k] = 255;
    };
    mark(52, 0, 0); // north, in red
    mark(0, 0, 1); // east, in green
    const tile = 5 * 4 ** 3 + 21;
    const { base, x, y, edge } = tileSquare(3, tile);
    const middle = directionOf(directionOfCell({ base, x: x + edge / 2, y: y + edge / 2 }));
    const chart = chartView({ centre: icrs(middle.raDeg, middle.decDeg), heightDeg: 12, widthPx: 120, heightPx: 120 });
    const out = new Uint8ClampedArray(4 * 120 * 120);
    drawSurvey(chart, survey, 3, (order, n) => (order === 3 && n === tile ? corners : null), PLAIN, out);
    const centroid = (k: number) => {
      let [sum, sx, sy] = [0, 0, 0];
      for (let i = 0; i < 120 * 120; i++) {
        const w = out[4 * i + k]!;
        [sum, sx, sy] = [sum + w, sx + w * (i % 120), sy + w * Math.floor(i / 120)];
      }
      return { x: sx / sum, y: sy / sum };
    };
    expect(centroid(0).y).toBeLessThan(40);
    expect(centroid(1).x).toBeLessThan(40);
  });
  it("takes the picture of all the sky apart", () => {
    const width = 27 * 2;
    const rgba = new Uint8ClampedArray(4 * width * 29 * 2);
    rgba[4 * (2 * width * 1 + 2 * 3)] = 77; // the first pixel of the fourth in the second row
    const tiles = allSkyTiles(width, rgba)!;
    expect([tiles.length, tiles[27 + 3]!.rgba[0], tiles[0]!.sidePx]).toEqual([768, 77, 2]);
    expect(allSkyTiles(100, rgba)).toBeNull();
  });
  it("asks for the order whose pixels are about the chart's, within what there is", () => {
    for (const heightDeg of [0.2, 1, 2, 8, 30]) {
      const chart = view(10, 10, heightDeg);
      const order = orderFor(chart, SIMULATED);
      const finer = (BASE_CELL_DEG / 2 ** order / 512) * chart.pxPerDeg;
      expect(order >= 3 && order <= 9).toBe(true);
      if (order > 3 && order < 9) expect(finer > 0.55 && finer < 1.25).toBe(true);
    }
  });
});

describe("the properties of a survey", () => {
  const text = surveyText(SIMULATED, "simulated");
  it("are read as they are written", () => {
    expect(readSurvey(text)).toEqual({ ok: true, value: SIMULATED });
  });
  it("of a foreign survey are read by the published keys: comments, JPEG of 256, galactic, orders finer than shown", () => {
    const foreign = "# one of many\r\ncreator_did = ivo://x/P/y\r\nobs_title=Two colours\r\nhips_order = 15\r\nhips_tile_width=256\r\nhips_tile_format = jpeg fits\r\nhips_frame=galactic\r\nhips_order=3\r\n"; // prettier-ignore
    expect(readSurvey(foreign)).toEqual({
      ok: true,
      value: {
        title: "Two colours",
        credit: "",
        orderMin: 3,
        orderMax: 13,
        tilePx: 256,
        format: "jpg",
        frame: "galactic",
      },
    });
  });
  it.each([
    ["missing", "hips_order", ""],
    ["missing", "hips_frame", ""],
    ["missing", "obs_title", ""],
    ["unreadable", "hips_order", "many"],
    ["unreadable", "hips_tile_width", "500"],
    ["unreadable", "hips_order_min", "11"],
    ["noPictures", "hips_tile_format", "fits"],
    ["otherFrame", "hips_frame", "ecliptic"],
  ])("are refused: %s %s “%s”", (code, key, value) => {
    const lines = text.split("\n").filter((line) => !line.startsWith(key) && !(key === "obs_title" && line.startsWith("creator"))); // prettier-ignore
    const bad = lines.filter((line) => key !== "hips_order" || !line.startsWith("hips_order ")).join("\n") + (value ? `\n${key}=${value}\n` : "\n"); // prettier-ignore
    expect(readSurvey(bad)).toMatchObject({ ok: false, error: { code } });
  });
  it("never throw, whatever a file holds (law)", () => {
    const line = fc.tuple(
      fc.constantFrom("hips_order", "hips_frame", "obs_title", "hips_tile_format", "#", ""),
      fc.string(),
    );
    fc.assert(fc.property(fc.array(line), (lines) => typeof readSurvey(lines.map((l) => l.join("=")).join("\n")).ok === "boolean")); // prettier-ignore
  });
});

describe("paths under a survey", () => {
  it("are read as they are written, and nothing else is (law)", () => {
    const tile = fc.integer({ min: 0, max: 9 }).chain((order) => fc.tuple(fc.constant(order), fc.integer({ min: 0, max: 12 * 4 ** order - 1 }), fc.constantFrom("jpg" as const, "png" as const))); // prettier-ignore
    fc.assert(
      fc.property(tile, ([order, number, format]) => {
        expect(surveyFile(tilePath(order, number, format))).toEqual({ kind: "tile", order, tile: number, format });
      }),
    );
    for (const path of ["", "../secret", "Norder3/Dir0/Npix768.png", "Norder3/Dir10000/Npix5.png", "Norder3/Dir0/Npix05.png", "Norder3/Dir0/../Npix5.png", "Norder3/Allsky.gif", "properties?x", "Norder14/Dir0/Npix5.png", "%2e%2e/properties"]) expect(surveyFile(path)).toBeNull(); // prettier-ignore
  });
});
