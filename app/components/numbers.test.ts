import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { counted, fixed, megabytes, percent, plain, roomWords, signed, times, wordFor } from "./numbers";

describe("numbers for readers", () => {
  it("have a real minus sign, a fixed count of digits and no grouping below ten thousand (Unicode CLDR, English)", () => {
    expect([fixed(-3.25, 1), fixed(4, 2), fixed(9999), fixed(12_345), fixed(1_234_567.8, 1)]).toEqual([
      "−3.3",
      "4.00",
      "9999",
      "12,345",
      "1,234,567.8",
    ]);
    expect([signed(0.04, 1), signed(2, 0), signed(-2, 1)]).toEqual(["0.0", "+2", "−2.0"]);
    expect([percent(0.352), percent(0.052, 1), megabytes(1_234_000)]).toEqual(["35 %", "5.2 %", "1.2 MB"]);
    expect([counted(1, "place"), counted(0, "place"), counted(3, "entry", "entries")]).toEqual(["1 place", "0 places", "3 entries"]); // prettier-ignore
  });
  it("say no figure that means nothing: 0 GB, 151.3 times, 1 nights (each was seen on a page)", () => {
    expect([roomWords(0), roomWords(3e6), roomWords(0.64e9), roomWords(4.23e9), roomWords(38.4e9)]).toEqual(["1 MB", "3 MB", "640 MB", "4.2 GB", "38 GB"]); // prettier-ignore
    expect([times(1.26), times(9.96), times(151.3), times(1.234, 2)]).toEqual(["1.3 times", "10.0 times", "over 10 times", "1.23 times"]); // prettier-ignore
    expect([counted(1, "night"), wordFor(1, "shows", "show"), wordFor(2, "shows", "show")]).toEqual(["1 night", "shows", "show"]); // prettier-ignore
  });
  it("never say minus nought, and are the number rounded to half a unit of the last digit (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -9999, max: 9999, noNaN: true }),
        fc.integer({ min: 0, max: 3 }),
        (value, digits) => {
          const text = fixed(value, digits);
          expect(text).not.toMatch(/^−0\.?0*$/);
          const read = Number(text.replace("−", "-"));
          expect(Math.abs(read - value)).toBeLessThanOrEqual(0.5 * 10 ** -digits + 1e-9);
          expect(Number(plain(value, digits))).toBeCloseTo(value, 0);
        },
      ),
    );
  });
});
