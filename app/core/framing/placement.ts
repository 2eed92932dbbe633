import { degToRad, magToFluxRatio } from "~/core/units";
import { isInPanel, mosaicBounds, mosaicPanels, seamsOf, type MosaicLayout } from "./mosaic";
import { isInSeams, seamLines, type PlaneStar } from "./seams";

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

/** How far a mosaic may be moved, and between which overlaps (shares of a side); without, it keeps the one it has. */
export interface PlacementLimits {
  readonly shiftArcmin: number;
  readonly turnDeg: number;
  readonly overlap?: { readonly from: number; readonly to: number };
}

/** Stars in the strips that panels share. */
export interface SeamCount {
  readonly stars: number;
  /** null without stars. */
  readonly brightestMag: number | null;
}

/** The best placement found, what it costs, and what staying costs. */
export interface PlacementFound {
  readonly placement: Placement;
  readonly overlap: number;
  readonly cost: number;
  readonly costBefore: number;
  /** Better than staying, the hard limit first. */
  readonly isBetter: boolean;
  readonly inSeams: SeamCount;
  readonly inSeamsBefore: SeamCount;
  /** Whether no star brighter than the hard limit is left in a seam; true without one. */
  readonly isMet: boolean;
}

const SIGMA_SHARE = 0.03; // of a panel side: how near a seam a star begins to matter
const REFERENCE_MAGNITUDE = 8; // a star of this magnitude on a seam costs 1
const SUBJECT_WEIGHT = 16; // a seam through the subject's middle costs as much as one through a star of magnitude 5
const HARD_WEIGHT = 1e9; // of the brightest star over a hard limit: nothing else outweighs it
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

/** What is to be placed: the mosaic, stars in its frame, what must be inside, and the point no seam should cross. */
export interface PlacementTask {
  readonly layout: MosaicLayout;
  readonly stars: readonly PlaneStar[];
  readonly outline: Outline | null;
  readonly subject?: { readonly xArcmin: number; readonly yArcmin: number } | null;
  /** No star brighter than this in any seam, before anything else counts; absent or null = only the sum counts. */
  readonly hardMag?: number | null;
}

/** Stars of a task that lie in seams when its mosaic is moved. */
function seamCount({ layout, stars }: PlacementTask, { dxArcmin, dyArcmin, turnDeg }: Placement): SeamCount {
  const seams = seamsOf(layout);
  const [c, s] = [Math.cos(degToRad(turnDeg)), Math.sin(degToRad(turnDeg))];
  const found = stars.filter(({ xArcmin, yArcmin }) => {
    const [x, y] = [xArcmin - dxArcmin, yArcmin - dyArcmin];
    return isInSeams(seams, { xArcmin: x * c + y * s, yArcmin: y * c - x * s });
  });
  return {
    stars: found.length,
    brightestMag: found.length > 0 ? Math.min(...found.map((f) => f.magnitude)) : null,
  };
}

/** The cost of a placement as a function, with all that does not change worked out once. */
function costOf({ layout, stars, outline, subject, hardMag }: PlacementTask): (at: Placement) => number {
  const bounds = mosaicBounds(layout);
  const lines = seamLines(layout);
  const panels = mosaicPanels(layout);
  const isPlainGrid = !layout.extra?.length && !layout.skipped?.length && !layout.rowShift;
  const [sigmaX, sigmaY] = [SIGMA_SHARE * layout.planeWidthArcmin, SIGMA_SHARE * layout.planeHeightArcmin];
  const weighted = stars.map((s) => [s.xArcmin, s.yArcmin, magToFluxRatio(s.magnitude - REFERENCE_MAGNITUDE)] as const);
  const hard = hardMag == null ? [] : stars.filter((s) => s.magnitude < hardMag);
  const seams = hard.length > 0 ? seamsOf(layout) : [];
  if (subject) weighted.push([subject.xArcmin, subject.yArcmin, SUBJECT_WEIGHT]);
  const points = outline ? outlinePoints(outline) : [];
  const isOutside = (u: number, v: number) =>
    u < bounds.left ||
    u > bounds.right ||
    v < bounds.bottom ||
    v > bounds.top ||
    (!isPlainGrid && !panels.some((p) => isInPanel(layout, p, { xArcmin: u, yArcmin: v })));
  return ({ dxArcmin, dyArcmin, turnDeg }) => {
    const [c, s] = [Math.cos(degToRad(turnDeg)), Math.sin(degToRad(turnDeg))];
    let cost = 0;
    for (const [x, y, weight] of weighted) {
      const [u, v] = [(x - dxArcmin) * c + (y - dyArcmin) * s, -(x - dxArcmin) * s + (y - dyArcmin) * c];
      if (u < bounds.left || u > bounds.right || v < bounds.bottom || v > bounds.top) continue;
      for (const line of lines) {
        const [across, along, sigma] = line.isVertical ? [u, v, sigmaX] : [v, u, sigmaY];
        const off = across - line.atArcmin;
        if (Math.abs(off) < 4 * sigma && along >= line.fromArcmin && along <= line.toArcmin)
          cost += weight * Math.exp(-0.5 * (off / sigma) ** 2);
      }
    }
    let brightest = 0;
    for (const star of hard) {
      const [x, y] = [star.xArcmin - dxArcmin, star.yArcmin - dyArcmin];
      if (isInSeams(seams, { xArcmin: x * c + y * s, yArcmin: y * c - x * s }))
        brightest = Math.max(brightest, 10 ** (0.4 * (REFERENCE_MAGNITUDE - star.magnitude)));
    }
    cost += HARD_WEIGHT * brightest;
    let outside = 0;
    for (const [x, y] of points) {
      const [u, v] = [(x - dxArcmin) * c + (y - dyArcmin) * s, -(x - dxArcmin) * s + (y - dyArcmin) * c];
      if (isOutside(u, v)) outside++;
    }
    return cost + (points.length ? (UNCOVERED_WEIGHT * outside) / points.length : 0);
  };
}

/**
 * How bad a placement is: Σ over stars of 10^(0.4(8 − m)) · Σ over seams exp(−½(d/σ)²), σ = 3 % of a panel side, plus the
 * share of the outline left outside and a seam through the subject. A proposal of this project: compare values, do not read
 * them alone.
 */
export const placementCost = (task: PlacementTask, at: Placement): number => costOf(task)(at);

const STAY: Placement = { dxArcmin: 0, dyArcmin: 0, turnDeg: 0 };
const OVERLAP_STEP = 0.02;
const FINER_STEPS = [0.01, 0.005]; // around the best of the even steps

/** Grid search over one overlap, then halving steps around the best. */
function search(
  cost: (at: Placement) => number,
  limits: PlacementLimits,
): { readonly placement: Placement; readonly cost: number } {
  let best = { placement: STAY, cost: cost(STAY) };
  const attempt = (placement: Placement) => {
    const inside =
      Math.abs(placement.dxArcmin) <= limits.shiftArcmin &&
      Math.abs(placement.dyArcmin) <= limits.shiftArcmin &&
      Math.abs(placement.turnDeg) <= limits.turnDeg;
    if (!inside) return;
    const value = cost(placement);
    if (value < best.cost - 1e-12) best = { placement, cost: value };
  };
  const [shifts, turns] = [limits.shiftArcmin > 0 ? 15 : 1, limits.turnDeg > 0 ? 13 : 1];
  const part = (i: number, count: number) => (count === 1 ? 0 : (2 * i) / (count - 1) - 1);
  for (let i = 0; i < shifts; i++)
    for (let j = 0; j < shifts; j++)
      for (let k = 0; k < turns; k++)
        attempt({
          dxArcmin: limits.shiftArcmin * part(i, shifts),
          dyArcmin: limits.shiftArcmin * part(j, shifts),
          turnDeg: limits.turnDeg * part(k, turns),
        });
  let [shift, turn] = [limits.shiftArcmin / 14, limits.turnDeg / 12];
  for (let round = 0; round < 8; round++) {
    const { placement } = best;
    for (const dx of shifts === 1 ? [0] : [-shift, 0, shift])
      for (const dy of shifts === 1 ? [0] : [-shift, 0, shift])
        for (const dt of turns === 1 ? [0] : [-turn, 0, turn])
          attempt({
            dxArcmin: placement.dxArcmin + dx,
            dyArcmin: placement.dyArcmin + dy,
            turnDeg: placement.turnDeg + dt,
          });
    shift /= 2;
    turn /= 2;
  }
  return best;
}

/**
 * The shift, turn and overlap, within limits, that keep bright stars out of the seams and the outline inside. Deterministic.
 * Overlaps are tried at most 2 % apart and down to 0.5 % around the best. Distances over the grid are taken on the plane,
 * good for mosaics under 15°. A hard limit counts before everything else; where it cannot be met, the brightest star left in a seam is
 * as faint as can be. `onProgress` is told the share done after each overlap tried.
 */
export function placeMosaic(
  task: PlacementTask,
  limits: PlacementLimits,
  onProgress: (share: number) => void = () => undefined,
): PlacementFound {
  const { from, to } = limits.overlap ?? { from: task.layout.overlap, to: task.layout.overlap };
  const overlapping = (overlap: number): PlacementTask => ({ ...task, layout: { ...task.layout, overlap } });
  const steps = Math.ceil((to - from) / OVERLAP_STEP - 1e-9);
  const searches = steps + 1 + (steps > 0 ? 2 * FINER_STEPS.length : 0);
  let done = 0;
  // Rows keep an overlap of their own; without one they follow.
  const attempt = (overlap: number) => {
    const found = { ...search(costOf(overlapping(overlap)), limits), overlap };
    onProgress(++done / searches);
    return found;
  };
  let best = attempt(from);
  const attemptBetter = (overlap: number) => {
    const found = attempt(Math.min(to, Math.max(from, overlap)));
    if (found.cost < best.cost - 1e-9) best = found;
  };
  for (let i = 1; i <= steps; i++) attemptBetter(from + ((to - from) * i) / steps);
  if (steps > 0)
    for (const step of FINER_STEPS) {
      const { overlap } = best;
      attemptBetter(overlap - step);
      attemptBetter(overlap + step);
    }
  const inSeams = seamCount(overlapping(best.overlap), best.placement);
  const { hardMag } = task;
  return {
    ...best,
    // Told without the hard limit, which is no figure but a yes or no.
    cost: placementCost({ ...overlapping(best.overlap), hardMag: null }, best.placement),
    costBefore: placementCost({ ...task, hardMag: null }, STAY),
    isBetter: best.cost < placementCost(task, STAY) - 1e-6,
    inSeams,
    inSeamsBefore: seamCount(task, STAY),
    isMet: hardMag == null || inSeams.brightestMag === null || inSeams.brightestMag >= hardMag,
  };
}
