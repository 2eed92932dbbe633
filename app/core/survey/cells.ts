import { bit_decombine, fxy2nest } from "@hscmap/healpix";
import { galacticToIcrs, unitVector, type Equatorial, type Vec3 } from "~/core/sky";
import { radToDeg } from "~/core/units";
import type { Survey } from "./survey";

/** Twelve base cells, each a square; a place in one by its shares of the way from the southern corner to the east and to the west. */
export interface CellPoint {
  /** 0 to 11. */
  readonly base: number;
  /** [0, 1), along the south-eastern edge. */
  readonly x: number;
  /** [0, 1), along the south-western edge. */
  readonly y: number;
}

/** As far as a share goes: what lies on the far edge of a cell still counts as its own. */
const BELOW_1 = 1 - 2 ** -40;

/** Angle of a base cell's edge, degrees: √(4π/12). */
export const BASE_CELL_DEG = Math.sqrt(Math.PI / 3) * (180 / Math.PI);

/** Axes of galactic coordinates in ICRS. */
const GALACTIC: readonly [Vec3, Vec3, Vec3] = [
  unitVector(galacticToIcrs(0, 0)),
  unitVector(galacticToIcrs(90, 0)),
  unitVector(galacticToIcrs(0, 90)),
];
const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/** A direction (ICRS) in what the survey's cells are counted in. */
export const inFrameOf = (frame: Survey["frame"], v: Vec3): Vec3 =>
  frame === "equatorial" ? v : [dot(v, GALACTIC[0]), dot(v, GALACTIC[1]), dot(v, GALACTIC[2])];

const HALF_PI = Math.PI / 2;
/** Where the polar caps begin: sine of the latitude. */
export const CAP = 2 / 3;
const below1 = (share: number): number => Math.min(BELOW_1, Math.max(0, share));

/**
 * Where a direction, in the survey's own frame, lies among the base cells (HEALPix, Górski et al. 2005, section 5). Written out here:
 * the package loses its way on the meridians between the cells of a cap.
 */
export function cellPoint([vx, vy, z]: Vec3): CellPoint {
  const turns = ((Math.atan2(vy, vx) / HALF_PI) % 4) + 4;
  const quarter = turns % 4;
  if (Math.abs(z) <= CAP) {
    const [rising, falling] = [0.5 + quarter - 0.75 * z, 0.5 + quarter + 0.75 * z];
    const [i, j] = [Math.floor(rising), Math.floor(falling)];
    const base = i === j ? 4 + (i % 4) : i < j ? i % 4 : 8 + (j % 4);
    return { base, x: below1(falling - j), y: below1(1 - (rising - i)) };
  }
  const column = Math.min(3, Math.floor(quarter));
  const along = quarter - column;
  // Of the distance from the pole as the map has it: 1 where the cap begins. Near the pole 1 − |z| would lose all its figures.
  const out = Math.sqrt(3 * ((vx * vx + vy * vy) / (1 + Math.abs(z))));
  return z > 0
    ? { base: column, x: below1(1 - (1 - along) * out), y: below1(1 - along * out) }
    : { base: 8 + column, x: below1(along * out), y: below1((1 - along) * out) };
}

/** The direction of a place in a base cell, in the survey's own frame; the inverse of `cellPoint`. */
export function directionOfCell({ base, x, y }: CellPoint): Vec3 {
  const row = Math.floor(base / 4);
  const middle = ((base % 4) + (row === 1 ? 0 : 0.5)) * HALF_PI;
  const up = x + y - row; // from the equator, in half cells: beyond ±1 lies a cap
  if (Math.abs(up) <= 1) return spherical(CAP * up, middle + (HALF_PI / 2) * (x - y));
  const out = 2 - Math.abs(up);
  const turn = out === 0 ? 0 : ((HALF_PI / 2) * (x - y)) / out;
  return spherical(
    Math.sign(up) * (1 - out ** 2 / 3),
    middle + turn,
    (out / Math.sqrt(3)) * Math.sqrt(2 - out ** 2 / 3),
  );
}

/** A direction by the sine of its latitude and its longitude; `cosine` of the latitude where it is known better. */
const spherical = (sine: number, longitude: number, cosine = Math.sqrt((1 - sine) * (1 + sine))): Vec3 => [
  cosine * Math.cos(longitude),
  cosine * Math.sin(longitude),
  sine,
];

/** The number of the tile of an order that holds a place. */
export function tileAt(order: number, base: number, x: number, y: number): number {
  const side = 2 ** order;
  return fxy2nest(side, base, Math.floor(x * side), Math.floor(y * side));
}

/** The square of its base cell that a tile covers: its southern corner, and the length of its edge. */
export function tileSquare(order: number, tile: number): CellPoint & { readonly edge: number } {
  const side = 2 ** order;
  const { x, y } = bit_decombine(tile % side ** 2);
  return { base: Math.floor(tile / side ** 2), x: x / side, y: y / side, edge: 1 / side };
}

/** How much further a tile reaches than its corners: its edges bulge, the more the larger it is. */
const BULGE = 1.15;
const angleDeg = (a: Vec3, b: Vec3): number => {
  const chord = Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  return radToDeg(2 * Math.asin(Math.min(1, chord / 2)));
};

/** Whether a disc may touch a tile; never no where it does. */
function mayTouch(order: number, tile: number, middle: Vec3, radiusDeg: number): boolean {
  const { base, x, y, edge } = tileSquare(order, tile);
  const own = directionOfCell({ base, x: x + edge / 2, y: y + edge / 2 });
  const corners = [0, edge].flatMap((dx) => [0, edge].map((dy) => directionOfCell({ base, x: x + dx, y: y + dy })));
  const reachDeg = BULGE * Math.max(...corners.map((corner) => angleDeg(own, corner)));
  return angleDeg(own, middle) <= radiusDeg + reachDeg;
}

/** The tiles of an order that a disc on the sky touches; some beside it may be among them. */
export function tilesAround(
  frame: Survey["frame"],
  order: number,
  centre: Equatorial<"icrs">,
  radiusDeg: number,
): readonly number[] {
  const middle = inFrameOf(frame, unitVector(centre));
  let tiles = Array.from({ length: 12 }, (_, base) => base).filter((base) => mayTouch(0, base, middle, radiusDeg));
  for (let k = 1; k <= order; k++)
    tiles = tiles
      .flatMap((tile) => [0, 1, 2, 3].map((child) => 4 * tile + child))
      .filter((tile) => mayTouch(k, tile, middle, radiusDeg));
  return tiles;
}
