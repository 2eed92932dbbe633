import { SIGMA_PER_MAD } from "~/core/numeric";

/** A window of an image, row by row; NaN where a pixel is blank. */
export interface PixelTile {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/** The level of a sky and its noise, counts. */
export interface Sky {
  readonly level: number;
  readonly noise: number;
}

const CLIP = 3;
const DETECT = 6; // σ over the sky: fewer than one false peak in a sample
const MOST_SAMPLE = 2000; // knows the sky to a thirtieth of its noise

/** Median and noise of the sky of a window: clipped at 3 σ until it stands, by a sample of its pixels. */
export function skyOf({ values }: PixelTile): Sky | null {
  const step = Math.max(1, Math.floor(values.length / MOST_SAMPLE));
  const picked = Float32Array.from({ length: Math.ceil(values.length / step) }, (_, i) => values[i * step]!);
  let sample = picked.filter((v) => !Number.isNaN(v)).sort();
  if (sample.length < 100) return null;
  for (let round = 0; ; round++) {
    const level = sample[sample.length >> 1]!;
    const off = sample.map((v) => Math.abs(v - level)).sort();
    const noise = SIGMA_PER_MAD * off[off.length >> 1]!;
    const kept = sample.filter((v) => Math.abs(v - level) <= CLIP * noise);
    if (round === 2 || kept.length === sample.length || noise === 0) return { level, noise: noise || Number.MIN_VALUE };
    sample = kept;
  }
}

/** A pixel that stands out of the sky as the top of a star. */
export interface Peak {
  readonly x: number;
  readonly y: number;
  /** Of the pixel itself. */
  readonly top: number;
}

/** A window with every pixel the mean of its nine, so that noise makes fewer peaks; blank ones as the sky. */
function smoothed({ width, height, values }: PixelTile, level: number): Float32Array {
  const across = new Float32Array(values.length);
  const out = new Float32Array(values.length).fill(level);
  let before = level;
  let here = values[0]! >= -Infinity ? values[0]! : level; // NaN is not
  for (let i = 0; i < values.length - 1; i++) {
    const next = values[i + 1]!;
    const after = next >= -Infinity ? next : level;
    across[i] = before + here + after;
    before = here;
    here = after;
  }
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      out[i] = (across[i - width]! + across[i]! + across[i + width]!) / 9;
    }
  return out;
}

const LEAST_SPREAD = 0.12; // of the brightest pixel, the mean of its eight neighbours: stars of σ 0.6 px have a fifth

/** Whether the light about a peak lies on more than one pixel, which that of a hot pixel does not. */
function isSpread({ width, values }: PixelTile, level: number, x: number, y: number): boolean {
  let brightest = y * width + x;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      const i = (y + dy) * width + x + dx;
      if (values[i]! > values[brightest]!) brightest = i;
    }
  let sum = 0;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++)
      if (dx !== 0 || dy !== 0) sum += (values[brightest + dy * width + dx] ?? level) - level;
  return sum / 8 > LEAST_SPREAD * (values[brightest]! - level);
}

const WING_PX = 20; // from a brighter star, as far as a wing may make peaks
const DIP = 0.8; // of its own height: between two stars it is darker than that

/** Peaks of a window that are stars: more than a hot pixel, and no bump on the wing of a brighter one. Brightest first. */
export function peaksOf(tile: PixelTile, { level, noise }: Sky): Peak[] {
  const { width, height, values } = tile;
  const soft = smoothed(tile, level);
  const least = level + (DETECT * noise) / 3; // the mean of nine is three times quieter
  const found: (Peak & { readonly soft: number })[] = [];
  const edge = 6;
  for (let y = edge; y < height - edge; y++)
    for (let x = edge; x < width - edge; x++) {
      const at = y * width + x;
      const here = soft[at]!;
      if (!(here > least)) continue;
      let isPeak = true;
      for (let dy = -1; dy <= 1 && isPeak; dy++)
        for (let dx = -1; dx <= 1; dx++) {
          if (dx === 0 && dy === 0) continue;
          const beside = soft[at + dy * width + dx]!;
          // Of two equal neighbours the first is the peak.
          if (beside > here || (beside === here && (dy < 0 || (dy === 0 && dx < 0)))) isPeak = false;
        }
      if (isPeak && isSpread(tile, level, x, y)) found.push({ x, y, top: values[at]!, soft: here });
    }
  found.sort((a, b) => b.soft - a.soft);
  const stars: (Peak & { readonly soft: number })[] = [];
  const cells = new Map<string, (typeof stars)[number][]>();
  const cellOf = (x: number, y: number) => `${Math.floor(x / WING_PX)} ${Math.floor(y / WING_PX)}`;
  for (const peak of found) {
    const near = [-1, 0, 1].flatMap((i) =>
      [-1, 0, 1].flatMap((k) => cells.get(cellOf(peak.x + i * WING_PX, peak.y + k * WING_PX)) ?? []),
    );
    if (near.some((bright) => isOnWing(soft, width, peak, bright, level))) continue;
    stars.push(peak);
    const key = cellOf(peak.x, peak.y);
    cells.set(key, [...(cells.get(key) ?? []), peak]);
  }
  return stars;
}

/** Whether it does not grow darker between a peak and a brighter one. */
function isOnWing(
  soft: Float32Array,
  width: number,
  peak: Peak & { readonly soft: number },
  bright: Peak,
  level: number,
): boolean {
  const [dx, dy] = [bright.x - peak.x, bright.y - peak.y];
  const steps = Math.ceil(Math.hypot(dx, dy));
  if (steps > WING_PX) return false;
  let darkest = Infinity;
  for (let i = 0; i <= steps; i++) {
    const at = Math.round(peak.y + (dy * i) / steps) * width + Math.round(peak.x + (dx * i) / steps);
    darkest = Math.min(darkest, soft[at]!);
  }
  return darkest - level > DIP * (peak.soft - level);
}
