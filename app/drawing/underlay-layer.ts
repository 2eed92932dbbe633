import { toScreen, type ChartView, type ScreenPoint, type SkyMesh } from "~/core/framing";
import { unitVector } from "~/core/sky";
import type { Pen } from "./pen";

/** A picture under the chart's lines. */
export interface Underlay {
  readonly image: CanvasImageSource;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly mesh: SkyMesh;
  /** (0, 1] */
  readonly opacity: number;
}

/** An underlay with what it takes to lay it down again. */
export interface LaidPicture extends Underlay {
  readonly name: string;
  /** What the image is made from: JPEG or PNG. */
  readonly file: Blob;
  /** The four corners as typed; null for a solved image. */
  readonly corners: readonly string[] | null;
}

/** Draws one triangle of the picture: its corners in the picture and on the chart. */
function triangle(
  ctx: Pen,
  image: CanvasImageSource,
  from: readonly [ScreenPoint, ScreenPoint, ScreenPoint],
  to: readonly [ScreenPoint, ScreenPoint, ScreenPoint],
): void {
  const [[p0, p1, p2], [q0, q1, q2]] = [from, to];
  const det = (p1.x - p0.x) * (p2.y - p0.y) - (p2.x - p0.x) * (p1.y - p0.y);
  if (det === 0) return;
  const solve = (a: number, b: number, c: number) => {
    const [d1, d2] = [b - a, c - a];
    const u = (d1 * (p2.y - p0.y) - d2 * (p1.y - p0.y)) / det;
    const v = (d2 * (p1.x - p0.x) - d1 * (p2.x - p0.x)) / det;
    return [u, v, a - u * p0.x - v * p0.y] as const;
  };
  const [a, c, e] = solve(q0.x, q1.x, q2.x);
  const [b, d, f] = solve(q0.y, q1.y, q2.y);
  ctx.save();
  ctx.beginPath();
  // Half a pixel outwards, so that no seam shows between triangles.
  const [mx, my] = [(q0.x + q1.x + q2.x) / 3, (q0.y + q1.y + q2.y) / 3];
  for (const q of to) {
    const r = Math.hypot(q.x - mx, q.y - my) || 1;
    ctx.lineTo(q.x + (0.6 * (q.x - mx)) / r, q.y + (0.6 * (q.y - my)) / r);
  }
  ctx.clip();
  ctx.transform(a, b, c, d, e, f);
  ctx.drawImage(image, 0, 0);
  ctx.restore();
}

/** The picture warped to the chart, cell by cell. */
export function drawUnderlay(ctx: Pen, view: ChartView, u: Underlay): void {
  const { columns, rows, nodes } = u.mesh;
  const points = nodes.map(([raDeg, decDeg]) => toScreen(view, unitVector({ raDeg, decDeg })));
  ctx.globalAlpha = u.opacity;
  for (let r = 0; r < rows; r++)
    for (let c = 0; c < columns; c++) {
      const at = (dc: number, dr: number) => ({
        from: { x: ((c + dc) / columns) * u.widthPx, y: ((r + dr) / rows) * u.heightPx },
        to: points[(r + dr) * (columns + 1) + c + dc],
      });
      const [a, b, d, e] = [at(0, 0), at(1, 0), at(0, 1), at(1, 1)];
      if (!a.to || !b.to || !d.to || !e.to) continue;
      triangle(ctx, u.image, [a.from, b.from, d.from], [a.to, b.to, d.to]);
      triangle(ctx, u.image, [b.from, e.from, d.from], [b.to, e.to, d.to]);
    }
  ctx.globalAlpha = 1;
}
