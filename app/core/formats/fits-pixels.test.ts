import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import fits from "../../../reference/tables/fits.json";
import { decodeRow, pixelPlan, readFitsHeader, stretchPixels, type FitsHeader } from ".";

/** A FITS file of the given cards and big-endian pixels. */
function fileOf(cards: readonly string[], pixels: ArrayBuffer): { bytes: Uint8Array; header: FitsHeader } {
  const text = ["SIMPLE  =                    T", ...cards, "END"].map((c) => c.padEnd(80)).join("");
  const head = text.padEnd(Math.ceil(text.length / 2880) * 2880);
  const bytes = new Uint8Array(head.length + Math.ceil(pixels.byteLength / 2880) * 2880);
  bytes.set(new TextEncoder().encode(head));
  bytes.set(new Uint8Array(pixels), head.length);
  const header = readFitsHeader(bytes, bytes.length);
  if (!header.ok) throw new Error(header.error.code);
  return { bytes, header: header.value };
}

function pixels(bitpix: number, values: readonly number[]): ArrayBuffer {
  const size = Math.abs(bitpix) / 8;
  const buffer = new ArrayBuffer(values.length * size);
  const view = new DataView(buffer);
  values.forEach((v, i) => {
    if (bitpix === 8) view.setUint8(i, v);
    else if (bitpix === 16) view.setInt16(2 * i, v);
    else if (bitpix === 32) view.setInt32(4 * i, v);
    else if (bitpix === -32) view.setFloat32(4 * i, v);
    else view.setFloat64(8 * i, v);
  });
  return buffer;
}

const cardsFor = (bitpix: number, nx: number, ny: number, more: readonly string[] = []) => [
  `BITPIX  = ${bitpix}`, "NAXIS   = 2", `NAXIS1  = ${nx}`, `NAXIS2  = ${ny}`, ...more,
]; // prettier-ignore

const line = (f: ReturnType<typeof fileOf>, most: number, at: number): number[] => {
  const plan = pixelPlan(f.header, most)!;
  const from = plan.offsetOf(at);
  return [...decodeRow(f.bytes.slice(from, from + plan.bytesPerRow).buffer, f.header, plan)];
};

describe("pixels of a FITS image", () => {
  it.each([8, 16, 32, -32, -64])("of type %i come out as written, the last row on top", (bitpix) => {
    const f = fileOf(cardsFor(bitpix, 3, 2), pixels(bitpix, [1, 2, 3, 4, 5, 6]));
    expect(line(f, 100, 0)).toEqual([4, 5, 6]);
    expect(line(f, 100, 1)).toEqual([1, 2, 3]);
  });
  it("are scaled: unsigned 16 bits are written with BZERO 32768 (FITS Standard 4.0, § 4.4.2.5); blanks are left out", () => {
    const f = fileOf(
      cardsFor(16, 3, 1, ["BZERO   = 32768", "BSCALE  = 1", "BLANK   = -5"]),
      pixels(16, [-32768, 32767, -5]),
    );
    const [low, high, blank] = line(f, 100, 0);
    expect([low, high]).toEqual([0, 65535]);
    expect(blank).toBeNaN();
  });
  it("are averaged along a row when the image is read smaller", () => {
    const f = fileOf(cardsFor(-32, 4, 4), pixels(-32, [0, 2, 4, 6, 10, 10, 10, 30, 1, 1, 1, 1, 5, 7, 9, 9]));
    expect(line(f, 2, 0)).toEqual([6, 9]);
    expect(line(f, 2, 1)).toEqual([10, 20]);
  });
  it("are read from one row in every bin only, whatever the size", () => {
    const f = fileOf(cardsFor(16, 6, 6), pixels(16, Array<number>(36).fill(0)));
    const huge: FitsHeader = { ...f.header, axes: [32_000, 32_000] }; // 2 GB
    const plan = pixelPlan(huge, 1400)!;
    expect(plan.height * plan.bytesPerRow).toBeLessThan(100e6);
    expect(plan.offsetOf(0)).toBeLessThan(2 ** 31 + 100_000);
  });
  it("have no plan without pixels", () => {
    const f = fileOf(["BITPIX  = 16", "NAXIS   = 0"], new ArrayBuffer(0));
    expect(pixelPlan(f.header, 100)).toBeNull();
  });
  it("of the reference exposures have the first, last and mean value that astropy reads", () => {
    const known = fits.files.filter((f) => f.valid && f.pixels);
    expect(known.length).toBeGreaterThan(10);
    for (const f of known) {
      const bytes = new Uint8Array(readFileSync(`reference/tables/fits/${f.file}`));
      const header = readFitsHeader(bytes, bytes.length);
      if (!header.ok) throw new Error(header.error.code);
      if (header.value.axes.length !== 2) continue; // of a cube only the first plane is read
      const plan = pixelPlan(header.value, 1e6)!;
      const rows = Array.from({ length: plan.height }, (_, i) => {
        const from = plan.offsetOf(i);
        return decodeRow(bytes.slice(from, from + plan.bytesPerRow).buffer, header.value, plan);
      });
      const all = rows.reverse().flatMap((r) => [...r]); // rows of the file rise, lines fall
      const mean = all.reduce((s, v) => s + v, 0) / all.length;
      expect(Math.abs(all[0]! - f.pixels!.first), f.file).toBeLessThan(1e-3 * Math.max(1, Math.abs(f.pixels!.first)));
      expect(Math.abs(all.at(-1)! - f.pixels!.last), f.file).toBeLessThan(1e-3 * Math.max(1, Math.abs(f.pixels!.last)));
      expect(Math.abs(mean - f.pixels!.mean), f.file).toBeLessThan(1e-3 * Math.max(1, Math.abs(f.pixels!.mean)));
    }
  });
});

describe("the stretch", () => {
  const sky = Float32Array.from(
    { length: 20_000 },
    (_, i) => 1000 + 20 * Math.sin(i * 12.9898) + (i % 400 === 0 ? 30_000 : 0),
  );
  it("puts the sky dark but visible, and stars bright", () => {
    const out = stretchPixels(sky);
    const median = [...out].sort((a, b) => a - b)[10_000]!;
    expect(median).toBeGreaterThan(15);
    expect(median).toBeLessThan(60);
    expect(out[0]).toBe(255);
  });
  it("keeps the order of brightness, whatever the scale (law)", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -1e4, max: 1e5, noNaN: true }), { minLength: 5, maxLength: 60 }),
        (values) => {
          const out = stretchPixels(Float32Array.from(values));
          const order = values.map((v, i) => [Math.fround(v), out[i]!] as const).sort((a, b) => a[0] - b[0]);
          order.forEach(([, grey], i) => i > 0 && expect(grey).toBeGreaterThanOrEqual(order[i - 1]![1]));
        },
      ),
    );
  });
  it("survives an image of nothing, and one all alike", () => {
    expect([...stretchPixels(new Float32Array(4).fill(Number.NaN))]).toEqual([0, 0, 0, 0]);
    expect(new Set(stretchPixels(new Float32Array(9).fill(7))).size).toBe(1);
  });
});
