import { positionAngleDeg, type Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";
import { deprojectTan } from "./tangent";

/**
 * A grid of equal panels. Position angle is that of the frame's up axis, north through east; seen on the sky, x runs
 * right and y up, so that at PA 0 north is up and east is left.
 */
export interface MosaicLayout {
  readonly centre: Equatorial<"icrs">;
  readonly positionAngleDeg: number;
  /** One panel on the tangent plane. */
  readonly planeWidthArcmin: number;
  readonly planeHeightArcmin: number;
  readonly columns: number;
  readonly rows: number;
  /** Share of a panel side that neighbours have in common, [0, 0.5]. */
  readonly overlap: number;
}

/** One pointing of a mosaic. */
export interface Panel {
  /** From 1, row by row from the frame's top left. */
  readonly number: number;
  readonly row: number;
  readonly column: number;
  /** Offset from the mosaic's centre in its frame, arcmin on the plane. */
  readonly xArcmin: number;
  readonly yArcmin: number;
  readonly centre: Equatorial<"icrs">;
  /** What the camera angle must read at this panel for its sides to run with the mosaic's. */
  readonly positionAngleDeg: number;
}

/** The strip two neighbouring panels share, in the mosaic's frame (arcmin on the plane). */
export interface Seam {
  readonly between: readonly [number, number];
  readonly isVertical: boolean;
  /** Middle line: x for vertical seams, y for horizontal ones; and its reach along the other axis. */
  readonly atArcmin: number;
  readonly fromArcmin: number;
  readonly toArcmin: number;
  readonly halfWidthArcmin: number;
}

/** Name of a panel in a mosaic of several: "P1". One frame alone is "P1" too, so that a later grid keeps its hours. */
export const panelName = (number: number): string => `P${number}`;

/** The direction at a point of a frame, arcmin on the plane, x right and y up; the inverse of `skyToFrame`. */
export function frameToSky(
  layout: Pick<MosaicLayout, "centre" | "positionAngleDeg">,
  xArcmin: number,
  yArcmin: number,
): Equatorial<"icrs"> {
  const pa = degToRad(layout.positionAngleDeg);
  return deprojectTan(layout.centre, {
    xiDeg: (-xArcmin * Math.cos(pa) + yArcmin * Math.sin(pa)) / 60,
    etaDeg: (xArcmin * Math.sin(pa) + yArcmin * Math.cos(pa)) / 60,
  });
}

/** Centres and own position angles of all panels: exact on the sphere for gnomonic optics, poles and 0h included. */
export function mosaicPanels(layout: MosaicLayout): Panel[] {
  const stepX = layout.planeWidthArcmin * (1 - layout.overlap);
  const stepY = layout.planeHeightArcmin * (1 - layout.overlap);
  return Array.from({ length: layout.rows * layout.columns }, (_, i) => {
    const [row, column] = [Math.floor(i / layout.columns) + 1, (i % layout.columns) + 1];
    const x = (column - (layout.columns + 1) / 2) * stepX;
    const y = ((layout.rows + 1) / 2 - row) * stepY;
    const centre = frameToSky(layout, x, y);
    // A straight line on the plane is a great circle: any further point on it gives the exact bearing.
    return {
      number: i + 1,
      row,
      column,
      xArcmin: x,
      yArcmin: y,
      centre,
      positionAngleDeg: positionAngleDeg(centre, frameToSky(layout, x, y + 6)),
    };
  });
}

/** Corners of one frame, top left, top right, bottom right, bottom left, of the given plane size about its own centre. */
export function frameCorners(
  frame: Pick<MosaicLayout, "centre" | "positionAngleDeg">,
  widthArcmin: number,
  heightArcmin: number,
): readonly [Equatorial<"icrs">, Equatorial<"icrs">, Equatorial<"icrs">, Equatorial<"icrs">] {
  const [w, h] = [widthArcmin / 2, heightArcmin / 2];
  return [frameToSky(frame, -w, h), frameToSky(frame, w, h), frameToSky(frame, w, -h), frameToSky(frame, -w, -h)];
}

/** Full width and height of a mosaic on the plane: w(1 + (n − 1)(1 − o)). */
export const mosaicExtent = (
  layout: MosaicLayout,
): { readonly widthArcmin: number; readonly heightArcmin: number } => ({
  widthArcmin: layout.planeWidthArcmin * (1 + (layout.columns - 1) * (1 - layout.overlap)),
  heightArcmin: layout.planeHeightArcmin * (1 + (layout.rows - 1) * (1 - layout.overlap)),
});

/** All seams of a mosaic; where four panels meet, strips of both directions cross. */
export function seamsOf(layout: MosaicLayout): Seam[] {
  const panels = mosaicPanels(layout);
  const at = (row: number, column: number) => panels.find((p) => p.row === row && p.column === column);
  const [halfW, halfH] = [layout.planeWidthArcmin / 2, layout.planeHeightArcmin / 2];
  return panels.flatMap((p) => {
    const right = at(p.row, p.column + 1);
    const below = at(p.row + 1, p.column);
    const seams: Seam[] = [];
    if (right)
      seams.push({
        between: [p.number, right.number],
        isVertical: true,
        atArcmin: (p.xArcmin + right.xArcmin) / 2,
        fromArcmin: p.yArcmin - halfH,
        toArcmin: p.yArcmin + halfH,
        halfWidthArcmin: halfW * layout.overlap,
      });
    if (below)
      seams.push({
        between: [p.number, below.number],
        isVertical: false,
        atArcmin: (p.yArcmin + below.yArcmin) / 2,
        fromArcmin: p.xArcmin - halfW,
        toArcmin: p.xArcmin + halfW,
        halfWidthArcmin: halfH * layout.overlap,
      });
    return seams;
  });
}
