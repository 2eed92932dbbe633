import { describe, expect, it } from "vitest";
import { nightDate, nightsBetween } from "~/core/time";
import { monthsOf, seasonOf, USUAL_MOON, yearNights, yearOf, type MoonWishes, type Place, type YearNight } from ".";

const place: Place = {
  name: "Check",
  latitudeDeg: 50,
  longitudeDeg: 10,
  elevationM: 0,
  timeZone: "Europe/Berlin",
  skyMagPerArcsec2: 22,
  skyline: [],
  minAltitudeDeg: 30,
  seeingArcsec: 3,
  clearChance: Array<number>(12).fill(0.3),
};
const m31 = { frame: "icrs", raDeg: 10.6847, decDeg: 41.269 } as const;
const DARK: MoonWishes = { ...USUAL_MOON, twilight: "below18" };
const yearAt = (p: Place) => yearNights(p, nightDate("2025-01-01"), 365, DARK);
const skies = yearAt(place);
const hours = (nights: readonly YearNight[], of: (n: YearNight) => number) =>
  nights.reduce((s, n) => s + of(n), 0) / 60;

describe("a year of nights (MATHS C6.12, PyEphem: M 31 from 50° N, 10° E in 2025)", () => {
  const at30 = yearOf(skies, m31, "L");
  it("holds 1420 h of darkness above 30° and 1596 h above 20°, Moon ignored, to 0.5 %", () => {
    expect(Math.abs(hours(at30, (n) => n.moonlessMin) / 1420 - 1)).toBeLessThan(0.005);
    expect(
      Math.abs(hours(yearOf(yearAt({ ...place, minAltitudeDeg: 20 }), m31, "L"), (n) => n.moonlessMin) / 1596 - 1),
    ).toBeLessThan(0.005);
  });
  it("loses to the Moon rule, but less than if every minute with the Moon up were lost (755 h left)", () => {
    const left = hours(at30, (n) => n.usableMin);
    expect(left).toBeLessThan(1420);
    expect(left).toBeGreaterThan(755);
    for (const n of at30) expect(n.usableMin).toBeLessThanOrEqual(n.moonlessMin);
  });
});

describe("the season", () => {
  it("of M 31 is best in late autumn and ends in February (C6.3: 87 min in mid July, 115 in mid February, none in March)", () => {
    const season = seasonOf(yearOf(skies, m31, "L"), 60);
    if (season.kind !== "season") throw new Error("no season");
    expect(nightsBetween(nightDate("2025-10-01"), season.bestFrom)).toBeGreaterThan(0);
    expect(season.bestTo <= "2025-12-10").toBe(true);
    expect(season.firstUseful! > "2025-06-30" && season.firstUseful! < "2025-07-16").toBe(true);
    expect(season.lastUseful! > "2025-02-14" && season.lastUseful! < "2025-03-10").toBe(true);
  });
  it("never comes for what does not rise, and has no ends for what is always up", () => {
    const south = yearAt({ ...place, latitudeDeg: 35, minAltitudeDeg: 15 });
    const nights = (decDeg: number) => yearOf(south, { frame: "icrs", raDeg: 0, decDeg }, "Ha");
    expect(seasonOf(nights(-70), 60)).toEqual({ kind: "never" });
    const even = skies.map((s) => ({
      date: s.date,
      usableMin: 200,
      moonlessMin: 240,
      worthMin: 100,
      moonlessWorthMin: 120,
      illuminatedFraction: 0.5,
    }));
    expect(seasonOf(even, 60)).toMatchObject({ kind: "season", firstUseful: null, lastUseful: null });
  });
});

describe("months in numbers", () => {
  it("add up to the year, and clear hours to its chance of clear nights", () => {
    const nights = yearOf(skies, m31, "L");
    const months = monthsOf(nights, place.clearChance);
    expect(months.map((m) => m.month).slice(0, 2)).toEqual(["2025-01", "2025-02"]);
    expect(months).toHaveLength(12);
    expect(months.reduce((s, m) => s + m.usableHours, 0)).toBeCloseTo(
      hours(nights, (n) => n.usableMin),
      6,
    );
    for (const m of months) expect(m.clearHours).toBeCloseTo(m.usableHours * 0.3, 9);
    expect(months.find((m) => m.month === "2025-05")!.nights).toBe(0);
  });
});
