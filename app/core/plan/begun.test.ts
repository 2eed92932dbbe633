import { describe, expect, it } from "vitest";
import { USUAL_MOON, placeNight } from "~/core/night";
import { nightDate, utcMs } from "~/core/time";
import { testPlace } from "../test-data";
import { beginningOf, replannedFrom } from "./begun";
import { testQuestion } from "./plan.test-data";
import { plannedSeason } from "./season";

const look = (atMs: number, isClear: boolean | null) => ({ atMs, isClear });

describe("a night that has begun", () => {
  it("is planned anew from a cloudy look on, from the clear one after it, and from what is written down; a clear look by itself changes nothing", () => {
    expect(replannedFrom(100, [])).toBeNull();
    expect(replannedFrom(100, [look(50, false), look(120, true)])).toBeNull(); // what was seen before it began is in its plan
    expect(replannedFrom(100, [look(120, true), look(130, true)])).toBeNull();
    expect(replannedFrom(100, [look(140, false)])).toBe(140);
    expect(replannedFrom(100, [look(180, true), look(140, false)])).toBe(180);
    expect(replannedFrom(100, [look(150, null)])).toBe(150);
  });

  const from = nightDate("2026-11-02");
  const needs = (["Ha", "OIII"] as const).map((channel) => ({ panel: "P1", channel, goalMin: 900, remainingMin: 500, subSec: 300 })); // prettier-ignore
  const ask = (more = {}) =>
    testQuestion([{ id: "p", target: { frame: "icrs", raDeg: 330, decDeg: 45 }, needs, counts: "kept" }], { places: { home: testPlace }, from, nights: 6 }, { runs: 20, ...more }); // prettier-ignore

  it("stays as it was planned, whatever the question has become, until it is planned anew; then it is not a new evening", () => {
    const { plan } = plannedSeason(ask());
    const kept = beginningOf(plan, from, "m", Date.UTC(2026, 10, 2, 18))!;
    const tonight = (p: typeof plan) => p.evenings.find((e) => e.night === from)!.blocks;
    expect(tonight(plan).length).toBeGreaterThan(0);
    // Another priority, fewer nights, a worse chance: what is on goes on.
    const changed = ask({ begun: { fromMs: null, evenings: kept.evenings } });
    const { plan: later } = plannedSeason({
      ...changed,
      places: changed.places.map((p) => ({ ...p, chances: p.chances.map((c) => c / 3) })),
    });
    expect(tonight(later)).toEqual(tonight(plan));
    // Ten minutes before the end of the dark there is no evening of three quarters of an hour, but there are subs to take.
    const { steps } = placeNight(testPlace, from, USUAL_MOON);
    const lastMs = Math.max(...tonight(plan).map((b) => b.endMs));
    expect(lastMs).toBeLessThan(steps.startMs + steps.count * steps.stepMin * 60_000);
    const fromMs = utcMs(lastMs - 30 * 60_000);
    const { plan: anew } = plannedSeason(ask({ fromMs, begun: { fromMs, evenings: kept.evenings } }));
    const { plan: asNew } = plannedSeason(ask({ fromMs, rules: { targetsANight: 2, minBlockMin: 240, busyWeekdays: [], isOneRig: false } })); // prettier-ignore
    expect(tonight(anew).length).toBeGreaterThan(0);
    for (const b of tonight(anew)) expect(b.startMs).toBeGreaterThanOrEqual(fromMs);
    expect(tonight(asNew)).toEqual([]);
  });
  it("is none where nothing is planned", () => {
    const { plan } = plannedSeason(ask());
    expect(beginningOf(plan, nightDate("2027-06-01"), "m", 0)).toBeNull();
  });
});
