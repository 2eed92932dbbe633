import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { nightDate } from "~/core/time";
import type { ContributionData } from "./contribution";
import { impossibles, type PossibleAt } from "./impossible";

const NIGHT = "2026-12-05";
const DUSK = Date.parse("2026-12-05T17:00:00Z");
const entry = (change: Partial<ContributionData>): ContributionData => ({
  projectId: "p", panel: "P1", channel: "Ha", night: nightDate(NIGHT), memberId: "m", rigId: "r", placeId: "pl", exposureSec: 300, taken: 1, kept: 1, reason: "", worthRate: null, startMs: null, fileName: "", note: "", ...change,
}); // prettier-ignore
const at = (known: readonly ContributionData[] = []): PossibleAt => ({
  startedOn: (id) => (id === "p" ? "2026-11-20" : null),
  nightMin: () => 14 * 60,
  known: (rigId, night) => known.filter((k) => k.rigId === rigId && k.night === night),
});
const codes = (entries: readonly ContributionData[], known: readonly ContributionData[] = []) =>
  impossibles(entries, at(known)).map((why) => why?.code ?? null);
const sub = (sec: number, exposureSec = 300, change: Partial<ContributionData> = {}) =>
  entry({ startMs: DUSK + sec * 1000, exposureSec, ...change });

describe("entries of the log that cannot be", () => {
  it("lie before their project began; one that does not say when it began has none", () => {
    const old = { night: nightDate("2026-11-19") };
    expect(codes([entry(old), entry({}), entry({ ...old, projectId: "other" })])).toEqual(["beforeBegun", null, null]);
  });
  it("make a night longer than it was, with what the log has already (reported: 26 h 45 in one night)", () => {
    const [ten, eight] = [entry({ taken: 120 }), entry({ taken: 96 })];
    expect(codes([ten])).toEqual([null]);
    expect(impossibles([ten], at([ten, eight]))).toEqual([{ code: "longerThanNight", minutes: 1680, nightMin: 840 }]);
    expect(codes([ten, eight])).toEqual(["longerThanNight", "longerThanNight"]);
    // Another rig's night, and another night, are their own.
    expect(codes([ten, { ...eight, rigId: "r2" }, { ...eight, night: nightDate("2026-12-06") }])).toEqual([null, null, null]); // prettier-ignore
    // Clocks and rounding.
    expect(codes([entry({ taken: 169 }), entry({ taken: 170 })].slice(0, 1))).toEqual([null]);
    expect(codes([entry({ taken: 170 })])).toEqual(["longerThanNight"]);
  });
  it("were taken while their rig took another: of two new ones the later, of one in the log the new one", () => {
    expect(codes([sub(0), sub(100)])).toEqual([null, "twiceAtOnce"]);
    expect(codes([sub(100), sub(0)])).toEqual(["twiceAtOnce", null]);
    expect(codes([sub(0)], [sub(100)])).toEqual(["twiceAtOnce"]);
    expect(codes([sub(100)], [sub(0)])).toEqual(["twiceAtOnce"]);
    expect(codes([sub(0), sub(298)])).toEqual([null, null]); // a start rounded to the second
    expect(codes([sub(0), sub(100, 300, { rigId: "r2" })])).toEqual([null, null]);
    // A long one over two short ones that do not touch each other.
    expect(codes([sub(10, 60), sub(200, 60)], [sub(0, 400)])).toEqual(["twiceAtOnce", "twiceAtOnce"]);
  });
  it("are none among the subs of a night as it was (law); and two nights of subs on one clock are told apart", () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ sec: fc.integer({ min: 1, max: 600 }), gap: fc.integer({ min: 0, max: 60 }) }), {
          minLength: 1,
          maxLength: 60,
        }),
        fc.nat(),
        fc.boolean(),
        (subs, salt, isHalfKnown) => {
          let t = 0;
          const real = subs.map(({ sec, gap }) => {
            const one = sub(t, sec);
            t += sec + gap;
            return one;
          });
          fc.pre(t < 13 * 3600);
          const shuffled = real
            .map((e, i) => ({ e, order: Math.sin(salt + i) }))
            .sort((a, b) => a.order - b.order)
            .map(({ e }) => e);
          const half = isHalfKnown ? Math.floor(shuffled.length / 2) : 0;
          expect(codes(shuffled.slice(half), shuffled.slice(0, half)).every((code) => code === null)).toBe(true);
          // The same subs once more, by another camera of the same name: all of those that last longer than clocks are off.
          const again = codes(real, real);
          real.forEach((e, i) => e.exposureSec > 2 && expect(again[i]).toBe("twiceAtOnce"));
        },
      ),
      { numRuns: 300 },
    );
  });
});
