import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeNight, USUAL_MOON, type Place } from "~/core/night";
import { HOUR_MS, nightDate, utcMs, type UtcMs } from "~/core/time";
import { nightWeather, type ForecastHour, type SourceNight } from "~/core/weather";
import type { Channel } from "~/core/exposure";
import { chooseTonight, hoursOf, judgeNight, projectTonight, weighNight, type GoingRules, type Reason, type Verdict } from "."; // prettier-ignore
import { testEvening, wholeBlock } from "./plan.test-data";

const place: Place = {
  name: "Check", latitudeDeg: 48, longitudeDeg: 5, elevationM: 200, timeZone: "UTC", skyMagPerArcsec2: 20.5, skyline: [], minAltitudeDeg: 25, seeingArcsec: 3, clearChance: Array<number>(12).fill(0.4),
}; // prettier-ignore
const night = placeNight(place, nightDate("2026-12-08"), USUAL_MOON); // new Moon
const { steps } = night;
const hours = hoursOf(steps);
const rules: GoingRules = { wishMin: 120, setUpMin: 25, gustLimitKmh: 28, fromMs: steps.startMs };
const evenings = (["L", "OIII"] as const).map((channel: Channel) => {
  const project = {
    id: "p",
    target: { frame: "icrs", raDeg: 70, decDeg: 60 } as const,
    needs: [{ panel: "P1", channel, goalMin: 1200, remainingMin: 1200, subSec: 180 }],
    own: {},
  };
  const projects = [projectTonight(night, project, [channel])!];
  const block = wholeBlock(night, project, channel);
  const choice = chooseTonight([testEvening(night, [block])], { isDark: true, steps, projects, walkOf: () => projects[0]!.walk }); // prettier-ignore
  return { channel, projects, choice };
});

/** A good hour: clear, dry, still enough, steady. */
const GOOD: Omit<ForecastHour, "atMs" | "issuedMs"> = {
  lowCloud: 0.05, middleCloud: 0, highCloud: 0, humidity: 0.6, airC: 6, dewC: -1, windMs: 2, gustMs: 4, rainChance: 0, seeingArcsec: 2.5, hazeMag: 0,
}; // prettier-ignore
type Change = Partial<typeof GOOD>;
/** What sources say, by hours after sunset; each as a change from the good hour. */
type Says = (hour: number) => Change;

function judged(sources: readonly Says[], channel: "L" | "OIII" = "L"): Verdict {
  const { projects, choice } = evenings.find((e) => e.channel === channel)!;
  const nights = sources.map((says, s): SourceNight => ({
    id: `s${s}`,
    name: `Source ${s}`,
    hours: hours.map((atMs, i) => ({ ...GOOD, ...says(i), atMs, issuedMs: utcMs(hours[0]! - HOUR_MS) })),
    record: { hours: 0, brier: Number.NaN },
  }));
  const weather = nightWeather({ hours, sources: nights, climatology: 0.4, looks: [] });
  const weighed = weighNight({ steps, choice, projects, weather, rules });
  return judgeNight({ steps, choice, weighed, rules, away: [], look: null });
}

const always =
  (change: Change): Says =>
  () =>
    change;
const from =
  (hour: number, change: Change): Says =>
  (h) =>
    h >= hour ? change : {};
const until =
  (hour: number, change: Change): Says =>
  (h) =>
    h < hour ? change : {};
const at =
  (hour: number, change: Change): Says =>
  (h) =>
    h === hour ? change : {};
const rain = (rainChance: number): Change => ({ rainChance, lowCloud: Math.max(0.05, rainChance) });

/** 60 nights, what is wanted of them, and what has to be named. A practitioner's judgement; no source. */
const TABLE: readonly [string, readonly Says[], "go" | "stayIn", readonly Reason["code"][], ("L" | "OIII")?][] = [
  ["clear", [always({})], "go", []],
  ["clear, three sources", [always({}), always({}), always({})], "go", []],
  ["overcast", [always({ lowCloud: 1 })], "stayIn", ["tooUnlikely"]],
  ["overcast, middle cloud", [always({ middleCloud: 1 })], "stayIn", ["tooUnlikely"]],
  ["rain in the first hour, then clear", [until(1, rain(0.8))], "go", ["rainUntil"]],
  ["rain in the first two hours, then clear", [until(2, rain(0.6))], "go", ["rainUntil"]],
  ["rain in the first four hours, then clear", [until(4, rain(0.9))], "go", ["rainUntil"]],
  ["rain until near the end", [until(13, rain(0.7))], "stayIn", ["rainUntil"]],
  ["rain all night", [always(rain(0.7))], "stayIn", []],
  ["rain in the last hour", [from(hours.length - 1, rain(0.7))], "go", []],
  ["rain from midnight", [from(8, rain(0.8))], "go", ["rain"]],
  ["rain from the third hour", [from(3, rain(0.8))], "stayIn", ["rain"]],
  ["a shower at midnight", [at(8, rain(0.8))], "go", []],
  ["one of three sources has rain in hour 4", [at(4, { rainChance: 0.3 }), always({}), always({})], "go", ["rainWatch"]],
  ["one of three has rain from hour 9", [from(9, { rainChance: 0.5 }), always({}), always({})], "go", ["rainWatch"]],
  ["two of three have rain in hour 5", [at(5, rain(0.6)), at(5, rain(0.6)), always({})], "go", []],
  ["all three have rain from hour 10", [from(10, rain(0.6)), from(10, rain(0.5)), from(10, rain(0.7))], "go", ["rain"]],
  ["low cloud 30 %", [always({ lowCloud: 0.3 })], "go", []],
  ["low cloud 40 %", [always({ lowCloud: 0.4 })], "go", []],
  ["low cloud 85 %", [always({ lowCloud: 0.85 })], "stayIn", []],
  ["low cloud 95 %", [always({ lowCloud: 0.95 })], "stayIn", ["tooUnlikely"]],
  ["cloud until ten", [until(5, { lowCloud: 0.95 })], "go", ["cloudUntil"]],
  ["cloud from two", [from(9, { lowCloud: 0.95 })], "go", ["cloudFrom"]],
  ["one good hour", [(h) => (h === 6 ? {} : { lowCloud: 0.98 })], "stayIn", []],
  ["two good hours", [(h) => (h >= 6 && h < 8 ? {} : { lowCloud: 0.97 })], "stayIn", []],
  ["five good hours", [(h) => (h >= 6 && h < 11 ? {} : { lowCloud: 0.97 })], "go", []],
  ["cirrus over all, galaxies planned", [always({ highCloud: 1 })], "stayIn", ["cirrus"]],
  ["cirrus over all, lines planned", [always({ highCloud: 1 })], "go", ["cirrus"], "OIII"],
  ["cirrus over half", [always({ highCloud: 0.5 })], "go", ["cirrus"]],
  ["thin cirrus", [always({ highCloud: 0.2 })], "go", []],
  ["cirrus that goes", [until(6, { highCloud: 1 })], "go", []],
  ["smoke of 1.5 mag", [always({ hazeMag: 1.5 })], "stayIn", ["haze"]],
  ["smoke of 2 mag", [always({ hazeMag: 2 })], "stayIn", ["haze"]],
  ["haze of 0.5 mag", [always({ hazeMag: 0.5 })], "go", ["haze"]],
  ["haze of 0.1 mag", [always({ hazeMag: 0.1 })], "go", []],
  ["smoke of 1 mag, lines planned", [always({ hazeMag: 1 })], "go", ["haze"], "OIII"],
  ["air at the dew point, calm", [always({ airC: 4, dewC: 3.9, windMs: 0.5, gustMs: 1 })], "stayIn", ["fog"]],
  ["air near the dew point, calm, from two", [from(9, { airC: 3, dewC: 2.9, windMs: 0.5, gustMs: 1 })], "go", ["fog"]],
  ["air at the dew point, wind", [always({ airC: 4, dewC: 3.9, windMs: 4, gustMs: 7 })], "go", ["wet"]],
  ["dew", [always({ airC: 8, dewC: 6.2 })], "go", ["wet"]],
  ["frost", [always({ airC: -3, dewC: -5 })], "go", ["wet"]],
  ["dry frost", [always({ airC: -8, dewC: -15 })], "go", []],
  ["gusts over the limit", [always({ gustMs: 15 })], "stayIn", ["wind"]],
  ["gusts over the limit until ten", [until(5, { gustMs: 15 })], "go", []],
  ["gusts near the limit", [always({ gustMs: 11.5 })], "go", ["wind"]],
  ["a storm", [always({ gustMs: 25 })], "stayIn", ["wind"]],
  ["seeing of 6″", [always({ seeingArcsec: 6 })], "go", ["seeing"]],
  ["seeing of 3″", [always({ seeingArcsec: 3 })], "go", []],
  ["sources that disagree", [always({}), always({ lowCloud: 0.9 })], "go", ["disagree"]],
  ["three against one", [always({ lowCloud: 0.97 }), always({ lowCloud: 0.97 }), always({ lowCloud: 0.97 }), always({})], "stayIn", ["disagree"]],
  ["two of three clear", [always({}), always({}), always({ lowCloud: 0.9 })], "go", ["disagree"]],
  ["rain first, cloud after", [(h) => (h < 2 ? rain(0.8) : { lowCloud: 0.95 })], "stayIn", []],
  ["rain first, smoke after", [(h) => (h < 2 ? rain(0.8) : { hazeMag: 1.6 })], "stayIn", ["haze"]],
  ["rain first, gusts after", [(h) => (h < 2 ? rain(0.8) : { gustMs: 16 })], "stayIn", []],
  ["clear between two rains", [(h) => (h < 3 || h > 10 ? rain(0.7) : {})], "go", ["rainUntil"]],
  ["two dry hours between rains", [(h) => (h < 5 || h > 7 ? rain(0.7) : {})], "stayIn", ["rainUntil"]],
  ["all layers a little", [always({ lowCloud: 0.15, middleCloud: 0.15, highCloud: 0.15 })], "go", []],
  ["all layers half", [always({ lowCloud: 0.5, middleCloud: 0.5, highCloud: 0.5 })], "stayIn", []],
  ["only high cloud is told", [always({ lowCloud: null, middleCloud: null, highCloud: 0.1 })], "go", []],
  ["cloud that comes and goes", [(h) => ({ lowCloud: h % 2 === 0 ? 0.1 : 0.6 })], "go", []],
]; // prettier-ignore

describe("sixty nights", () => {
  it.each(TABLE.map((row) => [...row, undefined] as const))("%s", (_, sources, kind, named, channel) => {
    const verdict = judged(sources, channel ?? "L");
    expect(verdict.kind === "goLate" ? "go" : verdict.kind).toBe(kind);
    // Three are told; what has to be named is among them.
    for (const code of named) expect(verdict.reasons.map((r) => r.code)).toContain(code);
  });
  it("are sixty", () => expect(TABLE).toHaveLength(60));
});

describe("the verdict's one sum", () => {
  const chance = (v: Verdict) => v.weighed.odds;
  it("has no cliff between low cloud of 50 and 80 %: usable time falls by less than a tenth of the night a step of 2 %", () => {
    let before: Verdict | null = null;
    for (let cloud = 0.5; cloud <= 0.8; cloud += 0.02) {
      const now = judged([always({ lowCloud: cloud })]);
      if (before) {
        const step = chance(before).expectedMin - chance(now).expectedMin;
        expect(step).toBeGreaterThan(0);
        expect(step).toBeLessThan(0.1 * chance(before).expectedMin + 1);
        expect(chance(before).atLeastWish - chance(now).atLeastWish).toBeLessThan(0.08);
      }
      before = now;
    }
  });
  it("never falls as any input gets better (law)", () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    const worse = fc.record({ input: fc.constantFrom("lowCloud", "middleCloud", "highCloud", "hazeMag", "gustMs", "windMs", "dewC"), by: share }); // prettier-ignore
    const base = fc.record({ lowCloud: share, middleCloud: share, highCloud: share, hazeMag: share, gustMs: fc.double({ min: 0, max: 20, noNaN: true }), dewC: fc.double({ min: -5, max: 6, noNaN: true }), windMs: fc.double({ min: 0, max: 6, noNaN: true }) }); // prettier-ignore
    fc.assert(
      fc.property(base, worse, fc.constantFrom("L", "OIII"), (change, { input, by }, channel) => {
        // Less wind brings fog and more wind gusts: of wind only the calm is judged here.
        const spoilt = { ...change, [input]: input === "windMs" ? change.windMs * (1 - by) : input === "dewC" ? change.dewC + by * (6 - change.dewC) : change[input] + by * (input === "gustMs" ? 10 : 1 - (input === "hazeMag" ? 0 : change[input])) }; // prettier-ignore
        const [good, bad] = [judged([always(change)], channel), judged([always(spoilt)], channel)];
        expect(chance(bad).expectedMin).toBeLessThanOrEqual(chance(good).expectedMin + 1e-9);
        expect(chance(bad).atLeastWish).toBeLessThanOrEqual(chance(good).atLeastWish + 1e-9);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 1500 : 60 },
    );
  });
  it("says of rain what it reckons with: never 0 %, never a roof for what is over (law)", () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 18, maxLength: 18 }), (chances) => {
        const v = judged([(h) => ({ rainChance: chances[h] ?? 0 })]);
        for (const r of v.reasons)
          if (r.code === "rain" || r.code === "rainUntil" || r.code === "rainWatch")
            expect(r.chance).toBeGreaterThan(0.2);
        const { window, rainUntilMs, rainDeadlineMs } = v.weighed;
        if (window && rainUntilMs !== null) expect(window.startMs).toBeGreaterThanOrEqual(rainUntilMs);
        if (window && rainDeadlineMs !== null) expect(window.endMs).toBeLessThanOrEqual(rainDeadlineMs);
        const wet = hours.flatMap((ms, i) => ((chances[i] ?? 0) >= 0.3 ? [ms] : []));
        const isDry = (ms: UtcMs) => wet.every((w) => ms + HOUR_MS <= w || ms >= w + HOUR_MS);
        if (window) expect(isDry(utcMs(Math.ceil(window.startMs / HOUR_MS) * HOUR_MS))).toBe(true);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 1500 : 100 },
    );
  });
});
