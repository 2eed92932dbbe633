import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { allShootAll, bestSplit, inRatio, splitOdds, splitOf, type ChannelGoal, type CrewSite } from "./who-shoots";

/** MATHS C7.5. */
const dark: CrewSite = { memberId: "dark", hours: 10, rates: { L: 1, Ha: 1, OIII: 1 } };
const city: CrewSite = { memberId: "city", hours: 20, rates: { L: 0.0631, Ha: 0.6, OIII: 0.3 } };
const goals: readonly ChannelGoal[] = [{ channel: "L", hours: 6 }, { channel: "Ha", hours: 6 }, { channel: "OIII", hours: 4 }]; // prettier-ignore

describe("who shoots what", () => {
  it("by comparative advantage: all goals × 1.2308, broadband to the dark site, Ha to the city (MATHS C7.5)", () => {
    const split = bestSplit([dark, city], goals)!;
    expect(split.fullness).toBeCloseTo(1.2308, 4);
    const of = (m: string, c: "L" | "Ha" | "OIII") => (split.hours[m]?.[c] ?? 0).toFixed(3);
    expect([of("dark", "L"), of("dark", "Ha"), of("dark", "OIII")]).toEqual(["7.385", "0.000", "2.615"]);
    expect([of("city", "L"), of("city", "Ha"), of("city", "OIII")]).toEqual(["0.000", "12.308", "7.692"]);
  });
  it("in equal parts only × 0.6257 (MATHS C7.5)", () => {
    expect(allShootAll([dark, city], goals, () => 1).fullness).toBeCloseTo(0.6257, 4);
  });
  it("holds a floor, at a price; says when it cannot, or when nobody has the filter", () => {
    const free = bestSplit([dark, city], goals)!;
    const fair = bestSplit([dark, city], goals, 0.5)!;
    expect(free.shares["city"]).toBeLessThan(0.5);
    expect(fair.shares["city"]).toBeGreaterThan(0.5 - 1e-6);
    expect(fair.fullness).toBeLessThan(free.fullness);
    expect(bestSplit([dark, { ...city, hours: 0.1 }], goals, 0.4)).not.toBeNull(); // the dark site gives less, then
    expect(bestSplit([city], [{ channel: "SII", hours: 4 }])).toBeNull();
    expect(bestSplit([dark], [])!.fullness).toBe(1);
  });
  it("is as good as any split there is, for two sites and two channels: a fine grid finds none better (law)", () => {
    const number = fc.double({ min: 0.05, max: 3, noNaN: true });
    const hours = fc.integer({ min: 1, max: 40 });
    const some = fc.record({ a: fc.tuple(number, number, hours), b: fc.tuple(number, number, hours), goals: fc.tuple(hours, hours) }); // prettier-ignore
    fc.assert(
      fc.property(some, ({ a, b, goals: [l, h] }) => {
        const site = (memberId: string, [L, Ha, most]: [number, number, number]): CrewSite => ({ memberId, hours: most, rates: { L, Ha } }); // prettier-ignore
        const sites = [site("a", a), site("b", b)];
        const want: ChannelGoal[] = [{ channel: "L", hours: l }, { channel: "Ha", hours: h }]; // prettier-ignore
        const found = bestSplit(sites, want)!;
        let best = 0;
        const steps = 60;
        for (let i = 0; i <= steps; i++)
          for (let k = 0; k <= steps; k++) {
            const [x, y] = [(a[2] * i) / steps, (b[2] * k) / steps];
            best = Math.max(best, Math.min((x * a[0] + y * b[0]) / l, ((a[2] - x) * a[1] + (b[2] - y) * b[1]) / h));
          }
        expect(found.fullness).toBeGreaterThan(best - 1e-6);
        expect(found.fullness).toBeLessThan(best * 1.1 + 1e-6); // between two steps of the grid
        for (const s of sites)
          expect(Object.values(found.hours[s.memberId] ?? {}).reduce((p, q) => p + q, 0)).toBeLessThan(s.hours + 1e-6);
        expect(found.fullness).toBeGreaterThan(allShootAll(sites, want).fullness - 1e-6);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 100 },
    );
  });
  it("shares the sum of the goals in a ratio: 11 h as 3:4:4 are 3, 4 and 4 (MATHS C4.13)", () => {
    const eleven: ChannelGoal[] = [{ channel: "Ha", hours: 11 }, { channel: "OIII", hours: 0 }, { channel: "SII", hours: 0 }]; // prettier-ignore
    expect(inRatio(eleven, [3, 4, 4]).map((g) => g.hours)).toEqual([3, 4, 4]);
  });
  it("by hand comes to what it comes to", () => {
    const split = splitOf([dark, city], goals, { dark: { L: 6, OIII: 4 }, city: { Ha: 20 } });
    expect(split.fullness).toBeCloseTo(1, 9);
    expect(split.shares["city"]).toBeCloseTo(12 / 22, 9);
  });
});

describe("the odds of a split", () => {
  const nights = (chance: number, hours: number, count: number) =>
    Array.from({ length: count }, () => ({ chance, hours }));
  const goal: ChannelGoal[] = [{ channel: "L", hours: 10 }];
  const site = (chance: number) => ({
    memberId: "a",
    hours: 20 * chance,
    rates: { L: 1 },
    nights: nights(chance, 1, 20),
  });
  const odds = (chance: number) =>
    splitOdds({ a: { L: 20 * chance } }, [site(chance)], goal, { persistence: 0, runs: 20_000, seed: 7 });
  it("are those of the binomial where every night is like another: 10 or more of 20 at one half are 0.5881", () => {
    expect(Math.abs(odds(0.5) - 0.5881)).toBeLessThan(0.012); // published tables of the binomial distribution
    expect(Math.abs(odds(0.7) - 0.9829)).toBeLessThan(0.006);
  });
  it("are all or nothing where every night is as the first", () => {
    const all = splitOdds({ a: { L: 10 } }, [site(0.5)], goal, { persistence: 1, runs: 20_000, seed: 3 });
    expect(Math.abs(all - 0.5)).toBeLessThan(0.012);
  });
});
