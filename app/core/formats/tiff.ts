/** Bytes of a file from an offset on; fewer where it ends. */
export type ReadAt = (offset: number, length: number) => Promise<Uint8Array<ArrayBuffer>>;

/** An image's size in pixels. */
export interface PixelSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What is wanted of a file built like TIFF: a small one with its texts and numbers, and how large the images in it are. */
export interface SlimTiff {
  readonly bytes: ArrayBuffer;
  readonly sizes: readonly PixelSize[];
}

const TIFF_MAGIC = 42;
const WIDE_MAGIC = 0x55; // of a maker that tells the part of the sensor that is used by its borders
/** What two makers write in its place, and are built like TIFF in all else. */
const MAGICS: readonly number[] = [TIFF_MAGIC, 0x4f52, 0x5352, WIDE_MAGIC];

// Files of cameras stay far below; what goes beyond is read as far as this, whatever a file claims.
const MOST_ENTRIES = 512;
const MOST_DIRECTORIES = 32;
const MOST_VALUE_BYTES = 256;

const [WIDTH, HEIGHT, SUB_DIRECTORIES, CROP_SIZE] = [0x0100, 0x0101, 0x014a, 0xc620];
const [EXIF, GPS, PIXEL_WIDTH, PIXEL_HEIGHT] = [0x8769, 0x8825, 0xa002, 0xa003];
const [TOP, LEFT, BOTTOM, RIGHT] = [4, 5, 6, 7];

/** Bytes of a value of each type (TIFF 6.0, section 2; 13 is a pointer to a directory). */
const TYPE_BYTES: Readonly<Record<number, number>> = { 1: 1, 2: 1, 3: 2, 4: 4, 5: 8, 6: 1, 7: 1, 8: 2, 9: 4, 10: 8, 11: 4, 12: 8, 13: 4 }; // prettier-ignore

interface Entry {
  readonly tag: number;
  readonly type: number;
  readonly count: number;
  /** Its value, wherever it stood; null = too long to be wanted. */
  readonly value: DataView | null;
}

type Directory = ReadonlyMap<number, Entry>;

const viewOf = (bytes: Uint8Array<ArrayBuffer>) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

/** The whole numbers of an entry; of fractions what they come to. */
function numbersOf(entry: Entry | undefined, isLittle: boolean): readonly number[] {
  const { type, value } = entry ?? { type: 0, value: null };
  const size = TYPE_BYTES[type];
  if (!value || !size || ![3, 4, 5, 13].includes(type)) return [];
  return Array.from({ length: Math.floor(value.byteLength / size) }, (_, i) => {
    if (type === 3) return value.getUint16(2 * i, isLittle);
    if (type === 4 || type === 13) return value.getUint32(4 * i, isLittle);
    return value.getUint32(8 * i, isLittle) / value.getUint32(8 * i + 4, isLittle);
  });
}

function sizeOf(width: number | undefined, height: number | undefined): PixelSize | null {
  const isSize = (n: number | undefined): n is number => n !== undefined && Number.isFinite(n) && n > 0;
  return isSize(width) && isSize(height) ? { widthPx: Math.round(width), heightPx: Math.round(height) } : null;
}

/**
 * Reads a file built like TIFF (TIFF 6.0; the raw files of most cameras are) where its directories say, a few kilobytes whatever its
 * length: exposure, place and camera as a small TIFF of their own, and the size of every image, in directories that follow one another
 * or hang from one. Of an image with a crop of its maker's (DNG 1.7, DefaultCropSize) that is its size. Null = not built like TIFF.
 */
export async function slimTiff(read: ReadAt): Promise<SlimTiff | null> {
  const head = viewOf(await read(0, 8));
  if (head.byteLength < 8) return null;
  const isLittle = head.getUint16(0) === 0x4949;
  const magic = head.getUint16(2, isLittle);
  if ((!isLittle && head.getUint16(0) !== 0x4d4d) || !MAGICS.includes(magic)) return null;
  const seen = new Set<number>();

  const directoryAt = async (
    offset: number,
  ): Promise<{ readonly entries: Directory; readonly next: number } | null> => {
    if (offset < 8 || seen.has(offset) || seen.size >= MOST_DIRECTORIES) return null;
    seen.add(offset);
    const start = viewOf(await read(offset, 2));
    if (start.byteLength < 2) return null;
    const count = start.getUint16(0, isLittle);
    const rows = viewOf(await read(offset + 2, 12 * Math.min(count, MOST_ENTRIES)));
    const entries = new Map<number, Entry>();
    for (let at = 0; at + 12 <= rows.byteLength; at += 12) {
      const [tag, type, n] = [
        rows.getUint16(at, isLittle),
        rows.getUint16(at + 2, isLittle),
        rows.getUint32(at + 4, isLittle),
      ];
      const length = n * (TYPE_BYTES[type] ?? Infinity);
      const place = rows.byteOffset + at + 8;
      const value =
        length <= 4
          ? new DataView(rows.buffer, place, length)
          : length <= MOST_VALUE_BYTES
            ? viewOf(await read(rows.getUint32(at + 8, isLittle), length))
            : null;
      entries.set(tag, { tag, type, count: n, value: value && value.byteLength === length ? value : null });
    }
    const after = viewOf(await read(offset + 2 + 12 * count, 4));
    return { entries, next: after.byteLength === 4 ? after.getUint32(0, isLittle) : 0 };
  };
  const numbers = (entries: Directory, tag: number) => numbersOf(entries.get(tag), isLittle);

  const sizes: PixelSize[] = [];
  const addSize = (size: PixelSize | null) => void (size && sizes.push(size));
  let main: Directory | null = null;
  let exif: Directory | null = null;
  let gps: Directory | null = null;
  const waiting = [head.getUint32(4, isLittle)];
  for (let offset = waiting.shift(); offset !== undefined; offset = waiting.shift()) {
    const found = await directoryAt(offset);
    if (!found) continue;
    const { entries, next } = found;
    main ??= entries;
    const crop = numbers(entries, CROP_SIZE);
    addSize(sizeOf(crop[0], crop[1]) ?? sizeOf(numbers(entries, WIDTH)[0], numbers(entries, HEIGHT)[0]));
    if (magic === WIDE_MAGIC && entries === main) {
      const [top, left, bottom, right] = [TOP, LEFT, BOTTOM, RIGHT].map((tag) => numbers(entries, tag)[0] ?? NaN);
      addSize(sizeOf(right! - left!, bottom! - top!));
    }
    const [toExif, toGps] = [numbers(entries, EXIF)[0], numbers(entries, GPS)[0]];
    if (!exif && toExif !== undefined) exif = (await directoryAt(toExif))?.entries ?? null;
    if (!gps && toGps !== undefined) gps = (await directoryAt(toGps))?.entries ?? null;
    waiting.push(...numbers(entries, SUB_DIRECTORIES), ...(next > 0 ? [next] : []));
  }
  if (!main) return null;
  if (exif) addSize(sizeOf(numbers(exif, PIXEL_WIDTH)[0], numbers(exif, PIXEL_HEIGHT)[0]));
  return { bytes: written(main, exif, gps, isLittle), sizes };
}

/** A TIFF of up to three directories: exposure and position hang from the main one. */
function written(main: Directory, exif: Directory | null, gps: Directory | null, isLittle: boolean): ArrayBuffer {
  const kept = (entries: Directory | null) =>
    [...(entries?.values() ?? [])].flatMap((e) =>
      e.value && e.tag !== EXIF && e.tag !== GPS ? [{ ...e, value: e.value }] : [],
    );
  const tables = [kept(main), kept(exif), kept(gps)];
  const pointers = (exif ? 1 : 0) + (gps ? 1 : 0);
  const lengthOf = (entries: number) => 2 + 12 * entries + 4;
  const offsets = [8, 8 + lengthOf(tables[0]!.length + pointers), 0];
  offsets[2] = offsets[1]! + lengthOf(tables[1]!.length);
  let free = offsets[2] + lengthOf(tables[2]!.length);
  const long = tables.flat().reduce((sum, e) => sum + (e.value.byteLength > 4 ? e.value.byteLength + 1 : 0), 0);
  const bytes = new Uint8Array(free + long);
  const view = viewOf(bytes);
  view.setUint16(0, isLittle ? 0x4949 : 0x4d4d);
  view.setUint16(2, TIFF_MAGIC, isLittle);
  view.setUint32(4, 8, isLittle);
  const put = (at: number, { tag, type, count, value }: (typeof tables)[number][number]) => {
    view.setUint16(at, tag, isLittle);
    view.setUint16(at + 2, type, isLittle);
    view.setUint32(at + 4, count, isLittle);
    const inside = new Uint8Array(value.buffer, value.byteOffset, value.byteLength);
    if (inside.length <= 4) return bytes.set(inside, at + 8);
    view.setUint32(at + 8, free, isLittle);
    bytes.set(inside, free);
    free += inside.length + (inside.length % 2);
  };
  tables.forEach((entries, k) => {
    const hanging =
      k === 0 ? [...(exif ? [[EXIF, offsets[1]!] as const] : []), ...(gps ? [[GPS, offsets[2]!] as const] : [])] : [];
    const at = offsets[k]!;
    view.setUint16(at, entries.length + hanging.length, isLittle);
    entries.forEach((e, i) => put(at + 2 + 12 * i, e));
    hanging.forEach(([tag, to], i) => {
      const pointer = new DataView(new ArrayBuffer(4));
      pointer.setUint32(0, to, isLittle);
      put(at + 2 + 12 * (entries.length + i), { tag, type: 4, count: 1, value: pointer });
    });
  });
  return bytes.buffer;
}
