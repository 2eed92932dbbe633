import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseFocalRatio, parseQuantity } from "./quantity";

describe("numbers with a unit of their own", () => {
  // NIST Special Publication 811 (2008), appendix B: inch 25.4 mm, foot 0.3048 m, mile 1.609344 km, mph 0.44704 m/s.
  it.each([
    ["8 in", "mm", 203.2],
    ['8"', "mm", 203.2],
    ["8″", "mm", 203.2],
    ["8″", "″", 8],
    ["1′", "″", 60],
    ["1.25 inch", "mm", 31.75],
    ["6000 ft", "m", 1828.8],
    ["5 ft 10 in", "m", 1.778],
    ["5' 10\"", "m", 1.778],
    ["20 cm", "mm", 200],
    ["0.2 m", "mm", 200],
    ["14 °F", "°C", -10],
    ["−40 F", "°C", -40],
    ["20 mph", "km/h", 32.18688],
    ["10 m/s", "km/h", 36],
    ["5 min", "s", 300],
    ["2 h", "min", 120],
    ["203,2", "mm", 203.2],
    ["203.2 mm", "mm", 203.2],
    ["3.76 um", "µm", 3.76],
  ])("%s in a box of %s is %d", (text, unit, value) => expect(parseQuantity(text, unit)).toBeCloseTo(value, 9));
  it("are differences where the box is of one: 18 °F warmer is 10 °C warmer", () => {
    expect(parseQuantity("18 °F", "°C", true)).toBeCloseTo(10, 9);
  });
  it.each([["8 in", "°C"], ["eight", "mm"], ["8 parsec", "mm"], ["8 in", undefined], ["", "mm"], ["ft", "m"], ["5 ft tall", "m"], ["−5 ft 10 in", "m"], ["8 in", "mag"]] as const)("%s in a box of %s is none", (text, unit) => expect(parseQuantity(text, unit)).toBeNull()); // prettier-ignore
  it("are the bare number where they name the box's own unit, and never throw (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.constantFrom("mm", "m", "km/h", "°C", "s", "min", "°", "″", "µm"),
        (n, unit) => {
          expect(parseQuantity(`${n} ${unit}`, unit)).toBeCloseTo(n, 3);
          expect(parseQuantity(String(n), unit)! - n).toBe(0);
        },
      ),
    );
    fc.assert(fc.property(fc.string(), fc.constantFrom("mm", "°C", "″", "x"), (text, unit) => void parseQuantity(text, unit))); // prettier-ignore
  });
});

it("an aperture may be told as a focal ratio", () => {
  expect(parseFocalRatio("f/2.8", 200)).toBeCloseTo(71.43, 9);
  expect(parseFocalRatio("F2", 85)).toBe(42.5);
  expect([parseFocalRatio("2.8", 200), parseFocalRatio("f/0", 200), parseFocalRatio("f/4", null)]).toEqual([null, null, null]); // prettier-ignore
});
