import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fileIdentity } from "~/core/ledger";
import type { ReadAt } from "./tiff";
import { EXIF_ENDINGS, exifFactsOf, frameTypeOfPath, isExifName, isSubName } from "./exif-facts";

type Entry = readonly [
  tag: number,
  type: 2 | 3 | 4 | 5,
  value: string | number | readonly (readonly [number, number])[],
];

/** Reads bytes at hand, as from a file. */
const readerOf =
  (bytes: Uint8Array<ArrayBuffer>): ReadAt =>
  (offset, length) =>
    Promise.resolve(bytes.subarray(offset, offset + length));

/** A TIFF made by hand after TIFF 6.0 and Exif 3.0: one directory, with those of exposure and position that hang from it. */
function tiff(
  parts: {
    readonly main: readonly Entry[];
    readonly exif?: readonly Entry[];
    readonly gps?: readonly Entry[];
    /** Of a directory that hangs from the main one, and of one that follows it. */
    readonly sub?: readonly Entry[];
    readonly next?: readonly Entry[];
  },
  at: { readonly isLittle?: boolean; readonly magic?: number } = {},
): Uint8Array<ArrayBuffer> {
  const { isLittle = true, magic = 42 } = at;
  const bytes = new Uint8Array(4096);
  const view = new DataView(bytes.buffer);
  bytes.set(isLittle ? [0x49, 0x49] : [0x4d, 0x4d]);
  view.setUint16(2, magic, isLittle);
  view.setUint32(4, 16, isLittle);
  let free = 1024; // where values longer than four bytes go
  const directory = (offset: number, entries: readonly Entry[], next = 0) => {
    view.setUint32(offset + 2 + 12 * entries.length, next, isLittle);
    view.setUint16(offset, entries.length, isLittle);
    entries.forEach(([tag, type, value], i) => {
      const e = offset + 2 + 12 * i;
      view.setUint16(e, tag, isLittle);
      view.setUint16(e + 2, type, isLittle);
      const count = typeof value === "string" ? value.length + 1 : typeof value === "number" ? 1 : value.length;
      view.setUint32(e + 4, count, isLittle);
      if (typeof value === "number") {
        if (type === 3) view.setUint16(e + 8, value, isLittle);
        else view.setUint32(e + 8, value, isLittle);
        return;
      }
      const size = typeof value === "string" ? count : count * 8;
      const to = size <= 4 ? e + 8 : free;
      if (size > 4) {
        view.setUint32(e + 8, free, isLittle);
        free += size + (size % 2);
      }
      if (typeof value === "string") [...value].forEach((c, k) => view.setUint8(to + k, c.charCodeAt(0)));
      else
        value.forEach(([n, d], k) => {
          view.setUint32(to + 8 * k, n, isLittle);
          view.setUint32(to + 8 * k + 4, d, isLittle);
        });
    });
  };
  const main = [...parts.main];
  if (parts.exif) main.push([0x8769, 4, 300]);
  if (parts.gps) main.push([0x8825, 4, 600]);
  if (parts.sub) main.push([0x014a, 4, 800]);
  directory(16, main, parts.next ? 900 : 0);
  if (parts.sub) directory(800, parts.sub);
  if (parts.next) directory(900, parts.next);
  if (parts.exif) directory(300, parts.exif);
  if (parts.gps) directory(600, parts.gps);
  return bytes;
}

/** The same inside a JPEG: start, APP1 with "Exif", what else, end. */
function jpeg(inside: Uint8Array, more: readonly number[] = []): Uint8Array<ArrayBuffer> {
  const length = inside.length + 8;
  return new Uint8Array([0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255, 0x45, 0x78, 0x69, 0x66, 0, 0, ...inside, ...more, 0xff, 0xd9]); // prettier-ignore
}

const MAKER: readonly Entry[] = [[0x0110, 2, "Colour-24"]];
const EXPOSED: readonly Entry[] = [
  [0x829a, 5, [[120, 1]]],
  [0x8827, 3, 1600],
  [0x9003, 2, "2026:12:05 22:10:31"],
  [0x9011, 2, "+01:00"],
  [0x920a, 5, [[1350, 10]]],
];
const GARDEN: readonly Entry[] = [
  [0x0001, 2, "N"],
  [0x0002, 5, [[48, 1], [30, 1], [36, 1]]],
  [0x0003, 2, "W"],
  [0x0004, 5, [[9, 1], [15, 1], [0, 1]]],
]; // prettier-ignore

const read = (bytes: Uint8Array<ArrayBuffer>, path = "night/lights/IMG_0001.tif") =>
  exifFactsOf(readerOf(bytes), { name: path.split("/").at(-1)!, path, sizeBytes: bytes.length });

describe("the EXIF of a picture", () => {
  it("tells exposure, ISO, camera, focal length, place and start, by the zone of its clock (made by hand after Exif 3.0)", async () => {
    const facts = await read(tiff({ main: MAKER, exif: EXPOSED, gps: GARDEN }));
    if (!facts.ok) throw new Error(facts.error.code);
    expect(facts.value).toMatchObject({
      frameType: "light", exposureSec: 120, gain: 1600, camera: "Colour-24", focalLengthMm: 135, wallMs: null, filter: null, centre: null,
      hints: ["night", "lights", "IMG_0001.tif"],
    }); // prettier-ignore
    expect(new Date(facts.value.startMs!).toISOString()).toBe("2026-12-05T21:10:31.000Z");
    expect(facts.value.site!.latitudeDeg).toBeCloseTo(48.51, 9);
    expect(facts.value.site!.longitudeDeg).toBeCloseTo(-9.25, 9);
  });
  it("reads the same in either order of bytes, in a JPEG, and under every ending of raw files that are built like TIFF", async () => {
    const parts = { main: MAKER, exif: EXPOSED };
    const plain = await read(tiff(parts));
    expect(await read(tiff(parts, { isLittle: false }))).toEqual(plain);
    const inJpeg = await read(jpeg(tiff(parts)));
    expect(inJpeg.ok && plain.ok && { ...inJpeg.value, sizeBytes: 0 }).toEqual(plain.ok && { ...plain.value, sizeBytes: 0 }); // prettier-ignore
    for (const magic of [0x4f52, 0x5352, 0x55]) expect(await read(tiff(parts, { magic }))).toEqual(plain); // ORF, RW2
    for (const ending of EXIF_ENDINGS) expect(isExifName(`IMG_1.${ending.toUpperCase()}`)).toBe(true);
    expect(isExifName("light.fits")).toBe(false);
    // A watched folder takes what a camera's program writes, not the pictures for looking at beside it.
    for (const name of ["a.fit", "a.FITS", "a.fts", "a.fits.gz", "a.fits.fz", "a.dng", "a.NEF"])
      expect(isSubName(name)).toBe(true);
    for (const name of ["a.jpg", "a.tiff", "a.heic", "a.txt", "fits", "a.fits.tmp"])
      expect(isSubName(name)).toBe(false);
  });
  it("leaves a clock without a zone to the place, and identifies the file by it", async () => {
    const without = EXPOSED.filter(([tag]) => tag !== 0x9011);
    const facts = await read(tiff({ main: MAKER, exif: without }));
    if (!facts.ok) throw new Error(facts.error.code);
    expect(facts.value.startMs).toBeNull();
    expect(new Date(facts.value.wallMs!).toISOString()).toBe("2026-12-05T22:10:31.000Z");
    const later = { ...facts.value, wallMs: facts.value.wallMs! + 1000 };
    expect(fileIdentity(facts.value)).not.toEqual(fileIdentity(later));
    expect(fileIdentity({ ...facts.value, fileName: "renamed.tif" })).toEqual(fileIdentity(facts.value));
  });
  it("knows darks, flats and bias by the folders they lie in", () => {
    expect(["a/Darks 300s/1.cr2", "FLATS_Ha/2.dng", "bias/3.nef", "dark flats/4.arw", "darkflats/5.tif", "Sh2-216/6.cr2"].map(frameTypeOfPath)).toEqual(["dark", "flat", "bias", "darkFlat", "darkFlat", "light"]); // prettier-ignore
  });
  it("gives the size of the largest image, not of a preview: hanging from a directory or following one (TIFF 6.0; DNG 1.7 for the crop)", async () => {
    const sized = (w: number, h: number): Entry[] => [[0x0100, 4, w], [0x0101, 4, h]]; // prettier-ignore
    const main = [...sized(160, 120), ...MAKER];
    const sizeOf = async (parts: Parameters<typeof tiff>[0], at?: Parameters<typeof tiff>[1]) => {
      const facts = await read(tiff({ exif: EXPOSED, ...parts }, at));
      return facts.ok && [facts.value.widthPx, facts.value.heightPx];
    };
    for (const isLittle of [true, false]) {
      expect(await sizeOf({ main }, { isLittle })).toEqual([160, 120]);
      expect(await sizeOf({ main, sub: sized(6048, 4024), next: sized(1616, 1080) }, { isLittle })).toEqual([
        6048, 4024,
      ]);
      expect(await sizeOf({ main, next: sized(6048, 4024) }, { isLittle })).toEqual([6048, 4024]);
      const cropped: Entry[] = [...sized(6048, 4024), [0xc620, 5, [[6000, 1], [4000, 1]]]]; // prettier-ignore
      expect(await sizeOf({ main, sub: cropped }, { isLittle })).toEqual([6000, 4000]);
    }
    // A size in EXIF counts where nothing larger is there.
    expect(await sizeOf({ main, exif: [...EXPOSED, [0xa002, 4, 5568], [0xa003, 4, 3712]] })).toEqual([5568, 3712]);
    // The part of the sensor that one maker uses, by its borders.
    const borders: Entry[] = [[2, 3, 5488], [3, 3, 3904], [4, 3, 8], [5, 3, 12], [6, 3, 3896], [7, 3, 5196]]; // prettier-ignore
    expect(await sizeOf({ main: [...borders, ...MAKER] }, { magic: 0x55 })).toEqual([5184, 3888]);
  });
  it("takes the size of a JPEG from its frame where EXIF has none (ITU-T T.81, B.2.2)", async () => {
    const frame = [0xff, 0xc0, 0, 17, 8, 0x0f, 0xb8, 0x17, 0xa0, 3, 1, 0x22, 0, 2, 0x11, 1, 3, 0x11, 1];
    const facts = await read(jpeg(tiff({ main: MAKER, exif: EXPOSED, next: [[0x0100, 3, 160], [0x0101, 3, 120]] }), frame), "a.jpg"); // prettier-ignore
    expect(facts.ok && [facts.value.widthPx, facts.value.heightPx]).toEqual([6048, 4024]);
  });
  it("reads a few kilobytes of a file of any length, wherever its directories lie, and whatever they claim", async () => {
    /** How much was read of a file whose directories come at its very end, and what came of it. */
    const readFar = async (bytes: Uint8Array<ArrayBuffer>, from: number) => {
      let asked = 0;
      const reader: ReadAt = (offset, length) => {
        asked += length;
        const piece = new Uint8Array(offset < 8 ? 8 : Math.max(0, Math.min(length, from + bytes.length - offset)));
        if (offset < 8) piece.set([0x49, 0x49, 42, 0, from & 255, (from >> 8) & 255, (from >> 16) & 255, from >> 24]);
        else piece.set(bytes.subarray(Math.max(0, offset - from), Math.max(0, offset - from) + piece.length));
        return Promise.resolve(piece.subarray(0, length));
      };
      return {
        facts: await exifFactsOf(reader, { name: "a.tif", path: "a.tif", sizeBytes: from + bytes.length }),
        asked,
      };
    };
    // One directory of 65,535 texts, each as long as the file says it may be, all in one place.
    const hostile = new Uint8Array(2 + 12 * 65_535 + 4);
    const view = new DataView(hostile.buffer);
    view.setUint16(0, 65_535, true);
    for (let i = 0; i < 65_535; i++) {
      const at = 2 + 12 * i;
      view.setUint16(at, 0x0110 + (i % 5000), true);
      view.setUint16(at + 2, 2, true);
      view.setUint32(at + 4, i % 2 ? 60_000 : 250, true);
      view.setUint32(at + 8, 360_000_000, true);
    }
    const far = await readFar(hostile, 360_000_000);
    expect(far.asked).toBeLessThan(200_000);
    expect(far.facts).toMatchObject({ ok: true }); // its camera is a text like the others
    // Directories that lead back to themselves end.
    const loop = tiff({ main: [...MAKER, [0x014a, 4, 16]], exif: EXPOSED });
    expect(await read(loop)).toMatchObject({ ok: true });
  });
  it("is nothing in what is no picture, and never throws, whatever is in the file (law)", async () => {
    expect(await read(new Uint8Array([1, 2, 3]))).toMatchObject({ ok: false });
    expect(await read(tiff({ main: [[0x0100, 3, 100]] }))).toEqual({ ok: false, error: { code: "noExif" } });
    const made = tiff({ main: MAKER, exif: EXPOSED, gps: GARDEN });
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.nat(4095), fc.nat(255)), { maxLength: 40 }),
        fc.nat(4096),
        async (changes, length) => {
          const bytes = made.slice(0, length);
          for (const [i, v] of changes) if (i < bytes.length) bytes[i] = v;
          const facts = await read(bytes);
          if (!facts.ok) return;
          const { startMs, exposureSec, site } = facts.value;
          expect(startMs === null || Number.isFinite(startMs)).toBe(true);
          expect(exposureSec === null || exposureSec >= 0).toBe(true);
          expect(site === null || Math.abs(site.latitudeDeg) <= 90).toBe(true);
        },
      ),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 20_000 : 300 },
    );
  });
});
