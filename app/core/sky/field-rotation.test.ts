import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { fieldRotationDegPerHour, usualRotationDegPerHour } from ".";

const rad = Math.PI / 180;

/** Parallactic angle by spherical trigonometry, degrees: what the rate is the derivative of. */
const parallactic = (lat: number, dec: number, hour: number) =>
  Math.atan2(Math.sin(hour * rad), Math.tan(lat * rad) * Math.cos(dec * rad) - Math.sin(dec * rad) * Math.cos(hour * rad)) / rad; // prettier-ignore

const horizontal = (lat: number, dec: number, hour: number) => {
  const alt = Math.asin(Math.sin(lat * rad) * Math.sin(dec * rad) + Math.cos(lat * rad) * Math.cos(dec * rad) * Math.cos(hour * rad)); // prettier-ignore
  const az = Math.atan2(-Math.cos(dec * rad) * Math.sin(hour * rad), Math.sin(dec * rad) * Math.cos(lat * rad) - Math.cos(dec * rad) * Math.sin(lat * rad) * Math.cos(hour * rad)); // prettier-ignore
  return { altitudeDeg: alt / rad, azimuthDeg: az / rad };
};

describe("the turning field of a mount in altitude and azimuth", () => {
  it("is that of MATHS C3.17", () => {
    expect(fieldRotationDegPerHour(50, 180, 60)).toBeCloseTo(19.336, 3);
  });

  it("is the derivative of the parallactic angle, on either half of the Earth", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -65, max: 65, noNaN: true }),
        fc.double({ min: -80, max: 80, noNaN: true }),
        fc.double({ min: -100, max: 100, noNaN: true }),
        (lat, dec, hour) => {
          const { altitudeDeg, azimuthDeg } = horizontal(lat, dec, hour);
          fc.pre(altitudeDeg > 5 && altitudeDeg < 80);
          const step = 1e-4;
          let turned = parallactic(lat, dec, hour + step) - parallactic(lat, dec, hour - step);
          turned -= 360 * Math.round(turned / 360);
          const degPerHour = (turned / (2 * step)) * 15.041;
          expect(fieldRotationDegPerHour(lat, azimuthDeg, altitudeDeg)).toBeCloseTo(degPerHour, 2);
        },
      ),
    );
  });

  it("has no usual rate where a target never stands, and a mild one due east", () => {
    expect(usualRotationDegPerHour(50, -60, 20)).toBeNull();
    expect(Math.abs(fieldRotationDegPerHour(50, 90, 40))).toBeLessThan(1e-9);
    const rate = usualRotationDegPerHour(45, 10, 30)!;
    expect(rate).toBeGreaterThan(5);
    expect(rate).toBeLessThan(25);
  });
});
