import { plain } from "~/components/numbers";
import { drawnBrightness, isNebula, lightOf, starsWithin, type CatalogEntry, type SkyData } from "~/core/catalog";
import { fromScreen, toScreen, type ChartView, type ScreenPoint } from "~/core/framing";
import { galacticToIcrs, offsetBy, separationDeg, unitVector, type Vec3 } from "~/core/sky";

/** Colours by meaning, read from the theme. */
export type Ink = Readonly<
  Record<"ground" | "rule" | "ink" | "soft" | "faint" | "lamp" | "moonlit" | "rust" | "sage" | "twilight", string>
>;

/** Half the diagonal of what the chart shows, degrees. */
export function viewRadiusDeg(view: ChartView): number {
  return Math.min(100, separationDeg(view.centre, fromScreen(view, { x: 0, y: 0 })));
}

/** Foot of the chart, where the hours of right ascension are written: no other words go there. */
const FOOT_PX = 22;

/** Faintest stars drawn at a scale: 6 at 60° from top to bottom, everything below 3°. */
export const faintestAt = (heightDeg: number): number => Math.min(14, 6 + 2.9 * Math.log10(60 / heightDeg) * 1.15);

/** A star's name, or its Hipparcos number. */
export const starName = (data: SkyData, row: number): string => {
  const hip = data.stars.stars.hip[row]!;
  return data.nameOf.get(hip) ?? `HIP ${hip}`;
};

/** A line through directions, broken where it leaves the map. */
export function trace(ctx: CanvasRenderingContext2D, view: ChartView, points: readonly Vec3[], isClosed = false): void {
  let previous: ScreenPoint | null = null;
  for (const v of isClosed ? [...points, points[0]!] : points) {
    const p = toScreen(view, v);
    if (p && previous && Math.hypot(p.x - previous.x, p.y - previous.y) < 4 * view.widthPx) ctx.lineTo(p.x, p.y);
    else if (p) ctx.moveTo(p.x, p.y);
    previous = p;
  }
}

const icrs = (raDeg: number, decDeg: number) => unitVector({ raDeg, decDeg });

/** Meridians and parallels at a step that suits the scale, with their values at the edge. */
export function drawGraticule(ctx: CanvasRenderingContext2D, view: ChartView, ink: Ink): void {
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
      ctx.fillText(`${dec < 0 ? "−" : "+"}${Math.abs(Number(plain(dec, 2)))}°`, 6, at.y - 3);
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
export function drawMilkyWay(ctx: CanvasRenderingContext2D, view: ChartView, ink: Ink): void {
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
export function drawFigures(ctx: CanvasRenderingContext2D, view: ChartView, data: SkyData, ink: Ink): void {
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
export function drawBorders(ctx: CanvasRenderingContext2D, view: ChartView, data: SkyData, ink: Ink): void {
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

/** Stars by magnitude and colour; names for the bright ones. */
export function drawStars(ctx: CanvasRenderingContext2D, view: ChartView, data: SkyData, ink: Ink): void {
  const faintest = faintestAt(view.heightPx / view.pxPerDeg);
  const t = data.stars.stars;
  const rows = starsWithin(data.stars, { ...view.centre, radiusDeg: viewRadiusDeg(view), faintest });
  // Tint by tint: setting a mixed colour costs more than drawing a star.
  tints(ink).forEach((tint, which) => {
    ctx.fillStyle = tint;
    for (const i of rows) {
      if (tintOf(t.colour[i]!) !== which) continue;
      const p = toScreen(view, icrs(t.raDeg[i]!, t.decDeg[i]!));
      if (!p || p.x < -5 || p.y < -5 || p.x > view.widthPx + 5 || p.y > view.heightPx + 5) continue;
      const r = Math.max(0.5, Math.min(5.5, 0.62 * (faintest - t.magnitude[i]!) ** 0.82 + 0.4));
      ctx.globalAlpha = Math.min(1, 0.45 + 0.16 * (faintest - t.magnitude[i]!));
      ctx.beginPath();
      ctx.arc(p.x, p.y, r, 0, 2 * Math.PI);
      ctx.fill();
    }
  });
  ctx.globalAlpha = 1;
  ctx.fillStyle = ink.soft;
  ctx.font = "11.5px 'Atkinson Hyperlegible Next Variable', sans-serif";
  for (const [ra, dec, mag, name] of data.named) {
    if (mag > faintest - 3.2) break;
    const p = toScreen(view, icrs(ra, dec));
    if (p && p.x > 0 && p.y > 0 && p.x < view.widthPx && p.y < view.heightPx - FOOT_PX)
      ctx.fillText(name, p.x + 7, p.y + 4);
  }
}

/** Outline of an object as directions: an ellipse with its position angle. */
function outline(e: CatalogEntry): Vec3[] {
  const [a, b] = [(e.majorArcmin ?? 1) / 120, (e.minorArcmin ?? e.majorArcmin ?? 1) / 120];
  const pa = e.positionAngleDeg ?? 0;
  return Array.from({ length: 36 }, (_, i) => {
    const t = (i / 36) * 2 * Math.PI;
    const [along, across] = [a * Math.cos(t), b * Math.sin(t)];
    return unitVector(
      offsetBy(e.at, {
        positionAngleDeg: pa + (Math.atan2(across, along) * 180) / Math.PI,
        distanceDeg: Math.hypot(along, across),
      }),
    );
  });
}

const [BRIGHT, FAINT] = [19, 27]; // mag/arcsec² between which patches go from plain to hardly there
const LEAST_PATCH_PX = 3;

/** How strongly a patch of a surface brightness is drawn, 0 to 1: never less than a hint, so that faint shells are found. */
export const patchStrength = (magPerArcsec2: number): number =>
  0.08 + 0.7 * Math.min(1, Math.max(0, (FAINT - magPerArcsec2) / (FAINT - BRIGHT))) ** 1.3;

/** Light from the middle to the rim: falling like a galaxy's disc, flatter in a nebula, with a bright rim in a shell. */
const PROFILES = {
  disc: [1, 0.55, 0.3, 0.14, 0.05, 0],
  cloud: [0.8, 0.75, 0.62, 0.42, 0.18, 0],
  shell: [0.35, 0.4, 0.55, 0.85, 0.6, 0],
} as const;

/** How an object is drawn as a patch: its light, and its colour by what shines; null = it is no patch. */
function patchOf(
  e: CatalogEntry,
  ink: Ink,
): { readonly colour: string; readonly profile: readonly number[]; readonly strength: number } | null {
  if (e.kind === "darkNebula") return { colour: ink.ground, profile: PROFILES.cloud, strength: 0.6 };
  const brightness = drawnBrightness(e);
  if (brightness === null) return null;
  const isShell = e.kind === "supernovaRemnant" || e.kind === "planetaryNebula" || e.kind === "wolfRayetNebula";
  const light = lightOf(e);
  const colour =
    light === "OIII"
      ? ink.sage
      : light === "Ha" || light === "mixed"
        ? ink.rust
        : e.kind === "reflectionNebula"
          ? ink.moonlit
          : ink.ink;
  return {
    colour,
    profile: isShell
      ? PROFILES.shell
      : isNebula(e.kind) || e.kind === "reflectionNebula"
        ? PROFILES.cloud
        : PROFILES.disc,
    strength: patchStrength(brightness),
  };
}

/**
 * Objects as what they are: soft patches of their catalogue size and angle, stronger the brighter their surface. A model, no
 * picture: an ellipse with the light of its kind.
 */
export function drawPatches(
  ctx: CanvasRenderingContext2D,
  view: ChartView,
  objects: readonly CatalogEntry[],
  ink: Ink,
): void {
  for (const e of objects) {
    const [a, b] = [e.majorArcmin ?? 0, e.minorArcmin ?? e.majorArcmin ?? 0].map(
      (size) => (size / 120) * view.pxPerDeg,
    );
    if (!a || !b || 2 * a < LEAST_PATCH_PX || 2 * a > 3 * view.widthPx) continue;
    const p = toScreen(view, icrs(e.at.raDeg, e.at.decDeg));
    if (!p || p.x < -a || p.y < -a || p.x > view.widthPx + a || p.y > view.heightPx + a) continue;
    const patch = patchOf(e, ink);
    if (!patch) continue;
    const along = offsetBy(e.at, { positionAngleDeg: e.positionAngleDeg ?? 0, distanceDeg: 0.02 });
    const q = toScreen(view, unitVector(along));
    ctx.save();
    ctx.translate(p.x, p.y);
    if (q) ctx.rotate(Math.atan2(q.y - p.y, q.x - p.x));
    ctx.scale(1, Math.max(0.12, b / a));
    const light = ctx.createRadialGradient(0, 0, 0, 0, 0, a);
    patch.profile.forEach((share, i) =>
      light.addColorStop(
        i / (patch.profile.length - 1),
        `color-mix(in srgb, ${patch.colour} ${Math.round(1000 * share * patch.strength) / 10}%, transparent)`,
      ),
    );
    ctx.fillStyle = light;
    ctx.beginPath();
    ctx.arc(0, 0, a, 0, 2 * Math.PI);
    ctx.fill();
    ctx.restore();
  }
}

/** Names of objects by rank as long as they do not collide, and the outline of those that are chosen or near the pointer. */
export function drawObjects(
  ctx: CanvasRenderingContext2D,
  view: ChartView,
  objects: readonly CatalogEntry[],
  outlined: ReadonlySet<string>,
  ink: Ink,
): void {
  ctx.font = "12px 'Atkinson Hyperlegible Next Variable', sans-serif";
  const taken: { x: number; y: number; w: number }[] = [];
  for (const e of objects) {
    const sizePx = ((e.majorArcmin ?? 0) / 60) * view.pxPerDeg;
    const isDark = e.kind === "darkNebula";
    if (sizePx < 5 || sizePx > 3 * view.widthPx) continue;
    const p = toScreen(view, icrs(e.at.raDeg, e.at.decDeg));
    if (!p || p.x < -sizePx || p.y < -sizePx || p.x > view.widthPx + sizePx || p.y > view.heightPx + sizePx) continue;
    if (outlined.has(e.id)) {
      ctx.strokeStyle = isDark ? ink.faint : ink.sage;
      ctx.setLineDash(isDark ? [3, 4] : []);
      ctx.lineWidth = 1;
      ctx.beginPath();
      trace(ctx, view, outline(e), true);
      ctx.stroke();
      ctx.setLineDash([]);
    }
    if (taken.length >= 30 || (isDark && e.rank < 30)) continue;
    const label = e.name && sizePx > 60 ? `${e.id} ${e.name}` : e.id;
    const at = {
      x: p.x + Math.min(sizePx / 2, 60) * 0.7 + 4,
      y: p.y - Math.min(sizePx / 2, 60) * 0.7,
      w: ctx.measureText(label).width,
    };
    if (at.y > view.heightPx - FOOT_PX) continue;
    if (taken.some((t) => Math.abs(t.y - at.y) < 14 && at.x < t.x + t.w + 6 && t.x < at.x + at.w + 6)) continue;
    taken.push(at);
    ctx.fillStyle = isDark ? ink.faint : ink.sage;
    ctx.fillText(label, at.x, at.y);
  }
}

/** North and east at the lower right, as the chart is turned, and a bar of a round length. */
export function drawCompass(ctx: CanvasRenderingContext2D, view: ChartView, ink: Ink): void {
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
  ctx: CanvasRenderingContext2D,
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
    if (at) ctx.fillText(o.name, at.x + 6, at.y - 6);
  }
  if (!draft || draft.length === 0) return;
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
