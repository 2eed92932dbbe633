import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { testFilter, testRig } from "~/core/test-data";
import { hoursForGoal, limitingSurfaceMag, measuresOf, sharedHours, sharesFor, type Filter, type SubQuestion } from ".";

const question = (filter: Filter = testFilter): SubQuestion => ({ rig: testRig, filter, skyMagPerArcsec2: 20.5, seeingArcsec: 3, protectedMag: null }); // prettier-ignore
const hours = fc.double({ min: 0.05, max: 300, noNaN: true });
const sub = fc.double({ min: 5, max: 1200, noNaN: true });
const mag = fc.double({ min: 17, max: 30, noNaN: true });

describe("one goal in four measures", () => {
  it("comes back from each of them to the same hours (law)", () => {
    fc.assert(
      fc.property(hours, sub, mag, (h, s, objectMag) => {
        const m = measuresOf(question(), h, s, objectMag);
        expect(hoursForGoal(question(), s, { measure: "depth", depthMag: m.depthMag })).toBeCloseTo(h, 6);
        expect(hoursForGoal(question(), s, { measure: "snr", snr: m.snr, objectMag }) / h).toBeCloseTo(1, 9);
        expect(hoursForGoal(question(), s, { measure: "subs", subs: (h * 3600) / s })).toBeCloseTo(h, 9);
        expect(m.subs).toBe(Math.floor((h * 3600) / s + 1e-9));
      }),
    );
  });
  it("grows as the root: four times the hours are twice the signal to noise and 0.75 mag (2.5 log10 of 2)", () => {
    const [one, four] = [measuresOf(question(), 2, 300, 25), measuresOf(question(), 8, 300, 25)];
    expect(four.snr / one.snr).toBeCloseTo(2, 9);
    expect(four.depthMag - one.depthMag).toBeCloseTo(2.5 * Math.log10(2), 9);
  });
  it("told for a direction where a minute is worth half, needs twice the hours for the same (law)", () => {
    fc.assert(
      fc.property(hours, sub, mag, fc.double({ min: 0.05, max: 1, noNaN: true }), (h, s, objectMag, worthRate) => {
        const low = { ...question(), worthRate };
        const [there, zenith] = [measuresOf(low, h / worthRate, s, objectMag), measuresOf(question(), h, s, objectMag)];
        expect(there.snr / zenith.snr).toBeCloseTo(1, 9);
        expect(there.depthMag).toBeCloseTo(zenith.depthMag, 9);
        expect(hoursForGoal(low, s, { measure: "depth", depthMag: there.depthMag }) * worthRate).toBeCloseTo(h, 6);
        expect((hoursForGoal(low, s, { measure: "snr", snr: there.snr, objectMag }) * worthRate) / h).toBeCloseTo(1, 9);
      }),
    );
  });
  it("is at its limit where a faint object has signal to noise of 3: depth and signal to noise are one model", () => {
    for (const h of [1, 10, 100]) {
      const depth = limitingSurfaceMag(question(), h, 300);
      const { snr } = measuresOf(question(), h, 300, depth);
      expect(snr).toBeLessThan(3); // the object's own noise counts here, which the limit leaves out
      expect(snr).toBeGreaterThan(2.8);
    }
  });
});

describe("hours shared out", () => {
  const line = (channel: Filter["channel"], centreNm: number): Filter => ({ ...testFilter, channel, centreNm });
  const rows = [line("Ha", 656.3), line("OIII", 500.7), line("SII", 672.4)].map((filter) => ({
    channel: filter.channel,
    question: question(filter),
    subSec: 300,
  }));
  it("keep their sum whatever the share (law), and offers go by the channels there are", () => {
    fc.assert(
      fc.property(hours, fc.constantFrom("equal", "narrow344", "equalSnr"), mag, (sum, share, objectMag) => {
        const shared = sharedHours(share, sum, rows, objectMag);
        expect(shared.reduce((a, b) => a + b, 0)).toBeCloseTo(sum, 6);
        expect(Math.min(...shared)).toBeGreaterThan(0);
      }),
    );
    expect(sharesFor(["Ha", "OIII", "SII"])).toEqual(["equal", "narrow344", "equalSnr"]);
    expect(sharesFor(["L", "R", "G", "B"])).toEqual(["equal", "broad3111", "equalSnr"]);
    expect(sharesFor(["Colour"])).toEqual([]);
  });
  it("are 3 : 4 : 4 when asked so, and of equal signal to noise when that is asked", () => {
    expect(sharedHours("narrow344", 11, rows, 25).map((h) => Math.round(h * 1e6) / 1e6)).toEqual([3, 4, 4]);
    const snrs = sharedHours("equalSnr", 20, rows, 25).map((h, i) => measuresOf(rows[i]!.question, h, 300, 25).snr);
    expect(snrs[1]! / snrs[0]!).toBeCloseTo(1, 6);
    expect(snrs[2]! / snrs[0]!).toBeCloseTo(1, 6);
  });
});
