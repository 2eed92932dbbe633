import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import fc from "fast-check";
import { expect, it } from "vitest";
import { clockTime, clockTimeBeside, utcTime } from "./clock";

it("writes the time of a zone's clock as date-fns does, on both sides of a clock change (law)", () => {
  const zone = fc.constantFrom("Europe/Rome", "America/St_Johns", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC");
  fc.assert(
    fc.property(zone, fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2040, 0, 1) }), (tz, ms) => {
      expect(clockTime(ms, tz)).toBe(format(new TZDate(ms, tz), "HH:mm"));
    }),
    { numRuns: 200, examples: [["Europe/Rome", Date.UTC(2026, 9, 25, 0, 30)], ["Europe/Rome", Date.UTC(2026, 9, 25, 1, 30)]] }, // prettier-ignore
  );
  expect(utcTime(Date.UTC(2026, 9, 25, 0, 30))).toBe("00:30 UTC");
});

it("names the zone of a time that is not the page's own, and only where the clocks differ then", () => {
  const at = Date.UTC(2026, 11, 5, 20);
  expect(clockTimeBeside(at, "Europe/Warsaw", "Europe/Paris")).toBe("21:00");
  expect(clockTimeBeside(at, "Europe/London", "Europe/Paris")).toBe("20:00 GMT");
  // A fortnight in March in which America has changed its clocks and Europe has not: five hours apart, not six.
  expect(clockTimeBeside(Date.UTC(2026, 2, 15, 20), "America/New_York", "Europe/Paris")).toMatch(
    /^16:00 (EDT|GMT−4|GMT-4)$/,
  );
});
