import { describe, expect, it } from "vitest";
import {
  guidingTotal,
  guidingVerdict,
  measureOf,
  polarDriftArcsec,
  polarTotal,
  troublesAbout,
  type NightFacts,
} from "./night-facts";

const facts = (more: Partial<NightFacts>): NightFacts => ({ night: "2026-01-02", placeId: "p", memberId: "m", trouble: "", cure: "", note: "", ...more }); // prettier-ignore

describe("guiding", () => {
  it("against the pixel scale: the published figures (MATHS C10.1, C10.2)", () => {
    const v = guidingVerdict(facts({ guideRaArcsec: 0.6, guideDecArcsec: 0.5 }), 1.6157)!;
    expect([v.totalArcsec.toFixed(3), v.ofPixel.toFixed(3), v.grade]).toEqual(["0.781", "0.483", "good"]);
    const long = guidingVerdict(facts({ guideRaArcsec: 0.9, guideDecArcsec: 0.5, seeingArcsec: 2.5 }), 1)!;
    expect(long.eccentricity).toBeCloseTo(0.5377, 3);
    expect(long.ratio).toBeCloseTo(1.8, 9);
    expect(long.grade).toBe("poor");
  });
  it("is not judged from one axis, nor without a scale", () => {
    expect(guidingTotal(facts({ guideRaArcsec: 0.6 }))).toBeNull();
    expect(guidingVerdict(facts({ guideRaArcsec: 0.6, guideDecArcsec: 0.5 }), 0)).toBeNull();
    expect(guidingVerdict(facts({ guideRaArcsec: 0.6, guideDecArcsec: 0.5 }), 2)!.eccentricity).toBeNull();
  });
});

describe("the polar axis", () => {
  it("is off by both parts together, azimuth by the cosine of the latitude; at the equator by all of it", () => {
    expect(polarTotal(facts({ polarAzimuthArcmin: 3, polarAltitudeArcmin: 4 }), 0)).toBeCloseTo(5, 9);
    expect(polarTotal(facts({ polarAzimuthArcmin: 8, polarAltitudeArcmin: 0 }), 60)).toBeCloseTo(4, 9);
    expect(polarTotal(facts({ polarAzimuthArcmin: 8 }), 60)).toBeNull();
  });
  it("drifts as published: 1.31″ a minute is 4.99′ (MATHS C10.3)", () => {
    expect(polarDriftArcsec(4.99, 60)).toBeCloseTo(1.31, 2);
  });
});

it("a night's measures are told as they are, or not at all", () => {
  const f = facts({ seeingArcsec: 2.4, guideRaArcsec: 0.3, guideDecArcsec: 0.4 });
  expect([measureOf(f, "seeingArcsec", 45), measureOf(f, "guiding", 45), measureOf(f, "airC", 45)]).toEqual([
    2.4,
    0.5,
    null,
  ]);
});

it("how a trouble was cured is found by any words of it, latest first", () => {
  const nights = [
    facts({ night: "2025-12-01", trouble: "Tilt in the lower left", cure: "a shim of 0.1 mm at the rotator" }),
    facts({ night: "2026-01-10", trouble: "tilt again", cure: "screws of the focuser" }),
    facts({ night: "2026-01-11", note: "fine" }),
  ];
  expect(troublesAbout(nights, "tilt").map((f) => f.night)).toEqual(["2026-01-10", "2025-12-01"]);
  expect(troublesAbout(nights, "TILT shim").map((f) => f.night)).toEqual(["2025-12-01"]);
  expect(troublesAbout(nights, "dew")).toEqual([]);
  expect(troublesAbout(nights, "")).toHaveLength(3);
});
