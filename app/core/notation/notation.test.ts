import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  formatDeclination,
  spokenDeclination,
  spokenRightAscension,
  looksLikePosition,
  parsePosition,
  formatMinutes,
  formatRightAscension,
  plainPosition,
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
  expect(spokenDeclination(-0.99999)).toBe("minus 1 degree 0 minutes 0 seconds");
  expect(spokenDeclination(31.99)).toBe("plus 31 degrees 59 minutes 24 seconds");
  expect(spokenRightAscension(314.1537)).toBe("20 hours 56 minutes 36.9 seconds");
  expect(spokenRightAscension(359.99999)).toBe("0 hours 0 minutes 0 seconds");
  expect(formatRightAscension(359.99999)).toBe("00h 00m 00.0s");
  expect(formatMinutes(119.6)).toBe("2 h 00");
});

describe("a position as people write it", () => {
  const deneb = { raDeg: 310.358, decDeg: 45.2803 }; // α Cygni, Hipparcos
  it.each([
    ["20h41m25.9s +45°16′49″", "hours"],
    ["20 41 25.9 +45 16 49", "hours"],
    ["20:41:25.9, +45:16:49", "hours"],
    ["J204125.9+451649", "hours"],
    ["RA 20h 41m 25.9s Dec 45d 16m 49s", "hours"],
    ["310.358 45.2803", "degrees"],
    ["310.358,+45.2803", "degrees"],
    ["310,358 45,2803", "degrees"],
    ["310.358° +45.2803°", "degrees"],
  ])("reads %s", (text, read) => {
    const got = parsePosition(text);
    expect(got.ok && got.value.read).toBe(read);
    if (got.ok) {
      expect(Math.abs(got.value.raDeg - deneb.raDeg)).toBeLessThan(0.001);
      expect(Math.abs(got.value.decDeg - deneb.decDeg)).toBeLessThan(0.001);
    }
    expect(looksLikePosition(text)).toBe(true);
  });
  it("keeps the sign of a small southern declination", () => {
    expect(parsePosition("5h35m -0 30")).toMatchObject({ ok: true, value: { decDeg: -0.5 } });
  });
  it.each([
    ["25h +10", "positionRightAscension"],
    ["400 10", "positionRightAscension"],
    ["12 30 +95", "positionDeclination"],
    ["Deneb", "positionUnreadable"],
    ["12h", "positionUnreadable"],
    ["", "positionUnreadable"],
  ])("refuses %s and says which half", (text, code) => {
    expect(parsePosition(text)).toMatchObject({ ok: false, error: { code } });
  });
  it.each(["ngc 6960", "M 31", "sh2-132", "Abell 21", "PK 36-57.1", "LDN 1235", "vdb 152", "6960"])(
    "does not take the name %s for a position",
    (text) => expect(looksLikePosition(text)).toBe(false),
  );
  it("reads back what it writes (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.999, noNaN: true }),
        fc.double({ min: -90, max: 90, noNaN: true }),
        (raDeg, decDeg) => {
          const got = parsePosition(`${formatRightAscension(raDeg, 2)} ${formatDeclination(decDeg, 1)}`);
          expect(got.ok).toBe(true);
          if (!got.ok) return;
          expect(Math.abs(((got.value.raDeg - raDeg + 540) % 360) - 180)).toBeLessThan(0.1 / 3600);
          expect(Math.abs(got.value.decDeg - decDeg)).toBeLessThan(0.06 / 3600);
        },
      ),
    );
  });
});

it("writes positions for machines in ASCII, and reads them back to half a unit of the last digit (law)", () => {
  expect(plainPosition({ raDeg: 312.639, decDeg: -71.9475 })).toEqual({ ra: "20 50 33.36", dec: "-71 56 51.0" });
  expect(plainPosition({ raDeg: 359.99999, decDeg: -0.0000001 })).toEqual({ ra: "00 00 00.00", dec: "-00 00 00.0" });
  fc.assert(
    fc.property(fc.double({ min: 0, max: 359.999, noNaN: true }), fc.double({ min: -90, max: 90, noNaN: true }), (raDeg, decDeg) => {
      const { ra, dec } = plainPosition({ raDeg, decDeg });
      expect(`${ra} ${dec}`).toMatch(/^[\x20-\x7e]+$/);
      const read = parsePosition(`${ra} ${dec}`);
      if (!read.ok) throw new Error(`${ra} ${dec}`);
      expect(Math.abs(((read.value.raDeg - raDeg + 540) % 360) - 180)).toBeLessThan(0.0051 / 240);
      expect(Math.abs(read.value.decDeg - decDeg)).toBeLessThan(0.051 / 3600);
    }), // prettier-ignore
  );
});
