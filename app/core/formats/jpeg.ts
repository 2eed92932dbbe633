import type { PixelSize, ReadAt } from "./tiff";

const [START, SCAN, APP1] = [0xd8, 0xda, 0xe1];
/** Frames of any kind (ITU-T T.81, table B.1): 0xC0 to 0xCF without tables of codes and what is reserved. */
const isFrame = (marker: number) => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);
const MOST_SEGMENTS = 256;
const EXIF = "Exif\0\0";

/** What is wanted of a JPEG: where its EXIF lies, and its size. */
export interface JpegParts {
  /** First byte and length of the TIFF in its EXIF segment; null = it has none. */
  readonly exif: { readonly offset: number; readonly length: number } | null;
  readonly size: PixelSize | null;
}

/** Walks through the segments of a JPEG up to its first scan; null where the file is none. */
export async function jpegParts(read: ReadAt): Promise<JpegParts | null> {
  const start = await read(0, 2);
  if (start[0] !== 0xff || start[1] !== START) return null;
  let exif: JpegParts["exif"] = null;
  let size: PixelSize | null = null;
  for (let [at, i] = [2, 0]; i < MOST_SEGMENTS; i++) {
    const [mark, marker = SCAN, high = 0, low = 0, ...inside] = await read(at, 4 + EXIF.length);
    const length = high * 256 + low;
    if (mark !== 0xff || marker === SCAN || length < 2) break;
    if (marker === APP1 && !exif && String.fromCharCode(...inside) === EXIF)
      exif = { offset: at + 4 + EXIF.length, length: length - 2 - EXIF.length };
    const [, h1 = 0, h2 = 0, w1 = 0, w2 = 0] = inside;
    if (isFrame(marker)) size ??= { widthPx: w1 * 256 + w2, heightPx: h1 * 256 + h2 };
    at += 2 + length;
  }
  return { exif, size };
}
