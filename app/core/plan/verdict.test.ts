import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { placeNight, USUAL_MOON, type Place } from "~/core/night";
import { type WeatherHour } from "~/core/weather";
import { HOUR_MS, nightDate, utcMs, type UtcMs } from "~/core/time";
import { chooseTonight, hoursOf, judgeNight, projectTonight, weighNight, type AwayNight, type GoingRules } from ".";
import { testEvening, wholeBlock } from "./plan.test-data";

const place: Place = {
  name: "Check", latitudeDeg: 45, longitudeDeg: 5, elevationM: 200, timeZone: "Europe/Paris", skyMagPerArcsec2: 20.5, skyline: [], minAltitudeDeg: 25, seeingArcsec: 3, clearChance: Array<number>(12).fill(0.4),
}; // prettier-ignore
const evening = placeNight(place, nightDate("2026-12-05"), USUAL_MOON);
const { steps } = evening;
const project = {
  id: "p",
  target: { frame: "icrs", raDeg: 70, decDeg: 46 } as const,
  needs: [{ panel: "P1", channel: "OIII" as const, goalMin: 900, remainingMin: 900, subSec: 300 }],
  own: {},
};
const projects = [projectTonight(evening, project, ["OIII"])!];
const block = wholeBlock(evening, project, "OIII");
const choice = chooseTonight([testEvening(evening, [block])], {
  isDark: true,
  steps,
  projects,
  walkOf: () => projects[0]!.walk,
});
const rules: GoingRules = { wishMin: 120, setUpMin: 25, gustLimitKmh: 28, fromMs: steps.startMs };
const CALM = {
  airC: 8,
  dewC: -2,
  humidity: 0.5,
  windMs: 1,
  gustMs: 2,
  seeingArcsec: 2.5,
  hazeMag: 0,
  highCloud: 0,
  rainOdds: 0,
  rainChance: 0,
};

const rainOf = (chance: number) => ({ rainChance: chance, rainOdds: chance });

/** A night whose odds follow the hour of UTC (18 to 30 = 6 in the morning). */
const weather = (odds: (hour: number) => number, change: Partial<WeatherHour> = {}): WeatherHour[] =>
  hoursOf(steps).map((atMs) => {
    const hour = Math.round((atMs - Date.parse("2026-12-05T00:00:00Z")) / HOUR_MS);
    const p = odds(hour);
    return { atMs, bySource: [p, p], odds: p, spread: 0.02, basis: "forecast", ...CALM, ...change };
  });
const weigh = (hours: WeatherHour[], more: Partial<GoingRules> = {}) =>
  weighNight({ steps, choice, projects, weather: hours, rules: { ...rules, ...more } });
const judge = (hours: WeatherHour[], more: Partial<GoingRules> = {}, away: AwayNight[] = []) =>
  judgeNight({
    steps,
    choice,
    weighed: weigh(hours, more),
    rules: { ...rules, ...more },
    away,
    look: null,
  });
const codes = (hours: WeatherHour[], more: Partial<GoingRules> = {}) => judge(hours, more).reasons.map((r) => r.code);
const utcHour = (ms: UtcMs) => new Date(ms).toISOString().slice(11, 16);

describe("a night weighed", () => {
  it("expects odds × usable minutes, and under a sure sky every usable minute", () => {
    const sure = weigh(weather(() => 1));
    expect(sure.odds.expectedMin).toBeCloseTo(projects[0]!.usableMin, 6);
    expect(sure.odds.atLeastWish).toBe(1);
    expect(sure.expectedWorthMin).toBeCloseTo(projects[0]!.worthMin, 4);
    const half = weigh(weather(() => 0.5));
    expect(half.odds.expectedMin).toBeCloseTo(projects[0]!.usableMin / 2, 6);
    expect(half.projects[0]!.expectedMin).toBeCloseTo(projects[0]!.usableMin / 2, 6);
  });
  it("keeps to the hours that are worth being out for", () => {
    const { window } = weigh(weather((h) => (h >= 22 && h < 27 ? 0.8 : 0.1)));
    expect([utcHour(window!.startMs), utcHour(window!.endMs)]).toEqual(["22:00", "03:00"]);
  });
  it("counts nothing from before one can be there", () => {
    const fromMs = utcMs(Date.parse("2026-12-05T23:00:00Z"));
    const later = weigh(
      weather(() => 1),
      { fromMs },
    );
    expect(later.window!.startMs).toBe(fromMs);
    expect(later.odds.expectedMin).toBeLessThan(projects[0]!.usableMin);
  });
  it("gives no odds to hours over the gust limit as felt, nor to any after rain comes near", () => {
    const gusty = weigh(weather(() => 0.9, { gustMs: 15 })); // 54 km/h at 10 m, 32 felt
    expect([gusty.odds.expectedMin, gusty.passes]).toEqual([0, false]);
    expect(
      weigh(
        weather(() => 0.9, { gustMs: 15 }),
        { windShare: 0.4 },
      ).passes,
    ).toBe(true);
    const hours = weather(() => 0.9).map((h) => ({
      ...h,
      ...rainOf(h.atMs >= Date.parse("2026-12-06T01:00:00Z") ? 0.5 : 0),
    }));
    const wet = weigh(hours);
    expect(utcHour(wet.rainDeadlineMs!)).toBe("00:30");
    expect(wet.window!.endMs).toBe(wet.rainDeadlineMs);
  });
  it("dims worth through haze by 10^(−0.8 Δm) (MATHS C8.9: 0.3 mag leaves 0.5754)", () => {
    const clear = weigh(weather(() => 1)).expectedWorthMin;
    const hazy = weigh(weather(() => 1, { hazeMag: 0.3 })).expectedWorthMin;
    expect(hazy / clear).toBeCloseTo(0.5754, 4);
  });
  it("never loses by better odds, nor by a smaller wish", () => {
    const odds = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 24, maxLength: 24 });
    fc.assert(
      fc.property(odds, fc.double({ min: 0, max: 0.4, noNaN: true }), (list, more) => {
        const at = (h: number) => list[h % 24]!;
        const now = weigh(weather(at));
        const better = weigh(weather((h) => Math.min(1, at(h) + more)));
        const modest = weigh(weather(at), { wishMin: 60 });
        return (
          better.projects[0]!.expectedMin >= now.projects[0]!.expectedMin - 1e-9 &&
          modest.odds.atLeastWish >= now.odds.atLeastWish
        );
      }),
      { numRuns: 25 },
    );
  });
});

describe("the verdict with weather", () => {
  it("goes, goes late and stays in", () => {
    expect(judge(weather(() => 0.85)).kind).toBe("go");
    expect(judge(weather((h) => (h >= 23 ? 0.85 : 0.1))).kind).toBe("goLate");
    expect(judge(weather(() => 0.2)).kind).toBe("stayIn");
    expect(judge(weather((h) => (h === 22 ? 0.9 : 0.05))).kind).toBe("stayIn"); // one good hour is less than the wish
  });
  it("names what decides: cloud until and from, wind, rain, dew, disagreement, too short, the long term", () => {
    expect(codes(weather((h) => (h >= 22 ? 0.85 : 0.1)))).toContain("cloudUntil");
    expect(codes(weather((h) => (h < 25 ? 0.85 : 0.1)))).toContain("cloudFrom");
    expect(codes(weather(() => 0.85, { gustMs: 15 }))[0]).toBe("wind");
    const late = weather(() => 0.85).map((h) => ({ ...h, ...rainOf(h.atMs >= Date.parse("2026-12-06T02:00:00Z") ? 0.6 : 0) })); // prettier-ignore
    expect(codes(late)).toContain("rain");
    expect(codes(weather(() => 0.6, { spread: 0.3, bySource: [0.2, 0.95] }))).toContain("disagree");
    expect(
      codes(
        weather(() => 0.85),
        { wishMin: 780 },
      ),
    ).toContain("short");
    expect(codes(weather(() => 0.5, { basis: "longTerm" }))).toContain("longTerm");
    const wet = judge(weather(() => 0.85, { airC: 1, dewC: -0.5 }));
    expect(wet.reasons.length).toBe(3);
    expect(judgeNight({ steps, choice, weighed: weigh(weather(() => 0.85)), rules, away: [], look: null }).reasons.length).toBe(3); // prettier-ignore
  });
  it("never expects more than the window gives: the last hour before rain counts up to the deadline (law; reported: 375 of 345 min)", () => {
    const rainy = fc.record({
      rainAt: fc.integer({ min: 18, max: 29 }),
      odds: fc.double({ min: 0.4, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(rainy, ({ rainAt, odds }) => {
        const hours = weather(() => odds).map((h) => {
          const hour = Math.round((h.atMs - Date.parse("2026-12-05T00:00:00Z")) / HOUR_MS);
          return { ...h, ...rainOf(hour >= rainAt ? 0.6 : 0) };
        });
        const { window, odds: night, rainDeadlineMs } = weigh(hours);
        if (!window) expect(night.expectedMin).toBe(0);
        else {
          expect(window.endMs).toBeLessThanOrEqual(rainDeadlineMs ?? Number.POSITIVE_INFINITY);
          expect(night.expectedMin).toBeLessThanOrEqual((window.endMs - window.startMs) / 60_000 + 1e-6);
        }
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 2000 : 50 },
    );
  });
  it("expects the place's chance of the night where no forecast reaches, never nothing", () => {
    for (const chance of [0.1, 0.3, 0.6]) {
      const { odds, window } = weigh(weather(() => chance, { basis: "longTerm" }));
      expect(odds.expectedMin).toBeCloseTo(chance * projects[0]!.usableMin, 6);
      expect(odds.atLeastWish).toBeGreaterThan(0);
      expect(window!.startMs).toBe(block.startMs);
    }
  });
  it("gives reasons that agree with staying in: what falls short is said, and cloud after the rain is not", () => {
    const short = judge(weather((h) => (h >= 22 && h < 24 ? 0.75 : 0.05)));
    expect(short.kind).toBe("stayIn");
    const said = short.reasons.find((r) => r.code === "tooLittle" || r.code === "tooUnlikely");
    expect(said).toBeTruthy();
    if (said?.code === "tooLittle") expect(said.expectedMin).toBeLessThan(said.wishMin + said.setUpMin);
    const wet = weather((h) => (h < 27 ? 0.9 : 0.1)).map((h) => ({ ...h, ...rainOf(h.atMs >= Date.parse("2026-12-05T22:00:00Z") ? 0.7 : 0) })); // prettier-ignore
    const reasons = judge(wet).reasons.map((r) => r.code);
    expect(reasons).toContain("rain");
    expect(reasons).not.toContain("cloudFrom");
  });
  it("puts what was seen first", () => {
    const seen = weather(() => 0.9, { basis: "lookedUp" });
    const look = { isClear: true, atMs: steps.startMs };
    const v = judgeNight({ steps, choice, weighed: weigh(seen), rules, away: [], look });
    expect(v.reasons[0]).toEqual({ code: "lookedUp", ...look });
  });
  it("says what would change it: the last start, the odds it needs, calmer air, a smaller wish", () => {
    const go = judge(weather(() => 0.85));
    expect(go.change?.code).toBe("lastStart");
    const end = go.weighed.window!.endMs;
    expect(go.change?.code === "lastStart" && end - go.change.atMs).toBe(145 * 60_000); // wish + set-up
    const stay = judge(weather(() => 0.22)).change;
    expect(stay?.code === "oddsNeeded" && [stay.now, stay.needed].map((v) => v.toFixed(2))).toEqual(["0.22", "0.50"]);
    expect(judge(weather(() => 0.9, { gustMs: 15 })).change?.code).toBe("calmer");
    expect(judge(weather(() => 0.9), { wishMin: 780 }).change?.code).toBe("smallerWish"); // prettier-ignore
  });
  it("drives only when each hour on the road brings an hour more", () => {
    const away = (travelMin: number, lightFactor: number): AwayNight => ({
      placeId: "pass",
      name: "Pass",
      timeZone: "Europe/Paris",
      travelMin,
      lightFactor,
      weighed: weigh(weather(() => 0.9)),
      reasons: [],
    });
    const clouded = weather(() => 0.1);
    expect(judge(clouded, {}, [away(60, 2)]).kind).toBe("borrow");
    expect(judge(clouded, {}, [away(600, 2)]).kind).toBe("stayIn");
    expect(judge(weather(() => 0.9), {}, [away(60, 1)]).kind).toBe("go"); // prettier-ignore
    // Where the plan itself drives, it decides: there when it spends the night there, never else.
    const asPlanned = (placeId: string | null, factor: number) =>
      judgeNight({ steps, choice, weighed: weigh(weather(() => 0.9)), rules, away: [away(60, factor)], look: null, planned: { drives: ["pass"], placeId } }).kind; // prettier-ignore
    expect([asPlanned("pass", 1), asPlanned(null, 9)]).toEqual(["borrow", "go"]);
    expect(judge(weather(() => 0.9), {}, [away(45, 2.5), away(30, 2.5)]).away?.travelMin).toBe(30); // prettier-ignore
  });
  it("stays in when there is nothing to shoot, whatever the sky", () => {
    const none = chooseTonight([], { isDark: true, steps, projects: [], walkOf: () => null });
    const weighed = weighNight({ steps, choice: none, projects: [], weather: weather(() => 1), rules });
    const v = judgeNight({ steps, choice: none, weighed, rules, away: [], look: null });
    expect([v.kind, v.reasons, v.change]).toEqual(["stayIn", [], null]);
  });
});
