import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fileIdentity } from "~/core/ledger";
import { EXIF_ENDINGS, exifFactsOf, frameTypeOfPath, isExifName } from "./exif-facts";

type Entry = readonly [
  tag: number,
  type: 2 | 3 | 4 | 5,
  value: string | number | readonly (readonly [number, number])[],
];

/** A TIFF made by hand after TIFF 6.0 and Exif 3.0: one directory, with those of exposure and position that hang from it. */
function tiff(
  parts: { readonly main: readonly Entry[]; readonly exif?: readonly Entry[]; readonly gps?: readonly Entry[] },
  at: { readonly isLittle?: boolean; readonly magic?: number } = {},
): Uint8Array<ArrayBuffer> {
  const { isLittle = true, magic = 42 } = at;
  const bytes = new Uint8Array(4096);
  const view = new DataView(bytes.buffer);
  bytes.set(isLittle ? [0x49, 0x49] : [0x4d, 0x4d]);
  view.setUint16(2, magic, isLittle);
  view.setUint32(4, 16, isLittle);
  let free = 1024; // where values longer than four bytes go
  const directory = (offset: number, entries: readonly Entry[]) => {
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
  directory(16, main);
  if (parts.exif) directory(300, parts.exif);
  if (parts.gps) directory(600, parts.gps);
  return bytes;
}

/** The same inside a JPEG: start, APP1 with "Exif", end. */
function jpeg(inside: Uint8Array): Uint8Array<ArrayBuffer> {
  const length = inside.length + 8;
  return new Uint8Array([0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255, 0x45, 0x78, 0x69, 0x66, 0, 0, ...inside, 0xff, 0xd9]); // prettier-ignore
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
  exifFactsOf(bytes.buffer, { name: path.split("/").at(-1)!, path, sizeBytes: bytes.length });

describe("the EXIF of a picture", () => {
  it("tells exposure, ISO, camera, focal length, place and start, by the zone of its clock (made by hand after Exif 3.0)", () => {
    const facts = read(tiff({ main: MAKER, exif: EXPOSED, gps: GARDEN }));
    if (!facts.ok) throw new Error(facts.error.code);
    expect(facts.value).toMatchObject({
      frameType: "light", exposureSec: 120, gain: 1600, camera: "Colour-24", focalLengthMm: 135, wallMs: null, filter: null, centre: null,
      hints: ["night", "lights", "IMG_0001.tif"],
    }); // prettier-ignore
    expect(new Date(facts.value.startMs!).toISOString()).toBe("2026-12-05T21:10:31.000Z");
    expect(facts.value.site!.latitudeDeg).toBeCloseTo(48.51, 9);
    expect(facts.value.site!.longitudeDeg).toBeCloseTo(-9.25, 9);
  });
  it("reads the same in either order of bytes, in a JPEG, and under every ending of raw files that are built like TIFF", () => {
    const parts = { main: MAKER, exif: EXPOSED };
    const plain = read(tiff(parts));
    expect(read(tiff(parts, { isLittle: false }))).toEqual(plain);
    const inJpeg = read(jpeg(tiff(parts)));
    expect(inJpeg.ok && plain.ok && { ...inJpeg.value, sizeBytes: 0 }).toEqual(plain.ok && { ...plain.value, sizeBytes: 0 }); // prettier-ignore
    for (const magic of [0x4f52, 0x5352, 0x55]) expect(read(tiff(parts, { magic }))).toEqual(plain); // ORF, RW2
    for (const ending of EXIF_ENDINGS) expect(isExifName(`IMG_1.${ending.toUpperCase()}`)).toBe(true);
    expect(isExifName("light.fits")).toBe(false);
  });
  it("leaves a clock without a zone to the place, and identifies the file by it", () => {
    const without = EXPOSED.filter(([tag]) => tag !== 0x9011);
    const facts = read(tiff({ main: MAKER, exif: without }));
    if (!facts.ok) throw new Error(facts.error.code);
    expect(facts.value.startMs).toBeNull();
    expect(new Date(facts.value.wallMs!).toISOString()).toBe("2026-12-05T22:10:31.000Z");
    const later = { ...facts.value, wallMs: facts.value.wallMs! + 1000 };
    expect(fileIdentity(facts.value)).not.toBe(fileIdentity(later));
    expect(fileIdentity({ ...facts.value, fileName: "renamed.tif" })).toBe(fileIdentity(facts.value));
  });
  it("knows darks, flats and bias by the folders they lie in", () => {
    expect(["a/Darks 300s/1.cr2", "FLATS_Ha/2.dng", "bias/3.nef", "dark flats/4.arw", "darkflats/5.tif", "Sh2-216/6.cr2"].map(frameTypeOfPath)).toEqual(["dark", "flat", "bias", "darkFlat", "darkFlat", "light"]); // prettier-ignore
  });
  it("is nothing in what is no picture, and never throws, whatever is in the file (law)", () => {
    expect(read(new Uint8Array([1, 2, 3]))).toMatchObject({ ok: false });
    expect(read(tiff({ main: [[0x0100, 3, 100]] }))).toEqual({ ok: false, error: { code: "noExif" } });
    const made = tiff({ main: MAKER, exif: EXPOSED, gps: GARDEN });
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(4095), fc.nat(255)), { maxLength: 40 }), fc.nat(4096), (changes, length) => {
        const bytes = made.slice(0, length);
        for (const [i, v] of changes) if (i < bytes.length) bytes[i] = v;
        const facts = read(bytes);
        if (!facts.ok) return;
        const { startMs, exposureSec, site } = facts.value;
        expect(startMs === null || Number.isFinite(startMs)).toBe(true);
        expect(exposureSec === null || exposureSec >= 0).toBe(true);
        expect(site === null || Math.abs(site.latitudeDeg) <= 90).toBe(true);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 20_000 : 300 },
    );
  });
});
