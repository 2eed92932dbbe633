import { describe, expect, it } from "vitest";
import { USUAL_MOON, placeNight } from "~/core/night";
import { nightDate } from "~/core/time";
import { nightOffer, remainingWork, type Need } from ".";
import { dealPanels } from "./panels";

const need = (panel: string, remainingMin: number): Need => ({ panel, channel: "L", goalMin: 480, remainingMin, subSec: 300 }); // prettier-ignore

describe("panels", () => {
  it("are levelled when all are shot every night and finished one after another otherwise (MATHS C7.6: 5 / 5 / 5 / 5 and 8 / 8 / 4 / 0)", () => {
    const dealt = (school: "allPanelsEveryNight" | "panelAfterPanel") => {
      const needs = ["P1", "P2", "P3", "P4"].map((p) => need(p, 480));
      const left = new Map(needs.map((n) => [n, n.remainingMin]));
      for (let night = 0; night < 5; night++)
        for (const { panel, exposureMin } of dealPanels(needs, left, 240, 1, school)) {
          const mine = needs.find((n) => n.panel === panel)!;
          left.set(mine, left.get(mine)! - exposureMin);
        }
      return needs.map((n) => (n.remainingMin - left.get(n)!) / 60);
    };
    dealt("allPanelsEveryNight").forEach((hours) => expect(hours).toBeCloseTo(5, 6));
    dealt("panelAfterPanel").forEach((hours, i) => expect(hours).toBeCloseTo([8, 8, 4, 0][i]!, 6));
  });
  it("go by what sinks first where that is the school", () => {
    const needs = ["P1", "P2", "P3"].map((p) => need(p, 60));
    const setsMs = (panel: string) => ({ P1: 300, P2: 100, P3: 200 })[panel] ?? 0;
    expect(dealPanels(needs, new Map(), 100, 1, "sinkingFirst", setsMs)).toEqual([
      { panel: "P2", exposureMin: 60 },
      { panel: "P3", exposureMin: 40 },
    ]);
  });
  it("never get more than is left, counted by what a minute is worth, nor more than there is", () => {
    expect(dealPanels([need("P1", 30), need("P2", 480)], new Map(), 200, 0.5, "panelAfterPanel")).toEqual([
      { panel: "P1", exposureMin: 60 },
      { panel: "P2", exposureMin: 140 },
    ]);
    expect(dealPanels([need("P1", 0)], new Map(), 200, 1, "allPanelsEveryNight")).toEqual([]);
    // Half an hour is enough for three panels of ten minutes, not for four.
    const four = ["P1", "P2", "P3", "P4"].map((p, i) => need(p, 400 + i));
    expect(dealPanels(four, new Map(), 30, 1, "allPanelsEveryNight").map((s) => s.panel)).toEqual(["P4", "P3", "P2"]);
  });
});

it("offers a target the nights its place has, and wants what does not yet count", () => {
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
  const target = { frame: "icrs", raDeg: 95, decDeg: 22 } as const;
  const [full, dark] = ["2026-12-24", "2026-12-09"].map((d) =>
    nightOffer(placeNight(place, nightDate(d), { ...USUAL_MOON, school: "keepAway" }), target, ["L", "Ha"]),
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
