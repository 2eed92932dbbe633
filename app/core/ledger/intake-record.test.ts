import fc from "fast-check";
import { expect, it } from "vitest";
import { clockAheadHours } from "./intake-record";

/** A Sun that is down from 17:30 to 05:30, on every day: as plain as can be. */
const isDark = (hour: number) => (((hour - 17.5) % 24) + 24) % 24 < 12;
const sun = (hours: readonly number[]) => (light: number, back: number) => (isDark(hours[light]! - back) ? -20 : 20);

it("a clock that is hours off shows by lights under the Sun: the smallest shift that puts all of them into the dark", () => {
  expect(clockAheadHours(3, sun([18, 22, 29]))).toBeNull(); // all in the dark
  expect(clockAheadHours(3, sun([20, 24, 31]))).toBe(2); // 07:00 is day; two hours back, and 18:00 is dark as well
  expect(clockAheadHours(2, sun([15, 17]))).toBe(-3); // behind
  expect(clockAheadHours(3, sun([12, 20.5, 32]))).toBeNull(); // longer than any night: no clock explains it
  expect(clockAheadHours(0, sun([]))).toBeNull();
});

it("a shift that is named puts every light into the dark, and no smaller one does (law)", () => {
  fc.assert(
    fc.property(fc.array(fc.double({ min: 0, max: 48, noNaN: true }), { minLength: 1, maxLength: 6 }), (hours) => {
      const shift = clockAheadHours(hours.length, sun(hours));
      const fits = (h: number) => hours.every((t) => isDark(t - h));
      if (shift === null) expect(fits(0) || ![...Array(29).keys()].some((i) => fits(i - 14))).toBe(true);
      else {
        expect(fits(shift)).toBe(true);
        for (let h = 1 - Math.abs(shift); h < Math.abs(shift); h++) expect(fits(h)).toBe(false);
      }
    }),
    { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 200 },
  );
});
