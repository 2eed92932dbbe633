import {
  frameToSky,
  mosaicBounds,
  toScreen,
  type ChartView,
  type MosaicLayout,
  type Panel,
  type ScreenPoint,
} from "~/core/framing";
import { unitVector, type Equatorial, type Vec3 } from "~/core/sky";
import { trace, type Ink, type Pen } from "./pen";

/** Edges of a frame as great circles, a few points a side. */
function edges(
  frame: { readonly centre: Equatorial<"icrs">; readonly positionAngleDeg: number },
  widthArcmin: number,
  heightArcmin: number,
): Vec3[] {
  const [w, h] = [widthArcmin / 2, heightArcmin / 2];
  const corners = [
    [-w, h],
    [w, h],
    [w, -h],
    [-w, -h],
  ] as const;
  return corners.flatMap(([x0, y0], i) => {
    const [x1, y1] = corners[(i + 1) % 4]!;
    return Array.from({ length: 8 }, (_, k) =>
      unitVector(frameToSky(frame, x0 + ((x1 - x0) * k) / 8, y0 + ((y1 - y0) * k) / 8)),
    );
  });
}

/** Where the turning handle of a mosaic stands: above its top edge. */
export function handleOf(view: ChartView, layout: MosaicLayout): ScreenPoint | null {
  const { left, right, top } = mosaicBounds(layout);
  return toScreen(view, unitVector(frameToSky(layout, (left + right) / 2, top + (26 / view.pxPerDeg) * 60)));
}

/** Outlines of panels, true to scale. */
export function drawPanels(ctx: Pen, view: ChartView, layout: MosaicLayout, panels: readonly Panel[], ink: Ink): void {
  ctx.strokeStyle = ctx.fillStyle = ink.lamp;
  for (const panel of panels) {
    ctx.beginPath();
    trace(ctx, view, edges(panel, layout.planeWidthArcmin, layout.planeHeightArcmin), true);
    ctx.globalAlpha = 0.05;
    ctx.fill();
    ctx.globalAlpha = 1;
    ctx.stroke();
  }
}

/** Panels true to scale, with numbers; stars in seams ringed. */
export function drawMosaic(
  ctx: Pen,
  view: ChartView,
  layout: MosaicLayout,
  panels: readonly Panel[],
  seamStars: readonly Equatorial<"icrs">[],
  labelOf: (number: number) => string,
  ink: Ink,
): void {
  ctx.lineWidth = 1.4;
  drawPanels(ctx, view, layout, panels, ink);
  if (panels.length > 1) {
    ctx.font = "600 13px 'Atkinson Hyperlegible Next Variable', sans-serif";
    ctx.textAlign = "center";
    for (const panel of panels) {
      const p = toScreen(view, unitVector(panel.centre));
      if (p) ctx.fillText(labelOf(panel.number), p.x, p.y + 4);
    }
    ctx.textAlign = "start";
  }
  const bounds = mosaicBounds(layout);
  const top = toScreen(view, unitVector(frameToSky(layout, (bounds.left + bounds.right) / 2, bounds.top)));
  const handle = handleOf(view, layout);
  if (top && handle) {
    ctx.beginPath();
    ctx.moveTo(top.x, top.y);
    ctx.lineTo(handle.x, handle.y);
    ctx.stroke();
    ctx.beginPath();
    ctx.arc(handle.x, handle.y, 6, 0, 2 * Math.PI);
    ctx.fillStyle = ink.ground;
    ctx.fill();
    ctx.stroke();
  }
  ctx.strokeStyle = ink.rust;
  ctx.lineWidth = 2;
  for (const star of seamStars) {
    const p = toScreen(view, unitVector(star));
    if (!p) continue;
    ctx.beginPath();
    ctx.arc(p.x, p.y, 10, 0, 2 * Math.PI);
    ctx.stroke();
  }
}
