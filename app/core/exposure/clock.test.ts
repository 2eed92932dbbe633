import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testFilter, testRig } from "~/core/test-data";
import { bestSub, clockYield, FLAT, subAdvice, subEffects, type ClockRates, type Filter } from ".";

const rates = (overheadSec: number, readNoiseE: number, backgroundEPerSec: number, spoiltPerSec: number): ClockRates => ({
  overheadSec, readNoiseE, backgroundEPerSec, spoiltPerSec,
}); // prettier-ignore

describe("the best sub by the clock", () => {
  it("is MATHS C3.21–C3.24 to the last printed digit", () => {
    const rows: readonly [ClockRates, number, number, number | null, number | null][] = [
      [rates(6, 1.6, 2.04, 1.67e-4), 205.86, 0.9332, 96.4, 436.3],
      [rates(11.333, 1.5, 1.1243, 1.6667e-4), 277.95, 0.9108, 143.8, 533.4],
      [rates(11.333, 1.5, 0.01124, 1.6667e-4), 1036.27, 0.6975, 723.4, 1470.7],
      [rates(11.333, 1.5, 0.01124, 0.83335e-4), 1501.51, 0.7728, null, null],
      [rates(4, 3, 0.2, 1.6667e-4), 521.9, 0.8375, 319.2, 845.9],
    ];
    for (const [r, best, most, from, to] of rows) {
      const found = bestSub(r);
      expect(Math.abs(found.bestSec / best - 1)).toBeLessThan(2e-4); // inputs are printed to five digits
      expect(found.clockYield).toBeCloseTo(most, 4);
      if (from !== null) expect(Math.abs(found.fromSec / from - 1)).toBeLessThan(1e-3);
      if (to !== null) expect(Math.abs(found.toSec / to - 1)).toBeLessThan(1e-3);
    }
  });
  it("is beaten by no other length, and its range by none outside (law, judged by trying 200 lengths)", () => {
    const any = fc.record({
      overheadSec: fc.double({ min: 0.1, max: 60, noNaN: true }),
      readNoiseE: fc.double({ min: 0.5, max: 12, noNaN: true }),
      backgroundEPerSec: fc.double({ min: 1e-4, max: 60, noNaN: true }),
      spoiltPerSec: fc.double({ min: 1e-6, max: 5e-3, noNaN: true }),
    });
    fc.assert(
      fc.property(any, (r) => {
        const { bestSec, fromSec, toSec, clockYield: most } = bestSub(r);
        for (let i = 0; i < 200; i++) {
          const t = 0.05 * 1.1 ** i;
          const here = clockYield(r, t);
          expect(here).toBeLessThanOrEqual(most * (1 + 1e-9));
          if (t < fromSec * 0.999 || t > toSec * 1.001) expect(here).toBeLessThan(FLAT * most * 1.0001);
        }
        expect(fromSec).toBeLessThan(bestSec);
        expect(toSec).toBeGreaterThan(bestSec);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 200 },
    );
  });
});

describe("advice", () => {
  const L: Filter = { name: "L", channel: "L", centreNm: 550, bandwidthNm: 300, transmission: 0.9 };
  const city = { rig: testRig, filter: L, skyMagPerArcsec2: 18, seeingArcsec: 3, protectedMag: null };
  it("gives sane subs under a city sky: a minute or so, not seconds, and the clock decides (reported: 1–8 s, 231 h)", () => {
    const advice = subAdvice(city);
    expect(advice.subSec).toBeGreaterThanOrEqual(60);
    expect(advice.subSec).toBeLessThanOrEqual(180);
    expect(advice.decidedBy).toBe("overhead");
    expect(advice.clockYield).toBeGreaterThan(0.85);
    const [short, long] = [subEffects(city, 2).clockYield, subEffects(city, advice.subSec).clockYield];
    expect(long / short).toBeGreaterThan(3); // what two-second subs would have cost
  });
  it("lets stars clip unless one is protected, and names the core, the mount and the protected star when they decide", () => {
    expect(subAdvice({ ...city, protectedMag: 9 })).toMatchObject({ decidedBy: "protectedStar" });
    expect(subAdvice({ ...city, rig: { ...testRig, isGuided: false, longestUnguidedSec: 45 } })).toMatchObject({ subSec: 45, decidedBy: "mount" }); // prettier-ignore
    const core = subAdvice({ ...city, coreMagPerArcsec2: 14 });
    expect(core.decidedBy).toBe("core");
    expect(core.coreSec).toBeLessThan(subAdvice(city).subSec);
    expect(subAdvice({ ...city, filter: { ...testFilter, bandwidthNm: 3 } }).decidedBy).toBe("readNoise");
    expect(subAdvice({ ...city, spoiltPerSec: 0.2 }).decidedBy).toBe("spoilt");
  });
  it("sees a green pixel of a colour camera as a mono pixel behind a green filter, times its dye: 0.75 to 1, never 3 (MATHS 3.14)", () => {
    const green: Filter = { ...L, channel: "G", centreNm: 530, bandwidthNm: 100 };
    const mono = subAdvice({ ...city, filter: green }).skyEPerPxSec;
    const colour = subAdvice({ ...city, rig: { ...testRig, isColour: true }, filter: { ...L, channel: "Colour" } });
    expect(colour.skyEPerPxSec / mono).toBeGreaterThan(0.75);
    expect(colour.skyEPerPxSec / mono).toBeLessThanOrEqual(1);
  });
  it("lets the weaker of the two bands behind a dual-band filter decide", () => {
    const dual: Filter = { ...L, channel: "Dual", centreNm: 500.7, bandwidthNm: 10 };
    const of = (filter: Filter, isColour: boolean) => subAdvice({ ...city, rig: { ...testRig, isColour }, filter }).skyEPerPxSec; // prettier-ignore
    const ha = of({ ...testFilter, centreNm: 656.3, bandwidthNm: 5 }, true);
    const oiii = of({ ...testFilter, channel: "OIII", centreNm: 500.7, bandwidthNm: 5 }, true);
    expect(of(dual, true)).toBeCloseTo(Math.min(ha, oiii), 9);
  });
  it("warms an uncooled sensor with the air: 6 °C more doubles the dark current (MATHS 3.4), a cooled one not", () => {
    const warm = (airC: number, isCooled: boolean) =>
      subAdvice({ ...city, airC, rig: { ...testRig, isCooled, workingTempC: 20, aboveAirC: 8 } });
    expect(warm(12, false).sensorC).toBe(20);
    expect(warm(18, false).darkEPerPxSec / warm(12, false).darkEPerPxSec).toBeCloseTo(2, 9);
    expect(warm(18, true).darkEPerPxSec).toBe(testRig.darkEPerSec);
  });
  it("reads gain, read noise and full well of the setting a channel chooses", () => {
    const settings = [{ name: "ISO 1600", gainEPerAdu: 0.1, readNoiseE: 0.9, fullWellE: 6000 }];
    const of = (setting?: string) => subEffects({ ...city, rig: { ...testRig, settings }, ...(setting ? { setting } : {}) }, 60); // prettier-ignore
    expect(of("ISO 1600").readNoiseShare).toBeLessThan(of().readNoiseShare);
    expect(of("ISO 1600").clippedMag).toBeGreaterThan(of().clippedMag); // a smaller well clips fainter stars
    expect(of("unknown")).toEqual(of());
  });
});
