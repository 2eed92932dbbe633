import { SIGMA_PER_MAD } from "~/core/numeric";
import type { PixelTile } from "~/core/ledger";
import type { FitsHeader } from "./fits-header";

/** How an image is read smaller: one row in `bin`, its pixels averaged over `bin`. */
export interface PixelPlan {
  readonly bin: number;
  readonly width: number;
  readonly height: number;
  readonly bytesPerRow: number;
  /** Byte at which the row of an output line begins; line 0 is the top, the last row of the file. */
  readonly offsetOf: (line: number) => number;
}

const BYTES: Readonly<Record<number, number>> = { 8: 1, 16: 2, 32: 4, "-32": 4, "-64": 8 };

/** No camera is that wide; a row is read whole. */
const MOST_AXIS = 200_000;

/** Plans reading an image no larger than `mostPx` a side; null for a pixel type that does not exist or without pixels. Of a cube, the first plane. */
export function pixelPlan(header: FitsHeader, mostPx: number): PixelPlan | null {
  const [nx, ny] = header.axes;
  const bytes = BYTES[Number(header.values.get("BITPIX"))];
  if (!nx || !ny || !bytes || header.dataOffset === 0 || Math.max(nx, ny) > MOST_AXIS) return null;
  const bin = Math.max(1, Math.ceil(Math.max(nx, ny) / mostPx));
  const [width, height] = [Math.floor(nx / bin), Math.floor(ny / bin)];
  if (width === 0 || height === 0) return null;
  return {
    bin,
    width,
    height,
    bytesPerRow: nx * bytes,
    offsetOf: (line) => header.dataOffset + ((height - 1 - line) * bin + (bin >> 1)) * nx * bytes,
  };
}

/** Reads the pixels of a header's image from its bytes (big-endian, BSCALE and BZERO applied); blank ones are NaN. */
function pixelReader(bytes: ArrayBuffer, header: FitsHeader): (pixel: number) => number {
  const view = new DataView(bytes);
  const type = Number(header.values.get("BITPIX"));
  const number = (name: string, otherwise: number) => {
    const v = header.values.get(name);
    return typeof v === "number" ? v : otherwise;
  };
  const [scale, zero, blank] = [number("BSCALE", 1), number("BZERO", 0), header.values.get("BLANK")];
  const whole = (raw: number) => (raw === blank ? Number.NaN : zero + scale * raw);
  switch (type) {
    case 8:
      return (i) => whole(view.getUint8(i));
    case 16:
      return (i) => whole(view.getInt16(2 * i));
    case 32:
      return (i) => whole(view.getInt32(4 * i));
    case -32:
      return (i) => zero + scale * view.getFloat32(4 * i);
    default:
      return (i) => zero + scale * view.getFloat64(8 * i);
  }
}

/** One output line from the bytes of its row; pixels are averaged, blank ones left out. */
export function decodeRow(bytes: ArrayBuffer, header: FitsHeader, plan: PixelPlan): Float32Array {
  const read = pixelReader(bytes, header);
  const out = new Float32Array(plan.width);
  for (let x = 0; x < plan.width; x++) {
    let [sum, count] = [0, 0];
    for (let k = 0; k < plan.bin; k++) {
      const value = read(x * plan.bin + k);
      if (Number.isNaN(value)) continue;
      sum += value;
      count++;
    }
    out[x] = count === 0 ? Number.NaN : sum / count;
  }
  return out;
}

/** Rows of a file that are read in one go, and the windows cut from them. */
export interface PixelBand {
  readonly offset: number;
  readonly length: number;
  readonly rows: number;
  /** First column of each window. */
  readonly columns: readonly number[];
}

/** Which parts of an image stand for all of it. */
export interface SamplePlan {
  readonly bands: readonly PixelBand[];
  /** Of a window, pixels of the file. */
  readonly widthPx: number;
  readonly heightPx: number;
  /** Pixels of the file a side that make one of the sample: 2 under a colour mosaic, whose four colours are one point of light. */
  readonly bin: number;
  readonly rowPx: number;
}

const WINDOW_PX = 160; // of the sample, a side

/** Nine windows over an image, three by three, or all of it where it is small; null as for `pixelPlan`. */
export function samplePlan(header: FitsHeader): SamplePlan | null {
  const [nx, ny] = header.axes;
  const bytes = BYTES[Number(header.values.get("BITPIX"))];
  if (!nx || !ny || !bytes || header.dataOffset === 0 || Math.max(nx, ny) > MOST_AXIS) return null;
  const isMosaic = typeof header.values.get("BAYERPAT") === "string";
  const bin = isMosaic ? 2 : 1;
  const even = (v: number) => v - (v % bin);
  const fit = (side: number) =>
    side <= 3 * WINDOW_PX * bin
      ? { size: even(side), starts: [0] }
      : {
          size: WINDOW_PX * bin,
          starts: [1, 3, 5].map((k) => even(Math.round((side * k) / 6 - (WINDOW_PX * bin) / 2))),
        };
  const [across, down] = [fit(nx), fit(ny)];
  if (across.size === 0 || down.size === 0) return null;
  return {
    widthPx: across.size,
    heightPx: down.size,
    bin,
    rowPx: nx,
    bands: down.starts.map((row) => ({
      offset: header.dataOffset + row * nx * bytes,
      length: down.size * nx * bytes,
      rows: down.size,
      columns: across.starts,
    })),
  };
}

/** The windows of a band. */
export function decodeBand(bytes: ArrayBuffer, header: FitsHeader, plan: SamplePlan, band: PixelBand): PixelTile[] {
  const read = pixelReader(bytes, header);
  const { bin, rowPx } = plan;
  const [width, height] = [plan.widthPx / bin, band.rows / bin];
  return band.columns.map((column) => {
    const values = new Float32Array(width * height);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        if (bin === 1) {
          values[y * width + x] = read(y * rowPx + column + x);
          continue;
        }
        let sum = 0;
        for (let k = 0; k < bin; k++)
          for (let j = 0; j < bin; j++) sum += read((y * bin + k) * rowPx + column + x * bin + j);
        values[y * width + x] = sum / (bin * bin);
      }
    return { width, height, values };
  });
}

const FAINT = 0.12; // where the sky's middle is put: dark, with its structure to be seen

/**
 * Stretches pixels to 0–255 so that faint light shows: black 2.5 σ under the sky, an arcsinh whose knee puts the sky's median at
 * an eighth, white at the 99.8th percentile. σ from the median deviation. An even image becomes mid-dark; NaN is 0.
 */
export function stretchPixels(values: Float32Array): Uint8ClampedArray {
  const sample = Float32Array.from(
    { length: Math.min(values.length, 40_000) },
    (_, i, step = values.length / Math.min(values.length, 40_000)) => values[Math.floor(i * step)]!,
  )
    .filter((v) => Number.isFinite(v))
    .sort();
  const out = new Uint8ClampedArray(values.length);
  if (sample.length === 0) return out;
  const at = (share: number) => sample[Math.min(sample.length - 1, Math.floor(share * sample.length))]!;
  const median = at(0.5);
  const deviations = sample.map((v) => Math.abs(v - median)).sort();
  const sigma = Math.max(SIGMA_PER_MAD * deviations[deviations.length >> 1]!, 1e-6 * Math.max(1, Math.abs(median)));
  const black = median - 2.5 * sigma;
  const white = Math.max(at(0.998), median + 5 * sigma);
  const sky = (median - black) / (white - black);
  // asinh(k·sky)/asinh(k) = FAINT has one k > 0 when the sky is darker than that already; found by halving.
  let [low, high] = [1e-3, 1e6];
  for (let i = 0; i < 60 && sky < FAINT; i++) {
    const k = Math.sqrt(low * high);
    if (Math.asinh(k * sky) / Math.asinh(k) < FAINT) low = k;
    else high = k;
  }
  const knee = sky < FAINT ? Math.sqrt(low * high) : 1e-3;
  const top = Math.asinh(knee);
  values.forEach(
    (v, i) =>
      (out[i] = Number.isFinite(v) ? (255 * Math.asinh(knee * Math.max(0, (v - black) / (white - black)))) / top : 0),
  );
  return out;
}
