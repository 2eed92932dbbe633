import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { HOUR_MS, utcMs } from "~/core/time";
import { restOfNight, type RigBlock } from "./rest";
import type { WeighedHour } from "./weigh";

const at = (hours: number) => utcMs(Date.UTC(2026, 11, 5, 18) + hours * HOUR_MS);
const hour = (n: number, goOdds: number, dryMin = 60): WeighedHour => ({ atMs: at(n), goOdds, dryMin, usableMin: 60 }) as WeighedHour; // prettier-ignore
const block = (projectId: string, from: number, to: number, countsMin = 60 * (to - from), rig = "one"): RigBlock => ({ projectId, channel: "L", subSec: 120, startMs: at(from), endMs: at(to), countsMin, exposureMin: 60 * (to - from), rigIds: [rig] }); // prettier-ignore
const ask = (more: Partial<Parameters<typeof restOfNight>[0]>) =>
  restOfNight({
    nowMs: at(2),
    nightEndMs: at(10),
    weighed: { hours: [0, 1, 2, 3, 4, 5, 6, 7, 8].map((n) => hour(n, 0.8)), window: { startMs: at(2), endMs: at(9) }, rainDeadlineMs: null }, // prettier-ignore
    blocks: [block("a", 1, 5), block("b", 5, 9)],
    before: [block("a", 1, 5), block("b", 5, 9)],
    hasWork: true,
    ...more,
  });
const clouded = (until: number, rainDeadlineMs: ReturnType<typeof at> | null = null) => ({
  hours: [0, 1, 2, 3, 4, 5, 6, 7, 8].map((n) => hour(n, n < until ? 0.04 : 0.7)),
  window: { startMs: at(until), endMs: at(9) },
  rainDeadlineMs,
});

describe("the rest of a night", () => {
  it("under a clear sky goes on with what is planned, and ends with the last target", () => {
    expect(ask({})!.steps).toEqual([
      { kind: "shoot", rigId: "one", projectId: "a", channels: "L", fromMs: at(2), untilMs: at(5), insteadOf: null },
      { kind: "shoot", rigId: "one", projectId: "b", channels: "L", fromMs: at(5), untilMs: at(9), insteadOf: null },
      { kind: "packUp", byMs: at(9), why: "over" },
    ]);
    expect(ask({})!.expectedMin).toBeCloseTo(7 * 48, 6);
  });
  it("under cloud that clears later waits, with darks meanwhile, and says how likely it clears", () => {
    const { steps } = ask({ weighed: clouded(4), blocks: [block("b", 4, 9)] })!;
    expect(steps.slice(0, 2)).toEqual([
      { kind: "wait", untilMs: at(4), odds: 0.7 },
      { kind: "darks", minutes: 120 },
    ]);
  });
  it("changes to another target where the new plan does, with what that counts", () => {
    const { steps } = ask({ blocks: [block("b", 2, 9, 400)], before: [block("a", 1, 5, 100), block("b", 5, 9, 200)] })!;
    // Of the first block before, three of four hours are left: 75 of 100 minutes.
    expect(steps[0]).toMatchObject({ projectId: "b", insteadOf: { projectId: "a", gainMin: 400 - 75 - 200 } });
  });
  it("says so when hours are left that are too unlikely to wait for", () => {
    const weighed = { ...clouded(2), window: { startMs: at(2), endMs: at(7) } };
    expect(ask({ weighed })!.steps.at(-1)).toEqual({ kind: "packUp", byMs: at(7), why: "unlikely" });
  });
  it("tells of each rig what it does, and of its own change only", () => {
    const other = block("c", 2, 6, 240, "two");
    const { steps } = ask({ blocks: [block("b", 2, 9, 400), other], before: [block("a", 1, 5, 100), other] })!;
    const shoots = steps.flatMap((s) =>
      s.kind === "shoot" ? [[s.rigId, s.projectId, s.insteadOf?.projectId ?? null]] : [],
    );
    expect(shoots).toEqual([["one", "b", "a"], ["two", "c", null]]); // prettier-ignore
  });
  it("packs up before rain, at once when nothing is to be had or left to do, and says nothing by day", () => {
    expect(ask({ weighed: { ...clouded(2), rainDeadlineMs: at(7) } })!.steps.at(-1)).toEqual({ kind: "packUp", byMs: at(7), why: "rain" }); // prettier-ignore
    const rainy = ask({ weighed: { ...clouded(2), rainDeadlineMs: at(1) } })!;
    expect(rainy.steps).toEqual([{ kind: "packUp", byMs: at(1), why: "rain" }]);
    expect(ask({ weighed: { ...clouded(9), window: null } })!.steps).toEqual([{ kind: "packUp", byMs: at(2), why: "noHours" }]); // prettier-ignore
    expect(ask({ hasWork: false })!.steps[0]).toMatchObject({ why: "allDone" });
    expect(ask({ nowMs: at(11) })).toBeNull();
  });
  it("never tells of an instant that is over, nor of one after dawn, and always ends with packing up (law)", () => {
    const odds = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 10, maxLength: 10 });
    fc.assert(
      fc.property(odds, fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 }), fc.option(fc.integer({ min: 0, max: 12 })), (list, now, start, rain) => {
        const weighed = { hours: list.map((o, n) => hour(n, o)), window: { startMs: at(Math.max(now, start)), endMs: at(9) }, rainDeadlineMs: rain === null ? null : at(rain) }; // prettier-ignore
        const rest = ask({ nowMs: at(now), weighed })!;
        expect(rest.steps.at(-1)!.kind).toBe("packUp");
        expect(rest.expectedMin).toBeLessThanOrEqual(60 * (9 - Math.max(now, start)) + 1e-9);
        for (const s of rest.steps) {
          if (s.kind === "wait" || s.kind === "shoot") expect(s.untilMs).toBeGreaterThan(at(now));
          if (s.kind === "packUp") expect(s.byMs).toBeLessThanOrEqual(at(10));
        }
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 100 },
    ); // prettier-ignore
  });
});
