import { describe, expect, it } from "vitest";
import checks from "../../../reference/maths/checks.json";
import airmass from "../../../reference/tables/airmass.json";
import skymoon from "../../../reference/tables/skymoon.json";
import { nanolambertToSkyMag, skyMagToNanolambert } from "~/core/units";
import {
  airmassKastenYoung, airmassPickering, darkSkyNanolambert, darknessClass, domeFootNanolambert, domeNanolambert, magOfDarknessClass, skyTowardsMag, extinctionMagPerAirmass, moonAvoidanceDeg, moonColourFactor, moonlightNanolambert,
  refractionOfApparentArcmin, refractionOfTrueArcmin, thinAirmass,
} from "."; // prettier-ignore

it("gives both airmasses to 1e-5 and both refractions to 0.0005′ (reference/tables/airmass.json)", () => {
  for (const [h, ky, pickering, bennett, saemundsson] of airmass.rows) {
    expect(Math.abs(airmassKastenYoung(h!) / ky! - 1)).toBeLessThan(1e-5);
    expect(Math.abs(airmassPickering(h!) / pickering! - 1)).toBeLessThan(1e-5);
    expect(Math.abs(refractionOfApparentArcmin(h!) - bennett!)).toBeLessThan(5e-4);
    expect(Math.abs(refractionOfTrueArcmin(h!) - saemundsson!)).toBeLessThan(5e-4);
  }
});

it("gives moonlight to 1e-4 and moonlit skies to 0.002 mag (reference/tables/skymoon.json, Krisciunas & Schaefer 1991)", () => {
  const zeniths = [21.587, 22, 21, 19.5, 18];
  type Row = [number, number, number, number, [number, ...[number, number][]], [number, ...[number, number][]]];
  for (const [phaseAngleDeg, moonZ, z, separationDeg, b172, b25] of skymoon.rows as unknown as Row[]) {
    for (const [k, block] of [
      [0.172, b172],
      [0.25, b25],
    ] as const) {
      const moon = moonlightNanolambert({
        phaseAngleDeg,
        separationDeg,
        zenithDistanceDeg: z,
        moonZenithDistanceDeg: moonZ,
        extinctionMag: k,
      });
      expect(Math.abs(moon - block[0])).toBeLessThan(Math.max(1e-4 * block[0], 1e-3));
      zeniths.forEach((v, i) => {
        const x = thinAirmass(z);
        const dark = skyMagToNanolambert(v) * x * 10 ** (-0.4 * k * (x - 1));
        const [vDark, vMoonlit] = block[i + 1] as [number, number];
        expect(Math.abs(nanolambertToSkyMag(dark) - vDark)).toBeLessThan(0.002);
        expect(Math.abs(nanolambertToSkyMag(dark + moon) - vMoonlit)).toBeLessThan(0.002);
      });
    }
  }
});

it("brightens a town sky of 20.0 towards the horizon as MATHS C2.19: 20.000, 19.699, 19.432, 19.191", () => {
  const at = (h: number) =>
    nanolambertToSkyMag(darkSkyNanolambert({ zenithSkyMag: 20, zenithDistanceDeg: 90 - h, extinctionMag: 0.25 }));
  [
    [90, 20],
    [45, 19.699],
    [30, 19.432],
    [20, 19.191],
  ].forEach(([h, v]) => expect(Math.abs(at(h!) - v!)).toBeLessThan(0.001));
});

it("extinguishes by wavelength and height as MATHS C2.2 (Hayes & Latham 1975; 0.01 mag for the ozone from memory)", () => {
  const sea = [
    [440, 0.413],
    [530, 0.261],
    [550, 0.244],
    [640, 0.173],
    [656.3, 0.159],
    [500.7, 0.29],
    [672.4, 0.146],
  ];
  for (const [nm, k] of sea) expect(Math.abs(extinctionMagPerAirmass(nm!, 0) - k!)).toBeLessThan(0.03);
  expect(extinctionMagPerAirmass(500.7, 1500)).toBeLessThan(extinctionMagPerAirmass(500.7, 0) - 0.08);
});

it("sends OIII 1.2–1.6 times the moonlight of Ha per nm, the more the further from the Moon (MATHS C2.9, 5 %)", () => {
  const c = (nm: number, rho: number) =>
    moonColourFactor({
      wavelengthNm: nm,
      separationDeg: rho,
      zenithDistanceDeg: 45,
      moonZenithDistanceDeg: 45,
      elevationM: 0,
    });
  const expected = [
    [30, 1.05, 0.863, 0.844],
    [60, 1.115, 0.753, 0.721],
    [90, 1.141, 0.71, 0.673],
  ];
  for (const [rho, oiii, ha, sii] of expected) {
    expect(Math.abs(c(500.7, rho!) / oiii! - 1)).toBeLessThan(0.05);
    expect(Math.abs(c(656.3, rho!) / ha! - 1)).toBeLessThan(0.05);
    expect(Math.abs(c(672.4, rho!) / sii! - 1)).toBeLessThan(0.05);
  }
});

it("asks for the separations of MATHS C2.10 and for none from a thin crescent", () => {
  const day = 12.19;
  const rule = (atFullDeg: number, halfWidthDays: number) =>
    [0, 3, 7, 10].map((d) => moonAvoidanceDeg({ atFullDeg, halfWidthDays }, d * day));
  [
    [120, 14, 120, 114.7, 96, 79.5],
    [100, 10, 100, 91.7, 67.1, 50],
    [60, 7, 60, 50.7, 30, 19.7],
  ].forEach(([d, w, ...want]) => rule(d!, w!).forEach((got, i) => expect(Math.abs(got - want[i]!)).toBeLessThan(0.06)));
  expect(moonAvoidanceDeg({ atFullDeg: 120, halfWidthDays: 14 }, 165)).toBe(0);
});

describe("light domes (reference/maths, C2.18; the dome model is a proposal of this project)", () => {
  const foot = { footNanolambert: 1500, azimuthDeg: 200, widthDeg: 30 };
  it("fade along the horizon and upwards", () => {
    const [a, b, c] = checks["C2.18"].outputs.v as [number, number, number];
    const glow = (azimuthDeg: number, altitudeDeg: number) => domeNanolambert(foot, { azimuthDeg, altitudeDeg });
    expect(glow(200, 0)).toBeCloseTo(a, 9);
    expect(glow(200, 15)).toBeCloseTo(b, 6);
    expect(glow(230, 30)).toBeCloseTo(c, 6);
  });
  it("give back the brightness that was measured at 30° above them, across north too", () => {
    const dome = { name: "", azimuthDeg: 358, magPerArcsec2: 18.6, widthDeg: 25 };
    const place = { zenithSkyMag: 20.9, extinctionMag: 0.25, domes: [dome] };
    expect(skyTowardsMag(place, { azimuthDeg: 358, altitudeDeg: 30 })).toBeCloseTo(18.6, 6);
    expect(skyTowardsMag(place, { azimuthDeg: 5, altitudeDeg: 30 })).toBeCloseTo(
      skyTowardsMag(place, { azimuthDeg: 351, altitudeDeg: 30 }),
      9,
    );
    expect(skyTowardsMag(place, { azimuthDeg: 178, altitudeDeg: 30 })).toBeGreaterThan(20);
  });
  it("add nothing where the sky towards them is no brighter than the even sky", () => {
    expect(domeFootNanolambert({ name: "", azimuthDeg: 0, magPerArcsec2: 21.5, widthDeg: 30 }, 20, 0.25)).toBe(0);
  });
});

it("hints at a class 1 to 9 and takes one (common practice, approximate: two conversions circulate)", () => {
  expect([22, 21.7, 21.4, 21, 20.5, 19.8, 18.9, 18.2, 17].map(darknessClass)).toEqual([1, 2, 3, 4, 5, 6, 7, 8, 9]);
  for (let c = 1; c <= 9; c++) expect(darknessClass(magOfDarknessClass(c))).toBe(c);
});
