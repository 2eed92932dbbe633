import { unitVector, type Equatorial, type Vec3 } from "~/core/sky";
import { BASE_CELL_DEG, directionOfCell, tileSquare } from "./cells";

/** Cells of the sky, by order: every one wholly covered or cut by what they cover, four that belong together as one of the order before. */
export interface SkyCells {
  /** Finest order used. */
  readonly order: number;
  /** Numbers in nested order, rising, by order; orders without a cell are absent. */
  readonly byOrder: ReadonlyMap<number, readonly number[]>;
}

/** Deepest order that is made: cells of 13″. */
export const DEEPEST_ORDER = 14;
const LEAST_ORDER = 3;
const CELLS_A_SIDE = 60;

/** The order whose cells are about a sixtieth of a side, 3 to 14. RangeError for a side that is not positive. */
export function coverageOrder(sideDeg: number): number {
  if (!(sideDeg > 0)) throw new RangeError(`a side must be positive, got ${sideDeg}`);
  const order = Math.ceil(Math.log2((CELLS_A_SIDE * BASE_CELL_DEG) / sideDeg));
  return Math.min(DEEPEST_ORDER, Math.max(LEAST_ORDER, order));
}

const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (v: Vec3): Vec3 => {
  const length = Math.hypot(...v);
  return [v[0] / length, v[1] / length, v[2] / length];
};

/** A convex area between great circles: what lies on the inner side of all of them. */
type Area = readonly Vec3[];

/** The inner sides of a convex polygon's edges; corners in either order. RangeError for one without area. */
function areaOf(corners: readonly Equatorial<"icrs">[]): Area {
  const at = corners.map((c) => unitVector(c));
  const middle: Vec3 = [0, 1, 2].map((k) => at.reduce((sum, v) => sum + v[k]!, 0)) as [number, number, number];
  return at.map((v, i) => {
    const pole = cross(v, at[(i + 1) % at.length]!);
    if (Math.hypot(...pole) < 1e-12) throw new RangeError("two corners of an area are the same");
    const inner = unit(pole);
    return dot(inner, middle) >= 0 ? inner : [-inner[0], -inner[1], -inner[2]];
  });
}

/** Points on the rim of a cell, and how far the rim may leave them, radians: edges of cells bulge, the more the larger they are. */
function rimOf(order: number, cell: number): { readonly points: readonly Vec3[]; readonly slack: number } {
  const { base, x, y, edge } = tileSquare(order, cell);
  const steps = order < 3 ? 8 : 2;
  const points: Vec3[] = [];
  for (let i = 0; i < steps; i++) {
    const s = (i / steps) * edge;
    for (const [dx, dy] of [[s, 0], [edge, s], [edge - s, edge], [0, edge - s]] as const) points.push(directionOfCell({ base, x: x + dx, y: y + dy })); // prettier-ignore
  }
  const sideRad = (BASE_CELL_DEG * Math.PI * edge) / 180;
  return { points, slack: 0.1 * sideRad * Math.min(1, 4 * edge) + 1e-12 };
}

/** How a cell lies to an area: apart and inside are certain; anything else may cut it. */
function lieOf(area: Area, { points, slack }: ReturnType<typeof rimOf>): "apart" | "inside" | "cut" {
  let isInside = true;
  for (const pole of area) {
    let [most, least] = [-1, 1];
    for (const p of points) {
      const side = dot(pole, p);
      if (side > most) most = side;
      if (side < least) least = side;
    }
    if (most < -slack) return "apart";
    if (least < slack) isInside = false;
  }
  return isInside ? "inside" : "cut";
}

/** Of an area and a cell on the far side of the sky, which the circles of a narrow area do not tell apart. */
const isFacing = (middle: Vec3, points: readonly Vec3[]): boolean => points.some((p) => dot(p, middle) > 0);

/**
 * The cells down to an order that cover convex areas of the sky, each smaller than half of it: none of an area is left out, and no cell lies
 * further from one than its own size. As a multi-order coverage of the IVOA (MOC 2.0, Fernique et al. 2022) has them. RangeError for an
 * order beyond 14.
 */
export function cellsCovering(areas: readonly (readonly Equatorial<"icrs">[])[], order: number): SkyCells {
  if (order > DEEPEST_ORDER || order < 0) throw new RangeError(`orders go from 0 to ${DEEPEST_ORDER}, got ${order}`);
  const known = areas.map((corners) => {
    const sum = corners.map((c) => unitVector(c)).reduce((a, b) => [a[0] + b[0], a[1] + b[1], a[2] + b[2]]);
    return { area: areaOf(corners), middle: unit(sum) };
  });
  const byOrder = new Map<number, number[]>();
  const keep = (at: number, cell: number) => {
    const cells = byOrder.get(at);
    if (cells) cells.push(cell);
    else byOrder.set(at, [cell]);
  };
  /** Whether all of a cell is covered: then it is kept by whoever asked. */
  const covered = (at: number, cell: number, near: typeof known): boolean => {
    const rim = rimOf(at, cell);
    const lies = near.map((a) => ({
      a,
      lie: at > 0 && !isFacing(a.middle, rim.points) ? "apart" : lieOf(a.area, rim),
    }));
    if (lies.some((l) => l.lie === "inside")) return true;
    const cut = lies.filter((l) => l.lie === "cut").map((l) => l.a);
    if (cut.length === 0) return false;
    if (at === order) return true;
    const children = [0, 1, 2, 3].map((child) => 4 * cell + child);
    const full = children.filter((child) => covered(at + 1, child, cut));
    if (full.length === 4) return true;
    for (const child of full) keep(at + 1, child);
    return false;
  };
  for (let base = 0; base < 12; base++) if (covered(0, base, known)) keep(0, base);
  return {
    order,
    byOrder: new Map([...byOrder].sort(([a], [b]) => a - b).map(([at, cells]) => [at, cells.sort((a, b) => a - b)])),
  };
}
