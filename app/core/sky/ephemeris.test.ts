import { expect, it } from "vitest";
import { utcMs, deltaTSeconds } from "~/core/time";
import { apparentFrame, bodyOfDate, greenwichSiderealDeg, moonPhase } from "./ephemeris";
import { directionOf, unitVector } from "./frames";
import { horizontalAt } from "./horizontal";
import { nightSky } from "./night-sky";
import { refractionOfApparentArcmin, refractionOfTrueArcmin } from "./refraction";

/** Dynamical time to the instant this project uses. */
const fromTd = (ms: number) => utcMs(ms - 1000 * deltaTSeconds(utcMs(ms)));

it("gives apparent sidereal time 13h 10m 46.1351s at Greenwich on 1987 April 10, 0h UT (Meeus, Astronomical Algorithms, 2nd ed., ex. 12.a)", () => {
  const hours = greenwichSiderealDeg(utcMs(Date.UTC(1987, 3, 10))) / 15;
  expect(Math.abs(hours - (13 + 10 / 60 + 46.1351 / 3600)) * 3600).toBeLessThan(0.02);
});

it("puts Venus of ex. 13.b at altitude 15.1249°, azimuth 248.0336° over Washington (Meeus; ± 0.0005° for this project's own sidereal time)", () => {
  const ms = utcMs(Date.UTC(1987, 3, 10, 19, 21));
  const observer = { latitudeDeg: 38 + 55 / 60 + 17 / 3600, longitudeDeg: -(77 + 3 / 60 + 56 / 3600), elevationM: 0 };
  const sky = nightSky(observer, { startMs: utcMs(ms - 3_600_000), endMs: utcMs(ms + 20 * 3_600_000) });
  const venus = unitVector({ raDeg: 15 * (23 + 9 / 60 + 16.641 / 3600), decDeg: -(6 + 43 / 60 + 11.61 / 3600) });
  const at = horizontalAt(sky, venus, ms);
  expect(Math.abs(at.altitudeDeg - 15.1249)).toBeLessThan(5e-4);
  expect(Math.abs(at.azimuthDeg - 248.0336)).toBeLessThan(5e-4);
});

it("puts the Sun of 1992 October 13.0 TD at α 198.38083°, δ −7.78507° (Meeus, ex. 25.a; 10″ for its parallax)", () => {
  const sun = directionOf(
    bodyOfDate("sun", fromTd(Date.UTC(1992, 9, 13)), { latitudeDeg: 0, longitudeDeg: 0, elevationM: 0 }).unit,
  );
  expect(Math.abs(sun.raDeg - 198.38083) * 3600).toBeLessThan(10);
  expect(Math.abs(sun.decDeg + 7.78507) * 3600).toBeLessThan(10);
});

it("gives the Moon of 1992 April 12.0 TD a phase angle of 69.0756° and a lit share of 0.6786 (Meeus, ex. 48.a)", () => {
  const moon = moonPhase(fromTd(Date.UTC(1992, 3, 12)));
  expect(Math.abs(moon.phaseAngleDeg - 69.0756)).toBeLessThan(0.01);
  expect(Math.abs(moon.illuminatedFraction - 0.6786)).toBeLessThan(0.0002);
});

it("refracts as ex. 16.a: 28.754′ at apparent 0.5°, 24.618′ at true 33.246′ (Meeus)", () => {
  expect(Math.abs(refractionOfApparentArcmin(0.5) - 28.754)).toBeLessThan(0.001);
  expect(Math.abs(refractionOfTrueArcmin(33.246 / 60) - 24.618)).toBeLessThan(0.001);
});

it("rotates without stretching, and the Earth moves at about 1/10,000 of light (20.5″)", () => {
  const frame = apparentFrame(utcMs(Date.UTC(2026, 11, 5)));
  const rows = [0, 3, 6].map((i) => frame.toOfDate.slice(i, i + 3));
  rows.forEach((row) => expect(Math.hypot(...row)).toBeCloseTo(1, 12));
  expect(rows[0]!.reduce((s, v, i) => s + v * rows[1]![i]!, 0)).toBeCloseTo(0, 12);
  expect(Math.hypot(...frame.earthBeta) * 206_265).toBeGreaterThan(20);
  expect(Math.hypot(...frame.earthBeta) * 206_265).toBeLessThan(21);
});
