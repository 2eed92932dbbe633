import { describe, expect, it } from "vitest";
import { limitingSurfaceMag } from "~/core/exposure";
import { testFilter, testRig } from "~/core/test-data";
import { stackedPictures } from "./stacked";

const question = {
  rig: testRig, filter: testFilter, skyMagPerArcsec2: 20.5, seeingArcsec: 3, protectedMag: null, worthRate: 0.8, airC: 0,
} as const; // prettier-ignore
const ask = {
  question,
  light: { ha: 25, oiii: 0, sii: 0, magPerArcsec2: null },
  majorArcmin: 60,
  minorArcmin: 30,
  positionAngleDeg: 0,
  subSec: 300,
  pxArcsec: 60,
};
const SIDE = 96;
const spread = (list: readonly number[]) => {
  const mean = list.reduce((a, b) => a + b, 0) / list.length;
  return { mean, sigma: Math.sqrt(list.reduce((a, b) => a + (b - mean) ** 2, 0) / (list.length - 1)) };
};
/** A box about a place, from the middle, px. */
const box = (picture: Uint8ClampedArray, x: number, y: number, half = 4) => {
  const found: number[] = [];
  for (let j = -half; j <= half; j++)
    for (let i = -half; i <= half; i++) found.push(picture[(SIDE / 2 + y + j) * SIDE + SIDE / 2 + x + i]!);
  return spread(found);
};

describe("what hours will show", () => {
  it("shows the rim as far over the sky's noise as the depth of those hours says (Román et al. 2020, by the curve above it)", () => {
    const hours = [1, 5, 20];
    const { edgeSnr, isWhole } = stackedPictures(ask, hours, SIDE);
    // 25 R behind 5 nm, told as a surface brightness by photons: 1 R = 10⁶/4π photons/cm²/s/sr, AB 5.4799e10/λ /s/m²/nm.
    const photons = (25 * 1.87042e-2) / 1; // /s/m²/arcsec²
    const mag = -2.5 * Math.log10(photons / ((5.4799e10 / 656.3) * 5));
    expect(isWhole).toBe(true);
    hours.forEach((h, i) => {
      const depth = limitingSurfaceMag(question, h, 300); // 3σ over 10″ × 10″
      const boxes = (10 / 60) ** 2; // pixels of the picture in such a box
      const expected = (3 * 10 ** (0.4 * (depth - mag))) / Math.sqrt(boxes);
      expect(Math.abs(edgeSnr[i]! / expected - 1)).toBeLessThan(0.12); // the curve knows no noise of the object's own
    });
  });

  it("has the noise it tells, and the same black and white for all: more hours, less noise, the object where it was", () => {
    const { pictures, edgeSnr } = stackedPictures({ ...ask, light: { ...ask.light, ha: 0.6 } }, [4, 8], SIDE);
    const [few, many] = pictures.map((p) => ({
      sky: box(p, -40, -40),
      rim: box(p, 0, 34, 1),
      middle: box(p, 0, 0, 1),
    }));
    expect(few!.sky.sigma / many!.sky.sigma).toBeGreaterThan(1.2);
    expect(few!.sky.sigma / many!.sky.sigma).toBeLessThan(1.6); // √2, the deepest dark clipped
    expect(Math.abs(few!.middle.mean - many!.middle.mean)).toBeLessThan(40);
    expect(many!.middle.mean).toBeGreaterThan(many!.sky.mean + 3 * many!.sky.sigma);
    expect(edgeSnr[1]! / edgeSnr[0]!).toBeCloseTo(Math.SQRT2, 6);
  });

  it("shows a piece of the faint part where the object is larger than the picture, no brighter than that", () => {
    const { pictures, isWhole } = stackedPictures({ ...ask, pxArcsec: 6 }, [200], SIDE);
    expect(isWhole).toBe(false);
    const [middle, rim, sky] = [box(pictures[0]!, 0, 0), box(pictures[0]!, 24, 0, 1), box(pictures[0]!, -44, -44, 3)];
    expect(Math.abs(middle.mean - rim.mean)).toBeLessThan(25);
    expect(middle.mean).toBeGreaterThan(sky.mean + 60);
  });

  it("turns the long axis as the object lies, north up and east to the left", () => {
    const dark = { ...ask, question: { ...question, skyMagPerArcsec2: 30 }, light: { ...ask.light, ha: 5000 } };
    const upright = stackedPictures(dark, [50], SIDE).pictures[0]!;
    expect(box(upright, 0, -28, 1).mean).toBeGreaterThan(box(upright, 28, 0, 1).mean);
    const turned = stackedPictures({ ...dark, positionAngleDeg: 45 }, [50], SIDE).pictures[0]!;
    expect(box(turned, -18, -18, 1).mean).toBeGreaterThan(box(turned, 18, -18, 1).mean); // north-east is up left
  });
});
