import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { convertQuantity, parseClock } from ".";

describe("clock times as they are written", () => {
  it("are read in either habit", () => {
    const read = {
      "21:05": "21:05", "2105": "21:05", "21.05": "21:05", "21h05": "21:05", "9:05 pm": "21:05", "9:05PM": "21:05", "9 p.m.": "21:00",
      "12 am": "00:00", "12:30 pm": "12:30", "0:10": "00:10", "7": "07:00", "905 pm": "21:05", "21 h": "21:00",
    }; // prettier-ignore
    for (const [text, clock] of Object.entries(read)) expect(parseClock(text), text).toBe(clock);
  });
  it("are none where they cannot be", () => {
    for (const text of ["", "24:00", "9:60", "13 pm", "0 am", "noon", "9:5", "-1", "21:05:00", "1e1"])
      expect(parseClock(text), text).toBeNull();
  });
  it("come back as the minute they are, by the browser's own formatter in both habits", () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1439 }), fc.boolean(), (minute, hour12) => {
        const at = new Date(Date.UTC(2026, 0, 1, 0, minute));
        const text = new Intl.DateTimeFormat(hour12 ? "en-US" : "en-GB", { timeStyle: "short", timeZone: "UTC", hour12 }).format(at); // prettier-ignore
        expect(parseClock(text)).toBe(at.toISOString().slice(11, 16));
      }),
    );
  });
});

describe("a value in another unit", () => {
  // NIST Special Publication 811, appendix B: exact factors.
  it("is the same by the definitions", () => {
    expect(convertQuantity(25.4, "mm", "in")).toBeCloseTo(1, 12);
    expect(convertQuantity(100, "m", "ft")).toBeCloseTo(328.084, 3);
    expect(convertQuantity(100, "km/h", "mph")).toBeCloseTo(62.1371, 4);
    expect([convertQuantity(-40, "°C", "°F"), convertQuantity(5, "°C", "°F", true)]).toEqual([-40, 9]);
    expect(convertQuantity(1, "m", "°C")).toBeNaN();
  });
});
