import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { parseOffset } from ".";

describe("a place told from a listed object", () => {
  it.each([
    ["near M 81, 20' east of it", "M 81", 20, 0],
    ["M 81, 20′ E 5′ N", "M 81", 20, 5],
    ["20' e of M 81", "M 81", 20, 0],
    ["1.5° NE of NGC 7000", "NGC 7000", 63.64, 63.64],
    ["30 arcsec south from Sh2-132", "Sh2-132", 0, -0.5],
    ["15 west of NGC 891", "NGC 891", -15, 0],
    ["10' north-west of M 31", "M 31", -7.07, 7.07],
  ])("“%s”", (text, of, east, north) => {
    const read = parseOffset(text)!;
    expect(read.of).toBe(of);
    expect(read.eastArcmin).toBeCloseTo(east, 2);
    expect(read.northArcmin).toBeCloseTo(north, 2);
  });
  it.each(["M 81", "20' east", "east of M 81", "", "Eastern Veil", "NGC 7000 and IC 5070"])("“%s” is none", (text) =>
    expect(parseOffset(text)).toBeNull(),
  );
  it("never throws, whatever is typed (law)", () => {
    fc.assert(fc.property(fc.string({ maxLength: 220 }), (text) => void parseOffset(text)));
  });
});
