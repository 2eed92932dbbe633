import fc from "fast-check";
import { expect, it } from "vitest";
import {
  formatDeclination,
  formatMinutes,
  formatRightAscension,
  parseAngle,
  parseDeclinationDeg,
  parseNumber,
  parseRightAscensionDeg,
} from ".";

const value = <T>(r: { ok: true; value: T } | { ok: false }) => (r.ok ? r.value : null);

it("reads the usual notations of an angle", () => {
  for (const text of ["-12.504306", "-12 30 15.5", "-12:30:15.5", "−12°30′15.5″", "12 30 15.5 S", "-12d30m15.5s"])
    expect(value(parseAngle(text))).toBeCloseTo(-12.504306, 5);
  expect(value(parseAngle("-00 30 00"))).toBe(-0.5);
  expect(value(parseRightAscensionDeg("20h50m"))).toBeCloseTo(312.5, 9);
  expect(value(parseRightAscensionDeg("312.5 deg"))).toBe(312.5);
  expect(parseNumber("43,5")).toBe(43.5);
});

it("refuses what is no angle, or lies off the sphere", () => {
  for (const text of ["", "north", "12 61 00", "12 30 60", "12.5 30", "1 2 3 4", "-12 S", "--1"])
    expect(parseAngle(text).ok).toBe(false);
  expect(parseDeclinationDeg("95")).toEqual({ ok: false, error: { code: "angleOutOfRange", text: "95" } });
  expect(parseRightAscensionDeg("25h").ok).toBe(false);
  expect(["1e", "twelve", "", "1.2.3"].map(parseNumber)).toEqual([null, null, null, null]);
});

it("writes and reads back every direction to the last digit shown", () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 359.9999, noNaN: true }),
      fc.double({ min: -90, max: 90, noNaN: true }),
      (ra, dec) => {
        const readRa = value(
          parseRightAscensionDeg(formatRightAscension(ra, 2).replaceAll(/[hm]/g, " ").replace("s", "")),
        )!;
        expect(Math.abs(((readRa - ra + 540) % 360) - 180)).toBeLessThanOrEqual(0.0051 * (15 / 3600));
        expect(Math.abs(value(parseDeclinationDeg(formatDeclination(dec, 1)))! - dec)).toBeLessThanOrEqual(
          0.051 / 3600,
        );
      },
    ),
  );
});

it("carries rounded seconds and minutes over", () => {
  expect(formatDeclination(-0.99999)).toBe("−01° 00′ 00″");
  expect(formatRightAscension(359.99999)).toBe("00h 00m 00.0s");
  expect(formatMinutes(119.6)).toBe("2 h 00");
});
