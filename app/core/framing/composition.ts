import type { Equatorial } from "~/core/sky";
import { degToRad, wrap360 } from "~/core/units";
import { frameToSky, mosaicBounds, type MosaicLayout } from "./mosaic";
import { ellipseOutline, type Ellipse } from "./outline";
import { skyToFrame } from "./seams";

/** What else lies near a target, and how much one would like it in the picture. */
export interface Beside extends Ellipse {
  /** 0 to 100. */
  readonly rank: number;
}

/** A way to lay a frame about its target. */
export interface Composition<Other extends Beside> {
  readonly how: "middle" | "third" | "neighbour";
  readonly layout: MosaicLayout;
  /** Others that come in whole, the most wanted first; one that it was laid for leads. */
  readonly brings: readonly Other[];
}

const MARGIN = 0.05; // of a side, at either end: lost to dithers and registration
const THIRD = 1 / 6; // of a side from its middle
const MOST_NEIGHBOURS = 30;
const TURN_STEP_DEG = 1;
const AIM_STEPS = 6;
const AIMED_ARCMIN = 0.1;

type Point = readonly [x: number, y: number];
interface Box {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
}

const boxAround = (points: readonly Point[]): Box => ({
  left: Math.min(...points.map(([x]) => x)),
  right: Math.max(...points.map(([x]) => x)),
  bottom: Math.min(...points.map(([, y]) => y)),
  top: Math.max(...points.map(([, y]) => y)),
});

/** Outlines in a frame, arcmin on the plane; null where one lies beyond it. */
function onPlane(frame: MosaicLayout, outlines: readonly Equatorial<"icrs">[]): Point[] | null {
  const points: Point[] = [];
  for (const at of outlines) {
    const p = skyToFrame(frame, at);
    if (!p) return null;
    points.push([p.xArcmin, p.yArcmin]);
  }
  return points;
}

/** What of a frame is safe to lie in, by the outer sides of its panels. */
function safeBox(frame: MosaicLayout): Box {
  const { left, right, bottom, top } = mosaicBounds(frame);
  const [x, y] = [MARGIN * (right - left), MARGIN * (top - bottom)];
  return { left: left + x, right: right - x, bottom: bottom + y, top: top - y };
}

/** Whether outlines lie in a frame, with a margin. */
function holds(frame: MosaicLayout, outlines: readonly Equatorial<"icrs">[]): boolean {
  const { left, right, bottom, top } = safeBox(frame);
  return outlines.every((at) => {
    const p = skyToFrame(frame, at);
    return p !== null && p.xArcmin >= left && p.xArcmin <= right && p.yArcmin >= bottom && p.yArcmin <= top;
  });
}

/** The frame moved, at the same position angle, so that a direction comes to lie at a point of it; null where that does not come out, as beside a pole. */
function aimed(frame: MosaicLayout, at: Equatorial<"icrs">, [x, y]: Point): MosaicLayout | null {
  let layout: MosaicLayout = { ...frame, centre: at };
  for (let step = 0; step < AIM_STEPS; step++) {
    const p = skyToFrame(layout, at);
    if (!p) return null;
    const [dx, dy] = [p.xArcmin - x, p.yArcmin - y];
    if (Math.hypot(dx, dy) < AIMED_ARCMIN) return layout;
    layout = { ...layout, centre: frameToSky(layout, dx, dy) };
  }
  return null;
}

/** Where the thirds of a frame cross; after them, for what is too large for that, where a third crosses the middle. */
function thirdsOf(frame: MosaicLayout): readonly (readonly Point[])[] {
  const { left, right, bottom, top } = mosaicBounds(frame);
  const [x, y] = [(left + right) / 2, (bottom + top) / 2];
  const [dx, dy] = [THIRD * (right - left), THIRD * (top - bottom)];
  const along: Point[] = [[x - dx, y], [x + dx, y]]; // prettier-ignore
  const across: Point[] = [[x, y + dy], [x, y - dy]]; // prettier-ignore
  const crossings: Point[] = [[x - dx, y + dy], [x + dx, y + dy], [x - dx, y - dy], [x + dx, y - dy]]; // prettier-ignore
  return [crossings, dx >= dy ? along : across, dx >= dy ? across : along];
}

/** Turns to try, the smallest first: half a circle, as a frame looks the same upside down. */
const TURNS: readonly number[] = Array.from({ length: 180 / TURN_STEP_DEG }, (_, i) => TURN_STEP_DEG * (i % 2 === 0 ? -i / 2 : (i + 1) / 2)); // prettier-ignore

/** The frame that holds two outlines, turned as little as may be; null where it cannot. */
function holdingBoth(
  frame: MosaicLayout,
  centre: Equatorial<"icrs">,
  outlines: readonly Equatorial<"icrs">[],
): MosaicLayout | null {
  const flat = { ...frame, centre };
  const points = onPlane(flat, outlines);
  if (!points) return null;
  const safe = safeBox(frame);
  // What is longer than the diagonal fits at no turn.
  const diagonal = Math.hypot(safe.right - safe.left, safe.top - safe.bottom);
  if (points.some(([x, y]) => points.some(([u, v]) => Math.hypot(x - u, y - v) > diagonal))) return null;
  for (const turn of TURNS) {
    const [c, s] = [Math.cos(degToRad(turn)), Math.sin(degToRad(turn))];
    // A frame turned towards larger position angle, to the left, sees the sky turned to the right.
    const box = boxAround(points.map(([x, y]) => [x * c + y * s, y * c - x * s]));
    if (box.right - box.left > safe.right - safe.left || box.top - box.bottom > safe.top - safe.bottom) continue;
    const turned = {
      ...flat,
      positionAngleDeg: turn === 0 ? frame.positionAngleDeg : wrap360(frame.positionAngleDeg + turn),
    };
    const [dx, dy] = [
      (box.left + box.right) / 2 - (safe.left + safe.right) / 2,
      (box.bottom + box.top) / 2 - (safe.bottom + safe.top) / 2,
    ];
    const layout = { ...turned, centre: frameToSky(turned, dx, dy) };
    if (holds(layout, outlines)) return layout;
  }
  return null;
}

/**
 * Ways to lay a frame about its target, panels and camera angle as they are: the target in the middle; on a third, where most of what is
 * worth seeing comes in with it; and moved, or turned as little as may be, so that the most wanted neighbour that the middle leaves out
 * comes in whole. A way that cannot hold the target whole is left out, but for the middle. The rule of thirds: common practice, no source.
 */
export function compositions<Other extends Beside>(
  frame: MosaicLayout,
  target: Ellipse,
  others: readonly Other[],
): readonly Composition<Other>[] {
  const own = ellipseOutline(target);
  const outlined = others
    .map((other) => ({ other, outline: ellipseOutline(other) }))
    .sort((a, b) => b.other.rank - a.other.rank);
  const heldIn = (layout: MosaicLayout) => outlined.filter((o) => holds(layout, o.outline)).map((o) => o.other);
  const bounds = mosaicBounds(frame);
  const middle = aimed(frame, target.at, [(bounds.left + bounds.right) / 2, (bounds.bottom + bounds.top) / 2]);
  if (!middle) return [];
  const inMiddle = heldIn(middle);
  const found: Composition<Other>[] = [{ how: "middle", layout: middle, brings: inMiddle }];

  for (const points of thirdsOf(frame)) {
    const ways = points.flatMap((point) => {
      const layout = aimed(frame, target.at, point);
      return layout && holds(layout, own) ? [{ how: "third" as const, layout, brings: heldIn(layout) }] : [];
    });
    const worth = (way: Composition<Other>) => way.brings.reduce((sum, o) => sum + o.rank, 0);
    const [best] = ways.sort((a, b) => worth(b) - worth(a));
    if (!best) continue;
    found.push(best);
    break;
  }

  for (const { other, outline } of outlined.filter((o) => !inMiddle.includes(o.other)).slice(0, MOST_NEIGHBOURS)) {
    const layout = holdingBoth(frame, target.at, [...own, ...outline]);
    if (!layout) continue;
    found.push({ how: "neighbour", layout, brings: [other, ...heldIn(layout).filter((o) => o !== other)] });
    break;
  }
  return found;
}
