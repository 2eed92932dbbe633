import type { Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";
import { seamsOf, type MosaicLayout, type Seam } from "./mosaic";
import { projectTan } from "./tangent";

/** A star in the frame of a mosaic, arcmin on the plane, x right and y up. */
export interface PlaneStar {
  readonly xArcmin: number;
  readonly yArcmin: number;
  readonly magnitude: number;
}

/** A star in the blend zone of a seam. */
export interface SeamStar<S> {
  readonly star: S;
  readonly seam: Seam;
  readonly fromMiddleArcmin: number;
}

/** Where a direction falls in the frame of a mosaic; null beyond the plane. */
export function skyToFrame(
  layout: Pick<MosaicLayout, "centre" | "positionAngleDeg">,
  target: Equatorial<"icrs">,
): { xArcmin: number; yArcmin: number } | null {
  const p = projectTan(layout.centre, target);
  if (!p) return null;
  const pa = degToRad(layout.positionAngleDeg);
  return {
    xArcmin: 60 * (-p.xiDeg * Math.cos(pa) + p.etaDeg * Math.sin(pa)),
    yArcmin: 60 * (p.xiDeg * Math.sin(pa) + p.etaDeg * Math.cos(pa)),
  };
}

/** A point in the frame of a mosaic. */
type PlanePlace = Omit<PlaneStar, "magnitude">;

/** How far a point lies from the middle of a seam, arcmin; null outside the strip its two panels share. */
function fromMiddleOf(seam: Seam, { xArcmin, yArcmin }: PlanePlace): number | null {
  const [across, along] = seam.isVertical ? [xArcmin, yArcmin] : [yArcmin, xArcmin];
  const distance = Math.abs(across - seam.atArcmin);
  const isInside = distance <= seam.halfWidthArcmin && along >= seam.fromArcmin && along <= seam.toArcmin;
  return isInside ? distance : null;
}

/**
 * Stars that lie in the strip shared by two panels, brightest first: they are pinched when panels are joined. A star where
 * four panels meet is listed once, with the seam whose middle is nearer.
 */
export function starsInSeams<S extends Equatorial<"icrs"> & { readonly magnitude: number }>(
  layout: MosaicLayout,
  stars: readonly S[],
): SeamStar<S>[] {
  const seams = seamsOf(layout);
  const found: SeamStar<S>[] = [];
  for (const star of stars) {
    const p = skyToFrame(layout, star);
    if (!p) continue;
    let nearest: SeamStar<S> | null = null;
    for (const seam of seams) {
      const fromMiddleArcmin = fromMiddleOf(seam, p);
      if (fromMiddleArcmin === null) continue;
      if (!nearest || fromMiddleArcmin < nearest.fromMiddleArcmin) nearest = { star, seam, fromMiddleArcmin };
    }
    if (nearest) found.push(nearest);
  }
  return found.sort((a, b) => a.star.magnitude - b.star.magnitude);
}

/** Whether a point of the plane lies in a strip shared by two panels. */
export const isInSeams = (seams: readonly Seam[], at: PlanePlace): boolean =>
  seams.some((seam) => fromMiddleOf(seam, at) !== null);

/** A line on which seams of one direction lie: merged where they run on into each other. */
export interface SeamLine {
  readonly isVertical: boolean;
  readonly atArcmin: number;
  readonly fromArcmin: number;
  readonly toArcmin: number;
}

/** Middle lines of all seams, merged along their length, so that a star near one is counted once. */
export function seamLines(layout: MosaicLayout): SeamLine[] {
  const lines: { isVertical: boolean; atArcmin: number; fromArcmin: number; toArcmin: number }[] = [];
  const sorted = [...seamsOf(layout)].sort((a, b) => a.fromArcmin - b.fromArcmin);
  for (const { isVertical, atArcmin, fromArcmin, toArcmin } of sorted) {
    const known = lines.find(
      (l) => l.isVertical === isVertical && Math.abs(l.atArcmin - atArcmin) < 1e-6 && fromArcmin <= l.toArcmin + 1e-6,
    );
    if (known) known.toArcmin = Math.max(known.toArcmin, toArcmin);
    else lines.push({ isVertical, atArcmin, fromArcmin, toArcmin });
  }
  return lines;
}
