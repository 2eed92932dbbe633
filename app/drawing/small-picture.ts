import type { CatalogEntry, StarZones } from "~/core/catalog";
import { mosaicBounds, mosaicPanels, type ChartView, type MosaicLayout } from "~/core/framing";
import { drawBackdrop, type Backdrop } from "./backdrop-layer";
import { drawPanels } from "./mosaic-layer";
import { drawPatches } from "./object-layers";
import type { Ink, Pen } from "./pen";
import { drawStarDots, faintestAt } from "./sky-layers";

/** What a small picture of the sky is of: a field with what lies in its middle, and a frame where there is one. */
export interface SmallPicture {
  /** A picture of the sky; null = stars and patches are drawn instead. */
  readonly backdrop: Backdrop | null;
  readonly objects: readonly CatalogEntry[];
  /** null = without them. */
  readonly stars: StarZones | null;
  readonly frame: MosaicLayout | null;
}

/** Height for which lines and dots are as on a chart, px: smaller pictures have finer ones. */
const FULL_SIZE_PX = 240;
/** A small picture shows stars not quite so far down as a chart of its field, so that what it is of is seen first, mag. */
const FEWER_MAG = 1;
/** Of what has to be in it: a margin that shows what lies beside. */
const AROUND = 1.15;
const [LEAST_DEG, MOST_DEG] = [0.2, 80];

/** How much sky a small picture shows from top to bottom, degrees: the whole frame however it is turned, the whole object, and some sky around them. */
export function smallPictureDeg(entry: CatalogEntry | null, frame: MosaicLayout | null): number {
  const bounds = frame ? mosaicBounds(frame) : { left: 0, right: 0, top: 0, bottom: 0 };
  const cornerArcmin = Math.hypot(
    Math.max(Math.abs(bounds.left), Math.abs(bounds.right)),
    Math.max(Math.abs(bounds.top), Math.abs(bounds.bottom)),
  );
  const arcmin = AROUND * Math.max(2 * cornerArcmin, entry?.majorArcmin ?? 0);
  return Math.min(MOST_DEG, Math.max(LEAST_DEG, arcmin / 60));
}

/** Draws a small picture: no words, no grid, so that it is read at a glance beside a name. */
export function drawSmallPicture(ctx: Pen, view: ChartView, picture: SmallPicture, ink: Ink): void {
  const { widthPx: w, heightPx: h } = view;
  const size = Math.min(1, h / FULL_SIZE_PX);
  ctx.fillStyle = ink.ground;
  ctx.fillRect(0, 0, w, h);
  if (picture.backdrop) drawBackdrop(ctx, view, picture.backdrop);
  else {
    drawPatches(ctx, view, picture.objects, ink);
    const faintest = faintestAt(h / view.pxPerDeg) - FEWER_MAG;
    if (picture.stars) drawStarDots(ctx, view, picture.stars, { faintest, size }, ink);
  }
  if (!picture.frame) return;
  ctx.lineWidth = Math.max(1, 1.6 * size);
  drawPanels(ctx, view, picture.frame, mosaicPanels(picture.frame), ink);
}
