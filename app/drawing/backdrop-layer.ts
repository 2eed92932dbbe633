import { chartView, fromScreen, toScreen, type ChartView, type ScreenPoint } from "~/core/framing";
import { unitVector } from "~/core/sky";
import type { Pen } from "./pen";

/** What a picture of the sky was drawn for, as `chartView` takes it. */
export type ChartAsked = Parameters<typeof chartView>[0];

/** A picture of the sky behind a chart, and the chart it was drawn for. */
export interface Backdrop {
  readonly image: CanvasImageSource;
  readonly chart: ChartAsked;
}

/**
 * Lays the picture down where its sky is now: point for point where the chart is the one it was drawn for, moved, turned and stretched
 * by three of its points while another one is on its way. Without it nothing is drawn, and it never throws: a picture may have been let go.
 */
export function drawBackdrop(ctx: Pen, view: ChartView, { image, chart }: Backdrop): void {
  const from = chartView(chart);
  const { widthPx: w, heightPx: h } = from;
  const at = (x: number, y: number): ScreenPoint | null => toScreen(view, unitVector(fromScreen(from, { x, y })));
  // Near the middle, where both maps are true to scale.
  const [middle, right, below] = [at(w / 2, h / 2), at(w / 2 + w / 8, h / 2), at(w / 2, h / 2 + h / 8)];
  if (!middle || !right || !below) return;
  const [a, b] = [(8 * (right.x - middle.x)) / w, (8 * (right.y - middle.y)) / w];
  const [c, d] = [(8 * (below.x - middle.x)) / h, (8 * (below.y - middle.y)) / h];
  ctx.save();
  ctx.transform(a, b, c, d, middle.x - (a * w + c * h) / 2, middle.y - (b * w + d * h) / 2);
  ctx.drawImage(image, 0, 0);
  ctx.restore();
}
