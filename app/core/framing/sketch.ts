import type { Equatorial } from "~/core/sky";
import { frameCorners, mosaicPanels, type MosaicLayout } from "./mosaic";
import { projectTan } from "./tangent";

/** A point of a small drawing, arcminutes from the frame's centre on its tangent plane: x to the right (west), y down (south). */
export type SketchPoint = readonly [x: number, y: number];

/** A frame as a small drawing with north up and east left. */
export interface FrameSketch {
  readonly panels: readonly { readonly number: number; readonly corners: readonly SketchPoint[] }[];
  /** Half the side of the square around its centre that holds all panels, arcminutes. */
  readonly halfArcmin: number;
}

/** Where a direction lies in a drawing around a centre; null when it lies behind it. */
export function sketchPoint(centre: Equatorial<"icrs">, at: Equatorial<"icrs">): SketchPoint | null {
  const p = projectTan(centre, at);
  return p && [-60 * p.xiDeg, -60 * p.etaDeg];
}

/** Outlines of a frame's panels as they lie on the sky. */
export function frameSketch(layout: MosaicLayout): FrameSketch {
  const panels = mosaicPanels(layout).map((panel) => ({
    number: panel.number,
    corners: frameCorners(panel, layout.planeWidthArcmin, layout.planeHeightArcmin).flatMap(
      (corner) => [sketchPoint(layout.centre, corner)].filter((p) => p !== null), // a panel a quarter of the sky away is drawn by nobody
    ),
  }));
  const far = panels.flatMap((p) => p.corners.flat().map(Math.abs));
  return { panels, halfArcmin: Math.max(1, ...far) };
}
