import type { ChartView } from "~/core/framing";
import type { Vec3 } from "~/core/sky";
import { degToRad } from "~/core/units";
import { BASE_CELL_DEG, CAP, cellPoint, inFrameOf, tileAt, tileSquare, type CellPoint } from "./cells";
import type { Survey } from "./survey";

/** Pixels of a tile, red, green, blue and how much of it there is, row after row from the top; the northern corner is at the top right. */
export interface TilePixels {
  readonly sidePx: number;
  readonly rgba: Uint8ClampedArray;
}

const MESH_PX = 16;
/** How far the mesh may be off between its nodes, px of the chart; where it would be more, every pixel is worked out. */
const MOST_OFF_PX = 0.2;

interface Node {
  readonly base: number;
  readonly x: number;
  readonly y: number;
  /** Sine of the latitude in the survey's frame. */
  readonly z: number;
}

/** The chart's own projection turned back, straight into the survey's frame. */
function nodeMaker(view: ChartView, frame: Survey["frame"]): (px: number, py: number) => Node {
  const [east, north, sight] = [view.east, view.north, view.sight].map((axis) => inFrameOf(frame, axis)) as [Vec3, Vec3, Vec3]; // prettier-ignore
  const scale = degToRad(1) / (2 * view.pxPerDeg);
  return (px, py) => {
    const e = view.flip * (view.widthPx / 2 - px) * scale;
    const n = (view.heightPx / 2 - py) * scale;
    const r2 = e * e + n * n;
    const [ke, kn, ks] = [(2 * e) / (1 + r2), (2 * n) / (1 + r2), (1 - r2) / (1 + r2)];
    const v: Vec3 = [
      ke * east[0] + kn * north[0] + ks * sight[0],
      ke * east[1] + kn * north[1] + ks * sight[1],
      ke * east[2] + kn * north[2] + ks * sight[2],
    ];
    return { ...cellPoint(v), z: v[2] };
  };
}

/** Whether a square of the mesh may be filled in between its corners: all in one base cell, no kink in it, and its middle near enough. */
function isSmooth(corners: readonly [Node, Node, Node, Node], middle: Node, pxPerCell: number): boolean {
  const [a, b, c, d] = corners;
  if (b.base !== a.base || c.base !== a.base || d.base !== a.base || middle.base !== a.base) return false;
  const zs = [a.z, b.z, c.z, d.z, middle.z];
  const [low, high] = [Math.min(...zs), Math.max(...zs)];
  if ((low < CAP && high > CAP) || (low < -CAP && high > -CAP)) return false;
  const off = Math.hypot((a.x + b.x + c.x + d.x) / 4 - middle.x, (a.y + b.y + c.y + d.y) / 4 - middle.y);
  return off * pxPerCell <= MOST_OFF_PX;
}

/** A square of the mesh that may be filled in: whole pixels from `left`, `top` to before `right`, `bottom`, all in one base cell. */
interface SmoothPatch {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  readonly base: number;
  /** Shares at its corners, the right and the lower ones 16 px from the left and the upper. */
  readonly corners: readonly [upperLeft: CellPoint, upperRight: CellPoint, lowerLeft: CellPoint, lowerRight: CellPoint];
}

/** Goes over a chart on a mesh of 16 px: squares that may be filled in between their corners to 0.2 px, and elsewhere every pixel exactly. */
function overMesh(
  view: ChartView,
  frame: Survey["frame"],
  onPatch: (patch: SmoothPatch) => void,
  onPixel: (column: number, row: number, at: CellPoint) => void,
): void {
  const { widthPx, heightPx } = view;
  const at = nodeMaker(view, frame);
  const pxPerCell = BASE_CELL_DEG * view.pxPerDeg;
  const columns = Math.ceil(widthPx / MESH_PX);
  const line = (py: number): Node[] => Array.from({ length: columns + 1 }, (_, i) => at(i * MESH_PX, py));
  let upper = line(0);
  for (let top = 0; top < heightPx; top += MESH_PX) {
    const lower = line(top + MESH_PX);
    for (let i = 0; i < columns; i++) {
      const left = i * MESH_PX;
      const corners = [upper[i]!, upper[i + 1]!, lower[i]!, lower[i + 1]!] as const;
      const [right, bottom] = [Math.min(widthPx, left + MESH_PX), Math.min(heightPx, top + MESH_PX)];
      if (isSmooth(corners, at(left + MESH_PX / 2, top + MESH_PX / 2), pxPerCell))
        onPatch({ left, top, right, bottom, base: corners[0].base, corners });
      else
        for (let row = top; row < bottom; row++)
          for (let column = left; column < right; column++) onPixel(column, row, at(column + 0.5, row + 0.5));
    }
    upper = lower;
  }
}

/** Where a row of a patch begins among the shares, half a pixel before its first, and how far each pixel takes it. */
function lineOf(
  { top, corners: [a, b, c, d] }: SmoothPatch,
  row: number,
): { x: number; y: number; dx: number; dy: number } {
  const t = (row + 0.5 - top) / MESH_PX;
  const x = a.x + (c.x - a.x) * t;
  const y = a.y + (c.y - a.y) * t;
  return { x, y, dx: (b.x + (d.x - b.x) * t - x) / MESH_PX, dy: (b.y + (d.y - b.y) * t - y) / MESH_PX };
}

/**
 * Goes through all pixels of a chart and tells where the middle of each lies among the survey's base cells. Worked out on a mesh of
 * 16 px and filled in between where that is good to 0.2 px; exactly, pixel by pixel, elsewhere.
 */
export function eachPixel(
  view: ChartView,
  frame: Survey["frame"],
  visit: (column: number, row: number, base: number, x: number, y: number) => void,
): void {
  overMesh(
    view,
    frame,
    (patch) => {
      const { left, top, right, bottom, base } = patch;
      for (let row = top; row < bottom; row++) {
        const { x, y, dx, dy } = lineOf(patch, row);
        for (let column = left; column < right; column++) {
          const s = column + 0.5 - left;
          visit(column, row, base, x + dx * s, y + dy * s);
        }
      }
    },
    (column, row, { base, x, y }) => visit(column, row, base, x, y),
  );
}

/** The order whose pixels are as fine as the chart's, or the nearest the survey has. */
export function orderFor(view: ChartView, survey: Survey): number {
  const tilesAcross = (BASE_CELL_DEG * view.pxPerDeg) / survey.tilePx;
  // A fifth coarser than the chart is still sharp to the eye, and a quarter of the tiles.
  const order = Math.ceil(Math.log2(tilesAcross) - 0.25);
  return Math.max(survey.orderMin, Math.min(survey.orderMax, order));
}

/** How a picture is shown. */
export interface SurveyLook {
  /** Brightness and contrast from −1 to 1; 0 as it is. */
  readonly brightness: number;
  readonly contrast: number;
  /** As it is; in red only, for an eye adapted to the dark; or dark on light, each colour in its own hue, for a light page. */
  readonly ink: "own" | "red" | "onLight";
}

/** What 0 to 255 becomes. */
export function toneCurve({ brightness, contrast }: SurveyLook): Uint8ClampedArray {
  const slope = 4 ** contrast;
  return Uint8ClampedArray.from({ length: 256 }, (_, v) => 255 * (0.5 + slope * (v / 255 - 0.5) + 0.5 * brightness));
}

/** The tile that stands for a place, and which part of it: its own, or the nearest coarser one that is there. */
interface Stand {
  readonly pixels: TilePixels;
  /** From the base cell's shares to pixels: x0, y0 of its southern corner, and pixels per share. */
  readonly x0: number;
  readonly y0: number;
  readonly scale: number;
}

/**
 * Draws a survey onto a chart of `view.widthPx` by `view.heightPx` (whole numbers): what is there of the wanted order, coarser tiles
 * where it is not yet, nothing (no alpha) where there are none. Returns the tiles of that order that were missing. Between a tile's
 * pixels the light is filled in.
 */
export function drawSurvey(
  view: ChartView,
  survey: Survey,
  order: number,
  tileOf: (order: number, tile: number) => TilePixels | null,
  look: SurveyLook,
  out: Uint8ClampedArray,
): readonly number[] {
  const missing = new Set<number>();
  const stands = new Map<number, Stand | null>();
  const side = 2 ** order;
  const standFor = (tile: number): Stand | null => {
    for (let k = order, number = tile; k >= 0; k--, number = Math.floor(number / 4)) {
      const pixels = tileOf(k, number);
      if (k === order && !pixels) missing.add(tile);
      if (!pixels) continue;
      const square = tileSquare(k, number);
      return { pixels, x0: square.x, y0: square.y, scale: pixels.sidePx / square.edge };
    }
    return null;
  };
  const at = (base: number, x: number, y: number): Stand | null => {
    const tile = tileAt(order, base, x, y);
    let stand = stands.get(tile);
    if (stand === undefined) stands.set(tile, (stand = standFor(tile)));
    return stand;
  };
  const painter: Painter = { out, widthPx: view.widthPx, tone: toneCurve(look), ink: look.ink };
  overMesh(
    view,
    survey.frame,
    (patch) => {
      const [{ x, y }, ...others] = patch.corners;
      const [tx, ty] = [Math.floor(x * side), Math.floor(y * side)];
      const isOne = others.every((o) => Math.floor(o.x * side) === tx && Math.floor(o.y * side) === ty);
      paintPatch(painter, patch, isOne ? at(patch.base, x, y) : at);
    },
    (column, row, { base, x, y }) => paint(painter, at(base, x, y), column, row, x, y),
  );
  return [...missing];
}

/** A patch out of one tile, or of whichever lies at each place; nearly all of a chart goes through this loop, so it calls by name. */
function paintPatch(
  painter: Painter,
  patch: SmoothPatch,
  from: Stand | null | ((base: number, x: number, y: number) => Stand | null),
): void {
  const { left, top, right, bottom, base } = patch;
  for (let row = top; row < bottom; row++) {
    const { x: x0, y: y0, dx, dy } = lineOf(patch, row);
    for (let column = left; column < right; column++) {
      const x = x0 + dx * (column + 0.5 - left);
      const y = y0 + dy * (column + 0.5 - left);
      paint(painter, typeof from === "function" ? from(base, x, y) : from, column, row, x, y);
    }
  }
}

/** What is painted on, and how. */
interface Painter {
  readonly out: Uint8ClampedArray;
  readonly widthPx: number;
  readonly tone: Uint8ClampedArray;
  readonly ink: SurveyLook["ink"];
}

/** One pixel, filled in between the four of the tile around it; at the tile's edge its last ones count. Runs for every pixel of a chart: no lists are made here. */
function paint(painter: Painter, stand: Stand | null, column: number, row: number, x: number, y: number): void {
  const { out, tone, ink } = painter;
  const i = 4 * (row * painter.widthPx + column);
  if (!stand) {
    out[i + 3] = 0;
    return;
  }
  const { rgba, sidePx } = stand.pixels;
  const last = sidePx - 1;
  // West is to the right of the southern corner, east above it.
  const px = Math.min(last, Math.max(0, (y - stand.y0) * stand.scale - 0.5));
  const py = Math.min(last, Math.max(0, last + 0.5 - (x - stand.x0) * stand.scale));
  const left = px | 0;
  const top = py | 0;
  const a = 4 * (top * sidePx + left);
  const b = left < last ? a + 4 : a;
  const c = top < last ? a + 4 * sidePx : a;
  const d = c + (b - a);
  // In 256ths: whole numbers are quicker, and finer than what is shown.
  const fx = ((px - left) * 256) | 0;
  const fy = ((py - top) * 256) | 0;
  const wd = (fx * fy) >> 8;
  const wb = fx - wd;
  const wc = fy - wd;
  const wa = 256 - wb - wc - wd;
  const red = tone[(rgba[a]! * wa + rgba[b]! * wb + rgba[c]! * wc + rgba[d]! * wd + 128) >> 8]!;
  const green = tone[(rgba[a + 1]! * wa + rgba[b + 1]! * wb + rgba[c + 1]! * wc + rgba[d + 1]! * wd + 128) >> 8]!;
  const blue = tone[(rgba[a + 2]! * wa + rgba[b + 2]! * wb + rgba[c + 2]! * wc + rgba[d + 2]! * wd + 128) >> 8]!;
  out[i + 3] = rgba[a + 3]!;
  if (ink === "own") {
    out[i] = red;
    out[i + 1] = green;
    out[i + 2] = blue;
    return;
  }
  const most = Math.max(red, green, blue);
  // By day lightness is turned over: hue and strength of the colour stay.
  const shift = 255 - most - Math.min(red, green, blue);
  out[i] = ink === "red" ? most : red + shift;
  out[i + 1] = ink === "red" ? 0 : green + shift;
  out[i + 2] = ink === "red" ? 0 : blue + shift;
}

/** Tiles of order 3 in their one picture: how many a row, and how many pixels each. */
const ALL_SKY_COLUMNS = 27;
/** The order whose tiles the one picture of all the sky holds. */
export const ALL_SKY_ORDER = 3;

/** Takes the one picture of all the sky apart; the tiles of order 3 in turn, each small. Null where it is no such picture. */
export function allSkyTiles(widthPx: number, rgba: Uint8ClampedArray): readonly TilePixels[] | null {
  const sidePx = widthPx / ALL_SKY_COLUMNS;
  const rows = Math.ceil((12 * 4 ** ALL_SKY_ORDER) / ALL_SKY_COLUMNS);
  if (!Number.isInteger(sidePx) || sidePx < 1 || rgba.length < 4 * widthPx * rows * sidePx) return null;
  return Array.from({ length: 12 * 4 ** ALL_SKY_ORDER }, (_, tile) => {
    const [column, row] = [tile % ALL_SKY_COLUMNS, Math.floor(tile / ALL_SKY_COLUMNS)];
    const own = new Uint8ClampedArray(4 * sidePx * sidePx);
    for (let y = 0; y < sidePx; y++) {
      const start = 4 * ((row * sidePx + y) * widthPx + column * sidePx);
      own.set(rgba.subarray(start, start + 4 * sidePx), 4 * y * sidePx);
    }
    return { sidePx, rgba: own };
  });
}
