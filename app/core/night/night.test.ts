import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testRig } from "~/core/test-data";
import { CHANNEL_FACTS, DEFAULT_OVERHEADS, type Channel, type Filter } from "~/core/exposure";
import {
  airmassKastenYoung,
  apparentVector,
  darkSkyNanolambert,
  extinctionMagPerAirmass,
  horizontalAt,
  moonColourFactor,
  moonlightNanolambert,
  nightSky,
  nightWindow,
  twilightFlux,
} from "~/core/sky";
import { addMs, HOUR_MS, MINUTE_MS, nightDate, utcMs } from "~/core/time";
import {
  accountOf,
  channelSky,
  moonLimitOf,
  placeNight,
  USUAL_MOON,
  type MoonWishes,
  nightSteps,
  placeSky,
  rankCatalog,
  ribbonNight,
  runSheet,
  stretches,
  sumsOf,
  walkTarget,
  type Place,
  type WorkItem,
} from ".";

const place: Place = {
  name: "Check",
  latitudeDeg: 50,
  longitudeDeg: 10,
  elevationM: 0,
  timeZone: "Europe/Berlin",
  skyMagPerArcsec2: 21,
  skyline: [],
  minAltitudeDeg: 30,
  seeingArcsec: 3,
  clearChance: Array<number>(12).fill(0.3),
};
const m31 = { frame: "icrs", raDeg: 10.6847, decDeg: 41.269 } as const;

const ASTRONOMICAL = { sunBelowDeg: -18, leastShare: 0 };
const L: Filter = { name: "L", channel: "L", centreNm: 550, bandwidthNm: 300, transmission: 0.9 };

function walk(
  p: Place,
  date: string,
  options: {
    stepMin?: number;
    channel?: Channel;
    ignoreMoon?: boolean;
    moon?: MoonWishes;
    target?: typeof m31 | { frame: "icrs"; raDeg: number; decDeg: number };
  } = {},
) {
  const sky = placeSky(p, nightDate(date));
  const raw = nightSteps(sky, options.stepMin ?? 5);
  const steps = options.ignoreMoon ? { ...raw, moonAltitudeDeg: raw.moonAltitudeDeg.map(() => -1) } : raw;
  const cs = channelSky(
    p,
    steps,
    options.channel ?? "L",
    moonLimitOf(options.moon ?? USUAL_MOON, options.channel ?? "L"),
    options.channel === undefined || options.channel === "L" ? ASTRONOMICAL : { sunBelowDeg: -15, leastShare: 0 },
  );
  return { sky, steps, cs, night: walkTarget(steps, cs, apparentVector(sky, options.target ?? m31)) };
}

describe("usable minutes", () => {
  it("agree with MATHS C6.3 (PyEphem) within 3 min: M 31 from 50° N, 10° E on the 15th of every month of 2025, Moon ignored", () => {
    const at30 = [282, 115, 0, 0, 0, 0, 87, 306, 460, 581, 537, 430];
    const at20 = [359, 192, 36, 0, 0, 0, 87, 306, 460, 581, 614, 507];
    for (const [minAltitudeDeg, expected] of [
      [30, at30],
      [20, at20],
    ] as const)
      expected.forEach((minutes, i) => {
        const { steps, night } = walk({ ...place, minAltitudeDeg }, `2025-${String(i + 1).padStart(2, "0")}-15`, {
          stepMin: 1,
          ignoreMoon: true,
        });
        expect(
          Math.abs(sumsOf(steps, night).usableMin - minutes),
          `month ${i + 1}, ${minAltitudeDeg}°`,
        ).toBeLessThanOrEqual(3);
      });
  });

  it("lose 240 min of C6.2's night to the rising Moon when the whole sky is barred to it", () => {
    const { steps, night } = walk(place, "2025-10-15", { stepMin: 1 });
    expect(
      Math.abs(sumsOf(steps, walk(place, "2025-10-15", { stepMin: 1, ignoreMoon: true }).night).usableMin - 581),
    ).toBeLessThanOrEqual(3);
    const strict = walk(place, "2025-10-15", { stepMin: 1, moon: { ...USUAL_MOON, school: "noMoon" } }).night;
    expect(Math.abs(sumsOf(steps, strict).usableMin - 341)).toBeLessThanOrEqual(4); // geometric centre above the horizon, as C6.2
    expect(night.worth.every((w) => w <= 1.0001)).toBe(true);
  });

  it("add up: sunset to sunrise = losses + usable, and stretches cover the night without gaps", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 360 }),
        fc.double({ min: 0, max: 359, noNaN: true }),
        fc.double({ min: -60, max: 88, noNaN: true }),
        fc.constantFrom<Channel>("L", "Ha", "OIII"),
        (day, raDeg, decDeg, channel) => {
          const skyline = [
            { azimuthDeg: 90, altitudeDeg: 40 },
            { azimuthDeg: 200, altitudeDeg: 10 },
            { azimuthDeg: 300, altitudeDeg: 55 },
          ];
          const date = new Date(Date.UTC(2026, 0, 1 + day)).toISOString().slice(0, 10);
          const { steps, night } = walk({ ...place, skyline, minAltitudeDeg: 20 }, date, {
            stepMin: 10,
            channel,
            target: { frame: "icrs", raDeg, decDeg },
          });
          const account = accountOf(steps, night);
          expect(Object.values(account.lost).reduce((a, b) => a + b, account.usableMin)).toBe(account.nightMin);
          const runs = stretches(steps, night);
          runs.slice(1).forEach((s, i) => expect(s.startMs).toBe(runs[i]!.endMs));
          const usable = runs
            .filter((s) => s.cause === "none")
            .reduce((sum, s) => sum + (s.endMs - s.startMs) / MINUTE_MS, 0);
          expect(usable).toBeCloseTo(account.usableMin, 6);
        },
      ),
      { numRuns: 40 },
    );
  });

  it("never grow when a skyline rises, and vanish behind a wall", () => {
    const wall = [
      { azimuthDeg: 0, altitudeDeg: 89 },
      { azimuthDeg: 180, altitudeDeg: 89 },
    ];
    const usable = (p: Place) => {
      const { steps, night } = walk(p, "2025-10-15");
      return sumsOf(steps, night).usableMin;
    };
    const half = [
      { azimuthDeg: 0, altitudeDeg: 0 },
      { azimuthDeg: 90, altitudeDeg: 60 },
      { azimuthDeg: 180, altitudeDeg: 0 },
    ];
    expect([usable({ ...place, skyline: half }) < usable(place), usable({ ...place, skyline: wall })]).toEqual([
      true,
      0,
    ]);
  });

  it("know no night at 66° N in June and no day there in December", () => {
    const north = { ...place, latitudeDeg: 69, longitudeDeg: 20, timeZone: "Europe/Oslo" };
    expect(walk(north, "2026-06-21").steps.count).toBe(0);
    expect(walk(north, "2026-12-21").steps.count * 5).toBe(1440);
  });
});

describe("worth", () => {
  it("agrees with the untabulated formulas to 1.5 %, moonlit and moonless, in every channel", () => {
    for (const channel of ["L", "B", "Ha", "OIII"] as const) {
      const p = { ...place, skyMagPerArcsec2: 20.2, minAltitudeDeg: 15 };
      const { sky, steps, night } = walk(p, "2026-11-20", { channel });
      const facts = CHANNEL_FACTS[channel];
      const [k, kV] = [extinctionMagPerAirmass(facts.centreNm, 0), extinctionMagPerAirmass(550, 0)];
      const v = apparentVector(sky, m31);
      let seen = 0;
      for (let i = 0; i < steps.count; i += 2) {
        if (night.cause[i] !== 0) continue;
        const ms = addMs(steps.startMs, (i + 0.5) * 5 * MINUTE_MS);
        const z = 90 - horizontalAt(sky, v, ms).altitudeDeg;
        const moonZ = 90 - steps.moonAltitudeDeg[i]!;
        const cos = v[0] * steps.moon[3 * i]! + v[1] * steps.moon[3 * i + 1]! + v[2] * steps.moon[3 * i + 2]!;
        const separationDeg = (Math.acos(cos) * 180) / Math.PI;
        const moon = moonlightNanolambert({
          phaseAngleDeg: steps.moonPhaseAngleDeg[i]!,
          separationDeg,
          zenithDistanceDeg: z,
          moonZenithDistanceDeg: moonZ,
          extinctionMag: kV,
        });
        // The tables scale the colour from one geometry; the direct factor is taken at the same one.
        const colour =
          moonZ < 90
            ? moonColourFactor({
                wavelengthNm: facts.centreNm,
                separationDeg,
                zenithDistanceDeg: 45,
                moonZenithDistanceDeg: moonZ,
                elevationM: 0,
              })
            : 0;
        const zenith = darkSkyNanolambert({ zenithSkyMag: 20.2, zenithDistanceDeg: 0, extinctionMag: kV });
        const dark = darkSkyNanolambert({ zenithSkyMag: 20.2, zenithDistanceDeg: z, extinctionMag: kV });
        // The colour of the dark sky (MATHS 2.11), and twilight (2.12).
        const offset = 10 ** (-0.4 * facts.skyOffsetMag);
        const twilight =
          twilightFlux(facts.centreNm, -steps.sunAltitudeDeg[i]!) / 10 ** (-0.4 * (20.2 + facts.skyOffsetMag));
        const background = dark / zenith + (moon * colour) / (zenith * offset) + twilight;
        const direct = 10 ** (-0.8 * k * (airmassKastenYoung(90 - z) - 1)) / background;
        expect(Math.abs(night.worth[i]! / direct - 1)).toBeLessThan(0.015);
        seen++;
      }
      expect(seen).toBeGreaterThan(5);
    }
  });

  it("says that a minute at 30° is worth less than half a minute overhead (MATHS 6.2, C6.4)", () => {
    const { cs } = walk({ ...place, skyMagPerArcsec2: 22 }, "2025-10-15");
    const at = (h: number) => {
      const i = Math.round(Math.sin((h * Math.PI) / 180) * 1023);
      return cs.extinction2[i]! / cs.darkOverZenith[i]!;
    };
    expect(at(90)).toBeCloseTo(1, 3);
    expect([at(30) > 0.391, at(30) < 0.432, at(20) < 0.26]).toEqual([true, true, true]); // between the values for k = .20 and .30
  });
});

describe("ranking and ribbon", () => {
  it("puts what is up before what is low, and leaves out what never clears the limit", () => {
    const entry = (id: string, raDeg: number, decDeg: number) => ({
      id,
      name: "",
      aliases: [],
      kind: "galaxy" as const,
      at: { frame: "icrs", raDeg, decDeg } as const,
      majorArcmin: 30,
      minorArcmin: 20,
      positionAngleDeg: 0,
      magnitude: 9,
      constellation: "And",
      rank: 50,
      curated: null,
    });
    const { ranked, tooLow } = rankCatalog([entry("south", 11, -30), entry("high", 40, 50), entry("low", 40, -5)], {
      night: placeNight(place, nightDate("2026-12-05"), USUAL_MOON),
      rig: testRig,
      filters: [L],
    });
    expect(tooLow).toBe(1);
    expect(ranked.map((r) => r.row)).toEqual([1, 2]);
    expect(ranked[0]!.worthMin).toBeGreaterThan(ranked[1]!.worthMin);
    expect(ranked[1]!.mainLoss).toBe("low");
  });
  it("shows the night of 2025-12-21 at 50° N as 11.9 h dark (MATHS C6.1: 11.949 h)", () => {
    const night = ribbonNight(place, nightDate("2025-12-21"));
    expect(Math.abs(night.darkMin / 60 - 11.949)).toBeLessThan(0.3);
    expect(night.moonlessMin).toBeLessThanOrEqual(night.darkMin);
  });
  it("crosses a worker unchanged", () => {
    const sky = nightSky(place, nightWindow(place, nightDate("2026-12-05")));
    expect(structuredClone(sky)).toStrictEqual(sky);
  });
});

describe("run sheet", () => {
  const AT_DUSK = { flips: true, standsBeforeDark: false, sunsetMs: null, starsMs: null };
  const start = utcMs(Date.UTC(2026, 11, 5, 18));
  const window = (fromH: number, toH: number) => [
    { startMs: addMs(start, fromH * HOUR_MS), endMs: addMs(start, toH * HOUR_MS) },
  ];
  const item = (
    panel: string,
    channel: Channel,
    fromH: number,
    toH: number,
    exposureMin: number,
    transitH = -1,
    need = `${panel} ${channel}`,
  ): WorkItem => ({
    projectId: "p",
    panel,
    channel,
    filterName: channel,
    subSec: 300,
    subs: Math.ceil(exposureMin / 5),
    need,
    stage: 0,
    windows: window(fromH, toH),
    transitMs: addMs(start, transitH * HOUR_MS),
  });

  it("keeps every sub inside its window, lines in order without overlap, and no sub across the flip", () => {
    const channel = fc.constantFrom<Channel>("L", "Ha", "OIII");
    const items = fc.array(
      fc.record({
        panel: fc.constantFrom("P1", "P2"),
        channel,
        from: fc.double({ min: 0, max: 6, noNaN: true }),
        length: fc.double({ min: 0.2, max: 6, noNaN: true }),
        min: fc.double({ min: 5, max: 200, noNaN: true }),
      }),
      { minLength: 1, maxLength: 5 },
    );
    fc.assert(
      fc.property(items, fc.double({ min: 0, max: 12, noNaN: true }), (list, transitH) => {
        const work = list.map((x, i) =>
          item(x.panel, x.channel, x.from, x.from + x.length, x.min, transitH, String(i)),
        );
        const sheet = runSheet(work, DEFAULT_OVERHEADS, AT_DUSK);
        sheet.lines.slice(1).forEach((l, i) => expect(l.startMs).toBeGreaterThanOrEqual(sheet.lines[i]!.endMs - 1));
        const flipMs = start + transitH * HOUR_MS;
        for (const l of sheet.lines) {
          if (l.kind !== "block") continue;
          const cycle = (l.endMs - l.startMs) / l.subs;
          const windows = work.filter((w) => w.panel === l.panel && w.channel === l.channel).flatMap((w) => w.windows);
          for (let k = 0; k < l.subs; k++) {
            const subMs = l.startMs + k * cycle;
            const isIn = windows.some((w) => w.startMs <= subMs + 1 && subMs + l.subSec * 1000 <= w.endMs + 1);
            expect(isIn).toBe(true); // windows of one panel may touch: a block may span two, a sub may not
          }
          // Whoever begins within a quarter of an hour before it goes on from the other side.
          if (l.startMs < flipMs - 15 * 60_000) expect(l.endMs - (cycle - 300_000)).toBeLessThanOrEqual(flipMs + 1);
        }
        const asked = list.reduce((sum, x) => sum + x.min, 0);
        expect(sheet.exposureMin).toBeLessThanOrEqual(asked + list.length * 5 + 1e-6); // whole subs of five minutes
        if (sheet.lines.length > 0) expect(sheet.lines.at(-1)!.kind).toBe("packUp");
      }),
      { numRuns: 150 },
    );
  });

  it("sets up before the window, focuses after a filter change and every hour, and says what did not fit", () => {
    const sheet = runSheet([item("P1", "OIII", 0, 2, 60), item("P1", "Ha", 0, 3, 240)], DEFAULT_OVERHEADS, AT_DUSK);
    expect(sheet.lines.slice(0, 2)).toMatchObject([{ kind: "setUp" }, { kind: "align", endMs: start }]);
    expect(sheet.lines.filter((l) => l.kind === "filter").map((l) => "detail" in l && l.detail)).toEqual([
      "OIII",
      "Ha",
    ]);
    expect(sheet.lines.filter((l) => l.kind === "focus").length).toBeGreaterThanOrEqual(3);
    expect(sheet.leftOver).toHaveLength(1);
    expect(sheet.leftOver[0]!.exposureMin).toBeGreaterThan(120);
  });

  it("has nothing to say for a night without windows", () => {
    expect(runSheet([{ ...item("P1", "L", 0, 1, 60), windows: [] }], DEFAULT_OVERHEADS, AT_DUSK).lines).toEqual([]);
  });
});
