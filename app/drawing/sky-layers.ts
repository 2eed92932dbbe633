import { starsWithin, type SkyData, type StarZones } from "~/core/catalog";
import { toScreen, type ChartView } from "~/core/framing";
import { galacticToIcrs, unitVector } from "~/core/sky";
import { FOOT_PX, icrs, trace, viewRadiusDeg, type Ink, type Pen } from "./pen";

/** Faintest stars drawn at a scale: 6 at 60° from top to bottom, everything below 3°. */
export const faintestAt = (heightDeg: number): number => Math.min(14, 6 + 2.9 * Math.log10(60 / heightDeg) * 1.15);

/** A star's name, or its Hipparcos number. */
export const starName = (data: SkyData, row: number): string => {
  const hip = data.stars.stars.hip[row]!;
  return data.nameOf.get(hip) ?? `HIP ${hip}`;
};

/** Meridians and parallels at a step that suits the scale, with their values at the edge. */
export function drawGraticule(ctx: Pen, view: ChartView, ink: Ink): void {
  const height = view.heightPx / view.pxPerDeg;
  const step = [30, 15, 10, 5, 2, 1, 0.5, 0.25, 0.1].find((s) => s * 4 <= height) ?? 0.05;
  const radius = viewRadiusDeg(view);
  const { raDeg, decDeg } = view.centre;
  const [south, north] = [Math.max(-90, decDeg - radius), Math.min(90, decDeg + radius)];
  const nearPole = Math.abs(decDeg) + radius >= 88;
  const raHalf = nearPole
    ? 180
    : Math.min(180, radius / Math.cos((Math.min(89, Math.abs(decDeg) + radius) * Math.PI) / 180));
  const raStep = nearPole
    ? 15
    : Math.max(
        step,
        [0.25, 0.5, 1, 2.5, 5, 7.5, 15, 30].find((s) => s * Math.cos((decDeg * Math.PI) / 180) >= step * 0.8) ?? 30,
      );
  ctx.strokeStyle = ink.rule;
  ctx.lineWidth = 0.6;
  ctx.fillStyle = ink.faint;
  ctx.font = "11px 'Atkinson Hyperlegible Next Variable', sans-serif";
  let lastLabelX = Number.NEGATIVE_INFINITY;
  ctx.beginPath();
  for (let dec = Math.ceil(south / step) * step; dec <= north + 1e-9; dec += step) {
    trace(
      ctx,
      view,
      Array.from({ length: 61 }, (_, i) => icrs(raDeg - raHalf + (i / 60) * 2 * raHalf, dec)),
    );
    const at = toScreen(view, icrs(raDeg, dec));
    if (at && Math.abs(dec) < 89.9 && at.y < view.heightPx - FOOT_PX)
      ctx.fillText(`${dec < 0 ? "−" : "+"}${Math.abs(Number(dec.toFixed(2)))}°`, 6, at.y - 3);
  }
  for (let ra = Math.ceil((raDeg - raHalf) / raStep) * raStep; ra <= raDeg + raHalf + 1e-9; ra += raStep) {
    trace(
      ctx,
      view,
      Array.from({ length: 41 }, (_, i) => icrs(ra, south + (i / 40) * (north - south))),
    );
    const at = toScreen(view, icrs(ra, decDeg));
    const hours = (((ra / 15) % 24) + 24) % 24;
    const minutes = Math.round((hours % 1) * 60);
    if (at && Math.abs(at.x - lastLabelX) < 64) continue;
    if (at) lastLabelX = at.x;
    if (at)
      ctx.fillText(`${Math.floor(hours + 1e-6)}h${minutes % 60 ? ` ${minutes}m` : ""}`, at.x + 3, view.heightPx - 6);
  }
  ctx.stroke();
}

/** The Milky Way as a band by galactic latitude, wider and stronger towards Sagittarius: an own drawing. */
export function drawMilkyWay(ctx: Pen, view: ChartView, ink: Ink): void {
  ctx.fillStyle = ink.twilight;
  for (const widen of [1.25, 1, 0.8, 0.6, 0.4, 0.25]) {
    // One path for the whole band, filled once: cells filled one by one would show where they overlap.
    ctx.beginPath();
    for (let l = 0; l < 360; l += 5) {
      const half = (k: number) => widen * (8 + 5 * Math.cos((k * Math.PI) / 180));
      const corners = [
        galacticToIcrs(l, half(l)),
        galacticToIcrs(l + 5.2, half(l + 5)),
        galacticToIcrs(l + 5.2, -half(l + 5)),
        galacticToIcrs(l, -half(l)),
      ].map((c) => toScreen(view, unitVector(c)));
      if (
        corners.some((c) => c === null) ||
        !corners.some(
          (c) => c!.x > -view.widthPx && c!.x < 2 * view.widthPx && c!.y > -view.heightPx && c!.y < 2 * view.heightPx,
        )
      )
        continue;
      corners.forEach((c, i) => (i === 0 ? ctx.moveTo(c!.x, c!.y) : ctx.lineTo(c!.x, c!.y)));
      ctx.closePath();
    }
    ctx.globalAlpha = 0.22;
    ctx.fill();
  }
  ctx.globalAlpha = 1;
}

/** Stick figures of the constellations. */
export function drawFigures(ctx: Pen, view: ChartView, data: SkyData, ink: Ink): void {
  ctx.strokeStyle = ink.rule;
  ctx.lineWidth = 1;
  ctx.beginPath();
  for (const run of data.figures)
    trace(
      ctx,
      view,
      run.map(([ra, dec]) => icrs(ra, dec)),
    );
  ctx.stroke();
}

/** Borders of the constellations. */
export function drawBorders(ctx: Pen, view: ChartView, data: SkyData, ink: Ink): void {
  ctx.strokeStyle = ink.rule;
  ctx.lineWidth = 0.8;
  ctx.setLineDash([2, 4]);
  ctx.beginPath();
  for (const run of data.borders) trace(ctx, view, run);
  ctx.stroke();
  ctx.setLineDash([]);
}

/** Upper limits of B−V for the tints of stars, from blue-white to orange. */
const TINT_LIMITS = [0.15, 0.85, 1.35] as const;

/** Tints of stars, mixed into the ink so that every theme stays itself; Ember has red only. */
const tints = (ink: Ink): readonly string[] => [
  `color-mix(in oklch, ${ink.ink}, ${ink.moonlit} 55%)`,
  ink.ink,
  `color-mix(in oklch, ${ink.ink}, ${ink.lamp} 30%)`,
  `color-mix(in oklch, ${ink.ink}, ${ink.lamp} 60%)`,
];

/** Which tint a star has; one of unknown colour is plain ink. */
function tintOf(colour: number): number {
  if (Number.isNaN(colour)) return 1;
  const i = TINT_LIMITS.findIndex((limit) => colour < limit);
  return i === -1 ? TINT_LIMITS.length : i;
}

/** How far down stars are drawn, and how large their dots are: 1 on a chart, less in a small picture. */
export interface StarDots {
  /** mag */
  readonly faintest: number;
  readonly size: number;
}

/** Stars as dots by magnitude and colour. */
export function drawStarDots(
  ctx: Pen,
  view: ChartView,
  stars: StarZones,
  { faintest, size }: StarDots,
  ink: Ink,
): void {
  const t = stars.stars;
  const rows = starsWithin(stars, { ...view.centre, radiusDeg: viewRadiusDeg(view), faintest });
  // Tint by tint: setting a mixed colour costs more than drawing a star.
  tints(ink).forEach((tint, which) => {
    ctx.fillStyle = tint;
    for (const i of rows) {
      if (tintOf(t.colour[i]!) !== which) continue;
      const p = toScreen(view, icrs(t.raDeg[i]!, t.decDeg[i]!));
      if (!p || p.x < -5 || p.y < -5 || p.x > view.widthPx + 5 || p.y > view.heightPx + 5) continue;
      const r = size * Math.max(0.5, Math.min(5.5, 0.62 * (faintest - t.magnitude[i]!) ** 0.82 + 0.4));
      ctx.globalAlpha = Math.min(1, 0.45 + 0.16 * (faintest - t.magnitude[i]!));
      ctx.beginPath();
      ctx.arc(p.x, p.y, r, 0, 2 * Math.PI);
      ctx.fill();
    }
  });
  ctx.globalAlpha = 1;
}

/** Stars by magnitude and colour; names for the bright ones. */
export function drawStars(ctx: Pen, view: ChartView, data: SkyData, ink: Ink): void {
  const faintest = faintestAt(view.heightPx / view.pxPerDeg);
  drawStarDots(ctx, view, data.stars, { faintest, size: 1 }, ink);
  ctx.fillStyle = ink.soft;
  ctx.font = "11.5px 'Atkinson Hyperlegible Next Variable', sans-serif";
  for (const [ra, dec, mag, name] of data.named) {
    if (mag > faintest - 3.2) break;
    const p = toScreen(view, icrs(ra, dec));
    if (p && p.x > 0 && p.y > 0 && p.x < view.widthPx && p.y < view.heightPx - FOOT_PX)
      ctx.fillText(name, p.x + 7, p.y + 4);
  }
}
