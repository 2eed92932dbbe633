import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import fc from "fast-check";
import { expect, it } from "vitest";
import { clockTime, utcTime } from "./clock";

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
