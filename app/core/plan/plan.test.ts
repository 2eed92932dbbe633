import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { USUAL_MOON, placeNight } from "~/core/night";
import { nightDate } from "~/core/time";
import { nightOffer, remainingWork } from ".";
import { dealPanels } from "./panels";

const panelsLeft = (...subs: readonly number[]) => subs.map((n, i) => ({ panel: `P${i + 1}`, done: 0, subs: n }));

describe("panels", () => {
  it("are levelled when all are shot every night and finished one after another otherwise (MATHS C7.6: 5 / 5 / 5 / 5 and 8 / 8 / 4 / 0)", () => {
    const dealt = (school: "allPanelsEveryNight" | "panelAfterPanel") => {
      const left = [8, 8, 8, 8];
      for (let night = 0; night < 5; night++)
        for (const { panel, subs } of dealPanels(
          panelsLeft(...left).map((p) => ({ ...p, done: 1 - p.subs / 8 })),
          4,
          60,
          school,
        ))
          left[Number(panel.slice(1)) - 1]! -= subs;
      return left.map((l) => 8 - l);
    };
    expect(dealt("allPanelsEveryNight")).toEqual([5, 5, 5, 5]);
    expect(dealt("panelAfterPanel")).toEqual([8, 8, 4, 0]);
  });
  it("go by what sinks first where that is the school", () => {
    const setsMs = (panel: string) => ({ P1: 300, P2: 100, P3: 200 })[panel] ?? 0;
    expect(dealPanels(panelsLeft(12, 12, 12), 20, 5, "sinkingFirst", setsMs)).toEqual([
      { panel: "P2", subs: 12 },
      { panel: "P3", subs: 8 },
    ]);
  });
  it("never get more than is left, nor more than there is room for; what is over goes round (law)", () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(30), { minLength: 1, maxLength: 8 }),
        fc.nat(80),
        fc.constantFrom("allPanelsEveryNight" as const, "panelAfterPanel" as const, "sinkingFirst" as const),
        (wanted, room, school) => {
          const dealt = dealPanels(panelsLeft(...wanted), room, 10, school);
          const all = dealt.reduce((s, d) => s + d.subs, 0);
          for (const { panel, subs } of dealt) expect(subs).toBeLessThanOrEqual(wanted[Number(panel.slice(1)) - 1]!);
          expect(all).toBeLessThanOrEqual(room);
          // Nothing is left over while a panel that takes part wants more.
          if (all < room) for (const { panel, subs } of dealt) expect(subs).toBe(wanted[Number(panel.slice(1)) - 1]!);
        },
      ),
    );
    // Half an hour is enough for three panels of ten minutes, not for four.
    const four = [400, 401, 402, 403].map((n, i) => ({ panel: `P${i + 1}`, done: 1 - n / 480, subs: n }));
    expect(dealPanels(four, 6, 5, "allPanelsEveryNight").map((s) => s.panel)).toEqual(["P4", "P3", "P2"]);
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
