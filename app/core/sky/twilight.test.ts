import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fluxRatioToMag, magToFluxRatio } from "~/core/units";
import { twilightFlux } from ".";

const V_NM = 550;
/** Share of a minute's worth left at the zenith of a site, limited by the sky. */
const left = (siteMag: number, depressionDeg: number) =>
  magToFluxRatio(siteMag) / (magToFluxRatio(siteMag) + twilightFlux(V_NM, depressionDeg));

describe("twilight as sky (MATHS 2.12)", () => {
  it("leaves of a minute in V what is printed (MATHS C2.30)", () => {
    const printed = [
      [21.5, [0.09, 0.183, 0.331, 0.538, 0.783]],
      [20, [0.283, 0.471, 0.664, 0.823, 0.935]],
      [18.5, [0.611, 0.78, 0.887, 0.949, 0.983]],
    ] as const;
    for (const [site, shares] of printed)
      shares.forEach((share, i) =>
        expect(Math.abs(left(site, 11 + i) - share), `${site} ${11 + i}`).toBeLessThan(6e-4),
      );
  });
  it("is the zenith of Patat et al. 2006 with the dark sky of Patat 2003 in it, band by band (from memory)", () => {
    const at = (nm: number, d: number, dark: number) => fluxRatioToMag(twilightFlux(nm, d) + magToFluxRatio(dark));
    expect(at(445, 8, 22.64)).toBeCloseTo(11.84 + 1.411 * 3 - 0.041 * 9, 6);
    expect(at(550, 10, 21.61)).toBeCloseTo(11.84 + 1.518 * 5 - 0.057 * 25, 6);
    expect(at(640, 12, 20.87)).toBeCloseTo(11.4 + 1.567 * 7 - 0.064 * 49, 6);
  });
  it("never grows as the Sun goes down, at any wavelength (law)", () => {
    const deg = fc.double({ min: 0, max: 40, noNaN: true });
    fc.assert(
      fc.property(fc.double({ min: 400, max: 800, noNaN: true }), deg, deg, (nm, a, b) => {
        const [high, low] = [Math.min(a, b), Math.max(a, b)];
        expect(twilightFlux(nm, low)).toBeLessThanOrEqual(twilightFlux(nm, high) * (1 + 1e-12));
        expect(twilightFlux(nm, low)).toBeGreaterThan(0);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 300 },
    );
  });
});
