import fc from "fast-check";
import { expect, it } from "vitest";
import { deltaTSeconds, isNightDate, isTimeZone, jdUtcOf, utcMs, fullHours, utcOffsetMinutes } from ".";

it("gives the Julian date of 1957 Oct 4.81 as 2436116.31 (Meeus, Astronomical Algorithms, 2nd ed., ex. 7.a)", () => {
  expect(jdUtcOf(utcMs(Date.UTC(1957, 9, 4, 0, 0, 0) + 0.81 * 86_400_000))).toBeCloseTo(2436116.31, 6);
});

it("refuses dates that do not exist", () => {
  expect(["2026-02-29", "2026-13-01", "26-1-1", ""].map(isNightDate)).toEqual([false, false, false, false]);
  expect(isNightDate("2028-02-29")).toBe(true);
});

it("knows zones by their IANA name only", () => {
  expect(["Europe/Rome", "Mars/Olympus", ""].map(isTimeZone)).toEqual([true, false, false]);
});

it("holds TT − UT near its published values: 55.8 s in 1988 and 69.2 s today (Astronomical Almanac, from memory; ± 0.4 s)", () => {
  expect(Math.abs(deltaTSeconds(utcMs(Date.UTC(1988, 0, 1))) - 55.8)).toBeLessThan(0.4);
  expect(deltaTSeconds(utcMs(Date.UTC(2026, 11, 5)))).toBe(69.2);
});

it("finds the full hours of the clocks where they are 45 minutes off UTC, and one twice when clocks go back", () => {
  const chatham = fullHours(utcMs(Date.UTC(2026, 11, 5, 8, 0)), Date.UTC(2026, 11, 5, 11, 0), "Pacific/Chatham"); // UTC+13:45
  expect(chatham.map((ms) => new Date(ms).toISOString().slice(11, 16))).toEqual(["08:15", "09:15", "10:15"]);
  const paris = fullHours(utcMs(Date.UTC(2026, 9, 24, 23, 30)), Date.UTC(2026, 9, 25, 2, 30), "Europe/Paris");
  const clock = paris.map((ms) => new Date(ms + utcOffsetMinutes("Europe/Paris", ms) * 60_000).getUTCHours());
  expect(clock).toEqual([2, 2, 3]);
});

it("finds full hours of the place on the night its clocks change by half an hour (Lord Howe, 2026-04-05, tz database)", () => {
  const hours = fullHours(utcMs(Date.UTC(2026, 3, 4, 12, 10)), Date.UTC(2026, 3, 4, 18, 10), "Australia/Lord_Howe"); // +11 until 15:00 UTC, then +10:30
  const clock = hours.map((ms) => new Intl.DateTimeFormat("en-GB", { timeZone: "Australia/Lord_Howe", timeStyle: "short" }).format(ms)); // prettier-ignore
  expect(clock).toEqual(["00:00", "01:00", "02:00", "03:00", "04:00"]);
  expect(hours.map((ms) => new Date(ms).toISOString().slice(11, 16))).toEqual([
    "13:00",
    "14:00",
    "15:30",
    "16:30",
    "17:30",
  ]);
});

it("tells the offset as Intl does at any instant from 2000 to 2060, asked for the first time or again (law)", () => {
  const zones = ["Europe/Rome", "America/St_Johns", "Australia/Lord_Howe", "Asia/Kathmandu", "Pacific/Chatham", "Africa/Casablanca"]; // prettier-ignore
  const instant = fc.integer({ min: Date.UTC(2000, 0, 1), max: Date.UTC(2060, 0, 1) });
  fc.assert(
    fc.property(fc.constantFrom(...zones), instant, (zone, ms) => {
      const parts = new Intl.DateTimeFormat("en-GB", { timeZone: zone, dateStyle: "short", timeStyle: "medium" }).formatToParts(ms); // prettier-ignore
      const of = (type: string) => Number(parts.find((p) => p.type === type)!.value);
      const local = Date.UTC(of("year"), of("month") - 1, of("day"), of("hour"), of("minute"), of("second"));
      const offset = (local - Math.floor(ms / 1000) * 1000) / 60_000;
      expect([utcOffsetMinutes(zone, utcMs(ms)), utcOffsetMinutes(zone, utcMs(ms + 1))]).toEqual([offset, offset]);
    }),
    { numRuns: 300, examples: [["Europe/Rome", Date.UTC(2026, 9, 25, 0, 59, 59)], ["Europe/Rome", Date.UTC(2026, 9, 25, 1)], ["Australia/Lord_Howe", Date.UTC(2026, 3, 4, 15)]] }, // prettier-ignore
  );
});
