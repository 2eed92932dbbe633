import { Body, Observer, SearchAltitude, DefineStar } from "astronomy-engine";
import fc from "fast-check";
import { expect, it } from "vitest";
import { testPlace } from "~/core/test-data";
import { addNights, MINUTE_MS, nightDate } from "~/core/time";
import { nightWay, placeNight, targetNight, USUAL_MOON } from ".";

it("passes 20, 30 and 35° when the ephemeris library says a star there does, to 15 s", () => {
  const seen = new Observer(testPlace.latitudeDeg, testPlace.longitudeDeg, testPlace.elevationM);
  const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
  for (const [raDeg, decDeg] of [
    [83, 22],
    [150, 41],
    [350, 10],
  ] as const) {
    DefineStar(Body.Star1, raDeg / 15, decDeg, 1000);
    const { ofDate } = targetNight(night, { frame: "icrs", raDeg, decDeg }, "L");
    for (const p of nightWay(testPlace, night.sky, night.steps, ofDate).passages)
      for (const [mine, direction] of [
        [p.risesMs, 1],
        [p.setsMs, -1],
      ] as const) {
        if (mine === null) continue;
        const theirs = SearchAltitude(Body.Star1, seen, direction, new Date(mine - 3_600_000), 1, p.altitudeDeg)!;
        expect(Math.abs(theirs.date.getTime() - mine)).toBeLessThan(15_000);
      }
  }
});

it("is behind a named thing exactly in the minutes in which the night loses it to the skyline (law)", () => {
  const poplar = { name: "the poplar", shape: "box" as const, azimuthDeg: 180, widthDeg: 30, altitudeDeg: 60 };
  const yard = { ...testPlace, landmarks: [poplar], minAltitudeDeg: 5 };
  const at = fc.record({ raDeg: fc.double({ min: 0, max: 359, noNaN: true }), decDeg: fc.double({ min: -20, max: 60, noNaN: true }) }); // prettier-ignore
  fc.assert(
    fc.property(at, fc.integer({ min: 0, max: 300 }), (t, day) => {
      const night = placeNight(yard, addNights(nightDate("2026-08-01"), day), USUAL_MOON);
      const { walk, ofDate } = targetNight(night, { frame: "icrs", ...t }, "L");
      const { obstructions } = nightWay(yard, night.sky, night.steps, ofDate);
      for (const o of obstructions) expect(o.name).toBe("the poplar");
      const isBehind = (ms: number) => obstructions.some((o) => o.startMs <= ms && ms < o.endMs);
      const isNearEdge = (ms: number) => obstructions.some((o) => [o.startMs, o.endMs].some((e) => Math.abs(e - ms) < 4 * MINUTE_MS)); // prettier-ignore
      for (let i = 0; i < night.steps.count; i++) {
        const ms = night.steps.startMs + (i + 0.5) * night.steps.stepMin * MINUTE_MS;
        if (isNearEdge(ms)) continue; // the table of the skyline has half degrees
        if (walk.cause[i] === 3) expect(isBehind(ms)).toBe(true);
        if (walk.cause[i] === 0) expect(isBehind(ms)).toBe(false);
      }
    }),
    { numRuns: process.env["LAWS_SEED"] === "new" ? 1000 : 40 },
  );
});
