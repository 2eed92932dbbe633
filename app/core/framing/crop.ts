import type { Equatorial } from "~/core/sky";
import { frameToSky, type MosaicLayout, type Panel } from "./mosaic";

/** A rectangle in a mosaic's frame, arcmin on the plane: what is cut out in the end. */
export interface Crop {
  readonly xArcmin: number;
  readonly yArcmin: number;
  readonly widthArcmin: number;
  readonly heightArcmin: number;
}

type Sides = Pick<MosaicLayout, "planeWidthArcmin" | "planeHeightArcmin">;
type Place = Pick<Panel, "xArcmin" | "yArcmin">;

const sorted = (values: readonly number[]): number[] => [...new Set(values)].sort((a, b) => a - b);
const SLIVER = 1e-9;

/**
 * The largest rectangle along the frame's sides that panels fill without a gap; with an aspect (width over height), the largest of
 * that shape. Null without panels. Exact for panels whose sides run with the mosaic's, which planned ones do: of every pair of
 * panel edges left and right, the tallest run of covered rows between them.
 */
export function largestCrop(panels: readonly Place[], sides: Sides, aspect: number | null = null): Crop | null {
  const [w, h] = [sides.planeWidthArcmin / 2, sides.planeHeightArcmin / 2];
  const xs = sorted(panels.flatMap((p) => [p.xArcmin - w, p.xArcmin + w]));
  const ys = sorted(panels.flatMap((p) => [p.yArcmin - h, p.yArcmin + h]));
  // Covered cells between neighbouring edges, row by row.
  const isCovered = ys.slice(1).map((top, j) =>
    xs.slice(1).map((right, i) => {
      const [x, y] = [(xs[i]! + right) / 2, (ys[j]! + top) / 2];
      return panels.some((p) => Math.abs(p.xArcmin - x) < w && Math.abs(p.yArcmin - y) < h);
    }),
  );
  let best: Crop | null = null;
  const offer = (left: number, right: number, bottom: number, top: number) => {
    const [width, height] = [right - left, top - bottom];
    const fitted =
      aspect === null ? [width, height] : [Math.min(width, height * aspect), Math.min(height, width / aspect)];
    const [fw, fh] = fitted as [number, number];
    if (best && fw * fh <= best.widthArcmin * best.heightArcmin * (1 + SLIVER)) return;
    best = { xArcmin: (left + right) / 2, yArcmin: (bottom + top) / 2, widthArcmin: fw, heightArcmin: fh };
  };
  for (let i = 0; i < xs.length - 1; i++) {
    // Rows covered all the way from edge i to edge k; a row that fails once fails for all wider ones.
    const rows = isCovered.map(() => true);
    for (let k = i + 1; k < xs.length; k++) {
      isCovered.forEach((row, j) => (rows[j] &&= row[k - 1]!));
      let from = -1;
      for (let j = 0; j <= rows.length; j++) {
        if (rows[j] && from === -1) from = j;
        if (!rows[j] && from !== -1) {
          offer(xs[i]!, xs[k]!, ys[from]!, ys[j]!);
          from = -1;
        }
      }
    }
  }
  return best;
}

/** Corners of a crop on the sky, in order round it. */
export const cropCorners = (
  layout: Pick<MosaicLayout, "centre" | "positionAngleDeg">,
  { xArcmin, yArcmin, widthArcmin, heightArcmin }: Crop,
): readonly Equatorial<"icrs">[] =>
  (
    [
      [-1, 1],
      [1, 1],
      [1, -1],
      [-1, -1],
    ] as const
  ).map(([x, y]) => frameToSky(layout, xArcmin + (x * widthArcmin) / 2, yArcmin + (y * heightArcmin) / 2));

/** Share of a crop that no panel covers, 0 to 1, on a grid of points. */
export function uncovered(
  { xArcmin, yArcmin, widthArcmin, heightArcmin }: Crop,
  panels: readonly Place[],
  sides: Sides,
): number {
  const [w, h] = [sides.planeWidthArcmin / 2, sides.planeHeightArcmin / 2];
  const points = 60;
  let out = 0;
  for (let i = 0; i < points; i++)
    for (let j = 0; j < points; j++) {
      const x = xArcmin + widthArcmin * ((i + 0.5) / points - 0.5);
      const y = yArcmin + heightArcmin * ((j + 0.5) / points - 0.5);
      if (!panels.some((p) => Math.abs(p.xArcmin - x) <= w && Math.abs(p.yArcmin - y) <= h)) out++;
    }
  return out / points ** 2;
}

const DPI = 300; // what printers ask for; common practice
const CM_PER_INCH = 2.54;

/** What a cut picture comes to. */
export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
  /** On paper at 300 dots an inch, cm. */
  readonly printWidthCm: number;
  readonly printHeightCm: number;
}

/** Size of a picture in whole pixels at a scale, arcsec a pixel as it is binned, and on paper at 300 dots an inch. */
export function pictureSize(crop: Pick<Crop, "widthArcmin" | "heightArcmin">, arcsecPerPx: number): PictureSize {
  const px = (arcmin: number) => Math.floor((arcmin * 60) / arcsecPerPx + 1e-6);
  const [widthPx, heightPx] = [px(crop.widthArcmin), px(crop.heightArcmin)];
  const cm = (pixels: number) => (pixels / DPI) * CM_PER_INCH;
  return { widthPx, heightPx, printWidthCm: cm(widthPx), printHeightCm: cm(heightPx) };
}
