import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { apparentVector, horizontalAt, positionAngleDeg, separationDeg } from "~/core/sky";
import { nightDate, utcMs } from "~/core/time";
import { placeSky, type Place } from "~/core/night";
import { finderPath, nakedEyeLimitMag, type GuideStar } from ".";

const place: Place = {
  name: "Check",
  latitudeDeg: 50,
  longitudeDeg: 10,
  elevationM: 0,
  timeZone: "Europe/Berlin",
  skyMagPerArcsec2: 21,
  skyline: [],
  minAltitudeDeg: 20,
  seeingArcsec: 3,
  clearChance: Array<number>(12).fill(0.5),
};
const sky = placeSky(place, nightDate("2026-12-05"));
const ms = utcMs(Date.UTC(2026, 11, 5, 20));
const vectorOf = (raDeg: number, decDeg: number) => apparentVector(sky, { frame: "icrs", raDeg, decDeg });
const named = JSON.parse(readFileSync("app/data/named-stars.json", "utf8")) as [
  number,
  number,
  number,
  string,
  number,
][];
const stars: GuideStar[] = named.map(([ra, dec, magnitude, name]) => ({ name, magnitude, vector: vectorOf(ra, dec) }));
const path = (raDeg: number, decDeg: number, at: Place = place) =>
  finderPath({ place: at, sky, ms, target: vectorOf(raDeg, decDeg), stars });

describe("the eye", () => {
  it("sees to 6.6 mag under 22 mag/arcsec² and to about 4.2 under 18 (Schaefer 1990 as in MATHS 2.3; half a magnitude)", () => {
    expect(Math.abs(nakedEyeLimitMag(22) - 6.6)).toBeLessThan(0.5);
    expect(Math.abs(nakedEyeLimitMag(18) - 4.2)).toBeLessThan(0.5);
  });
});

describe("a way by stars", () => {
  it("to M 31 begins at a bright star near it and comes over Mirach's side, as charts have it (common practice, from memory)", () => {
    const found = path(10.6847, 41.269);
    expect(found.kind).toBe("path");
    if (found.kind !== "path") return;
    expect(found.start.magnitude).toBeLessThan(2.7);
    const names = found.hops.map((h) => h.from.name).join(" ");
    expect(names).toMatch(/Mirach|μ And|Alpheratz|Almach/);
    expect(found.hops.at(-1)!.to).toBeNull();
    expect(found.hops.length).toBeLessThan(5);
  });
  it("has hops that end where they say: distance and position angle lead from each star to the next (law)", () => {
    const found = path(83.8221, -5.3911);
    if (found.kind !== "path") throw new Error("Orion is up");
    const at = (name: string) => named.find((n) => n[3] === name)!;
    for (const hop of found.hops) {
      const from = at(hop.from.name);
      const to = hop.to ? at(hop.to.name) : ([83.8221, -5.3911] as const);
      const a = { frame: "icrs", raDeg: from[0], decDeg: from[1] } as const;
      const b = { frame: "icrs", raDeg: to[0], decDeg: to[1] } as const;
      expect(Math.abs(hop.degrees - separationDeg(a, b))).toBeLessThan(0.02);
      // Of date against J2000: precession turns north by under 0.3° here.
      expect(Math.abs(((hop.positionAngleDeg - positionAngleDeg(a, b) + 540) % 360) - 180)).toBeLessThan(0.5);
    }
  });
  it("goes the way the eye sees it: from Betelgeuse to Rigel is down, in the south at midnight (plain look at Orion)", () => {
    const night = utcMs(Date.UTC(2026, 11, 5, 23, 50));
    const found = finderPath({
      place,
      sky,
      ms: night,
      target: vectorOf(83, 2),
      stars: stars.filter((s) => s.name === "Betelgeuse"),
    });
    if (found.kind !== "path") throw new Error("Orion is up");
    expect(found.hops[0]!.way).toMatch(/right/);
    expect(found.hops[0]!.fromUpDeg).toBeGreaterThan(90);
    expect(found.hops[0]!.fromUpDeg).toBeLessThan(180);
  });
  it("uses no star behind a wall, below the horizon or too faint for the eye", () => {
    const walled = {
      ...place,
      skyMagPerArcsec2: 18.5,
      skyline: [
        { azimuthDeg: 0, altitudeDeg: 40 },
        { azimuthDeg: 90, altitudeDeg: 55 },
        { azimuthDeg: 180, altitudeDeg: 20 },
        { azimuthDeg: 270, altitudeDeg: 20 },
      ],
    };
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: -20, max: 89, noNaN: true }),
        (ra, dec) => {
          const found = path(ra, dec, walled);
          if (found.kind !== "path") return;
          for (const hop of found.hops) {
            const h = horizontalAt(sky, hop.from.vector, ms);
            expect(h.altitudeDeg).toBeGreaterThan(20);
            expect(hop.from.magnitude).toBeLessThan(nakedEyeLimitMag(18.5));
          }
        },
      ),
      { numRuns: 60 },
    );
  });
  it("says when the target is down, and when no star is seen", () => {
    expect(path(180, -60).kind).toBe("targetDown");
    expect(finderPath({ place, sky, ms, target: vectorOf(10, 41), stars: [] }).kind).toBe("noStar");
  });
});
