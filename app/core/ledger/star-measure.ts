import { median, FWHM_PER_SIGMA, SIGMA_PER_MAD } from "~/core/numeric";
import type { SubMeasure } from "./contribution";
import { peaksOf, skyOf, type Peak, type PixelTile, type Sky } from "./star-peaks";

/** Stars and sky of a sample of an image. */
export interface StarSample {
  /** Medians over the windows; null without enough stars. */
  readonly fwhmPx: number | null;
  readonly eccentricity: number | null;
  /** Eccentricity of what all windows share of their shapes: as much as `eccentricity` where all stars are drawn out the same way. */
  readonly shared: number | null;
  readonly stars: number;
  /** Light of the stars from the 8th to the 24th brightest, mean, in counts; null with fewer. */
  readonly light: number | null;
  /** Median of the sky, and its noise. */
  readonly background: number;
  readonly noise: number;
}

const MOST_STARS = 200; // of a window, the brightest: of fewer in a crowded one most would be blends
const LEAST_STARS = 8; // fewer give no measure
const LEAST_OF_WINDOW = 5; // fewer have no shape of their own, and are taken together

const ROUNDS = 25;
const SETTLED = 1e-3;

/**
 * Second moments of a star in a Gaussian window that is matched to it, px²: adaptive moments, Bernstein & Jarvis 2002, AJ 123, 583,
 * § 3. Of a Gaussian star they are its own; null where they do not settle.
 */
function momentsOf({ width, height, values }: PixelTile, level: number, x0: number, y0: number) {
  let [cx, cy, xx, yy, xy] = [x0, y0, 2.5, 2.5, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const det = xx * yy - xy * xy;
    if (!(det > 0.02) || xx > 250 || yy > 250) return null;
    const reach = Math.min(40, Math.ceil(3.2 * Math.sqrt(Math.max(xx, yy))));
    const [left, right, top, bottom] = [
      Math.round(cx) - reach,
      Math.round(cx) + reach,
      Math.round(cy) - reach,
      Math.round(cy) + reach,
    ];
    if (left < 0 || top < 0 || right >= width || bottom >= height) return null;
    let [sum, sx, sy, sxx, syy, sxy] = [0, 0, 0, 0, 0, 0];
    for (let y = top; y <= bottom; y++)
      for (let x = left; x <= right; x++) {
        const v = values[y * width + x]! - level;
        if (Number.isNaN(v)) continue;
        const dx = x - cx;
        const dy = y - cy;
        const w = v * Math.exp(-0.5 * ((dx * dx * yy - 2 * dx * dy * xy + dy * dy * xx) / det));
        sum += w;
        sx += w * dx;
        sy += w * dy;
        sxx += w * dx * dx;
        syy += w * dy * dy;
        sxy += w * dx * dy;
      }
    if (!(sum > 0)) return null;
    const [mx, my] = [sx / sum, sy / sum];
    // A matched window halves the covariance of a Gaussian.
    const next = [2 * (sxx / sum - mx * mx), 2 * (syy / sum - my * my), 2 * (sxy / sum - mx * my)] as const;
    const change = Math.abs(next[0] - xx) + Math.abs(next[1] - yy) + Math.abs(next[2] - xy);
    [cx, cy] = [cx + 2 * mx, cy + 2 * my];
    if (Math.hypot(cx - x0, cy - y0) > 4) return null; // it ran to another star
    [xx, yy, xy] = next;
    if (change < SETTLED * (xx + yy)) return { xx, yy, xy };
  }
  return null;
}

/** Second moments of stars, px². */
interface Outline {
  readonly xx: number;
  readonly yy: number;
  readonly xy: number;
}

/** That of one star. */
interface Shape extends Outline {
  /** Of the peak over the noise of the sky. */
  readonly snr: number;
}

/** The long and the short axis of an outline, as variances, px². */
function axesOf({ xx, yy, xy }: Outline): readonly [long: number, short: number] {
  const [mean, off] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)];
  return [mean + off, mean - off];
}

const ODD = 2.5; // robust standard deviations: blends, galaxies
const OWN_SPREAD = 0.05; // of moments of stars without noise

/** The mean outline of stars: moments first, shapes of them afterwards, since shapes of single faint stars are long by noise alone. */
function meanShape(all: readonly Shape[]): Outline {
  const sizes = all.map((m) => m.xx + m.yy);
  const middle = median(sizes);
  const spread = SIGMA_PER_MAD * median(sizes.map((s) => Math.abs(s - middle)));
  const kept = all.filter((_, i) => Math.abs(sizes[i]! - middle) <= ODD * spread + OWN_SPREAD * middle);
  let [sum, xx, yy, xy] = [0, 0, 0, 0];
  for (const m of kept) {
    const weight = 1 / (OWN_SPREAD ** 2 + 1 / m.snr ** 2);
    sum += weight;
    xx += weight * m.xx;
    yy += weight * m.yy;
    xy += weight * m.xy;
  }
  return { xx: xx / sum, yy: yy / sum, xy: xy / sum };
}

/** Eccentricity of an outline whose axes differ by a share of their sum: |e| = (long − short)/(long + short), of variances. */
const eccentricityOf = (e: number): number => Math.sqrt(1 - (1 - e) / (1 + e));

const LEAST_TOP = 20; // times the noise: lower tops are no stars that burn out

/**
 * Where pixels of a window stop growing: two beside each other that both have its very highest value, in two places or more, well above
 * the sky. Infinity where nothing is cut off.
 */
function cutOffAt({ width, values }: PixelTile, { level, noise }: Sky): number {
  let top = -Infinity;
  for (const v of values) if (v > top) top = v;
  if (!(top - level > LEAST_TOP * noise)) return Infinity;
  let plateaus = 0;
  for (let i = 0; i + width < values.length; i++)
    if (values[i] === top && (values[i + 1] === top || values[i + width] === top)) plateaus++;
  return plateaus >= 2 ? top : Infinity;
}

/** Counts of a star within a circle, over the sky. */
function lightOf({ width, height, values }: PixelTile, level: number, x0: number, y0: number, radius: number): number {
  const reach = Math.ceil(radius);
  let sum = 0;
  for (let y = Math.max(0, y0 - reach); y <= Math.min(height - 1, y0 + reach); y++)
    for (let x = Math.max(0, x0 - reach); x <= Math.min(width - 1, x0 + reach); x++) {
      const v = values[y * width + x]!;
      if (v >= -Infinity && Math.hypot(x - x0, y - y0) <= radius) sum += v - level; // NaN is not
    }
  return sum;
}

/** Ranks of the stars whose light is told: below the few that may be burnt out, above those that cloud hides. */
const [FIRST_RANK, LAST_RANK] = [8, 24];
const RADIUS = 1.5; // FWHM: holds nearly all of a star's light, at any seeing

/** A window with its sky and its stars. */
interface Window {
  readonly tile: PixelTile;
  readonly sky: Sky;
  readonly peaks: readonly Peak[];
}

/** Mean light of the stars of some ranks, over all windows. */
function lightOfRanks(windows: readonly Window[], fwhmPx: number): number | null {
  const radius = Math.max(3, RADIUS * fwhmPx);
  const light = windows
    .flatMap(({ tile, sky, peaks }) => peaks.slice(0, LAST_RANK).map((p) => lightOf(tile, sky.level, p.x, p.y, radius)))
    .sort((a, b) => b - a)
    .slice(FIRST_RANK - 1, LAST_RANK);
  return light.length <= LAST_RANK - FIRST_RANK ? null : light.reduce((sum, v) => sum + v, 0) / light.length;
}

/** Outlines of a window's stars: neither burnt out nor crowded, at least a pixel wide. */
function shapesOf({ tile, sky, peaks }: Window, burntOutAt: number): Shape[] {
  return peaks
    .filter((p) => p.top < burntOutAt)
    .slice(0, MOST_STARS)
    .flatMap(({ x, y, top }) => {
      const crowded = peaks.some(
        (p) => (p.x !== x || p.y !== y) && Math.hypot(p.x - x, p.y - y) < 8 && p.top > top / 4,
      );
      const m = crowded ? null : momentsOf(tile, sky.level, x, y);
      if (!m || !(axesOf(m)[1] > 0.1)) return []; // narrower than a pixel in one axis: no star
      return { ...m, snr: Math.max(1, (top - sky.level) / sky.noise) };
    });
}

const BURNT_SHARE = 0.92; // of where pixels stop growing: brighter stars have lost their tops

/**
 * Measures stars and sky on windows of a calibrated or raw image; `mostAt` = the highest value its pixels can hold, where that is
 * known. Second moments of Gaussians matched to the stars are averaged over a window first, then made width and shape (MATHS 10.5);
 * the pixel's own width is included (√(σ² + 1/12)), and wide wings read wider, by 9 % at Moffat's β of 4 and 16 % at 2.5. Stars that
 * are burnt out, crowded or odd are left out. Counts are of the windows, so they compare subs of one rig alone. Null without pixels.
 */
export function measureStars(tiles: readonly PixelTile[], mostAt = Infinity): StarSample | null {
  const windows: Window[] = tiles.flatMap((tile) => {
    const sky = skyOf(tile);
    return sky ? { tile, sky, peaks: peaksOf(tile, sky) } : [];
  });
  if (windows.length === 0) return null;
  const burntOutAt = BURNT_SHARE * Math.min(mostAt, ...windows.map((w) => cutOffAt(w.tile, w.sky)));
  const shapes = windows.map((w) => shapesOf(w, burntOutAt));
  const few = shapes.filter((s) => s.length < LEAST_OF_WINDOW).flat();
  const groups = [...shapes, few].filter((s) => s.length >= LEAST_OF_WINDOW).map(meanShape);
  const isEnough = groups.length > 0 && shapes.flat().length >= LEAST_STARS;
  const axes = groups.map(axesOf);
  const fwhmPx = isEnough ? median(axes.map(([long, short]) => FWHM_PER_SIGMA * (long * short) ** 0.25)) : null;
  const mean = (of: (m: Outline) => number) => groups.reduce((sum, m) => sum + of(m), 0) / groups.length;
  const along = mean((m) => (m.xx - m.yy) / (m.xx + m.yy));
  const across = mean((m) => (2 * m.xy) / (m.xx + m.yy));
  return {
    fwhmPx,
    eccentricity: isEnough ? median(axes.map(([long, short]) => Math.sqrt(1 - short / long))) : null,
    shared: isEnough ? eccentricityOf(Math.hypot(along, across)) : null,
    stars: windows.reduce((sum, w) => sum + w.peaks.length, 0),
    light: fwhmPx === null ? null : lightOfRanks(windows, fwhmPx),
    background: median(windows.map((w) => w.sky.level)),
    noise: median(windows.map((w) => w.sky.noise)),
  };
}

/** A sample as a sub's measure; null without enough stars. */
export const subMeasureOf = ({
  fwhmPx,
  eccentricity,
  shared,
  stars,
  light,
  background,
}: StarSample): SubMeasure | null =>
  fwhmPx === null
    ? null
    : {
        fwhmPx,
        eccentricity,
        stars,
        background,
        ...(light !== null && light > 0 ? { light } : {}),
        ...(shared === null ? {} : { shared }),
        from: "picture",
      };
