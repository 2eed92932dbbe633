import { drawnBrightness, isNebula, lightOf, starsWithin, type CatalogEntry, type StarZones } from "~/core/catalog";
import {
  directionOf,
  icrsToGalactic,
  offsetBy,
  separationDeg,
  unitVector,
  type Equatorial,
  type Vec3,
} from "~/core/sky";
import { degToRad, radToDeg } from "~/core/units";
import { BASE_CELL_DEG, cellPoint, directionOfCell, tileSquare } from "./cells";
import type { TilePixels } from "./draw";
import type { Survey } from "./survey";

/** What the simulated sky is made from. */
export interface SimulatedSky {
  readonly stars: StarZones;
  readonly objects: readonly CatalogEntry[];
}

/** The survey that the app makes itself: catalogue stars with their colours, catalogue objects as patches with an invented texture. */
export const SIMULATED: Survey = {
  title: "Simulated sky",
  credit: "Simulated: stars and sizes from the catalogues, all structure invented",
  orderMin: 3,
  orderMax: 9,
  tilePx: 512,
  format: "png",
  frame: "equatorial",
};

const NODE_PX = 8;
type Colour = readonly [number, number, number];
const GROUND: Colour = [11, 12, 17];
const BAND: Colour = [26, 24, 24];
const LIGHTS = { Ha: [208, 84, 74], OIII: [84, 190, 178], mixed: [190, 110, 128], continuum: [214, 202, 184] } as const;
const REFLECTION: Colour = [120, 150, 220];

/** A number in [0, 1) for a point of a lattice. */
function latticeValue(x: number, y: number, z: number): number {
  let h = Math.imul(x, 0x27d4eb2d) ^ Math.imul(y, 0x165667b1) ^ Math.imul(z, 0x9e3779b1);
  h = Math.imul(h ^ (h >>> 15), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32;
}

const smooth = (t: number): number => t * t * (3 - 2 * t);
const mix = (a: number, b: number, t: number): number => a + (b - a) * t;

/** Smooth noise in [0, 1) over the sphere, about one swell in `swellDeg`; the same wherever a tile ends. */
function noiseAt(v: Vec3, swellDeg: number): number {
  const [x, y, z] = v.map((c) => (c + 2) * (57.3 / swellDeg)) as [number, number, number];
  const [i, j, k] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [s, t, u] = [smooth(x - i), smooth(y - j), smooth(z - k)];
  const edge = (dj: number, dk: number) => mix(latticeValue(i, j + dj, k + dk), latticeValue(i + 1, j + dj, k + dk), s);
  return mix(mix(edge(0, 0), edge(1, 0), t), mix(edge(0, 1), edge(1, 1), t), u);
}

/** Swells of the texture, degrees, and how much each weighs. */
const SWELLS = [
  [4, 0.4],
  [1, 0.3],
  [0.25, 0.2],
  [0.06, 0.1],
] as const;

/** The invented structure at a direction, about 0 to 1; swells that nodes `nodeDeg` apart cannot show are left smooth. */
const textureAt = (v: Vec3, nodeDeg: number): number =>
  SWELLS.reduce((sum, [swell, weight]) => sum + weight * (swell > 3 * nodeDeg ? noiseAt(v, swell) : 0.5), 0);

/** Nodes of a tile: one more than squares, row after row from the top. */
interface Nodes {
  readonly across: number;
  readonly directions: readonly Vec3[];
}

/** A tile with where it lies. */
interface Canvas {
  readonly sidePx: number;
  readonly light: Float32Array;
  readonly nodes: Nodes;
  readonly centre: Equatorial<"icrs">;
  readonly radiusDeg: number;
  readonly pxDeg: number;
}

function canvasOf(order: number, tile: number, sidePx: number): Canvas {
  const square = tileSquare(order, tile);
  const across = sidePx / NODE_PX + 1;
  const at = (column: number, row: number): Vec3 =>
    directionOfCell({
      base: square.base,
      x: square.x + square.edge * (1 - row / (across - 1)),
      y: square.y + square.edge * (column / (across - 1)),
    });
  const directions = Array.from({ length: across * across }, (_, i) => at(i % across, Math.floor(i / across)));
  const middle = directionOfCell({ base: square.base, x: square.x + square.edge / 2, y: square.y + square.edge / 2 });
  const centre = { frame: "icrs", ...directionOf(middle) } as const;
  const corners = [0, across - 1, across * (across - 1), across * across - 1].map((i) => directionOf(directions[i]!));
  const radiusDeg = Math.max(...corners.map((c) => separationDeg(centre, { frame: "icrs", ...c })));
  return {
    sidePx,
    light: new Float32Array(3 * sidePx * sidePx),
    nodes: { across, directions },
    centre,
    radiusDeg,
    pxDeg: (BASE_CELL_DEG * square.edge) / sidePx,
  };
}

/** Goes through the squares between nodes; fills in what is known at nodes (a value each) for every pixel. */
function fillIn(c: Canvas, value: Float32Array, most: number, paint: (pixel: number, value: number) => void): void {
  const { across } = c.nodes;
  for (let row = 0; row + 1 < across; row++)
    for (let column = 0; column + 1 < across; column++) {
      const i = row * across + column;
      const a = value[i]!;
      const b = value[i + 1]!;
      const d = value[i + across]!;
      const e = value[i + across + 1]!;
      if (Math.min(a, b, d, e) > most) continue;
      for (let y = 0; y < NODE_PX; y++) {
        const t = (y + 0.5) / NODE_PX;
        const left = mix(a, d, t);
        const step = (mix(b, e, t) - left) / NODE_PX;
        const first = (row * NODE_PX + y) * c.sidePx + column * NODE_PX;
        for (let x = 0; x < NODE_PX; x++) paint(first + x, left + (x + 0.5) * step);
      }
    }
}

const add = (light: Float32Array, pixel: number, colour: Colour, much: number): void => {
  light[3 * pixel]! += colour[0] * much;
  light[3 * pixel + 1]! += colour[1] * much;
  light[3 * pixel + 2]! += colour[2] * much;
};

/** Night sky, and the Milky Way with its clouds. */
function drawGround(c: Canvas, texture: Float32Array): void {
  const band = Float32Array.from(c.nodes.directions, (v, i) => {
    const { lonDeg, latDeg } = icrsToGalactic({ frame: "icrs", ...directionOf(v) });
    const width = 9 + 5 * Math.cos(degToRad(lonDeg));
    return Math.exp(-((latDeg / width) ** 2)) * (0.4 + 1.3 * texture[i]!);
  });
  fillIn(c, band, Number.POSITIVE_INFINITY, (pixel, much) => {
    add(c.light, pixel, GROUND, 1);
    add(c.light, pixel, BAND, much);
  });
}

/** How an object's light falls from the middle (0) to the rim (1). */
function profileOf(e: CatalogEntry): (r: number) => number {
  if (e.kind === "supernovaRemnant" || e.kind === "planetaryNebula" || e.kind === "wolfRayetNebula")
    return (r) => Math.max(0, 1 - r * r) * (0.35 + 0.9 * r * r);
  if (isNebula(e.kind) || e.kind === "reflectionNebula") return (r) => Math.max(0, 1 - r * r) ** 1.3;
  return (r) => Math.exp(-3.2 * r) * Math.max(0, 1 - r);
}

/** How bright a surface is drawn: 22 mag/arcsec² plainly, 26 hardly. */
const strengthOf = (magPerArcsec2: number): number => Math.min(1.4, 0.06 + 0.9 * 10 ** (-0.22 * (magPerArcsec2 - 22)));

/** A catalogue object as a patch of its size, angle and light. */
function drawPatch(c: Canvas, e: CatalogEntry, swell: () => Float32Array): void {
  const isDark = e.kind === "darkNebula";
  const brightness = isDark ? 0 : drawnBrightness(e);
  if (brightness === null || !e.majorArcmin) return;
  const [long, short] = [e.majorArcmin / 120, (e.minorArcmin ?? e.majorArcmin) / 120];
  if (2 * long < 2 * c.pxDeg || separationDeg(c.centre, e.at) > c.radiusDeg + long) return;
  const middle = unitVector(e.at);
  const towards = (positionAngleDeg: number): Vec3 => unitVector(offsetBy(e.at, { positionAngleDeg, distanceDeg: 90 }));
  const pa = e.positionAngleDeg ?? 0;
  const [along, across] = [towards(pa), towards(pa + 90)];
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const radius = Float32Array.from(c.nodes.directions, (v) =>
    dot(v, middle) < 0 ? 9 : Math.hypot(radToDeg(dot(v, along)) / long, radToDeg(dot(v, across)) / short),
  );
  const profile = profileOf(e);
  const isClouded = isNebula(e.kind) || e.kind === "reflectionNebula" || isDark;
  const colour = e.kind === "reflectionNebula" ? REFLECTION : LIGHTS[lightOf(e)];
  const strength = isDark ? 0.75 : strengthOf(brightness);
  const clouds = isClouded ? swell() : null;
  fillIn(c, radius, 1, (pixel, r) => {
    if (r >= 1) return;
    const much = strength * profile(r) * (clouds ? clouds[pixel]! : 1);
    if (isDark) for (let k = 0; k < 3; k++) c.light[3 * pixel + k]! *= Math.max(0.25, 1 - much);
    else add(c.light, pixel, colour, much);
  });
}

/** Colour of a star by its B−V: bluish white to orange. */
function starColour(colour: number): Colour {
  const t = Number.isNaN(colour) ? 0.4 : Math.min(1, Math.max(0, (colour + 0.2) / 1.8));
  return [190 + 65 * Math.min(1, 2 * t), 205 + 25 * Math.sin(Math.PI * t), 255 - 120 * t];
}

const STAR_SIGMA_PX = 1.1;
const FAINTEST = 14;

/** Stars as round spots on the sky, whatever the shape of the tile's pixels: each brightest just where it is. */
function drawStars(c: Canvas, order: number, tile: number, sky: SimulatedSky): void {
  const square = tileSquare(order, tile);
  const perShare = c.sidePx / square.edge;
  const table = sky.stars.stars;
  const { raDeg, decDeg } = c.centre;
  const rows = starsWithin(sky.stars, {
    raDeg,
    decDeg,
    radiusDeg: c.radiusDeg * 1.02 + 30 * c.pxDeg,
    faintest: FAINTEST,
  });
  for (const row of rows) {
    const v = unitVector({ raDeg: table.raDeg[row]!, decDeg: table.decDeg[row]! });
    const { base, x, y } = cellPoint(v);
    if (base !== square.base) continue;
    const px = (y - square.y) * perShare - 0.5;
    const py = c.sidePx - 0.5 - (x - square.x) * perShare;
    // A magnitude is a fixed factor of light; on coarser tiles, where more stars share a pixel, the faint ones fade.
    const peak = 10 ** (-0.4 * (table.magnitude[row]! - 8.5 - 0.35 * (order - 5)));
    const reach = STAR_SIGMA_PX * Math.sqrt(2 * Math.log(Math.max(2, peak * 500)));
    if (px < -reach || py < -reach || px > c.sidePx + reach || py > c.sidePx + reach) continue;
    drawSpot(
      c,
      { px, py, peak, reach },
      metricAt(square.base, x, y, 1 / perShare, c.pxDeg),
      starColour(table.colour[row]!),
    );
  }
}

/** Lengths on the sky of steps by a pixel to the right and down, in units of the usual pixel: a metric, as steps are neither square nor alike. */
function metricAt(base: number, x: number, y: number, step: number, pxDeg: number): readonly [number, number, number] {
  const inside = (t: number) => Math.min(1 - 2 * step, Math.max(2 * step, t));
  const [cx, cy] = [inside(x), inside(y)];
  const difference = (a: Vec3, b: Vec3): Vec3 => [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const right = difference(directionOfCell({ base, x: cx, y: cy }), directionOfCell({ base, x: cx, y: cy + step }));
  const down = difference(directionOfCell({ base, x: cx, y: cy }), directionOfCell({ base, x: cx - step, y: cy }));
  const dot = (a: Vec3, b: Vec3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
  const unit = degToRad(pxDeg) ** 2;
  return [dot(right, right) / unit, dot(right, down) / unit, dot(down, down) / unit];
}

function drawSpot(
  c: Canvas,
  { px, py, peak, reach }: { readonly px: number; readonly py: number; readonly peak: number; readonly reach: number },
  [rr, rd, dd]: readonly [number, number, number],
  colour: Colour,
): void {
  // Where pixels are drawn out, the spot reaches further in them.
  const far = Math.ceil((reach * Math.sqrt(Math.max(rr, dd))) / Math.sqrt(Math.max(0.2, rr * dd - rd * rd)));
  const span = (at: number): readonly [number, number] => [
    Math.max(0, Math.floor(at) - far),
    Math.min(c.sidePx - 1, Math.ceil(at) + far),
  ];
  const [[left, right], [top, bottom]] = [span(px), span(py)];
  for (let y = top; y <= bottom; y++)
    for (let x = left; x <= right; x++) {
      const dx = x - px;
      const dy = y - py;
      const r2 = rr * dx * dx + 2 * rd * dx * dy + dd * dy * dy;
      add(c.light, y * c.sidePx + x, colour, peak * Math.exp(-r2 / (2 * STAR_SIGMA_PX ** 2)));
    }
}

/** Makes a tile of the simulated sky: the same one for the same number, whenever it is made. */
export function simulatedTile(order: number, tile: number, sky: SimulatedSky, sidePx = SIMULATED.tilePx): TilePixels {
  const c = canvasOf(order, tile, sidePx);
  const texture = Float32Array.from(c.nodes.directions, (v) => textureAt(v, c.pxDeg * NODE_PX));
  drawGround(c, texture);
  let filled: Float32Array | null = null;
  const swell = (): Float32Array => {
    if (filled) return filled;
    const all = new Float32Array(sidePx * sidePx);
    fillIn(c, texture, Number.POSITIVE_INFINITY, (pixel, v) => (all[pixel] = Math.max(0.08, 2.6 * (v - 0.28))));
    return (filled = all);
  };
  for (const e of sky.objects) drawPatch(c, e, swell);
  drawStars(c, order, tile, sky);
  const rgba = new Uint8ClampedArray(4 * sidePx * sidePx);
  for (let i = 0; i < sidePx * sidePx; i++) {
    for (let k = 0; k < 3; k++) rgba[4 * i + k] = c.light[3 * i + k]!;
    rgba[4 * i + 3] = 255;
  }
  return { sidePx, rgba };
}
