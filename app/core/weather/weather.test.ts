import fc from "fast-check";
import { describe, expect, it } from "vitest";
import checks from "../../../reference/maths/checks.json";
import { HOUR_MS, nightDate, utcMs } from "~/core/time";
import {
  brierParts,
  reliabilityBins,
  brierScore,
  brierSkill,
  clearOdds,
  dewPointC,
  hazeWorth,
  humidityOf,
  joinHours,
  learnChances,
  nightWeather,
  playNight,
  poolOdds,
  posteriorChance,
  saturationHPa,
  shrunkBrier,
  spoilingCover,
  totalCover,
  trackRecord,
  wetnessOf,
  windPressurePa,
  type ForecastHour,
  type Scored,
} from ".";

const T0 = Date.parse("2026-12-05T18:00:00Z");
const at = (hours: number) => utcMs(T0 + hours * HOUR_MS);
const hour = (h: number, fields: Partial<ForecastHour> = {}): ForecastHour => ({
  atMs: at(h),
  issuedMs: at(-6),
  lowCloud: null,
  middleCloud: null,
  highCloud: null,
  humidity: null,
  airC: null,
  dewC: null,
  windMs: null,
  gustMs: null,
  rainChance: null,
  seeingArcsec: null,
  hazeMag: null,
  ...fields,
});

describe("air (reference/maths, C8.1 to C8.3, C8.8, C8.9; Alduchov & Eskridge 1996)", () => {
  it("finds dew points and saturation pressure", () => {
    const { td, es20 } = checks["C8.1"].outputs;
    const cases = [[20, 0.5], [10, 0.9], [0, 0.85], [-5, 0.8]] as const; // prettier-ignore
    cases.forEach(([t, rh], i) => expect(dewPointC(t, rh)).toBeCloseTo(td[i]!, 6));
    expect(saturationHPa(20)).toBeCloseTo(es20, 6);
    expect(100 * humidityOf(12, 9.5)).toBeCloseTo(checks["C8.2"].outputs.rh, 6);
  });
  it("goes from humidity to dew point and back, −40 to 50 °C", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -40, max: 50, noNaN: true }),
        fc.double({ min: 0.02, max: 1, noNaN: true }),
        (t, rh) => Math.abs(humidityOf(t, dewPointC(t, rh)) - rh) < 1e-9,
      ),
    );
    expect(() => dewPointC(10, 0)).toThrow(RangeError);
  });
  it("overlaps layers of cloud; thin high cloud counts half", () => {
    const layers = { low: 0.3, middle: 0.2, high: 0.5 };
    const { r, m, w } = checks["C8.3"].outputs;
    expect(totalCover(layers, "random")).toBeCloseTo(r, 12);
    expect(totalCover(layers, "maximum")).toBeCloseTo(m, 12);
    expect(spoilingCover(layers)).toBeCloseTo(w, 12);
  });
  it("knows wind pressure, haze, dew and frost", () => {
    expect(windPressurePa(20 / 3.6)).toBeCloseTo(checks["C8.8"].outputs.q, 9);
    expect(hazeWorth(0.3)).toBeCloseTo(checks["C8.9"].outputs.w, 12);
    // Spread limit 2.5 °C: common practice, no source.
    expect([wetnessOf(8, 5), wetnessOf(8, 6), wetnessOf(1, -1)]).toEqual(["dry", "dew", "frost"]);
  });
});

describe("scores (reference/maths, C8.4, C8.5, C8.7; Brier 1950, Murphy 1973)", () => {
  const pairs = (odds: readonly number[], outcomes: readonly (0 | 1)[]): Scored[] =>
    odds.map((p, i) => ({ odds: p, outcome: outcomes[i]! }));
  it("computes score and skill", () => {
    const score = brierScore(pairs([0.9, 0.7, 0.2, 0.1, 0.6], [1, 1, 0, 0, 0]));
    expect(score).toBeCloseTo(checks["C8.4"].outputs.bs, 12);
    expect(brierSkill(score, checks["C8.4"].outputs.bc)).toBeCloseTo(checks["C8.4"].outputs.bss, 12);
  });
  it("splits a score into reliability, resolution and uncertainty", () => {
    const outcomes = (n: number, ones: number): (0 | 1)[] => Array.from({ length: n }, (_, i) => (i < ones ? 1 : 0));
    const all = [
      ...pairs(Array<number>(10).fill(0.2), outcomes(10, 2)),
      ...pairs(Array<number>(10).fill(0.8), outcomes(10, 7)),
    ];
    const { bs, rel, res, unc } = checks["C8.7"].outputs;
    const parts = brierParts(all);
    expect(brierScore(all)).toBeCloseTo(bs, 12);
    expect([parts.reliability, parts.resolution, parts.uncertainty].map((v) => v.toFixed(6))).toEqual(
      [rel, res, unc].map((v) => v.toFixed(6)),
    );
  });
  it("always adds up: score = reliability − resolution + uncertainty", () => {
    const scored = fc.array(
      fc.record({ odds: fc.integer({ min: 0, max: 10 }).map((n) => n / 10), outcome: fc.constantFrom<0 | 1>(0, 1) }),
      { minLength: 1, maxLength: 60 },
    );
    fc.assert(
      fc.property(scored, (all) => {
        const p = brierParts(all);
        return Math.abs(brierScore(all) - (p.reliability - p.resolution + p.uncertainty)) < 1e-9;
      }),
    );
  });
  it("weights and pools sources by their record", () => {
    const { b, w, lin, log, spread } = checks["C8.5"].outputs;
    const records = [
      { hours: 40, brier: 0.1 },
      { hours: 10, brier: 0.16 },
      { hours: 60, brier: 0.2 },
    ];
    records.forEach((r, i) => expect(shrunkBrier(r, 0.22)).toBeCloseTo(b[i]!, 12));
    const pooled = poolOdds(
      records.map((record, i) => ({ record, odds: [0.8, 0.4, 0.6][i]! })),
      0.22,
    );
    pooled.weights.forEach((v, i) => expect(v).toBeCloseTo(w[i]!, 9));
    expect(pooled.linear).toBeCloseTo(lin, 9);
    expect(pooled.logOdds).toBeCloseTo(log, 9);
    expect(pooled.spread).toBeCloseTo(spread, 9);
  });
  it("keeps pooled odds between the lowest and the highest, and takes 0 and 1 without breaking", () => {
    const odds = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(odds, (all) => {
        const p = poolOdds(
          all.map((o) => ({ odds: o, record: { hours: 0, brier: Number.NaN } })),
          0.24,
        );
        const [low, high] = [Math.min(...all), Math.max(...all)];
        return p.linear >= low - 1e-12 && p.linear <= high + 1e-12 && Number.isFinite(p.logOdds) && p.spread >= 0;
      }),
    );
    expect(() => poolOdds([], 0.2)).toThrow(RangeError);
  });
});

describe("a night's odds (reference/maths, C8.6, C8.10)", () => {
  const hours = (odds: readonly number[]) => odds.map((p) => ({ odds: p, minutes: 60 }));
  it("expects the sum of odds", () => {
    expect(playNight(hours([0.8, 0.8, 0.7, 0.5, 0.3, 0.2]), 120).expectedMin / 60).toBeCloseTo(
      checks["C8.6"].outputs.E,
      9,
    );
  });
  it("tells the night of all or nothing from its mean: half the time 5 h, half the time half an hour", () => {
    // Nine half hours that come together, and one that is sure.
    const night = [{ odds: 1, minutes: 30 }, ...Array.from({ length: 9 }, () => ({ odds: 0.5, minutes: 30 }))];
    const together = playNight(night, 120, 1);
    expect(together.expectedMin / 60).toBeCloseTo(checks["C8.10"].outputs.E, 9);
    expect(Math.abs(together.atLeastWish - checks["C8.10"].outputs.P)).toBeLessThan(0.04); // 2,000 runs
    expect([together.tenthMin, together.ninetiethMin]).toEqual([30, 300]);
  });
  it("gives independent hours their exact chance (binomial)", () => {
    const night = playNight(hours([0.5, 0.5, 0.5, 0.5]), 120, 0);
    expect(Math.abs(night.atLeastWish - 11 / 16)).toBeLessThan(0.04);
  });
  it("never falls with better odds, and its percentiles rise", () => {
    const odds = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(odds, fc.double({ min: 0, max: 0.5, noNaN: true }), (all, more) => {
        const now = playNight(hours(all), 120);
        const then = playNight(hours(all.map((p) => Math.min(1, p + more))), 120);
        return then.atLeastWish >= now.atLeastWish && now.tenthMin <= now.halfMin && now.halfMin <= now.ninetiethMin;
      }),
      { numRuns: 30 },
    );
  });
});

describe("forecast hours", () => {
  it("read cover as odds, less the chance of rain; without a word on cloud there are none", () => {
    expect(clearOdds(hour(0, { lowCloud: 0.3, middleCloud: 0.2, highCloud: 0.5 }))).toBeCloseTo(0.42, 12);
    expect(clearOdds(hour(0, { lowCloud: 0, rainChance: 0.4 }))).toBeCloseTo(0.6, 12);
    expect(clearOdds(hour(0, { airC: 4 }))).toBeNull();
  });
  it("keep the last word before an hour began, whichever copy comes first", () => {
    const issue = (h: number, cloud: number) => ({ ...hour(2, { lowCloud: cloud }), issuedMs: at(h) });
    const hindsight = issue(3, 1);
    const all = [issue(-12, 0.1), issue(-6, 0.2), issue(1, 0.3), hindsight];
    const indices = fc.shuffledSubarray(all, { minLength: 4, maxLength: 4 });
    fc.assert(fc.property(indices, (order) => joinHours(order.slice(0, 2), order.slice(2))[0]!.lowCloud === 0.3));
    expect(joinHours([], [hindsight])).toEqual([]);
  });
});

describe("a night's weather", () => {
  const source = (id: string, clouds: readonly (number | null)[], hours = 0, brier = Number.NaN) => ({
    id,
    name: id,
    record: { hours, brier },
    hours: clouds.flatMap((c, i) => (c === null ? [] : [hour(i, { lowCloud: c, airC: 4 + i, gustMs: 3 + i })])),
  });
  const night = (looks: { atMs: ReturnType<typeof at>; isClear: boolean }[] = []) =>
    nightWeather({
      hours: [at(0), at(1), at(2)],
      sources: [source("a", [0.2, 0.4, null], 60, 0.08), source("b", [0.8, null, null])],
      climatology: 0.45,
      looks,
    });
  it("pools those who speak, the better record first, and falls back on the long term where all are silent", () => {
    const [first, second, third] = night();
    expect(first!.odds > 0.5 && first!.odds < 0.8).toBe(true); // nearer to a's 0.8 than to b's 0.2
    expect(first!.spread).toBeGreaterThan(0.2);
    expect([second!.odds, second!.spread, second!.basis]).toEqual([0.6, null, "forecast"]);
    expect([third!.odds, third!.basis, third!.airC]).toEqual([0.45, "longTerm", null]);
  });
  it("lets what was seen outweigh them, less and less with time, and never backwards", () => {
    const [before, now, later] = night([{ atMs: utcMs(at(1) + 60_000), isClear: false }]);
    expect(before!.basis).toBe("forecast");
    expect([now!.basis, now!.odds < 0.2]).toEqual(["lookedUp", true]);
    expect(later!.odds).toBeGreaterThan(now!.odds);
    const clear = night([{ atMs: at(0), isClear: true }]);
    expect(clear[0]!.odds).toBeGreaterThan(0.85);
  });
  it("gives a person's own word its hours whole, and leaves the others to the pool; as one more source it is a vote", () => {
    const at3 = [at(0), at(1), at(2)];
    const services = [source("a", [0.9, 0.9, 0.9]), source("b", [0.8, 0.9, 0.7])];
    const mine = source("typed", [0.05, null, null]);
    const ask = (isOwn: boolean) =>
      nightWeather({ hours: at3, sources: [...services, { ...mine, isOwn }], climatology: 0.45, looks: [] });
    const own = ask(true);
    expect([own[0]!.odds, own[0]!.basis]).toEqual([0.95, "own"]);
    expect([own[1]!.basis, own[2]!.basis]).toEqual(["forecast", "forecast"]);
    expect(own[1]!.odds).toBeCloseTo(0.1, 6);
    const vote = ask(false);
    expect(vote[0]!.odds).toBeLessThan(0.5);
    expect(vote[0]!.basis).toBe("forecast");
  });
  it("scores only hours whose outcome somebody saw", () => {
    const hours = [hour(0, { lowCloud: 0.1 }), hour(1, { lowCloud: 0.7 }), hour(2, { lowCloud: 0.5 })];
    const record = trackRecord(hours, [
      { atMs: utcMs(at(0) + 5), isClear: true },
      { atMs: utcMs(at(1) + 9), isClear: true },
      { atMs: utcMs(at(1) + 99), isClear: false }, // the last look of an hour counts
    ]);
    expect(record.hours).toBe(2);
    expect(record.brier).toBeCloseTo((0.1 ** 2 + 0.3 ** 2) / 2, 12);
    expect(trackRecord(hours, []).hours).toBe(0);
  });
});

describe("the chance of clear nights, learnt (reference/maths, C6.8)", () => {
  it("moves a guess worth 20 nights by what was seen", () => {
    expect(posteriorChance(0.3, 9, 15)).toBeCloseTo(checks["C6.8"].outputs.mean, 12);
  });
  it("learns month by month, nights in a row counting for less, and leaves months without entries alone", () => {
    const nights = Array.from({ length: 10 }, (_, i) => ({
      night: nightDate(`2026-11-${String(i + 1).padStart(2, "0")}`),
      isClear: i < 8,
    }));
    const learnt = learnChances(Array<number>(12).fill(0.3), nights);
    expect(learnt[0]).toEqual({ chance: 0.3, nights: 0, clear: 0 });
    expect([learnt[10]!.nights, learnt[10]!.clear]).toEqual([10, 8]);
    expect(learnt[10]!.chance).toBeGreaterThan(0.3);
    expect(learnt[10]!.chance).toBeLessThan(posteriorChance(0.3, 8, 10));
  });
  it("stays between the guess and what was seen", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), fc.nat(40), fc.nat(40), (guess, clear, cloudy) => {
        const n = clear + cloudy;
        if (n === 0) return Math.abs(posteriorChance(guess, 0, 0) - guess) < 1e-12;
        const p = posteriorChance(guess, clear, n, 0.35);
        return p >= Math.min(guess, clear / n) - 1e-12 && p <= Math.max(guess, clear / n) + 1e-12;
      }),
    );
  });
});

describe("reliability", () => {
  it("tells in each bin what was said and what came: 8 of 10 hours told at 0.8", () => {
    const said = (odds: number, clear: number, of: number) =>
      Array.from({ length: of }, (_, i) => ({ odds, outcome: i < clear ? 1 : 0 }) as const);
    expect(reliabilityBins([...said(0.8, 8, 10), ...said(0.1, 0, 4), ...said(1, 3, 3)], 5)).toEqual([
      { hours: 4, told: 0.1, seen: 0 },
      { hours: 13, told: (8 + 3) / 13, seen: 11 / 13 },
    ]);
  });
  it("adds up to the reliability part of Murphy's split when every bin holds one odds (law, independent formula)", () => {
    const scored = fc.array(
      fc.record({ odds: fc.constantFrom(0.05, 0.15, 0.35, 0.55, 0.75, 0.95), outcome: fc.constantFrom(0 as const, 1 as const) }), // prettier-ignore
      { minLength: 1, maxLength: 200 },
    );
    fc.assert(
      fc.property(scored, (list) => {
        const sum = reliabilityBins(list, 10).reduce((s, b) => s + (b.hours / list.length) * (b.told - b.seen) ** 2, 0);
        expect(sum).toBeCloseTo(brierParts(list).reliability, 10);
      }),
    );
  });
});
