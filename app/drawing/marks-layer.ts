import { toScreen, type ChartView } from "~/core/framing";
import { offsetBy, unitVector } from "~/core/sky";
import { icrs, trace, type Ink, type Pen } from "./pen";

/** North and east at the lower right, as the chart is turned, and a bar of a round length. */
export function drawCompass(ctx: Pen, view: ChartView, ink: Ink): void {
  const [x, y] = [view.widthPx - 52, view.heightPx - 46];
  ctx.strokeStyle = ctx.fillStyle = ink.soft;
  ctx.lineWidth = 1.2;
  ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
  ctx.textAlign = "center";
  for (const [word, bearing] of [
    ["N", 0],
    ["E", 90],
  ] as const) {
    const p = toScreen(view, unitVector(offsetBy(view.centre, { positionAngleDeg: bearing, distanceDeg: 0.01 })));
    if (!p) continue;
    const [dx, dy] = [p.x - view.widthPx / 2, p.y - view.heightPx / 2];
    const length = Math.hypot(dx, dy) || 1;
    ctx.beginPath();
    ctx.moveTo(x, y);
    ctx.lineTo(x + (26 * dx) / length, y + (26 * dy) / length);
    ctx.stroke();
    ctx.fillText(word, x + (36 * dx) / length, y + (36 * dy) / length + 4);
  }
  ctx.textAlign = "start";
  const deg = [20, 10, 5, 2, 1, 0.5, 1 / 6, 1 / 12, 1 / 60].find((d) => d * view.pxPerDeg <= 140) ?? 1 / 60;
  const width = deg * view.pxPerDeg;
  ctx.beginPath();
  ctx.moveTo(12, view.heightPx - 26);
  ctx.lineTo(12 + width, view.heightPx - 26);
  ctx.stroke();
  ctx.fillText(deg >= 1 ? `${deg}°` : `${Math.round(deg * 60)}′`, 16 + width, view.heightPx - 22);
}

/** Outlines drawn by hand, with their names; the one being drawn is open. */
export function drawOutlines(
  ctx: Pen,
  view: ChartView,
  outlines: readonly { readonly name: string; readonly corners: readonly (readonly [number, number])[] }[],
  draft: readonly (readonly [number, number])[] | null,
  ink: Ink,
): void {
  ctx.strokeStyle = ctx.fillStyle = ink.moonlit;
  ctx.lineWidth = 1.6;
  ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
  for (const o of outlines) {
    ctx.setLineDash([7, 4]);
    ctx.beginPath();
    trace(
      ctx,
      view,
      o.corners.map(([ra, dec]) => icrs(ra, dec)),
      true,
    );
    ctx.stroke();
    ctx.setLineDash([]);
    const at = toScreen(view, icrs(...o.corners[0]!));
    ctx.fillStyle = ink.soft; // the line's own is too dark to be read in
    if (at) ctx.fillText(o.name, at.x + 6, at.y - 6);
  }
  if (!draft || draft.length === 0) return;
  ctx.fillStyle = ink.moonlit;
  ctx.beginPath();
  trace(
    ctx,
    view,
    draft.map(([ra, dec]) => icrs(ra, dec)),
  );
  ctx.stroke();
  for (const [ra, dec] of draft) {
    const p = toScreen(view, icrs(ra, dec));
    if (!p) continue;
    ctx.beginPath();
    ctx.arc(p.x, p.y, 3.5, 0, 2 * Math.PI);
    ctx.fill();
  }
}
