import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_OVERHEADS, efficiencyOf, type Channel } from "~/core/exposure";
import { addNights, nightDate } from "~/core/time";
import { allocate, nightOffers, remainingWork, simulateFinish, type Need, type NightOffer, type PlanRules } from ".";

const rules: PlanRules = { overheads: DEFAULT_OVERHEADS, school: "allPanelsEveryNight", leastNightMin: 45 };
const start = nightDate("2026-12-05");
const need = (panel: string, channel: Channel, hours: number): Need => ({
  panel,
  channel,
  goalMin: hours * 60,
  remainingMin: hours * 60,
  subSec: 300,
});
const offers = (count: number, of: (i: number) => NightOffer["channels"]): NightOffer[] =>
  Array.from({ length: count }, (_, i) => ({ date: addNights(start, i), channels: of(i) }));
const offer = (usableMin: number, worthMin = usableMin, moonlessWorthMin = worthMin) => ({
  usableMin,
  worthMin,
  moonlessWorthMin,
});

describe("allocation", () => {
  it("levels panels when all are shot every night and finishes one after another otherwise (MATHS C7.6)", () => {
    const needs = ["P1", "P2", "P3", "P4"].map((p) => need(p, "L", 8));
    const nights = offers(5, () => ({ L: offer(300) }));
    const per = (school: PlanRules["school"]) =>
      ["P1", "P2", "P3", "P4"].map((p) =>
        allocate(needs, nights, { ...rules, school })
          .nights.flatMap((n) => n.work)
          .filter((w) => w.panel === p)
          .reduce((s, w) => s + w.exposureMin, 0),
      );
    const level = per("allPanelsEveryNight");
    expect(Math.max(...level) - Math.min(...level)).toBeLessThan(1);
    const inTurn = per("panelAfterPanel");
    expect(inTurn[0]).toBeCloseTo(480, 6);
    expect(inTurn[3]).toBe(0);
  });

  it("gives moonlit nights to the channel that bears the Moon and dark ones to the other (rule of the trade, no source)", () => {
    const moonlit = { L: offer(0, 0, 240), OIII: offer(200, 90, 200), Ha: offer(300, 190, 210) };
    const dark = { L: offer(300), OIII: offer(300), Ha: offer(300) };
    const needs = [need("P1", "Ha", 20), need("P1", "OIII", 20), need("P1", "L", 20)];
    const plan = allocate(
      needs,
      offers(4, (i) => (i % 2 ? moonlit : dark)),
      rules,
    );
    expect(plan.nights.map((n) => n.work[0]?.channel)).toEqual(["L", "Ha", "L", "Ha"]);
    const withoutL = allocate(
      needs.slice(0, 2),
      offers(1, () => dark),
      rules,
    );
    expect(withoutL.nights[0]!.work[0]!.channel).toBe("OIII");
  });

  it("never gives more than is wanted or than a night holds, and finishes exactly when nothing is left", () => {
    const needs = fc.array(
      fc.record({
        panel: fc.constantFrom("P1", "P2", "P3"),
        channel: fc.constantFrom<Channel>("L", "Ha", "OIII"),
        hours: fc.double({ min: 0, max: 9, noNaN: true }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    const minutes = fc.array(
      fc.tuple(fc.integer({ min: 0, max: 600 }), fc.integer({ min: 0, max: 600 }), fc.integer({ min: 0, max: 600 })),
      { minLength: 1, maxLength: 30 },
    );
    fc.assert(
      fc.property(
        needs,
        minutes,
        fc.constantFrom("allPanelsEveryNight" as const, "panelAfterPanel" as const),
        (list, m, school) => {
          const unique = [
            ...new Map(list.map((n) => [n.panel + n.channel, need(n.panel, n.channel, n.hours)])).values(),
          ];
          const plan = allocate(
            unique,
            offers(m.length, (i) => ({ L: offer(m[i]![0]), Ha: offer(m[i]![1]), OIII: offer(m[i]![2]) })),
            { ...rules, school },
          );
          const given = plan.nights.flatMap((n) => n.work);
          for (const n of unique)
            expect(
              given
                .filter((w) => w.panel === n.panel && w.channel === n.channel)
                .reduce((s, w) => s + w.exposureMin, 0),
            ).toBeLessThanOrEqual(n.remainingMin + 1e-6);
          plan.nights.forEach((n, i) =>
            expect(n.work.reduce((s, w) => s + w.exposureMin, 0)).toBeLessThanOrEqual(
              Math.max(...m[i]!) * efficiencyOf(300, DEFAULT_OVERHEADS) + 1e-6,
            ),
          );
          const wanted = unique.reduce((s, n) => s + n.remainingMin, 0);
          expect(given.reduce((s, w) => s + w.exposureMin, 0) + plan.unmetMin).toBeCloseTo(wanted, 4);
          if (plan.finishedOn !== null) expect(plan.unmetMin).toBeLessThanOrEqual(0.5 * unique.length);
        },
      ),
    );
  });
});

describe("odds of finishing", () => {
  // One night of work exactly fills one clear night, so that five nights of work need five clear nights.
  const oneNightMin =
    (300 - DEFAULT_OVERHEADS.panelChangeSec / 60 - DEFAULT_OVERHEADS.flipMin) * efficiencyOf(300, DEFAULT_OVERHEADS);
  const five = [need("P1", "L", (5 * oneNightMin) / 60)];
  const nights = offers(120, () => ({ L: offer(300) }));
  const play = (persistence: number) =>
    simulateFinish(five, nights, rules, {
      clearChance: Array<number>(12).fill(0.3),
      persistence,
      runs: 4000,
      seed: 11,
    });

  it("need night 10 / 16 / 25 for five clear nights at 0.3 (MATHS C6.6, exact dynamic program; ± 1 night)", () => {
    const odds = play(0);
    [odds.tenth, odds.half, odds.ninetieth].forEach((date, i) => {
      const expected = [10, 16, 25][i]!;
      expect([-1, 0, 1].map((d) => addNights(start, expected - 1 + d))).toContain(date);
    });
    expect(odds.doneShare).toBe(1);
  });

  it("spread wider when clear nights come in runs: 7 / 16 / 32 (MATHS C6.7; ± 1 night)", () => {
    const odds = play(0.428571);
    [odds.tenth, odds.half, odds.ninetieth].forEach((date, i) =>
      expect([-1, 0, 1].map((d) => addNights(start, [7, 16, 32][i]! - 1 + d))).toContain(date),
    );
  });

  it("rise night by night as the binomial law has it: five clear nights of n at 0.3, to three standard errors", () => {
    const { doneBy, runs } = play(0);
    const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n, k - 1) * (n - k + 1)) / k);
    for (const n of [8, 12, 16, 20, 30]) {
      const missed = [0, 1, 2, 3, 4].reduce((sum, k) => sum + choose(n, k) * 0.3 ** k * 0.7 ** (n - k), 0);
      const error = Math.sqrt((missed * (1 - missed)) / runs);
      expect(Math.abs(doneBy[n - 1]! - (1 - missed))).toBeLessThan(3 * error);
    }
    expect(doneBy.every((share, i) => i === 0 || share >= doneBy[i - 1]!)).toBe(true);
  });

  it("say so when the nights do not suffice, and repeat with the same seed", () => {
    const odds = simulateFinish(five, nights.slice(0, 8), rules, {
      clearChance: Array<number>(12).fill(0.3),
      persistence: 0,
      runs: 500,
      seed: 3,
    });
    expect(odds.half).toBeNull();
    expect(odds.doneShare).toBeLessThan(0.2);
    expect(play(0.2)).toStrictEqual(play(0.2));
  });
});

it("offers a target the nights its place has, and wants what is not yet kept", () => {
  const place = {
    name: "x",
    latitudeDeg: 45,
    longitudeDeg: 9,
    elevationM: 100,
    timeZone: "Europe/Rome",
    skyMagPerArcsec2: 20.5,
    skyline: [],
    minAltitudeDeg: 30,
    seeingArcsec: 3,
    clearChance: Array<number>(12).fill(0.4),
  };
  const [full, dark] = ["2026-12-24", "2026-12-09"].map(
    (d) =>
      nightOffers({
        place,
        moon: { school: "keepAway", leastShare: 0.15 },
        target: { frame: "icrs", raDeg: 95, decDeg: 22 },
        channels: ["L", "Ha"],
        from: nightDate(d),
        count: 1,
      })[0]!,
  );
  expect(full!.channels.L!.usableMin).toBeLessThan(dark!.channels.L!.usableMin / 3); // a full Moon stands beside it
  expect(dark!.channels.L!.usableMin).toBeGreaterThan(400);
  const work = remainingWork(
    [{ channel: "Ha", filterId: "f", hoursPerPanel: 2, subSec: 300 }],
    [{ number: 1 }, { number: 2 }],
    (panel) => (panel === "P1" ? 150 : 30),
  );
  expect(work.map((w) => [w.panel, w.remainingMin])).toEqual([
    ["P1", 0],
    ["P2", 90],
  ]);
});
