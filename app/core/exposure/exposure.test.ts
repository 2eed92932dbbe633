import { testRig } from "../test-data";
import fc from "fast-check";
import { expect, it } from "vitest";
import snr from "../../../reference/tables/snr.json";
import {
  ccdSnr, ceilingE, centralPixelShare, darkRateAt, DEFAULT_OVERHEADS, efficiencyOf, equivalentHours, lineRate, niceSubSec, nightDepthHours, photonZeroPoint, pointSourceRate, readNoiseShare, shortestSubSec,
  limitingSurfaceMag, skyRate, stackSnr, subsForSnr, subsInTime, type Filter, type Rig,
} from "."; // prettier-ignore

/** The base rig of MATHS 0: 80 mm f/6, 3.76 µm, optics × filter .9, QE .8. */
const base = {
  centreNm: 550,
  bandwidthNm: 300,
  areaM2: (Math.PI / 4) * 0.08 ** 2,
  efficiency: 0.72,
  pixelScaleArcsecPerPx: (206.264806 * 3.76) / 480,
};

it("gives photon rates as MATHS C3.1–C3.4 (Oke & Gunn 1983; Hunten et al. 1956)", () => {
  expect(photonZeroPoint(500.7) / 1.0944e8).toBeCloseTo(1, 4);
  expect(skyRate(base, 21)).toBeCloseTo(1.1243, 4);
  expect(skyRate({ ...base, bandwidthNm: 3 }, 21)).toBeCloseTo(0.01124, 5);
  expect(skyRate(base, 24)).toBeCloseTo(0.07094, 5);
  expect(lineRate({ ...base, centreNm: 656.3 }, 20)).toBeCloseTo(0.003534, 6);
});

it("models the camera as MATHS C3.7 and C3.11", () => {
  expect(ceilingE({ fullWellE: 50_000, gainEPerAdu: 0.25, bits: 16, offsetAdu: 500 })).toBeCloseTo(16_258.75, 6);
  expect(darkRateAt(0.0022, -10, 20)).toBeCloseTo(0.0704, 5);
});

it("finds the shortest sub as MATHS C3.6 and every row of reference/tables/snr.json", () => {
  const t = (s: number, share: number) => shortestSubSec({ readNoiseE: 1.5, backgroundEPerSec: s + 0.002, share });
  [
    [0.05, 19.49],
    [0.1, 9.51],
    [0.2, 4.54],
  ].forEach(([p, sec]) => expect(t(skyRate(base, 21), p!)).toBeCloseTo(sec!, 2));
  expect(Math.round(t(skyRate({ ...base, bandwidthNm: 3 }, 21), 0.1))).toBe(809);
  for (const [sky, r, percent, sec] of snr.sub_length) {
    expect(shortestSubSec({ readNoiseE: r!, backgroundEPerSec: sky!, share: percent! / 100 }) / sec!).toBeCloseTo(1, 5);
  }
});

it("saturates as MATHS C3.9: V = 5 in L at FWHM 3.5″ fills a well of 50,000 e- in 0.271 s", () => {
  const share = centralPixelShare(3.5 / base.pixelScaleArcsecPerPx);
  expect(share).toBeCloseTo(0.1708, 4);
  expect(50_000 / (share * pointSourceRate(base, 5) + skyRate(base, 21) + 0.002)).toBeCloseTo(0.271, 3);
});

it("gives stacks as MATHS C4.2, C4.3 and the textbook star of C4.1 (Howell 2006, § 4.4: 342)", () => {
  const rates = { object: skyRate(base, 24), sky: skyRate(base, 21), dark: 0.002, readNoiseE: 1.5 };
  expect(stackSnr(rates, 100, 120)).toBeCloseTo(7.047, 3);
  expect((subsForSnr(rates, 5, 120) * 120) / 3600).toBeCloseTo(1.678, 3);
  const star = ccdSnr({
    starE: 24_013 * 5,
    skyEPerPx: 620 * 5,
    darkEPerPx: (22 * 300) / 3600,
    readNoiseE: 5,
    gainEPerAdu: 5,
    aperturePx: 1,
    backgroundPx: 200,
  });
  expect(star).toBeCloseTo(342.1, 1);
});

it("agrees with every stack of reference/tables/snr.json to 1e-5", () => {
  for (const row of snr.stacks) {
    const rates = { object: row.object_e_s, sky: row.sky_e_s, dark: row.dark_e_s, readNoiseE: row.read_noise_e };
    const close = (mine: number, table: number) => expect(Math.abs(mine - table)).toBeLessThan(1e-5 * table + 6e-7); // the table has six decimals
    close(stackSnr(rates, row.subs, row.sub_s), row.snr);
    if (row.to_reach_snr) close(subsForSnr(rates, 10, row.sub_s), row.to_reach_snr["10"].subs_exact);
  }
});

it("says how deep a stack goes as MATHS C4.10 (Román et al. 2020): 26.939, four times the time 27.691, sky 18.5 25.698", () => {
  // The base rig of MATHS 0, as a rig with its filter.
  const rig: Rig = {
    ...testRig,
    focalLengthMm: 480,
    apertureMm: 80,
    throughput: 0.9,
    quantumEfficiency: 0.8,
    readNoiseE: 1.5,
    darkEPerSec: 0.002,
  };
  const filter: Filter = { name: "L", channel: "L", centreNm: 550, bandwidthNm: 300, transmission: 1 };
  const depth = (skyMagPerArcsec2: number, hours: number) =>
    limitingSurfaceMag({ rig, filter, skyMagPerArcsec2, seeingArcsec: 3, protectedMag: 10 }, hours, 120);
  const hours = 12_000 / 3600; // 100 × 120 s
  expect(depth(21, hours)).toBeCloseTo(26.939, 3);
  expect(depth(21, 4 * hours)).toBeCloseTo(27.691, 3);
  expect(depth(18.5, hours)).toBeCloseTo(25.698, 3);
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 50, noNaN: true }),
      fc.double({ min: 17, max: 22, noNaN: true }),
      (h, sky) => {
        expect(depth(sky, 2 * h) - depth(sky, h)).toBeCloseTo(0.3763, 3); // C4.14: twice the time, whatever the sky
        expect(depth(sky + 0.5, h)).toBeGreaterThan(depth(sky, h));
      },
    ),
  );
});

it("counts subs with overheads as MATHS C3.19: 99 subs of 180 s in six hours", () => {
  const o = {
    ...DEFAULT_OVERHEADS,
    downloadSec: 3,
    ditherSec: 25,
    ditherEvery: 3,
    focusMin: 4,
    focusEveryMin: 60,
    flipMin: 5,
    setUpMin: 15,
  };
  expect(subsInTime(6 * 3600, 180, o, { flips: 1, panelChanges: 0 })).toBe(99);
  expect(efficiencyOf(180, o)).toBeLessThan(1);
  // By hand: 180 s of every 191.33 s, 56 of 60 minutes, so 0.878 of four hours at half the best worth, an hour being 1.5 elsewhere.
  const night = { worthMin: 240 * 0.5, bestRate: 0.5, hourIs: 1.5, subSec: 180, overheads: o };
  expect(nightDepthHours(night)).toBeCloseTo(4 * 1.5 * (180 / (180 + 3 + 25 / 3)) * (56 / 60), 12);
});

it("never raises signal-to-noise with more sky, dark or read noise, and takes four times the subs for twice the ratio", () => {
  const rate = fc.double({ min: 1e-3, max: 10, noNaN: true });
  fc.assert(
    fc.property(
      rate,
      rate,
      rate,
      fc.double({ min: 0.5, max: 10, noNaN: true }),
      fc.double({ min: 1, max: 900, noNaN: true }),
      (object, sky, dark, readNoiseE, t) => {
        const r = { object, sky, dark, readNoiseE };
        const snrNow = stackSnr(r, 20, t);
        expect(stackSnr({ ...r, sky: sky * 1.5 }, 20, t)).toBeLessThan(snrNow);
        expect(stackSnr({ ...r, readNoiseE: readNoiseE * 1.5 }, 20, t)).toBeLessThan(snrNow);
        expect(stackSnr(r, 80, t)).toBeCloseTo(2 * snrNow, 6);
        expect(stackSnr(r, subsForSnr(r, 7, t), t)).toBeCloseTo(7, 6);
        const share = 0.07;
        expect(
          readNoiseShare({
            readNoiseE,
            backgroundEPerSec: sky,
            subSec: shortestSubSec({ readNoiseE, backgroundEPerSec: sky, share }),
          }),
        ).toBeCloseTo(share, 9);
      },
    ),
  );
});

it("rounds subs to usual lengths", () => {
  expect([niceSubSec(19.5, "up"), niceSubSec(70, "down"), niceSubSec(0.2, "down"), niceSubSec(5000, "up")]).toEqual([
    20, 60, 1, 1200,
  ]);
});

it("counts 1 h at 21.5 as 2.512, 6.310 and 15.849 h at 20.5, 19.5 and 18.5 (MATHS C4.5), and back", () => {
  [
    [20.5, 2.512],
    [19.5, 6.31],
    [18.5, 15.849],
  ].forEach(([here, h]) => expect(equivalentHours(21.5, here!)).toBeCloseTo(h!, 3));
  expect(equivalentHours(21.5, 19) * equivalentHours(19, 21.5)).toBeCloseTo(1, 12);
});
