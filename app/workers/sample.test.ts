import { describe, expect, it } from "vitest";
import { decodeBand, readFitsHeader, samplePlan } from "~/core/formats";
import { readSample } from "./sample";

/** A FITS image of bytes that differ from place to place. */
function image(nx: number, ny: number) {
  const cards = ["SIMPLE  =                    T", "BITPIX  = 8", "NAXIS   = 2", `NAXIS1  = ${nx}`, `NAXIS2  = ${ny}`, "END"]; // prettier-ignore
  const head = cards.map((c) => c.padEnd(80)).join("").padEnd(2880); // prettier-ignore
  const bytes = new Uint8Array(2880 + nx * ny);
  bytes.set(new TextEncoder().encode(head));
  for (let i = 0; i < nx * ny; i++) bytes[2880 + i] = (i * 7 + (i >> 8) * 13) & 255;
  const header = readFitsHeader(bytes.subarray(0, 2880), bytes.length);
  if (!header.ok) throw new Error(header.error.code);
  return { bytes, header: header.value, plan: samplePlan(header.value)! };
}

/** A file that counts what is read of it. */
class Counted extends Blob {
  read = 0;
  override slice(from = 0, to = this.size): Blob {
    this.read += to - from;
    return super.slice(from, to);
  }
}

describe("the sample of an image's pixels", () => {
  it.each([
    ["of an ordinary camera, in bands of whole rows", 3000, 2000, 1_500_000],
    ["of rows as wide as no camera's, window by window", 60_000, 480, 1_500_000],
  ])("%s: the same windows as whole rows give, and little is read", async (_, nx, ny, most) => {
    const { bytes, header, plan } = image(nx, ny);
    const file = new Counted([bytes]);
    const tiles = (await readSample(file, header, plan))!;
    const whole = plan.bands.flatMap((band) =>
      decodeBand(bytes.slice(band.offset, band.offset + band.length).buffer, header, plan, band),
    );
    expect(tiles.length).toBe(whole.length);
    tiles.forEach((t, i) => {
      expect([t.width, t.height]).toEqual([whole[i]!.width, whole[i]!.height]);
      expect(t.values.every((v, k) => v === whole[i]!.values[k])).toBe(true);
    });
    expect(file.read).toBeLessThan(most);
  });

  it("is none where the file ends before it", async () => {
    const { bytes, header, plan } = image(3000, 2000);
    expect(await readSample(new Blob([bytes.subarray(0, 2_000_000)]), header, plan)).toBeNull();
  });
});
