import { degToRad } from "~/core/units";
import type { MosaicLayout } from "./mosaic";
import { mosaicExtent } from "./mosaic";
import type { PlaneStar } from "./seams";

/** What must be inside: an ellipse in the start frame of the mosaic, full axes in arcmin, its angle from the frame's up axis towards the left (as a position angle). */
export interface Outline {
  readonly majorArcmin: number;
  readonly minorArcmin: number;
  readonly angleDeg: number;
}

/** A move of a mosaic from where it stood: shift in the start frame and turn towards larger position angle. */
export interface Placement {
  readonly dxArcmin: number;
  readonly dyArcmin: number;
  readonly turnDeg: number;
}

const SIGMA_SHARE = 0.03; // of a panel side: how near a seam a star begins to matter
const REFERENCE_MAGNITUDE = 8; // a star of this magnitude on a seam costs 1
const UNCOVERED_WEIGHT = 2000; // 1 % of the outline left out costs as much as a star of magnitude 4.7 on a seam

/** Points spread evenly over an ellipse, in the start frame. */
function outlinePoints(o: Outline): [number, number][] {
  const angle = degToRad(o.angleDeg);
  const points: [number, number][] = [];
  for (let ring = 1; ring <= 6; ring++)
    for (let i = 0; i < 6 * ring; i++) {
      const t = (2 * Math.PI * i) / (6 * ring);
      const along = (o.majorArcmin / 2) * (ring / 6) * Math.cos(t);
      const across = (o.minorArcmin / 2) * (ring / 6) * Math.sin(t);
      points.push([
        -along * Math.sin(angle) - across * Math.cos(angle),
        along * Math.cos(angle) - across * Math.sin(angle),
      ]);
    }
  return points;
}

interface Task {
  readonly layout: MosaicLayout;
  readonly stars: readonly PlaneStar[];
  readonly outline: Outline | null;
}

/** The cost of a placement as a function, with all that does not change worked out once. */
function costOf({ layout, stars, outline }: Task): (at: Placement) => number {
  const { widthArcmin, heightArcmin } = mosaicExtent(layout);
  const lines = (count: number, side: number) =>
    Array.from({ length: count - 1 }, (_, i) => (i + 1 - count / 2) * side * (1 - layout.overlap));
  const [xs, ys] = [lines(layout.columns, layout.planeWidthArcmin), lines(layout.rows, layout.planeHeightArcmin)];
  const [sigmaX, sigmaY] = [SIGMA_SHARE * layout.planeWidthArcmin, SIGMA_SHARE * layout.planeHeightArcmin];
  const weighted = stars.map((s) => [s.xArcmin, s.yArcmin, 10 ** (0.4 * (REFERENCE_MAGNITUDE - s.magnitude))] as const);
  const points = outline ? outlinePoints(outline) : [];
  return ({ dxArcmin, dyArcmin, turnDeg }) => {
    const [c, s] = [Math.cos(degToRad(turnDeg)), Math.sin(degToRad(turnDeg))];
    let cost = 0;
    for (const [x, y, weight] of weighted) {
      const [u, v] = [(x - dxArcmin) * c + (y - dyArcmin) * s, -(x - dxArcmin) * s + (y - dyArcmin) * c];
      if (Math.abs(u) > widthArcmin / 2 || Math.abs(v) > heightArcmin / 2) continue;
      for (const line of xs)
        if (Math.abs(u - line) < 4 * sigmaX) cost += weight * Math.exp(-0.5 * ((u - line) / sigmaX) ** 2);
      for (const line of ys)
        if (Math.abs(v - line) < 4 * sigmaY) cost += weight * Math.exp(-0.5 * ((v - line) / sigmaY) ** 2);
    }
    let outside = 0;
    for (const [x, y] of points) {
      const [u, v] = [(x - dxArcmin) * c + (y - dyArcmin) * s, -(x - dxArcmin) * s + (y - dyArcmin) * c];
      if (Math.abs(u) > widthArcmin / 2 || Math.abs(v) > heightArcmin / 2) outside++;
    }
    return cost + (points.length ? (UNCOVERED_WEIGHT * outside) / points.length : 0);
  };
}

/**
 * How bad a placement is: Σ over stars of 10^(0.4(8 − m)) · Σ over seams exp(−½(d/σ)²), σ = 3 % of a panel side, plus the
 * share of the outline left outside. A proposal of this project: compare values, do not read them alone.
 */
export const placementCost = (task: Task, at: Placement): number => costOf(task)(at);

/**
 * The shift and turn, within limits, that keep bright stars out of the seams and the outline inside. Grid search, then
 * halving steps around the best; deterministic. Distances over the grid are taken on the plane, good for mosaics under 15°.
 */
export function placeMosaic(
  task: Task,
  limits: { readonly shiftArcmin: number; readonly turnDeg: number },
): { readonly placement: Placement; readonly cost: number; readonly costBefore: number } {
  const cost = costOf(task);
  const stay: Placement = { dxArcmin: 0, dyArcmin: 0, turnDeg: 0 };
  let best = { placement: stay, cost: cost(stay) };
  const costBefore = best.cost;
  const attempt = (placement: Placement) => {
    const inside =
      Math.abs(placement.dxArcmin) <= limits.shiftArcmin &&
      Math.abs(placement.dyArcmin) <= limits.shiftArcmin &&
      Math.abs(placement.turnDeg) <= limits.turnDeg;
    if (!inside) return;
    const value = cost(placement);
    if (value < best.cost - 1e-12) best = { placement, cost: value };
  };
  const [shifts, turns] = [15, limits.turnDeg > 0 ? 13 : 1];
  for (let i = 0; i < shifts; i++)
    for (let j = 0; j < shifts; j++)
      for (let k = 0; k < turns; k++)
        attempt({
          dxArcmin: limits.shiftArcmin * ((2 * i) / (shifts - 1) - 1),
          dyArcmin: limits.shiftArcmin * ((2 * j) / (shifts - 1) - 1),
          turnDeg: turns === 1 ? 0 : limits.turnDeg * ((2 * k) / (turns - 1) - 1),
        });
  let [shift, turn] = [limits.shiftArcmin / (shifts - 1), limits.turnDeg / 12];
  for (let round = 0; round < 8; round++) {
    const { placement } = best;
    for (const dx of [-shift, 0, shift])
      for (const dy of [-shift, 0, shift])
        for (const dt of turns === 1 ? [0] : [-turn, 0, turn])
          attempt({
            dxArcmin: placement.dxArcmin + dx,
            dyArcmin: placement.dyArcmin + dy,
            turnDeg: placement.turnDeg + dt,
          });
    shift /= 2;
    turn /= 2;
  }
  return { ...best, costBefore };
}
