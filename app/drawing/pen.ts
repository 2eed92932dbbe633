import { fromScreen, toScreen, type ChartView, type ScreenPoint } from "~/core/framing";
import { separationDeg, unitVector, type Vec3 } from "~/core/sky";

/** What is drawn with: on a page or in a worker. */
export type Pen = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;

/** Colours by meaning, as the theme names them. */
export const INKS = ["ground", "rule", "ink", "soft", "faint", "lamp", "moonlit", "rust", "sage", "twilight"] as const;
export type Ink = Readonly<Record<(typeof INKS)[number], string>>;

/** Half the diagonal of what the chart shows, degrees. */
export function viewRadiusDeg(view: ChartView): number {
  return Math.min(100, separationDeg(view.centre, fromScreen(view, { x: 0, y: 0 })));
}

/** Foot of the chart, where the hours of right ascension are written: no other words go there. */
export const FOOT_PX = 22;

/** A line through directions, broken where it leaves the map. */
export function trace(ctx: Pen, view: ChartView, points: readonly Vec3[], isClosed = false): void {
  let previous: ScreenPoint | null = null;
  for (const v of isClosed ? [...points, points[0]!] : points) {
    const p = toScreen(view, v);
    if (p && previous && Math.hypot(p.x - previous.x, p.y - previous.y) < 4 * view.widthPx) ctx.lineTo(p.x, p.y);
    else if (p) ctx.moveTo(p.x, p.y);
    previous = p;
  }
}

/** The direction of a place on the sky, degrees. */
export const icrs = (raDeg: number, decDeg: number) => unitVector({ raDeg, decDeg });
