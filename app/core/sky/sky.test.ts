import fc from "fast-check";
import { describe, expect, it } from "vitest";
import altaz from "../../../reference/tables/altaz.json";
import angles from "../../../reference/tables/angles.json";
import moon from "../../../reference/tables/moon.json";
import night from "../../../reference/tables/night.json";
import transit from "../../../reference/tables/transit.json";
import { addNights, MINUTE_MS, nightDate, utcMs, utcOffsetMinutes, type UtcMs } from "~/core/time";
import {
  altitudeCrossings, apparentVector, directionOf, galacticToIcrs, horizontalAt, icrsToGalactic, moonAt, nightEvents, nightSky, offsetBy,
  positionAngleDeg, refractionOfTrueArcmin, separationDeg, shiftSkyline, skylineAltitudeDeg, skylineTable, transits, trueAzimuthDeg, hiddenBelowDeg, unitVector, zenithPositionAngleDeg,
  type Equatorial, type SunLine,
} from "."; // prettier-ignore

interface Site {
  readonly name: string;
  readonly lat_deg: number;
  readonly lon_deg: number;
  readonly elev_m: number;
  readonly tz: string;
}
const observerOf = (s: Site) => ({ latitudeDeg: s.lat_deg, longitudeDeg: s.lon_deg, elevationM: s.elev_m });
const arcsecApart = (a: { altitudeDeg: number; azimuthDeg: number }, b: { altitudeDeg: number; azimuthDeg: number }) =>
  3600 *
  separationDeg(
    { frame: "ofDate", raDeg: a.azimuthDeg, decDeg: a.altitudeDeg },
    { frame: "ofDate", raDeg: b.azimuthDeg, decDeg: b.altitudeDeg },
  );
/** The tables' windows run from civil noon to civil noon. */
const noonMs = (date: string, tz: string): UtcMs => {
  const guess = utcMs(Date.parse(`${date}T12:00:00Z`));
  return utcMs(guess - utcOffsetMinutes(tz, utcMs(guess - utcOffsetMinutes(tz, guess) * MINUTE_MS)) * MINUTE_MS);
};
const skyOf = (site: Site, date: string) =>
  nightSky(observerOf(site), {
    startMs: noonMs(date, site.tz),
    endMs: noonMs(addNights(nightDate(date), 1), site.tz),
  });
const icrs = (t: { ra_deg: number; dec_deg: number }): Equatorial<"icrs"> => ({
  frame: "icrs",
  raDeg: t.ra_deg,
  decDeg: t.dec_deg,
});

it("separates Arcturus and Spica as Meeus, Astronomical Algorithms, 2nd ed., ex. 17.a, to half an arcsecond", () => {
  const arcturus = { frame: "icrs", raDeg: 213.9154, decDeg: 19.1825 } as const;
  const spica = { frame: "icrs", raDeg: 201.2983, decDeg: -11.1614 } as const;
  expect(Math.abs(separationDeg(arcturus, spica) - 32.793)).toBeLessThan(0.5 / 3600);
});

it("does not compile a mix of frames", () => {
  const a = { frame: "icrs", raDeg: 0, decDeg: 0 } as const;
  // @ts-expect-error a direction of date is not a catalogue direction
  expect(separationDeg(a, { frame: "ofDate", raDeg: 1, decDeg: 0 } as Equatorial<"ofDate">)).toBeCloseTo(1);
});

describe("altitude and azimuth (reference/tables/altaz.json, astropy/ERFA)", () => {
  it("agree with the table within 5 arcsec on the great circle, refraction within 0.01 deg, parallactic angle as stated", () => {
    for (const instant of altaz.instants) {
      const site = altaz.sites.find((s) => s.name === instant.site)!;
      const ms = Date.parse(instant.utc);
      const sky = nightSky(observerOf(site), { startMs: utcMs(ms - 5 * 3_600_000), endMs: utcMs(ms + 19 * 3_600_000) });
      for (const row of instant.rows) {
        const [name, az, alt, refracted, parallactic] = row as [string, number, number, number | null, number];
        const target = altaz.targets.find((t) => t.name === name)!;
        const v = apparentVector(sky, icrs(target));
        const at = horizontalAt(sky, v, utcMs(ms));
        expect(arcsecApart(at, { altitudeDeg: alt, azimuthDeg: az })).toBeLessThan(5);
        if (refracted !== null)
          expect(Math.abs(at.altitudeDeg + refractionOfTrueArcmin(at.altitudeDeg) / 60 - refracted)).toBeLessThan(0.01);
        const slack = 0.002 / (Math.cos((directionOf(v).decDeg * Math.PI) / 180) * Math.cos((alt * Math.PI) / 180));
        const q = Math.abs(zenithPositionAngleDeg(sky, v, utcMs(ms)) - parallactic);
        expect(Math.min(q, 360 - q)).toBeLessThan(slack);
      }
    }
  });
});

describe("Sun (reference/tables/night.json)", () => {
  const lines = [["sunset", "sunrise", "horizon"], ["civil_dusk", "civil_dawn", "civil"], ["nautical_dusk", "nautical_dawn", "nautical"], ["astronomical_dusk", "astronomical_dawn", "astronomical"]] as const; // prettier-ignore
  type Night = (typeof night.nights)[number];
  const all: { site: Site; n: Night }[] = [
    ...night.nights.map((n) => ({ site: night.sites.find((s) => s.name === n.site)!, n })),
    ...(night.polar_nights as unknown as Night[]).map((n) => ({ site: night.polar_site, n })),
  ];
  it("sets, darkens and rises within 1 s + 5 arcsec/rate, and stays up or down exactly where the table says", () => {
    for (const { site, n } of all) {
      const events = nightEvents(skyOf(site, n.date));
      expect(Math.abs(events.sunLowestDeg - n.sun_lowest_alt_deg)).toBeLessThan(0.01);
      expect(Math.abs(events.sunLowestMs - Date.parse(n.sun_lowest_utc))).toBeLessThan(30_000);
      const rates = n.rate_arcsec_per_s as Record<string, number | null>;
      for (const [down, up, key] of lines) {
        const line: SunLine = events[key];
        for (const [field, at] of [
          [down, line.kind === "passes" ? line.downMs : null],
          [up, line.kind === "passes" ? line.upMs : null],
        ] as const) {
          const expected = n[field];
          if (expected === null) {
            expect(at).toBeNull();
            if (line.kind !== "passes")
              expect(line.kind).toBe(
                (n.reasons as Record<string, string>)[field] === "sun_stays_above" ? "staysAbove" : "staysBelow",
              );
          } else expect(Math.abs(at! - Date.parse(expected))).toBeLessThan(1000 * (1 + 5 / Math.abs(rates[field]!)));
        }
      }
    }
  });
});

describe("Moon (reference/tables/moon.json, JPL DE431)", () => {
  it("rises and sets within 1 s + 10 arcsec/rate, stands within 0.005 deg, lit share within 0.0005", () => {
    for (const n of moon.nights) {
      const site = moon.sites.find((s) => s.name === n.site)!;
      const sky = skyOf(site, n.date);
      const events = nightEvents(sky);
      for (const [mine, theirs] of [
        [events.moonrises, n.moonrise],
        [events.moonsets, n.moonset],
      ] as const) {
        expect(mine.length).toBe(theirs.length);
        theirs.forEach((t, i) =>
          expect(Math.abs(mine[i]! - Date.parse(t.utc))).toBeLessThan(1000 * (1 + 10 / Math.abs(t.rate_arcsec_per_s))),
        );
      }
      for (const [utc, az, alt, km] of n.hourly as [string, number, number, number, number][]) {
        const ms = utcMs(Date.parse(utc));
        const m = moonAt(sky, ms);
        expect(arcsecApart(horizontalAt(sky, m.unitOfDate, ms), { altitudeDeg: alt, azimuthDeg: az })).toBeLessThan(18);
        expect(Math.abs(m.km - km)).toBeLessThan(100);
      }
      const midnight = utcMs(Date.parse(n.midnight_utc));
      const m = moonAt(sky, midnight);
      expect(Math.abs(m.phaseAngleDeg - n.phase_angle_geo_deg)).toBeLessThan(0.03);
      expect(Math.abs((1 + Math.cos((m.phaseAngleDeg * Math.PI) / 180)) / 2 - n.illum_geo)).toBeLessThan(0.0005);
      moon.targets.forEach((t, i) => {
        const apart = separationDeg(
          { frame: "ofDate", ...directionOf(m.unitOfDate) },
          { frame: "ofDate", ...directionOf(apparentVector(sky, icrs(t))) },
        );
        expect(Math.abs(apart - n.sep_midnight_deg[i]!)).toBeLessThan(0.005);
      });
    }
  });
});

describe("transits and crossings (reference/tables/transit.json)", () => {
  it("pass the meridian within 0.3 s / cos dec and altitudes 0, 20, 30 within 0.5 s + 3 arcsec/rate", () => {
    for (const n of transit.nights) {
      const sky = skyOf(
        transit.sites.find((s) => s.name === n.site)!,
        n.date,
      );
      for (const row of n.targets) {
        const target = transit.targets.find((t) => t.name === row.target)!;
        const v = apparentVector(sky, icrs(target));
        const mine = transits(sky, v);
        expect(mine.length).toBe(row.transits.length);
        (row.transits as [string, number, string][]).forEach(([utc, alt], i) => {
          expect(Math.abs(mine[i]!.atMs - Date.parse(utc)) * Math.cos((target.dec_deg * Math.PI) / 180)).toBeLessThan(
            300,
          );
          expect(Math.abs(mine[i]!.altitudeDeg - alt)).toBeLessThan(0.005);
        });
        for (const altitude of [0, 20, 30] as const) {
          const c = altitudeCrossings(sky, v, altitude);
          const [rises, sets] = [row[`rise${altitude}`], row[`set${altitude}`]] as [string, number][][];
          const never = (row.never as Record<string, string | undefined> | undefined)?.[String(altitude)];
          if (never) expect(c.kind).toBe(never === "always_above" ? "always" : "never");
          if (c.kind !== "crosses") continue;
          for (const [mineMs, theirs] of [
            [c.risesMs, rises],
            [c.setsMs, sets],
          ] as const) {
            expect(mineMs.length).toBe(theirs!.length);
            theirs!.forEach(([utc, rate], i) =>
              expect(Math.abs(mineMs[i]! - Date.parse(utc))).toBeLessThan(500 + 3000 / Math.abs(rate)),
            );
          }
        }
      }
    }
  });
});

describe("angles (reference/tables/angles.json)", () => {
  const byName = new Map(altaz.targets.map((t) => [t.name, icrs(t)]));
  it("separations and position angles agree within 0.00001 deg", () => {
    for (const [a, b, sep, pa] of angles.pairs as [string, string, number, number, number][]) {
      const [from, to] = [byName.get(a)!, byName.get(b)!];
      expect(Math.abs(separationDeg(from, to) - sep)).toBeLessThan(1e-5);
      const d = Math.abs(positionAngleDeg(from, to) - pa);
      expect(Math.min(d, 360 - d)).toBeLessThan(1e-4 / Math.sin((sep * Math.PI) / 180) + 1e-5);
    }
  });
  it("offsets lead back: any step along any bearing lies at that distance and bearing", () => {
    fc.assert(
      fc.property(
        fc.record({
          ra: fc.double({ min: 0, max: 359.9, noNaN: true }),
          dec: fc.double({ min: -89, max: 89, noNaN: true }),
          pa: fc.double({ min: 0, max: 359.9, noNaN: true }),
          d: fc.double({ min: 0.01, max: 170, noNaN: true }),
        }),
        ({ ra, dec, pa, d }) => {
          const from = { frame: "icrs", raDeg: ra, decDeg: dec } as const;
          const to = offsetBy(from, { positionAngleDeg: pa, distanceDeg: d });
          expect(separationDeg(from, to)).toBeCloseTo(d, 8);
          expect(Math.cos(((positionAngleDeg(from, to) - pa) * Math.PI) / 180)).toBeCloseTo(1, 8);
        },
      ),
    );
  });
  it("galactic coordinates agree within 0.0001 deg and lead back", () => {
    for (const [name, l, b] of angles.galactic_ecliptic as [string, number, number, number, number][]) {
      const g = icrsToGalactic(byName.get(name)!);
      expect(Math.hypot((g.lonDeg - l) * Math.cos((b * Math.PI) / 180), g.latDeg - b)).toBeLessThan(1.5e-4);
      expect(separationDeg(galacticToIcrs(l, b), byName.get(name)!)).toBeLessThan(1.5e-4);
    }
  });
  it("vectors carry their direction through", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 359.999, noNaN: true }),
        fc.double({ min: -89.9, max: 89.9, noNaN: true }),
        (raDeg, decDeg) => {
          const d = directionOf(unitVector({ raDeg, decDeg }));
          expect(d.raDeg).toBeCloseTo(raDeg, 8);
          expect(d.decDeg).toBeCloseTo(decDeg, 8);
        },
      ),
    );
  });
});

describe("skyline", () => {
  it("runs straight between points and wraps at north (MATHS C6.10: 22.50 and 27.50)", () => {
    const s = [
      { azimuthDeg: 10, altitudeDeg: 30 },
      { azimuthDeg: 350, altitudeDeg: 20 },
    ];
    expect(skylineAltitudeDeg(s, 355)).toBeCloseTo(22.5, 10);
    expect(skylineAltitudeDeg(s, 5)).toBeCloseTo(27.5, 10);
    expect(skylineTable(s)[710]).toBeCloseTo(22.5, 10);
  });
  it("never leaves the range of its points and meets each of them", () => {
    const point = fc.record({
      azimuthDeg: fc.integer({ min: 0, max: 35_999 }).map((c) => c / 100),
      altitudeDeg: fc.double({ min: 0, max: 90, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.uniqueArray(point, { minLength: 2, selector: (p) => p.azimuthDeg }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        (points, az) => {
          const s = [...points].sort((a, b) => a.azimuthDeg - b.azimuthDeg);
          const heights = s.map((p) => p.altitudeDeg);
          const h = skylineAltitudeDeg(s, az);
          expect(h).toBeGreaterThanOrEqual(Math.min(...heights) - 1e-9);
          expect(h).toBeLessThanOrEqual(Math.max(...heights) + 1e-9);
          s.forEach((p) => expect(skylineAltitudeDeg(s, p.azimuthDeg)).toBeCloseTo(p.altitudeDeg, 9));
        },
      ),
    );
  });
});

describe("landmarks and shifts of a skyline", () => {
  const skyline = [
    { azimuthDeg: 90, altitudeDeg: 10 },
    { azimuthDeg: 270, altitudeDeg: 20 },
  ];
  const shed = { name: "shed", shape: "box", azimuthDeg: 355, widthDeg: 20, altitudeDeg: 35 } as const;
  const tree = { name: "ash", shape: "tree", azimuthDeg: 120, widthDeg: 40, altitudeDeg: 50 } as const;
  it("stand before the line: a box to its edges, a tree with a round crown, across north", () => {
    const at = (az: number) => hiddenBelowDeg(skyline, [shed, tree], az);
    expect([at(355), at(4), at(346)]).toEqual([35, 35, 35]);
    expect(at(6)).toBeLessThan(20);
    expect(at(120)).toBe(50);
    expect(at(132)).toBeCloseTo(50 * Math.sqrt(1 - (12 / 20) ** 2), 9); // half an ellipse
    expect(at(90)).toBe(10);
  });
  it("never lower the line, and a pole thinner than a sample is not lost", () => {
    const pole = { name: "mast", shape: "pole", azimuthDeg: 200.2, widthDeg: 0.1, altitudeDeg: 60 } as const;
    const [plain, table] = [skylineTable(skyline), skylineTable(skyline, [pole, shed, tree])];
    expect(table.every((h, i) => h >= plain[i]!)).toBe(true);
    expect(Math.max(...table)).toBe(60);
  });
  it("turn and turn back; altitudes move within 0 to 90", () => {
    const points = fc.uniqueArray(fc.record({ azimuthDeg: fc.integer({ min: 0, max: 359 }), altitudeDeg: fc.integer({ min: 0, max: 90 }) }), { minLength: 2, maxLength: 12, selector: (p) => p.azimuthDeg }).map((s) => s.sort((a, b) => a.azimuthDeg - b.azimuthDeg)); // prettier-ignore
    fc.assert(
      fc.property(points, fc.integer({ min: -400, max: 400 }), fc.integer({ min: 0, max: 359 }), (s, by, az) => {
        expect(shiftSkyline(shiftSkyline(s, by, 0), -by, 0)).toEqual(s);
        return Math.abs(skylineAltitudeDeg(shiftSkyline(s, by, 0), az + by) - skylineAltitudeDeg(s, az)) < 1e-6;
      }),
    );
    expect(shiftSkyline(skyline, 0, 85).map((p) => p.altitudeDeg)).toEqual([90, 90]);
  });
  it("turn compass bearings by the declination, east positive", () => {
    expect([trueAzimuthDeg(350, 12.5), trueAzimuthDeg(5, -9)]).toEqual([2.5, 356]);
  });
});
