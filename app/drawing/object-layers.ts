import { drawnBrightness, isNebula, lightOf, type CatalogEntry } from "~/core/catalog";
import { toScreen, type ChartView } from "~/core/framing";
import { offsetBy, unitVector, type Vec3 } from "~/core/sky";
import { FOOT_PX, icrs, trace, type Ink, type Pen } from "./pen";

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
export function drawPatches(ctx: Pen, view: ChartView, objects: readonly CatalogEntry[], ink: Ink): void {
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
  ctx: Pen,
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
