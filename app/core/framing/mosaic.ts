import { positionAngleDeg, type Equatorial } from "~/core/sky";
import { degToRad, wrap360 } from "~/core/units";
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
  /** Share of a panel's width that neighbours in a row have in common, [0, 0.5]. */
  readonly overlap: number;
  /** The same between rows, of a panel's height; absent = as in a row. */
  readonly overlapRows?: number;
  /** Part of a step by which neighbouring rows are moved against each other, [−0.5, 0.5]; absent = 0. */
  readonly rowShift?: number;
  /** Panels beside the grid, put down by hand: centre in the mosaic's frame, arcmin on the plane. */
  readonly extra?: readonly { readonly xArcmin: number; readonly yArcmin: number }[];
  /** Numbers of panels that are left out; the others keep theirs. */
  readonly skipped?: readonly number[];
}

/** One pointing of a mosaic. */
export interface Panel {
  /** From 1, row by row from the frame's top left, then those put down by hand. */
  readonly number: number;
  /** Both 0 for a panel put down by hand. */
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

/**
 * Centre and position angle of a frame moved on its plane, (right, up) in arcmin, and turned towards larger position angle.
 * North lies elsewhere at the new centre: at a declination of 80° a shift of 10′ turns it by up to 0.95°, which is told here.
 */
export function movedFrame(
  layout: Pick<MosaicLayout, "centre" | "positionAngleDeg">,
  move: { readonly dxArcmin: number; readonly dyArcmin: number; readonly turnDeg: number },
): { readonly centre: Equatorial<"icrs">; readonly positionAngleDeg: number } {
  const centre = frameToSky(layout, move.dxArcmin, move.dyArcmin);
  const above = frameToSky(layout, move.dxArcmin, move.dyArcmin + 1);
  return { centre, positionAngleDeg: wrap360(positionAngleDeg(centre, above) + move.turnDeg) };
}

/** Offsets of all panels in the mosaic's frame, those left out too. */
function offsetsOf(layout: MosaicLayout): Omit<Panel, "centre" | "positionAngleDeg">[] {
  const stepX = layout.planeWidthArcmin * (1 - layout.overlap);
  const stepY = layout.planeHeightArcmin * (1 - (layout.overlapRows ?? layout.overlap));
  const shift = layout.rows > 1 ? ((layout.rowShift ?? 0) * stepX) / 2 : 0;
  const grid = Array.from({ length: layout.rows * layout.columns }, (_, i) => {
    const [row, column] = [Math.floor(i / layout.columns) + 1, (i % layout.columns) + 1];
    return {
      number: i + 1,
      row,
      column,
      xArcmin: (column - (layout.columns + 1) / 2) * stepX + (row % 2 === 1 ? -shift : shift),
      yArcmin: ((layout.rows + 1) / 2 - row) * stepY,
    };
  });
  const extra = (layout.extra ?? []).map((e, i) => ({
    number: grid.length + i + 1,
    row: 0,
    column: 0,
    xArcmin: e.xArcmin,
    yArcmin: e.yArcmin,
  }));
  return [...grid, ...extra];
}

/** Centres and own position angles of the panels that are shot: exact on the sphere for gnomonic optics, poles and 0h included. */
export function mosaicPanels(layout: MosaicLayout): Panel[] {
  return offsetsOf(layout)
    .filter((p) => !layout.skipped?.includes(p.number))
    .map((p) => {
      const centre = frameToSky(layout, p.xArcmin, p.yArcmin);
      // A straight line on the plane is a great circle: any further point on it gives the exact bearing.
      return { ...p, centre, positionAngleDeg: positionAngleDeg(centre, frameToSky(layout, p.xArcmin, p.yArcmin + 6)) };
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

/** The box around all panels in the mosaic's frame, arcmin on the plane; the mosaic's centre is its origin. */
export function mosaicBounds(layout: MosaicLayout): {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
  readonly top: number;
} {
  const all = offsetsOf(layout);
  const shot = all.filter((p) => !layout.skipped?.includes(p.number));
  const [xs, ys] = [
    (shot.length > 0 ? shot : all).map((p) => p.xArcmin),
    (shot.length > 0 ? shot : all).map((p) => p.yArcmin),
  ];
  const [halfW, halfH] = [layout.planeWidthArcmin / 2, layout.planeHeightArcmin / 2];
  return {
    left: Math.min(...xs) - halfW,
    right: Math.max(...xs) + halfW,
    bottom: Math.min(...ys) - halfH,
    top: Math.max(...ys) + halfH,
  };
}

/** Full width and height of a mosaic on the plane; of a plain grid w(1 + (n − 1)(1 − o)). */
export function mosaicExtent(layout: MosaicLayout): { readonly widthArcmin: number; readonly heightArcmin: number } {
  const { left, right, bottom, top } = mosaicBounds(layout);
  return { widthArcmin: right - left, heightArcmin: top - bottom };
}

/** Whether a point of the mosaic's frame lies in a panel. */
export const isInPanel = (
  layout: Pick<MosaicLayout, "planeWidthArcmin" | "planeHeightArcmin">,
  panel: Pick<Panel, "xArcmin" | "yArcmin">,
  at: { readonly xArcmin: number; readonly yArcmin: number },
): boolean =>
  Math.abs(at.xArcmin - panel.xArcmin) <= layout.planeWidthArcmin / 2 &&
  Math.abs(at.yArcmin - panel.yArcmin) <= layout.planeHeightArcmin / 2;

const CORNER_SHARE = 0.5; // panels that share less than half of both sides meet at a corner only

/** All seams of a mosaic: strips that two panels share side by side. Where four panels meet, strips of both directions cross. */
export function seamsOf(layout: MosaicLayout): Seam[] {
  const panels = offsetsOf(layout).filter((p) => !layout.skipped?.includes(p.number));
  const [w, h] = [layout.planeWidthArcmin, layout.planeHeightArcmin];
  const seams: Seam[] = [];
  panels.forEach((p, i) => {
    for (const q of panels.slice(i + 1)) {
      const [dx, dy] = [Math.abs(p.xArcmin - q.xArcmin), Math.abs(p.yArcmin - q.yArcmin)];
      const [sharedX, sharedY] = [w - dx, h - dy];
      if (sharedX <= 0 || sharedY <= 0) continue;
      if (sharedX < CORNER_SHARE * w && sharedY < CORNER_SHARE * h) continue;
      const isVertical = dx / w >= dy / h;
      const between = [p.number, q.number] as const;
      seams.push(
        isVertical
          ? {
              between,
              isVertical,
              atArcmin: (p.xArcmin + q.xArcmin) / 2,
              fromArcmin: Math.max(p.yArcmin, q.yArcmin) - h / 2,
              toArcmin: Math.min(p.yArcmin, q.yArcmin) + h / 2,
              halfWidthArcmin: sharedX / 2,
            }
          : {
              between,
              isVertical,
              atArcmin: (p.yArcmin + q.yArcmin) / 2,
              fromArcmin: Math.max(p.xArcmin, q.xArcmin) - w / 2,
              toArcmin: Math.min(p.xArcmin, q.xArcmin) + w / 2,
              halfWidthArcmin: sharedY / 2,
            },
      );
    }
  });
  return seams;
}

/** Area covered by at least one panel and by all panels counted singly, square degrees on the plane (0.2 % below 8° a side). */
export function mosaicArea(layout: MosaicLayout): { readonly uniqueDeg2: number; readonly framesDeg2: number } {
  const panels = offsetsOf(layout).filter((p) => !layout.skipped?.includes(p.number));
  const [w, h] = [layout.planeWidthArcmin / 2, layout.planeHeightArcmin / 2];
  const cuts = (values: readonly number[]) => [...new Set(values)].sort((a, b) => a - b);
  const xs = cuts(panels.flatMap((p) => [p.xArcmin - w, p.xArcmin + w]));
  const ys = cuts(panels.flatMap((p) => [p.yArcmin - h, p.yArcmin + h]));
  let unique = 0;
  for (let i = 0; i + 1 < xs.length; i++)
    for (let j = 0; j + 1 < ys.length; j++) {
      const at = { xArcmin: (xs[i]! + xs[i + 1]!) / 2, yArcmin: (ys[j]! + ys[j + 1]!) / 2 };
      if (panels.some((p) => isInPanel(layout, p, at))) unique += (xs[i + 1]! - xs[i]!) * (ys[j + 1]! - ys[j]!);
    }
  return { uniqueDeg2: unique / 3600, framesDeg2: (panels.length * 4 * w * h) / 3600 };
}
