import type { Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";
import { frameToSky, type MosaicLayout } from "./mosaic";
import { skyToFrame } from "./seams";

/** One pointing, by its corners on the sky in order, and what it weighs: hours at a reference, so that weights add up. */
export interface CoveringFrame {
  readonly corners: readonly Equatorial<"icrs">[];
  readonly weight: number;
}

/** What a map is drawn about: centre and up axis. */
type View = Pick<MosaicLayout, "centre" | "positionAngleDeg">;

/** Weight by cells of a tangent plane, rows from the top, columns from the left as seen on the sky. */
export interface CoverageMap {
  readonly view: View;
  readonly cellArcmin: number;
  readonly columns: number;
  readonly rows: number;
  /** Of the map's left and top edge, arcmin on the plane. */
  readonly leftArcmin: number;
  readonly topArcmin: number;
  readonly weights: Float32Array;
  /** Frames that lie 90° or more from the centre: no plane holds them. */
  readonly beyond: number;
}

interface PlanePoint {
  readonly x: number;
  readonly y: number;
}

const FINEST_ARCMIN = 0.2;
const COARSEST_ARCMIN = 2; // MATHS 5.9
const CELLS = 360; // along the longer side
const MOST_CELLS = 1200;

/** Corners on the plane of a view; null where one lies beyond it. */
function onPlane(view: View, corners: readonly Equatorial<"icrs">[]): PlanePoint[] | null {
  const points = corners.map((c) => skyToFrame(view, c));
  return points.every((p) => p !== null) ? points.map((p) => ({ x: p.xArcmin, y: p.yArcmin })) : null;
}

/** Sides are great circles, so straight on any tangent plane: a point is inside when it lies on one side of all of them. */
function isInside(quad: readonly PlanePoint[], x: number, y: number): boolean {
  let sign = 0;
  for (let i = 0; i < quad.length; i++) {
    const [a, b] = [quad[i]!, quad[(i + 1) % quad.length]!];
    const cross = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
    if (cross === 0) continue;
    if (sign === 0) sign = Math.sign(cross);
    else if (Math.sign(cross) !== sign) return false;
  }
  return true;
}

const range = (values: readonly number[]): readonly [number, number] => [
  values.reduce((a, b) => Math.min(a, b), Infinity),
  values.reduce((a, b) => Math.max(a, b), -Infinity),
];

/**
 * Where frames lie over one another, and what their weights come to: MATHS 5.9 on a tangent bitmap with cells of at most 2′ up to a
 * side of 40°. A cell belongs to a frame when its middle does. Null without a frame.
 */
export function coverageMap(view: View, frames: readonly CoveringFrame[]): CoverageMap | null {
  const quads = frames.flatMap(({ corners, weight }) => {
    const quad = onPlane(view, corners);
    return quad ? [{ quad, weight }] : [];
  });
  if (quads.length === 0) return null;
  const all = quads.flatMap((q) => q.quad);
  const [[left, right], [bottom, top]] = [range(all.map((p) => p.x)), range(all.map((p) => p.y))];
  const side = Math.max(right - left, top - bottom);
  const cell = Math.max(FINEST_ARCMIN, Math.min(COARSEST_ARCMIN, side / CELLS), side / MOST_CELLS);
  const [columns, rows] = [right - left, top - bottom].map((s) => Math.max(1, Math.ceil(s / cell))) as [number, number];
  const weights = new Float32Array(columns * rows);
  for (const { quad, weight } of quads) {
    const [[l, r], [b, t]] = [range(quad.map((p) => p.x)), range(quad.map((p) => p.y))];
    const [firstRow, lastRow] = [Math.floor((top - t) / cell), Math.ceil((top - b) / cell)];
    const [first, last] = [Math.floor((l - left) / cell), Math.ceil((r - left) / cell)];
    for (let row = Math.max(0, firstRow); row < Math.min(rows, lastRow); row++) {
      const y = top - (row + 0.5) * cell;
      for (let column = Math.max(0, first); column < Math.min(columns, last); column++)
        if (isInside(quad, left + (column + 0.5) * cell, y)) weights[row * columns + column]! += weight;
    }
  }
  return {
    view,
    cellArcmin: cell,
    columns,
    rows,
    leftArcmin: left,
    topArcmin: top,
    weights,
    beyond: frames.length - quads.length,
  };
}

/** The weight at a point of the map's plane; 0 outside it. */
export function weightAt(map: CoverageMap, xArcmin: number, yArcmin: number): number {
  const column = Math.floor((xArcmin - map.leftArcmin) / map.cellArcmin);
  const row = Math.floor((map.topArcmin - yArcmin) / map.cellArcmin);
  if (column < 0 || row < 0 || column >= map.columns || row >= map.rows) return 0;
  return map.weights[row * map.columns + column]!;
}

/** The field that a picture is to fill: any of its frames. Without one it is all of the plane. */
type Field = readonly Pick<CoveringFrame, "corners">[];

/** Whether a point of a view's plane lies in a field. */
function inField(view: View, field: Field | null): (xArcmin: number, yArcmin: number) => boolean {
  if (!field) return () => true;
  const quads = field.flatMap((f) => [onPlane(view, f.corners) ?? []]).filter((q) => q.length > 0);
  return (x, y) => quads.some((q) => isInside(q, x, y));
}

/**
 * Solid angle of every cell where a weight is what one asks for, square degrees, within a field where one is given: cells shrink
 * off the tangent point by cos³.
 */
export function areaWhere(map: CoverageMap, is: (weight: number) => boolean, field: Field | null = null): number {
  let sum = 0;
  const isWithin = inField(map.view, field);
  const { cellArcmin: cell, columns, rows, leftArcmin, topArcmin } = map;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (!is(map.weights[row * columns + column]!)) continue;
      const [x, y] = [leftArcmin + (column + 0.5) * cell, topArcmin - (row + 0.5) * cell];
      if (!isWithin(x, y)) continue;
      const [xi, eta] = [degToRad(x / 60), degToRad(y / 60)]; // already tangents: the plane's own measure
      sum += (cell / 60) ** 2 / (1 + xi * xi + eta * eta) ** 1.5;
    }
  return sum;
}

/** Where the depth of a picture jumps along the edge of a frame. */
export interface DepthStep {
  readonly from: Equatorial<"icrs">;
  readonly to: Equatorial<"icrs">;
  /** The same on the map's plane, arcmin. */
  readonly line: readonly [PlanePoint, PlanePoint];
  readonly lengthArcmin: number;
  /** √ of the weights on both sides: how much noisier the shallow one is; infinite where nothing was taken there. */
  readonly ratio: number;
  readonly shallow: number;
  readonly deep: number;
}

/** A noise step is seen from here, and plain from there: MATHS 5.10, stretched pictures at normal viewing size. */
export const VISIBLE_STEP = 1.2;
export const PLAIN_STEP = 1.4;
const SAMPLES = 48; // along an edge
const OUT_CELLS = 1.6; // from the edge to where both sides are read
const LEAST_SAMPLES = 3; // shorter steps are corners

/**
 * Steps that will show: stretches of frames' edges with a noise ratio over 1.2 between their sides. With the field that the picture
 * is to fill, only those inside it, and also where it ends in nothing; without one, where both sides have light. The longest first.
 */
export function depthSteps(
  map: CoverageMap,
  frames: readonly CoveringFrame[],
  field: Field | null = null,
): DepthStep[] {
  const steps: DepthStep[] = [];
  const isWithin = field && inField(map.view, field);
  const seen = new Set<string>();
  for (const { corners } of frames) {
    const quad = onPlane(map.view, corners);
    if (!quad) continue;
    quad.forEach((a, i) => {
      const b = quad[(i + 1) % quad.length]!;
      // Frames that lie on one another share their edges: told once.
      const key = [a, b]
        .map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`)
        .sort()
        .join(" ");
      if (seen.has(key)) return;
      seen.add(key);
      steps.push(...stepsAlong(map, a, b, isWithin));
    });
  }
  return steps.sort((p, q) => q.lengthArcmin - p.lengthArcmin);
}

const NOTHING = { shallow: 0, deep: 0 };

function stepsAlong(
  map: CoverageMap,
  a: PlanePoint,
  b: PlanePoint,
  isWithin: ((x: number, y: number) => boolean) | null,
): DepthStep[] {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  if (length === 0) return [];
  const out = OUT_CELLS * map.cellArcmin;
  const [nx, ny] = [(-(b.y - a.y) / length) * out, ((b.x - a.x) / length) * out];
  const at = (t: number): PlanePoint => ({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
  const sides = Array.from({ length: SAMPLES }, (_, i) => {
    const { x, y } = at((i + 0.5) / SAMPLES);
    const pair = [weightAt(map, x + nx, y + ny), weightAt(map, x - nx, y - ny)] as const;
    const [shallow, deep] = [Math.min(...pair), Math.max(...pair)];
    const isJudged = isWithin ? isWithin(x + nx, y + ny) && isWithin(x - nx, y - ny) : shallow > 0;
    return isJudged ? { shallow, deep } : NOTHING;
  });
  const isSame = (p: number, q: number) => Math.abs(p - q) <= 0.01 * Math.max(p, q);
  const found: DepthStep[] = [];
  let first = 0;
  for (let i = 1; i <= SAMPLES; i++) {
    const [before, now] = [sides[first]!, sides[i]];
    if (now && isSame(now.shallow, before.shallow) && isSame(now.deep, before.deep)) continue;
    const ratio = before.deep > 0 ? Math.sqrt(before.deep / before.shallow) : 0;
    if (ratio > VISIBLE_STEP && i - first >= LEAST_SAMPLES) {
      const line = [at(first / SAMPLES), at(i / SAMPLES)] as const;
      const [from, to] = line.map((p) => frameToSky(map.view, p.x, p.y)) as [Equatorial<"icrs">, Equatorial<"icrs">];
      found.push({ from, to, line, lengthArcmin: (length * (i - first)) / SAMPLES, ratio, ...before });
    }
    first = i;
  }
  return found;
}

/** Weight that the shallow side of a step lacks for the step to vanish: MATHS 5.10, a ratio of 1.2. */
export const softenedBy = ({ shallow, deep }: Pick<DepthStep, "shallow" | "deep">): number =>
  Math.max(0, deep / VISIBLE_STEP ** 2 - shallow);

/** A rectangle on a plane, arcmin. */
export interface PlaneBox {
  readonly xArcmin: number;
  readonly yArcmin: number;
  readonly widthArcmin: number;
  readonly heightArcmin: number;
}

/**
 * The largest rectangle along the map's axes that every one of several fields fills, each field being any of its frames: what is
 * left when all pictures are laid on one another. Null where they share nothing. By the cells of the map.
 */
export function commonBox(map: CoverageMap, fields: readonly (readonly CoveringFrame[])[]): PlaneBox | null {
  const { columns, rows, cellArcmin: cell, leftArcmin, topArcmin, view } = map;
  const quads = fields.map((frames) =>
    frames.flatMap(({ corners }) => [onPlane(view, corners) ?? []]).filter((q) => q.length > 0),
  );
  if (quads.length === 0) return null;
  const heights = new Array<number>(columns).fill(0);
  let best: { area: number; box: PlaneBox } | null = null;
  for (let row = 0; row < rows; row++) {
    const y = topArcmin - (row + 0.5) * cell;
    for (let column = 0; column < columns; column++) {
      const x = leftArcmin + (column + 0.5) * cell;
      heights[column] = quads.every((field) => field.some((q) => isInside(q, x, y))) ? heights[column]! + 1 : 0;
    }
    // The largest rectangle under a histogram, by a stack of rising bars.
    const stack: number[] = [];
    for (let column = 0; column <= columns; column++) {
      const height = column === columns ? 0 : heights[column]!;
      while (stack.length > 0 && heights[stack.at(-1)!]! >= height) {
        const tall = heights[stack.pop()!]!;
        const left = stack.length === 0 ? 0 : stack.at(-1)! + 1;
        const area = tall * (column - left);
        if (area > (best?.area ?? 0))
          best = {
            area,
            box: {
              xArcmin: leftArcmin + ((left + column) / 2) * cell,
              yArcmin: topArcmin - (row + 1 - tall / 2) * cell,
              widthArcmin: (column - left) * cell,
              heightArcmin: tall * cell,
            },
          };
      }
      stack.push(column);
    }
  }
  return best?.box ?? null;
}
