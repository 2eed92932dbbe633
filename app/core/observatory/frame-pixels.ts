import { FWHM_PER_SIGMA, normalCdf, normalQuantile } from "~/core/numeric";
import { ceilingE } from "~/core/exposure";

/** A star on the sensor: its place in pixels from the middle of the first one, its light in electrons of each kind of pixel. */
export interface SensorStar {
  readonly xPx: number;
  readonly yPx: number;
  /** Over the whole exposure, by kind of pixel as in `cells`. */
  readonly electrons: readonly number[];
}

/** An object as a smooth patch: an ellipse that brightens towards its middle and fades beyond its edge. */
export interface SensorPatch {
  readonly xPx: number;
  readonly yPx: number;
  readonly semiMajorPx: number;
  readonly semiMinorPx: number;
  /** Of the long axis, from +x towards +y. */
  readonly angleRad: number;
}

/** What one kind of pixel takes in over an exposure, e⁻ a pixel, in the middle of the field. */
export interface CellLight {
  readonly skyE: number;
  /** Of the object at the edge of its patch. */
  readonly patchE: number;
}

/** What falls on a sensor and what the camera makes of it. */
export interface FrameLight {
  readonly widthPx: number;
  readonly heightPx: number;
  /** One kind of pixel, or the four of a colour mosaic: red, green, green, blue by rows. */
  readonly cells: readonly CellLight[];
  readonly stars: readonly SensorStar[];
  readonly patch: SensorPatch | null;
  /** Of stars as the picture shows them, pixels. */
  readonly fwhmPx: number;
  /** How far stars wander evenly during the exposure, pixels. */
  readonly trailPx: { readonly x: number; readonly y: number };
  /** Light lost to vignetting in the corners of the whole sensor, [0, 1), and half its diagonal, px. */
  readonly cornerLoss: number;
  readonly cornerPx: number;
  readonly darkE: number;
  readonly camera: {
    readonly gainEPerAdu: number;
    readonly readNoiseE: number;
    readonly fullWellE: number;
    readonly bits: number;
    readonly offsetAdu: number;
  };
  readonly seed: number;
}

/** How much brighter a patch is in its middle than at its edge; a proposal: objects are brighter inside than where a picture of them ends. */
export const MIDDLE_OVER_EDGE = 4;
/** Where a patch has faded away, in radii of its ellipse. */
export const FADED = 1.35;

/** Brightness of a patch over that at its edge, by r²: smooth, 4 in the middle, 1 at the edge, 0 from 1.35 radii on. */
export function patchProfile(r2: number): number {
  if (r2 >= FADED ** 2) return 0;
  if (r2 <= 1) return MIDDLE_OVER_EDGE - (MIDDLE_OVER_EDGE - 1) * r2 * (2 - r2);
  const share = (Math.sqrt(r2) - 1) / (FADED - 1);
  return 1 - share * share * (3 - 2 * share);
}

const NORMALS = 8192;
let normals: Float32Array | null = null;
/** Quantiles of the normal distribution, scaled to a variance of 1: one drawn evenly is normal, cut at 3.8 σ, and costs a look-up. */
function normalTable(): Float32Array {
  if (normals) return normals;
  const plain = Float64Array.from({ length: NORMALS }, (_, i) => normalQuantile((i + 0.5) / NORMALS));
  const variance = plain.reduce((sum, z) => sum + z * z, 0) / NORMALS;
  return (normals = Float32Array.from(plain, (z) => z / Math.sqrt(variance)));
}

const FEW_E = 30; // from here on the Poisson distribution is drawn as a normal one
const PER_ELECTRON = 16; // means a table is made for: one between two is drawn from either, so that it comes out right
const DRAWS = 1024;

/** A whole number of the Poisson distribution of a mean below 30, by inversion of a number drawn from [0, 1). */
function poissonAt(mean: number, drawn: number): number {
  let p = Math.exp(-mean);
  let left = drawn - p;
  let k = 0;
  for (; left > 0 && k < 250; k++) {
    p *= mean / (k + 1);
    left -= p;
  }
  return k;
}

const tables: (Uint8Array | undefined)[] = [];
/** Whole numbers of the Poisson distribution of a mean, in sixteenths, by 1,024 even draws. */
const poissonTable = (sixteenths: number): Uint8Array =>
  (tables[sixteenths] ??= Uint8Array.from({ length: DRAWS }, (_, i) =>
    poissonAt(sixteenths / PER_ELECTRON, (i + 0.5) / DRAWS),
  ));

const PIXEL_VARIANCE = 1 / 12; // a pixel gathers over its square
const REACH_SIGMA = 5;

/** Adds a star to what the pixels take in: a Gaussian gathered over each pixel, drawn out along its trail. */
function addStar(mean: Float32Array, f: FrameLight, star: SensorStar): void {
  const { widthPx, heightPx, cells, trailPx } = f;
  // As wide as asked for once pixels have gathered it.
  const sigma = Math.sqrt(Math.max(0.04, (f.fwhmPx / FWHM_PER_SIGMA) ** 2 - PIXEL_VARIANCE));
  const reach = Math.ceil(REACH_SIGMA * sigma + 1);
  const steps = Math.max(1, Math.ceil(Math.hypot(trailPx.x, trailPx.y) / (0.7 * sigma)));
  const profile = (at: number, first: number, count: number) => {
    let below = normalCdf((first - 0.5 - at) / sigma);
    return Float32Array.from({ length: count }, (_, i) => {
      const upTo = normalCdf((first + i + 0.5 - at) / sigma);
      const share = upTo - below;
      below = upTo;
      return share;
    });
  };
  for (let s = 0; s < steps; s++) {
    const along = (s + 0.5) / steps - 0.5;
    const [x, y] = [star.xPx + along * trailPx.x, star.yPx + along * trailPx.y];
    const [x0, x1] = [Math.max(0, Math.round(x) - reach), Math.min(widthPx - 1, Math.round(x) + reach)];
    const [y0, y1] = [Math.max(0, Math.round(y) - reach), Math.min(heightPx - 1, Math.round(y) + reach)];
    if (x1 < x0 || y1 < y0) continue;
    const across = profile(x, x0, x1 - x0 + 1);
    const down = profile(y, y0, y1 - y0 + 1);
    for (let py = y0; py <= y1; py++)
      for (let px = x0; px <= x1; px++) {
        mean[py * widthPx + px]! +=
          (star.electrons[cellAt(cells, px, py)]! * across[px - x0]! * down[py - y0]!) / steps;
      }
  }
}

/** Adds an object's light over the box that holds it. */
function addPatch(mean: Float32Array, f: FrameLight, patch: SensorPatch): void {
  const { widthPx, heightPx, cells } = f;
  const [cos, sin] = [Math.cos(patch.angleRad), Math.sin(patch.angleRad)];
  const reach = FADED * Math.max(patch.semiMajorPx, patch.semiMinorPx);
  const [x0, x1] = [Math.max(0, Math.floor(patch.xPx - reach)), Math.min(widthPx - 1, Math.ceil(patch.xPx + reach))];
  const [y0, y1] = [Math.max(0, Math.floor(patch.yPx - reach)), Math.min(heightPx - 1, Math.ceil(patch.yPx + reach))];
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const dx = x - patch.xPx;
      const dy = y - patch.yPx;
      const u = (dx * cos + dy * sin) / patch.semiMajorPx;
      const v = (dy * cos - dx * sin) / patch.semiMinorPx;
      mean[y * widthPx + x]! += cells[cellAt(cells, x, y)]!.patchE * patchProfile(u * u + v * v);
    }
}

/** Which kind of pixel lies where. */
const cellAt = (cells: readonly unknown[], x: number, y: number): number =>
  cells.length === 4 ? 2 * (y & 1) + (x & 1) : 0;

/** Electrons that every pixel takes in on average: light, vignetted, and dark current. */
function meanElectrons(f: FrameLight): Float32Array {
  const { widthPx, heightPx, cells, patch, darkE } = f;
  const mean = new Float32Array(widthPx * heightPx);
  for (const star of f.stars) addStar(mean, f, star);
  if (patch && cells.some((c) => c.patchE > 0)) addPatch(mean, f, patch);
  const loss = f.cornerLoss / f.cornerPx ** 2;
  const midX = (widthPx - 1) / 2;
  for (let y = 0, i = 0; y < heightPx; y++) {
    const [even, odd] = [cells[cellAt(cells, 0, y)]!.skyE, cells[cellAt(cells, 1, y)]!.skyE];
    const dy = y - (heightPx - 1) / 2;
    const down = dy * dy;
    for (let x = 0; x < widthPx; x++, i++) {
      const dx = x - midX;
      mean[i] = (mean[i]! + (x & 1 ? odd : even)) * (1 - loss * (dx * dx + down)) + darkE;
    }
  }
  return mean;
}

/**
 * Counts of one exposure, row by row: electrons by the Poisson distribution, dark current, reading noise, gain, offset, and what clips.
 * Left out: cosmic rays, hot pixels, blooming, wings of stars, gradients within the field. The same seed, the same frame.
 */
export function frameCounts(f: FrameLight): Uint16Array {
  const mean = meanElectrons(f);
  const { camera } = f;
  const table = normalTable();
  const ceiling = ceilingE(camera);
  const mostAdu = Math.min(65_535, 2 ** camera.bits - 1);
  const perE = 1 / camera.gainEPerAdu;
  const { readNoiseE, offsetAdu } = camera;
  const readVariance = readNoiseE * readNoiseE;
  const counts = new Uint16Array(mean.length);
  // Numbers are drawn in the loop itself, a shift register of 32 bits (Marsaglia 2003, J. Stat. Softw. 8, 14): a call for each would cost more than the rest.
  let state = Math.imul(f.seed | 1, 0x9e3779b1) | 1;
  for (let i = 0; i < mean.length; i++) {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    const e = mean[i]!;
    const z = table[state & (NORMALS - 1)]!;
    let electrons: number;
    if (e < FEW_E) {
      const at = (state >>> 13) & (DRAWS - 1);
      state ^= state << 13;
      state ^= state >>> 17;
      state ^= state << 5;
      const even = (state >>> 0) / 4294967296;
      const sixteenths = (e * PER_ELECTRON + even) | 0;
      // The tail is drawn exactly.
      electrons =
        (at === DRAWS - 1 ? poissonAt(sixteenths / PER_ELECTRON, (at + even) / DRAWS) : poissonTable(sixteenths)[at]!) +
        z * readNoiseE;
    } else electrons = e + z * Math.sqrt(e + readVariance);
    const adu = (offsetAdu + (electrons < ceiling ? electrons : ceiling) * perE + 0.5) | 0;
    counts[i] = adu < 0 ? 0 : adu > mostAdu ? mostAdu : adu;
  }
  return counts;
}
