import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { opticsOf } from "~/core/framing";
import { blurOf, detailVerdict } from ".";

const optics = opticsOf({
  focalLengthMm: 480,
  reducerFactor: 1,
  apertureMm: 80,
  obstruction: 0,
  sensor: { widthPx: 6248, heightPx: 4176, pixelPitchUm: 3.76, binning: 1 },
});
const base = {
  zenithSeeingArcsec: 3,
  altitudeDeg: 90,
  wavelengthNm: 550,
  diffractionArcsecAt550: optics.diffractionArcsec,
  guidingRmsPerAxisArcsec: 0.6,
  pixelScaleArcsecPerPx: optics.pixelScaleArcsecPerPx,
};

describe("blur (MATHS C1.7)", () => {
  it("is 3.623″ over 2.242 pixels for 3″ seeing, 80 mm and guiding of 0.6″ per axis", () => {
    const blur = blurOf(base);
    expect(blur.totalArcsec).toBeCloseTo(3.623, 3);
    expect(blur.samples).toBeCloseTo(2.242, 3);
    expect(blur.limitedBy).toBe("seeing");
  });
  it("grows with the air: X^0.6 at 30° is 1.513 (Kasten & Young X = 1.9943, MATHS C2.1)", () => {
    expect(blurOf({ ...base, altitudeDeg: 30 }).seeingArcsec / 3).toBeCloseTo(1.9943 ** 0.6, 3);
  });
  it("never shrinks when any part grows (law)", () => {
    const positive = fc.double({ min: 0.1, max: 10, noNaN: true });
    fc.assert(
      fc.property(positive, positive, positive, (seeing, guiding, more) => {
        const of = (s: number, g: number) =>
          blurOf({ ...base, zenithSeeingArcsec: s, guidingRmsPerAxisArcsec: g }).totalArcsec;
        expect(of(seeing + more, guiding)).toBeGreaterThan(of(seeing, guiding));
        expect(of(seeing, guiding + more)).toBeGreaterThan(of(seeing, guiding));
      }),
    );
  });
});

describe("a pair", () => {
  it("6″ apart is plain under 3.6″, touching at 4″, gone at 2″", () => {
    const blur = blurOf(base);
    expect(detailVerdict(6, blur)).toBe("apart");
    expect(detailVerdict(4, blur)).toBe("touching");
    expect(detailVerdict(3.2, blur)).toBe("elongated");
    expect(detailVerdict(2, blur)).toBe("one");
  });
  it("is lost between coarse pixels though the air would show it", () => {
    const blur = blurOf({ ...base, pixelScaleArcsecPerPx: 4.8 });
    expect(blur.limitedBy).toBe("pixels");
    expect(detailVerdict(6, blur)).toBe("one");
  });
  it("loses its dip where two equal Gaussians do: at 2σ (Sparrow; plain arithmetic on the profile)", () => {
    const blur = blurOf(base);
    const sigma = blur.limitArcsec / 2.3548;
    const profile = (x: number, apart: number) =>
      Math.exp(-0.5 * ((x - apart / 2) / sigma) ** 2) + Math.exp(-0.5 * ((x + apart / 2) / sigma) ** 2);
    const hasDip = (apart: number) =>
      profile(0, apart) < Math.max(profile(apart / 2, apart), profile(apart / 3, apart));
    for (const ratio of [0.7, 0.8, 0.9, 1, 1.3]) {
      const apart = ratio * blur.limitArcsec;
      expect(detailVerdict(apart, blur) !== "one").toBe(hasDip(apart));
    }
  });
});
