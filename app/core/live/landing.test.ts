import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ContributionData } from "~/core/ledger";
import { offsetBy, type Equatorial } from "~/core/sky";
import { HOUR_MS, MINUTE_MS } from "~/core/time";
import { latestLanding, pointingDrift } from "./landing";

const north: Equatorial<"icrs"> = { frame: "icrs", raDeg: 312.75, decDeg: 44.3 };
const measure = { fwhmPx: 3, eccentricity: 0.4, stars: 500, background: 900, from: "picture" } as const;
const entry: ContributionData = {
  projectId: "p", panel: "P1", channel: "Ha", night: "2026-12-05", memberId: "me", rigId: "r", placeId: "g",
  exposureSec: 300, taken: 1, kept: 1, reason: "", worthRate: null, startMs: 0, fileName: "", note: "", measure,
}; // prettier-ignore
const sub = (i: number, more: Partial<ContributionData> = {}) => ({
  id: `s${i}`,
  data: { ...entry, startMs: i * 5 * MINUTE_MS, ...more },
});
const noLimits = () => undefined;

describe("the drift of the pointing", () => {
  it("is what the mount does, whatever dithers and one wrong solution say (law; offsets laid out on the sphere)", () => {
    fc.assert(
      fc.property(
        fc.record({
          rate: fc.double({ min: 0, max: 300, noNaN: true }),
          towards: fc.double({ min: 0, max: 359.99, noNaN: true }),
          dec: fc.double({ min: -80, max: 80, noNaN: true }),
          ra: fc.double({ min: 0, max: 359.99, noNaN: true }),
        }),
        fc.array(
          fc.record({ pa: fc.double({ min: 0, max: 360, noNaN: true }), arcsec: fc.double({ min: 0, max: 5, noNaN: true }) }), // prettier-ignore
          { minLength: 30, maxLength: 40 },
        ),
        ({ rate, towards, dec, ra }, dithers) => {
          const from: Equatorial<"icrs"> = { frame: "icrs", raDeg: ra, decDeg: dec };
          const solved = dithers.map((d, i) => {
            const hours = i / 12;
            const gone = offsetBy(from, { positionAngleDeg: towards, distanceDeg: (rate * hours) / 3600 });
            const at = offsetBy(gone, { positionAngleDeg: d.pa, distanceDeg: d.arcsec / 3600 });
            return { startMs: hours * HOUR_MS, at: i === 7 ? offsetBy(at, { positionAngleDeg: 10, distanceDeg: 3 }) : at }; // prettier-ignore
          });
          const drift = pointingDrift(solved)!;
          // Dithers within 5" are 2.0" in each direction (their spread); of 30 and more over 2.4 h a slope has 0.5"/h: six times that.
          expect(Math.abs(drift.arcsecPerHour - rate)).toBeLessThan(3);
          if (rate > 60) {
            const turned = Math.abs(((drift.towardsDeg - towards + 540) % 360) - 180);
            expect(turned).toBeLessThan(8);
          }
        },
      ),
    );
  });

  it("is not told by few subs, nor in a few minutes", () => {
    const at = (minutes: number) => ({ startMs: minutes * MINUTE_MS, at: north });
    expect(pointingDrift([0, 10, 20, 30, 40].map(at))).toBeNull();
    expect(pointingDrift([0, 1, 2, 3, 4, 5].map(at))).toBeNull();
    expect(pointingDrift([0, 10, 20, 30, 40, 50].map(at))!.arcsecPerHour).toBe(0);
  });
});

describe("the sub that landed last", () => {
  it("is held against its like: not against another channel, nor another length", () => {
    const others = [1, 2, 3].map((i) => sub(i, { channel: "OIII", measure: { ...measure, fwhmPx: 9 } }));
    const mine = [4, 5, 6].map((i) => sub(i, { measure: { ...measure, fwhmPx: i / 2 } }));
    const landing = latestLanding([...others, ...mine], noLimits, () => null)!;
    expect(landing).toMatchObject({ count: 3, usual: { fwhmPx: 2.5, stars: 500 }, hint: null, offArcmin: null });
    expect(landing.sub.id).toBe("s6");
    expect(latestLanding(mine.slice(0, 2), noLimits, () => null)!.usual.fwhmPx).toBeNull();
    expect(latestLanding([], noLimits, () => null)).toBeNull();
  });

  it("stands out where few stars are left, which is cloud", () => {
    const night = Array.from({ length: 12 }, (_, i) => sub(i, { measure: { ...measure, stars: 500 + i } }));
    const last = sub(12, { measure: { ...measure, stars: 200 } });
    expect(latestLanding([...night, last], noLimits, () => null)!.hint).toMatchObject({ what: "stars", reason: "cloud" }); // prettier-ignore
  });

  it("says how far it is off its panel where a solution says so; a mount's own word is no solution", () => {
    const off = offsetBy(north, { positionAngleDeg: 90, distanceDeg: 3 / 60 });
    const solved = sub(1, { at: { raDeg: off.raDeg, decDeg: off.decDeg, positionAngleDeg: 12 } });
    expect(latestLanding([solved], noLimits, () => north)!.offArcmin).toBeCloseTo(3, 6);
    const told = sub(1, { at: { raDeg: off.raDeg, decDeg: off.decDeg, positionAngleDeg: null } });
    expect(latestLanding([told], noLimits, () => north)!.offArcmin).toBeNull();
  });
});
