import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { directionOf } from "~/core/sky";
import { addNights, nightDate } from "~/core/time";
import {
  comingSeason,
  placeNight,
  seasonTable,
  seasonWeeks,
  tablesOf,
  targetNight,
  USUAL_MOON,
  weekNight,
  yearNights,
  yearOf,
  type MoonWishes,
  type Place,
} from ".";

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
  clearChance: Array<number>(12).fill(0.5),
};
const from = nightDate("2025-09-01");
const DARK: MoonWishes = { ...USUAL_MOON, twilight: "below18" };
const seasons = (at: Place) => seasonTable(at, tablesOf(at, "L"), seasonWeeks(at, from), { moon: DARK });
const m31 = { raDeg: 10.6847, decDeg: 41.269 };

describe("the coming season in weeks", () => {
  it("of M 31 at 50° N lasts from September into February (MATHS C6.3: 115 min in mid February, none in March)", () => {
    const { left, clearNights } = comingSeason(seasons(place), m31);
    expect(left).toMatchObject({ kind: "open" });
    const weeks = left.kind === "open" ? left.weeksLeft : 0;
    expect(addNights(from, 7 * weeks) > "2026-02-15").toBe(true);
    expect(addNights(from, 7 * weeks) < "2026-03-15").toBe(true);
    expect(clearNights).toBeCloseTo(weeks * 7 * 0.5, 6);
  });
  it("agrees with every night computed on its own on the last useful week to one (same core, independent path)", () => {
    const skyline = [
      { azimuthDeg: 90, altitudeDeg: 10 },
      { azimuthDeg: 180, altitudeDeg: 35 },
      { azimuthDeg: 270, altitudeDeg: 5 },
    ];
    const yard = { ...place, skyline, minAltitudeDeg: 20 };
    const table = seasons(yard);
    const skies = yearNights(yard, from, 371, DARK);
    for (const target of [m31, { raDeg: 300, decDeg: 22 }, { raDeg: 83, decDeg: -5.4 }, { raDeg: 148, decDeg: 69 }]) {
      const nights = yearOf(skies, { frame: "icrs", ...target }, "L");
      const isUseful = Array.from({ length: 53 }, (_, w) => nights[7 * w]!.moonlessMin >= 60);
      const { left } = comingSeason(table, target);
      const opens = isUseful.indexOf(true);
      const closes = isUseful.indexOf(false, opens);
      if (left.kind === "open") expect(Math.abs(left.weeksLeft - closes)).toBeLessThanOrEqual(1);
      else if (left.kind === "opens") {
        expect(Math.abs(left.inWeeks - opens)).toBeLessThanOrEqual(1);
        expect(Math.abs(left.inWeeks + left.weeks - (closes === -1 ? 53 : closes))).toBeLessThanOrEqual(1);
      } else expect(left.kind).toBe(opens === -1 ? "short" : "allYear");
    }
  });
  it("gives each week's first night to 6 minutes, or to half a degree where the target grazes a limit (law; same core, step by step)", () => {
    const skyline = [
      { azimuthDeg: 90, altitudeDeg: 10 },
      { azimuthDeg: 180, altitudeDeg: 35 },
      { azimuthDeg: 270, altitudeDeg: 5 },
    ];
    const yard = { ...place, skyline, minAltitudeDeg: 20 };
    const table = seasons(yard);
    const week = fc.integer({ min: 0, max: 52 });
    const at = fc.record({ raDeg: fc.double({ min: 0, max: 359, noNaN: true }), decDeg: fc.double({ min: -35, max: 85, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(at, week, ({ raDeg, decDeg }, w) => {
        const night = placeNight(yard, addNights(from, 7 * w), DARK);
        const of = (dec: number) => targetNight(night, { frame: "icrs", raDeg, decDeg: dec }, "L");
        const [below, exact, above] = [of(decDeg - 1 / 2), of(decDeg), of(decDeg + 1 / 2)];
        const mine = weekNight(table, directionOf(exact.ofDate), w);
        const few = Math.min(below.moonlessMin, exact.moonlessMin, above.moonlessMin);
        const many = Math.max(below.moonlessMin, exact.moonlessMin, above.moonlessMin);
        expect(mine.usableMin).toBeGreaterThan(few - 7);
        expect(mine.usableMin).toBeLessThan(many + 7);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 100 },
    );
  });
  it("knows the pole is there all year, the far south never, and that July at 60° N has no dark night", () => {
    expect(comingSeason(seasons({ ...place, latitudeDeg: 45 }), { raDeg: 40, decDeg: 88 }).left.kind).toBe("allYear");
    expect(comingSeason(seasons(place), { raDeg: 40, decDeg: -60 })).toMatchObject({
      left: { kind: "short" },
      clearNights: 0,
    });
    const north = { ...place, latitudeDeg: 60, longitudeDeg: 25, timeZone: "Europe/Helsinki" };
    const july = seasonTable(north, tablesOf(north, "L"), seasonWeeks(north, nightDate("2026-07-01")), { moon: DARK });
    expect(july.usable.darkHalfDeg[0]).toBe(0);
    expect(comingSeason(july, { raDeg: 300, decDeg: 60 }).left).toMatchObject({ kind: "opens" });
  });
  it("never grows when the skyline does (law)", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 89, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (decDeg, wall) => {
          const walled = { ...place, skyline: [{ azimuthDeg: 0, altitudeDeg: wall }] };
          const [open, less] = [seasons(place), seasons(walled)].map((t) =>
            t.byBin(Math.round(2 * decDeg) + 180).worth.at(-1)!,
          ) as [number, number];
          expect(less).toBeLessThanOrEqual(open + 1e-9);
        },
      ),
      { numRuns: 25 },
    );
  });
});
