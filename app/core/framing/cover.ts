import { degToRad, radToDeg } from "~/core/units";
import { mosaicPanels, type MosaicLayout } from "./mosaic";

/** A vertex of an outline, arcmin on the plane, x right and y up. */
export type PlaneVertex = readonly [x: number, y: number];

/** A grid that holds all outlines over a range of angles. */
export interface Cover {
  readonly columns: number;
  readonly rows: number;
  /** Turn of the frame against the plane of the outlines, towards larger position angle: any between these two holds them. */
  readonly fromDeg: number;
  readonly toDeg: number;
  /** The turn in that range with most room to spare, and the grid's centre at that turn. */
  readonly turnDeg: number;
  readonly centre: PlaneVertex;
  /** Free room at that turn: the smaller of both axes, as a share of a panel side. */
  readonly slack: number;
}

const MOST_PANELS = 10; // a side
const EPSILON = 1e-9; // floating point at exact break angles

/** Convex hull, counter-clockwise (Andrew 1979, Information Processing Letters 9, 216). */
function hullOf(points: readonly PlaneVertex[]): PlaneVertex[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const cross = (o: PlaneVertex, a: PlaneVertex, b: PlaneVertex) =>
    (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const half = (list: readonly PlaneVertex[]) => {
    const kept: PlaneVertex[] = [];
    for (const p of list) {
      while (kept.length >= 2 && cross(kept.at(-2)!, kept.at(-1)!, p) <= 0) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  const hull = [...half(sorted), ...half(sorted.reverse())];
  return hull.length > 0 ? hull : sorted.slice(0, 1);
}

interface Span {
  readonly low: number;
  readonly high: number;
  readonly pair: readonly [PlaneVertex, PlaneVertex];
}

/** Reach of a hull along a direction. */
function spanOf(hull: readonly PlaneVertex[], cos: number, sin: number): Span {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  let [first, last] = [hull[0]!, hull[0]!];
  for (const p of hull) {
    const u = p[0] * cos + p[1] * sin;
    if (u < low) [low, first] = [u, p];
    if (u > high) [high, last] = [u, p];
  }
  return { low, high, pair: [first, last] };
}

const sideOf = (count: number, side: number, overlap: number) => side * (1 + (count - 1) * (1 - overlap));
const panelsFor = (length: number, side: number, overlap: number) =>
  Math.max(1, Math.ceil((length - side) / (side * (1 - overlap)) - EPSILON) + 1);

const halfTurn = (deg: number) => ((deg % 180) + 180) % 180;

/** What a panel and its overlaps are, arcmin on the plane. */
type PanelSize = Pick<MosaicLayout, "planeWidthArcmin" | "planeHeightArcmin" | "overlap" | "overlapRows">;

/**
 * Full grids that hold outlines, best first: fewest panels, then the widest range of angles, then most slack. Exact: the count
 * can change only where an extent equals a grid's side, and between two turns at which the outermost vertices change every
 * extent is r·cos(φ − t) of one pair, so all such angles are solved for. One entry for each grid shape, its widest range.
 * For outlines within about 15°; `fixedTurnDeg` asks for one angle only. Empty when more than 10 panels a side are needed.
 */
export function coverOutlines(
  outlines: readonly (readonly PlaneVertex[])[],
  size: PanelSize,
  fixedTurnDeg: number | null = null,
): Cover[] {
  const hull = hullOf(outlines.flat());
  if (hull.length === 0) return [];
  const [w, h] = [size.planeWidthArcmin, size.planeHeightArcmin];
  const [ow, oh] = [size.overlap, size.overlapRows ?? size.overlap];
  const at = (turnDeg: number) => {
    const [c, s] = [Math.cos(degToRad(turnDeg)), Math.sin(degToRad(turnDeg))];
    const [x, y] = [spanOf(hull, c, s), spanOf(hull, -s, c)];
    return { x, y, columns: panelsFor(x.high - x.low, w, ow), rows: panelsFor(y.high - y.low, h, oh) };
  };
  if (fixedTurnDeg !== null) {
    const one = told(at, fixedTurnDeg, fixedTurnDeg, fixedTurnDeg, size);
    return one.columns > MOST_PANELS || one.rows > MOST_PANELS ? [] : [one];
  }
  const edges = hull.flatMap((p, i) => {
    const q = hull[(i + 1) % hull.length]!;
    const angle = radToDeg(Math.atan2(q[1] - p[1], q[0] - p[0]));
    return [halfTurn(angle), halfTurn(angle + 90)];
  });
  const base = [...new Set([0, ...edges])].sort((a, b) => a - b);
  const breaks = new Set(base);
  base.forEach((from, i) => {
    const to = base[i + 1] ?? 180;
    if (to - from < EPSILON) return;
    const mid = at((from + to) / 2);
    for (const [pair, side, overlap, quarter] of [
      [mid.x.pair, w, ow, 0],
      [mid.y.pair, h, oh, 90],
    ] as const) {
      const [dx, dy] = [pair[1][0] - pair[0][0], pair[1][1] - pair[0][1]];
      const [r, t] = [Math.hypot(dx, dy), radToDeg(Math.atan2(dy, dx)) - quarter];
      for (let k = 1; k <= MOST_PANELS && sideOf(k, side, overlap) <= r; k++) {
        const off = radToDeg(Math.acos(sideOf(k, side, overlap) / r));
        for (const angle of [halfTurn(t + off), halfTurn(t - off)]) if (angle > from && angle < to) breaks.add(angle);
      }
    }
  });
  const cuts = [...breaks].sort((a, b) => a - b);
  const ranges: { fromDeg: number; toDeg: number; columns: number; rows: number }[] = [];
  cuts.forEach((fromDeg, i) => {
    const toDeg = cuts[i + 1] ?? 180;
    if (toDeg - fromDeg < EPSILON) return;
    const { columns, rows } = at((fromDeg + toDeg) / 2);
    const last = ranges.at(-1);
    if (last?.columns === columns && last.rows === rows) last.toDeg = toDeg;
    else ranges.push({ fromDeg, toDeg, columns, rows });
  });
  // A half turn changes nothing: a range that runs through 180° goes on at 0°.
  const [head, tail] = [ranges[0], ranges.at(-1)];
  if (ranges.length > 1 && head && tail && head.columns === tail.columns && head.rows === tail.rows) {
    tail.toDeg = 180 + head.toDeg;
    ranges.shift();
  }
  const best = new Map<string, (typeof ranges)[number]>();
  for (const r of ranges) {
    if (r.columns > MOST_PANELS || r.rows > MOST_PANELS) continue;
    const key = `${r.columns} ${r.rows}`;
    const known = best.get(key);
    if (!known || r.toDeg - r.fromDeg > known.toDeg - known.fromDeg) best.set(key, r);
  }
  return [...best.values()]
    .map((r) => roomiest(at, r, size))
    .sort(
      (a, b) =>
        a.columns * a.rows - b.columns * b.rows || b.toDeg - b.fromDeg - (a.toDeg - a.fromDeg) || b.slack - a.slack,
    );
}

type Extents = (turnDeg: number) => {
  readonly x: Span;
  readonly y: Span;
  readonly columns: number;
  readonly rows: number;
};

/** One cover told at a turn. */
function told(at: Extents, turnDeg: number, fromDeg: number, toDeg: number, size: PanelSize): Cover {
  const { x, y, columns, rows } = at(turnDeg);
  const [c, s] = [Math.cos(degToRad(turnDeg)), Math.sin(degToRad(turnDeg))];
  const [u, v] = [(x.low + x.high) / 2, (y.low + y.high) / 2];
  const [w, h] = [size.planeWidthArcmin, size.planeHeightArcmin];
  const slack = Math.min(
    (sideOf(columns, w, size.overlap) - (x.high - x.low)) / w,
    (sideOf(rows, h, size.overlapRows ?? size.overlap) - (y.high - y.low)) / h,
  );
  return { columns, rows, fromDeg, toDeg, turnDeg, centre: [u * c - v * s, u * s + v * c], slack };
}

const TURNS_TRIED = 41;

/** The turn of a range with most slack, of 41 spread over it without its ends. */
function roomiest(
  at: Extents,
  range: { readonly fromDeg: number; readonly toDeg: number; readonly columns: number; readonly rows: number },
  size: PanelSize,
): Cover {
  let best: Cover | null = null;
  for (let i = 0; i < TURNS_TRIED; i++) {
    const turn = range.fromDeg + ((i + 0.5) / TURNS_TRIED) * (range.toDeg - range.fromDeg);
    const cover = told(at, turn, range.fromDeg, range.toDeg, size);
    if (best === null || cover.slack > best.slack + EPSILON) best = cover;
  }
  return best!;
}

/** Whether two segments cross. */
function isCrossing(a: PlaneVertex, b: PlaneVertex, p: PlaneVertex, q: PlaneVertex): boolean {
  const side = (u: PlaneVertex, v: PlaneVertex, z: PlaneVertex) =>
    (v[0] - u[0]) * (z[1] - u[1]) - (v[1] - u[1]) * (z[0] - u[0]);
  return side(a, b, p) > 0 !== side(a, b, q) > 0 && side(p, q, a) > 0 !== side(p, q, b) > 0;
}

const isInside = (polygon: readonly PlaneVertex[], [x, y]: PlaneVertex): boolean =>
  polygon.reduce((odd, [x1, y1], i) => {
    const [x2, y2] = polygon[(i + 1) % polygon.length]!;
    return y1 > y !== y2 > y && x < x1 + ((x2 - x1) * (y - y1)) / (y2 - y1) ? !odd : odd;
  }, false);

/** Numbers of panels that hold nothing of any outline (given in the mosaic's frame), and could be left out. */
export function emptyPanels(layout: MosaicLayout, outlines: readonly (readonly PlaneVertex[])[]): number[] {
  const [w, h] = [layout.planeWidthArcmin / 2, layout.planeHeightArcmin / 2];
  return mosaicPanels(layout)
    .filter((p) => {
      const corners: PlaneVertex[] = [
        [p.xArcmin - w, p.yArcmin - h],
        [p.xArcmin + w, p.yArcmin - h],
        [p.xArcmin + w, p.yArcmin + h],
        [p.xArcmin - w, p.yArcmin + h],
      ];
      return !outlines.some(
        (o) =>
          o.some(([x, y]) => Math.abs(x - p.xArcmin) <= w && Math.abs(y - p.yArcmin) <= h) ||
          isInside(o, corners[0]!) ||
          o.some((a, i) => corners.some((c, k) => isCrossing(a, o[(i + 1) % o.length]!, c, corners[(k + 1) % 4]!))),
      );
    })
    .map((p) => p.number);
}
