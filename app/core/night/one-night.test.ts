import { Body, Equator, Horizon, Illumination, Observer } from "astronomy-engine";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testPlace, testRig } from "~/core/test-data";
import type { CatalogEntry } from "~/core/catalog";
import { CHANNEL_FACTS, pictureOf, type Filter } from "~/core/exposure";
import { moonAvoidanceDeg, separationDeg, type Equatorial } from "~/core/sky";
import { addNights, MINUTE_MS, nightDate } from "~/core/time";
import {
  accountOf, exactLine, NIGHT_STEP_MIN, placeNight, rankCatalog, ribbonNight, sumsOf, targetNight, USUAL_MOON, withMoon, yearNights, yearOf,
  type MoonWishes, type Place,
} from "."; // prettier-ignore

const runs = (usual: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : usual);
const L: Filter = { name: "L", channel: "L", centreNm: 550, bandwidthNm: 300, transmission: 0.9 };
const KEEP: MoonWishes = { ...USUAL_MOON, school: "keepAway" };
const NONE: MoonWishes = { ...USUAL_MOON, school: "noMoon" };
const anyTarget = fc
  .record({ raDeg: fc.double({ min: 0, max: 359.9, noNaN: true }), decDeg: fc.double({ min: -30, max: 89, noNaN: true }) })
  .map((t): Equatorial<"icrs"> => ({ frame: "icrs", ...t })); // prettier-ignore
const anyDay = fc.integer({ min: 0, max: 400 }).map((d) => addNights(nightDate("2026-06-01"), d));

/** Sun and Moon as the ephemeris library itself gives them. */
function truly(ms: number, at: { latitudeDeg: number; longitudeDeg: number; elevationM: number }) {
  const seen = new Observer(at.latitudeDeg, at.longitudeDeg, at.elevationM);
  const of = (body: Body) => {
    const e = Equator(body, new Date(ms), seen, true, true);
    return { ...Horizon(new Date(ms), seen, e.ra, e.dec), raDeg: e.ra * 15, decDeg: e.dec };
  };
  const phaseDeg = Illumination(Body.Moon, new Date(ms)).phase_angle;
  return { sunDeg: of(Body.Sun).altitude, moon: of(Body.Moon), phaseDeg };
}

describe("a night near the polar circle, by clocks off the Sun", () => {
  const iceland: Place = { ...testPlace, latitudeDeg: 66.07, longitudeDeg: -23.14, timeZone: "Atlantic/Reykjavik", minAltitudeDeg: 20 }; // prettier-ignore
  it("has its 788 minutes below −18° on 2026-12-21 (a minute sweep by an independent library), and they are usable", () => {
    const night = placeNight(iceland, nightDate("2026-12-21"), USUAL_MOON);
    const dark = Array.from(night.steps.sunAltitudeDeg).filter((deg) => deg < -18).length * NIGHT_STEP_MIN;
    expect(Math.abs(dark - 788)).toBeLessThanOrEqual(NIGHT_STEP_MIN);
    expect(targetNight(night, { frame: "icrs", raDeg: 60, decDeg: 70 }, "Ha").usableMin).toBeGreaterThan(700);
    expect(Math.abs(ribbonNight(iceland, night.date).darkMin - 788)).toBeLessThanOrEqual(NIGHT_STEP_MIN);
  });
  it("has 659 dark minutes at 149° E kept in UTC on 2026-06-20, not 450", () => {
    const east: Place = { ...testPlace, latitudeDeg: -32, longitudeDeg: 149, timeZone: "UTC" };
    const { steps } = placeNight(east, nightDate("2026-06-20"), USUAL_MOON);
    const dark = Array.from(steps.sunAltitudeDeg).filter((deg) => deg < -18).length * NIGHT_STEP_MIN;
    expect(dark).toBeGreaterThan(630);
    expect(dark).toBeLessThan(700);
  });
});

describe("the nights of a place", () => {
  it("add up to the dark minutes a sweep finds, none twice, from pole to pole and in zones up to 14 h off (law, judged by the library's own Sun)", () => {
    const zone = fc.constantFrom("UTC", "Atlantic/Reykjavik", "Pacific/Kiritimati", "Etc/GMT+12", "America/St_Johns", "Pacific/Chatham", "Europe/Rome"); // prettier-ignore
    const latitude = fc.double({ min: -90, max: 90, noNaN: true });
    fc.assert(
      fc.property(latitude, fc.double({ min: -180, max: 180, noNaN: true }), zone, anyDay, (latitudeDeg, longitudeDeg, timeZone, date) => {
        const place: Place = { ...testPlace, latitudeDeg, longitudeDeg, elevationM: 0, timeZone };
        const nights = [0, 1, 2].map((i) => placeNight(place, addNights(date, i), USUAL_MOON));
        const [from, to] = [nights[0]!.sky.window.startMs, nights[2]!.sky.window.endMs];
        const stepMs = NIGHT_STEP_MIN * MINUTE_MS;
        const seen = new Set<number>();
        for (const { steps } of nights)
          steps.sunAltitudeDeg.forEach((deg, i) => {
            const at = steps.startMs + i * stepMs;
            expect(seen.has(at)).toBe(false);
            if (deg < -18) seen.add(at);
          });
        let swept = 0;
        for (let ms = Math.ceil(from / stepMs - 0.5) * stepMs; ms + stepMs / 2 < to; ms += stepMs)
          if (truly(ms + stepMs / 2, place).sunDeg < -18) swept++;
        expect(Math.abs(swept - seen.size)).toBeLessThanOrEqual(1); // a step on the edge of a grazing night
      }), // prettier-ignore
      { numRuns: runs(8, 150) },
    );
  });
});

describe("one number everywhere", () => {
  const entry = (at: Equatorial<"icrs">): CatalogEntry => ({
    id: "X 1", name: "", aliases: [], kind: "galaxy", at, majorArcmin: 30, minorArcmin: 20, positionAngleDeg: 0, magnitude: 9,
    constellation: "And", rank: 50, curated: null,
  }); // prettier-ignore
  it("is the same in the list, on the page, on the sheet, in the ribbon's steps and in the year's entry of that night (law)", () => {
    fc.assert(
      fc.property(anyTarget, anyDay, fc.constantFrom(USUAL_MOON, KEEP, NONE), (target, date, moon) => {
        const night = placeNight(testPlace, date, moon);
        const { jobs } = pictureOf(entry(target), { rig: testRig, filters: [L], skyMagPerArcsec2: testPlace.skyMagPerArcsec2, seeingArcsec: testPlace.seeingArcsec }); // prettier-ignore
        const { own } = jobs[0]!;
        const page = targetNight(night, target, "L", own);
        const [year] = yearOf(yearNights(testPlace, date, 1, moon), target, "L", own);
        const { usableMin, worthMin, moonlessMin, moonlessWorthMin } = page;
        expect(year).toMatchObject({ date, usableMin, worthMin, moonlessMin, moonlessWorthMin });
        expect(accountOf(night.steps, page.walk).usableMin).toBe(usableMin);
        expect(page.windows.reduce((sum, w) => sum + (w.endMs - w.startMs) / MINUTE_MS, 0)).toBeCloseTo(usableMin, 9);
        const { ranked } = rankCatalog([entry(target)], { night, rig: testRig, filters: [L] });
        // Judged in quarters of an hour first: a graze between two of them is no line.
        if (moonlessMin >= 30) expect(ranked[0]).toMatchObject({ usableMin, worthMin, moonlessWorthMin });
        if (moonlessMin === 0) expect(ranked).toEqual([]);
        for (const line of ranked) expect(exactLine(line, night, target).line).toMatchObject({ usableMin, worthMin, moonlessWorthMin }); // prettier-ignore
      }),
      { numRuns: runs(60, 3000) },
    );
  });
});

describe("the three schools of the Moon", () => {
  const stepsOf = (night: ReturnType<typeof placeNight>) =>
    Array.from({ length: night.steps.count }, (_, i) => night.steps.startMs + (i + 0.5) * NIGHT_STEP_MIN * MINUTE_MS);

  it("‘no Moon up’ uses no step with the Moon's centre up, and every other that ‘count it’ uses (judged by the library's own Moon)", () => {
    fc.assert(
      fc.property(anyTarget, anyDay, (target, date) => {
        const night = placeNight(testPlace, date, NONE);
        const strict = targetNight(night, target, "L").walk;
        const counted = targetNight(withMoon(night, USUAL_MOON), target, "L").walk;
        stepsOf(night).forEach((ms, i) => {
          const { moon } = truly(ms, testPlace);
          if (Math.abs(moon.altitude) < 0.02) return; // on the very edge
          if (strict.cause[i] === 0) expect(moon.altitude).toBeLessThan(0);
          else if (counted.cause[i] === 0) expect(moon.altitude).toBeGreaterThan(0);
        });
      }),
      { numRuns: runs(10, 300) },
    );
  });

  it("‘keep away’ loses a step exactly when the target stands nearer than its figures ask at the phase of that step", () => {
    const rule = { atFullDeg: 70, halfWidthDays: 5 };
    const wishes: MoonWishes = { ...KEEP, rules: { Ha: rule } };
    fc.assert(
      fc.property(anyTarget, anyDay, (target, date) => {
        const night = placeNight(testPlace, date, wishes);
        const { walk, ofDate } = targetNight(night, target, "Ha");
        const at = { frame: "ofDate", raDeg: (Math.atan2(ofDate[1], ofDate[0]) * 180) / Math.PI, decDeg: (Math.asin(ofDate[2]) * 180) / Math.PI } as const; // prettier-ignore
        stepsOf(night).forEach((ms, i) => {
          if (walk.moonless[i] === 0) return;
          const { moon, phaseDeg } = truly(ms, testPlace);
          const apart = separationDeg(at, { frame: "ofDate", raDeg: moon.raDeg, decDeg: moon.decDeg });
          const asked = moonAvoidanceDeg(rule, phaseDeg);
          if (Math.abs(apart - asked) < 0.1 || Math.abs(moon.altitude) < 0.02 || Math.abs(phaseDeg - 154.2) < 0.1)
            return;
          expect(walk.cause[i] === 0).toBe(moon.altitude < 0 || apart > asked);
        });
      }),
      { numRuns: runs(10, 300) },
    );
  });

  it("‘count it’ keeps a step while the Moon leaves the asked share of its worth, and a higher share keeps fewer (law)", () => {
    fc.assert(
      fc.property(anyTarget, anyDay, fc.double({ min: 0.02, max: 0.9, noNaN: true }), (target, date, leastShare) => {
        const night = placeNight(testPlace, date, { ...USUAL_MOON, twilight: "below18", leastShare });
        const { walk } = targetNight(night, target, "OIII");
        const all = targetNight(
          withMoon(night, { ...USUAL_MOON, twilight: "below18", leastShare: 0.01 }),
          target,
          "OIII",
        ).walk;
        for (let i = 0; i < night.steps.count; i++) {
          if (walk.moonless[i] === 0) continue;
          const share = all.worth[i]! / all.moonless[i]!; // what is left of it, whatever is asked; but for what twilight adds below −18°
          if (all.cause[i] === 0 && Math.abs(share - leastShare) > 0.005)
            expect(walk.cause[i] === 0).toBe(share > leastShare);
        }
        expect(sumsOf(night.steps, walk).usableMin).toBeLessThanOrEqual(sumsOf(night.steps, all).usableMin);
      }),
      { numRuns: runs(40, 2000) },
    );
  });

  it("leaves a bright galaxy hours in the week of a full Moon when counted, and says what they are worth", () => {
    const galaxy: Equatorial<"icrs"> = { frame: "icrs", raDeg: 148.9, decDeg: 69.1 };
    for (const date of ["2026-12-22", "2026-12-24", "2026-12-26"].map(nightDate)) {
      const night = placeNight(testPlace, date, USUAL_MOON);
      const counted = targetNight(night, galaxy, "L");
      expect(counted.usableMin).toBeGreaterThan(180);
      expect(counted.worthMin).toBeLessThan(0.8 * counted.moonlessWorthMin);
      expect(targetNight(withMoon(night, KEEP), galaxy, "L").usableMin).toBeLessThan(counted.usableMin / 2);
    }
    expect(CHANNEL_FACTS.L.moonRule.atFullDeg).toBe(120);
  });
});
