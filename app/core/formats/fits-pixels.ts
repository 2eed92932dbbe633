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

/** One output line from the bytes of its row (big-endian, BSCALE and BZERO applied); blank pixels become NaN. */
export function decodeRow(bytes: ArrayBuffer, header: FitsHeader, plan: PixelPlan): Float32Array {
  const view = new DataView(bytes);
  const type = Number(header.values.get("BITPIX"));
  const size = BYTES[type]!;
  const number = (name: string, otherwise: number) => {
    const v = header.values.get(name);
    return typeof v === "number" ? v : otherwise;
  };
  const [scale, zero, blank] = [number("BSCALE", 1), number("BZERO", 0), header.values.get("BLANK")];
  const read = (i: number): number => {
    const at = i * size;
    switch (type) {
      case 8:
        return view.getUint8(at);
      case 16:
        return view.getInt16(at);
      case 32:
        return view.getInt32(at);
      case -32:
        return view.getFloat32(at);
      default:
        return view.getFloat64(at);
    }
  };
  const out = new Float32Array(plan.width);
  for (let x = 0; x < plan.width; x++) {
    let [sum, count] = [0, 0];
    for (let k = 0; k < plan.bin; k++) {
      const raw = read(x * plan.bin + k);
      if (Number.isNaN(raw) || (type > 0 && raw === blank)) continue;
      sum += raw;
      count++;
    }
    out[x] = count === 0 ? Number.NaN : zero + (scale * sum) / count;
  }
  return out;
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
  const sigma = Math.max(1.4826 * deviations[deviations.length >> 1]!, 1e-6 * Math.max(1, Math.abs(median)));
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
