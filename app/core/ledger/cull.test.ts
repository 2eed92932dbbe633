import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ContributionData, SubMeasure } from "./contribution";
import { cullHints, cullPrice, keptHistory, pointWeight, robustZ, subsBetween, withKept, type CullSub } from "./cull";

const measure = (more: Partial<SubMeasure> = {}): SubMeasure => ({ fwhmPx: 2.7, eccentricity: 0.4, stars: 300, background: 800, from: "picture", ...more }); // prettier-ignore
const sub = (id: string, more: Partial<ContributionData> = {}): CullSub => ({
  id,
  data: { projectId: "p", panel: "P1", channel: "Ha", night: "2026-12-05", memberId: "m", rigId: "r", placeId: "x", exposureSec: 300, taken: 1, kept: 1, reason: "", worthRate: 1, startMs: null, fileName: "", note: "", ...more },
}); // prettier-ignore
const widths = [2.4, 2.5, 2.5, 2.6, 2.7, 2.8, 2.9, 3.0, 4.6];

describe("robust deviations", () => {
  it("are the published ones: median 2.70, σ 0.2965, z 6.41 and 1.01 (MATHS C10.5)", () => {
    const found = robustZ(widths)!;
    expect(found.median).toBeCloseTo(2.7, 9);
    expect(found.sigma).toBeCloseTo(0.2965, 4);
    expect([found.z[8]!.toFixed(2), found.z[7]!.toFixed(2)]).toEqual(["6.41", "1.01"]);
    expect(robustZ([2, 2, 2, 5])).toBeNull();
    expect(robustZ([])).toBeNull();
  });
  it("follow a change of unit and of zero, whatever the values (law)", () => {
    const some = fc.array(fc.double({ min: 0.5, max: 9, noNaN: true }), { minLength: 3, maxLength: 40 });
    fc.assert(
      fc.property(
        some,
        fc.double({ min: 0.1, max: 50, noNaN: true }),
        fc.double({ min: -99, max: 99, noNaN: true }),
        (values, unit, zero) => {
          const [a, b] = [robustZ(values), robustZ(values.map((v) => v * unit + zero))];
          if (!a || a.sigma < 1e-6 || !b) return;
          a.z.forEach((z, i) => expect(Math.abs(b.z[i]! - z)).toBeLessThan(1e-4 * Math.max(1, Math.abs(z))));
        },
      ),
    );
  });
});

describe("what stands out", () => {
  const night = (bad: Partial<SubMeasure>) => [...Array.from({ length: 14 }, (_, i) => sub(`s${i}`, { measure: measure({ fwhmPx: 2.6 + 0.02 * (i % 7), eccentricity: 0.38 + 0.01 * (i % 5), background: 780 + 5 * (i % 9), stars: 290 + i }) })), sub("bad", { measure: measure(bad) })]; // prettier-ignore
  it("is told with its reason: width, shape, sky, and too few stars before all", () => {
    expect(cullHints(night({ fwhmPx: 4.6 }))).toMatchObject([{ id: "bad", what: "fwhmPx", reason: "seeing" }]);
    expect(cullHints(night({ eccentricity: 0.7 }))).toMatchObject([
      { id: "bad", what: "eccentricity", reason: "guiding" },
    ]);
    expect(cullHints(night({ background: 2000 }))).toMatchObject([{ id: "bad", what: "background", reason: "light" }]);
    expect(cullHints(night({ stars: 200, fwhmPx: 4.6 }))).toMatchObject([
      { id: "bad", what: "stars", reason: "cloud" },
    ]);
    expect(cullHints(night({ stars: 210 }))).toEqual([]); // 70.7 % of the middle
    expect(cullHints(night({}))).toEqual([]);
  });
  it("calls faint stars cloud, also where the noise of that draws them out (reported: one of twenty at 60 % was guiding)", () => {
    const light = (share: number) => night({ eccentricity: 0.6, light: 1000 * share }).map((s) => (s.data.measure?.light === undefined ? sub(s.id, { measure: { ...s.data.measure!, light: 1000 } }) : s)); // prettier-ignore
    expect(cullHints(light(0.6))).toMatchObject([{ id: "bad", what: "light", reason: "cloud", by: 0.6 }]);
    expect(cullHints(light(0.8))).toMatchObject([{ id: "bad", what: "eccentricity" }]); // no more than air takes
  });
  it("calls stars long one way guiding, and long every way focus", () => {
    const of = (shared: number) => cullHints(night({ eccentricity: 0.7, shared }))[0]?.reason;
    expect([of(0.6), of(0.2)]).toEqual(["guiding", "focus"]);
  });
  it("is what its owner's own limit says before all, of however few", () => {
    const limits = { fwhmPx: 4.2, stars: 250 };
    const of = (more: Partial<SubMeasure>) =>
      cullHints([sub("a", { measure: measure(more) })], (rigId) => (rigId === "r" ? limits : undefined));
    expect(of({})).toEqual([]);
    expect(of({ fwhmPx: 4.2 })).toEqual([]); // not over it
    expect(of({ fwhmPx: 4.6 })).toMatchObject([{ what: "fwhmPx", reason: "seeing", against: { kind: "limit", value: 4.2 } }]); // prettier-ignore
    expect(of({ fwhmPx: 4.6, stars: 100 })).toMatchObject([{ what: "stars", reason: "cloud", by: 2.5 }]);
    expect(of({ stars: null })).toEqual([]);
    expect(cullHints([sub("a", { rigId: "x", measure: measure({ fwhmPx: 9 }) })], () => undefined)).toEqual([]);
  });
  it("is nothing among fewer than ten, nor across channels, panels or sub lengths", () => {
    expect(cullHints(night({ fwhmPx: 4.6 }).slice(-9))).toEqual([]);
    const other = sub("other", { channel: "L", measure: measure({ fwhmPx: 9 }) });
    expect(cullHints([...night({}), other])).toEqual([]);
  });
});

describe("the price of dropping", () => {
  it("is the root of what is kept: 10 % cost 0.9487, 25 % cost 0.8660 (MATHS C10.4)", () => {
    const twenty = Array.from({ length: 20 }, (_, i) => sub(`s${i}`));
    expect(cullPrice(twenty, new Set(["s0", "s1"])).snr).toBeCloseTo(0.9487, 4);
    const five = cullPrice(twenty, new Set(["s0", "s1", "s2", "s3", "s4"]));
    expect(five.snr).toBeCloseTo(0.866, 4);
    expect(five).toMatchObject({ subs: 5, snrOfStars: null });
    expect(five.hours).toBeCloseTo(5 / 12, 9);
  });
  it("is less for a wide sub: 3.5 against 2.8 under the same sky weighs 0.640 (MATHS C10.9)", () => {
    expect(pointWeight(measure({ fwhmPx: 3.5 }))! / pointWeight(measure({ fwhmPx: 2.8 }))!).toBeCloseTo(0.64, 9);
    expect(pointWeight(measure({ background: null }))).toBeNull();
  });
});

describe("times and history", () => {
  it("marks every sub that was open between two times, those that began before too", () => {
    const at = (h: number, m: number) => Date.UTC(2026, 11, 5, h, m);
    const subs = [sub("a", { startMs: at(23, 4) }), sub("b", { startMs: at(23, 6) }), sub("c", { startMs: at(23, 58) }), sub("d", { startMs: at(24, 20) }), sub("e")]; // prettier-ignore
    expect(subsBetween(subs, at(23, 10), at(24, 20))).toEqual(["b", "c"]);
  });
  it("keeps 15, then 11, then 7 (common practice, no source)", () => {
    let entries = Array.from({ length: 15 }, () => sub("x").data);
    entries = entries.map((e, i) => (i < 4 ? withKept(e, 0, "cloud", 1000) : withKept(e, 1, "", 1000)));
    entries = entries.map((e, i) => (i >= 4 && i < 8 ? withKept(e, 0, "seeing", 2000) : e));
    expect(keptHistory(entries)).toEqual([{ untilMs: 1000, kept: 15 }, { untilMs: 2000, kept: 11 }, { untilMs: null, kept: 7 }]); // prettier-ignore
    expect(entries[9]!.history).toBeUndefined();
    expect(withKept(entries[0]!, 1, "", 3000)).toMatchObject({ kept: 1, reason: "", history: [{ kept: 1 }, { kept: 0, reason: "cloud" }] }); // prettier-ignore
  });
  it("ends with what is kept now, and tells no state twice in a row (law)", () => {
    const steps = fc.array(fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }), { maxLength: 8 });
    fc.assert(
      fc.property(steps, (looks) => {
        let entries = Array.from({ length: 6 }, () => sub("x").data);
        const truth = [6];
        looks.forEach((keeps, t) => {
          entries = entries.map((e, i) => withKept(e, keeps[i] ? 1 : 0, "cloud", 1000 * (t + 1)));
          const kept = keeps.filter((k) => k).length;
          if (kept !== truth.at(-1)) truth.push(kept);
        });
        expect(keptHistory(entries).map((s) => s.kept)).toEqual(truth);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 5000 : 100 },
    );
  });
});
