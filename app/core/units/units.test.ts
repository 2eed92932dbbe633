import fc from "fast-check";
import { expect, it } from "vitest";
import { addSkyMags, nanolambertToSkyMag, skyMagToNanolambert, wrap180, wrap360 } from ".";

it("wraps any angle to the same direction within its half-open range", () => {
  fc.assert(
    fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (deg) => {
      const a = wrap360(deg);
      const b = wrap180(deg);
      expect(a).toBeGreaterThanOrEqual(0);
      expect(a).toBeLessThan(360);
      expect(b).toBeGreaterThanOrEqual(-180);
      expect(b).toBeLessThan(180);
      expect(Math.cos(((a - deg) * Math.PI) / 180)).toBeCloseTo(1, 9);
      expect(Math.cos(((b - deg) * Math.PI) / 180)).toBeCloseTo(1, 9);
    }),
  );
});

it("wraps the edges of the circle", () => {
  expect(wrap360(360)).toBe(0);
  expect(wrap360(-1e-15)).toBe(0);
  expect(wrap180(180)).toBe(-180);
});

it("turns 79.0 nL into V 21.587 (Krisciunas & Schaefer 1991; MATHS C2.5) and 22.0 into 54.0 nL (C2.4)", () => {
  expect(Math.abs(nanolambertToSkyMag(79.0) - 21.587)).toBeLessThan(0.0005);
  expect(Math.abs(skyMagToNanolambert(22) - 54.0)).toBeLessThan(0.05);
});

it("adds skies as fluxes: natural 22.0 with three times that much artificial light is 20.49 (MATHS C2.13)", () => {
  expect(Math.abs(addSkyMags(22, 22 - 2.5 * Math.log10(3)) - 20.49)).toBeLessThan(0.006);
});
