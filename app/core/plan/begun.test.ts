import { describe, expect, it } from "vitest";
import { USUAL_MOON, placeNight } from "~/core/night";
import { nightDate, utcMs } from "~/core/time";
import { testPlace } from "../test-data";
import { beginningOf, lessTaken, replannedFrom, takenUntil } from "./begun";
import { testQuestion } from "./plan.test-data";
import { plannedSeason } from "~/core/season";

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

  it("went as its sheet says until the first clouds, unless the log says something", () => {
    expect(takenUntil(100, [look(120, true)])).toBeNull();
    expect(takenUntil(100, [look(90, false), look(180, false), look(140, false)])).toBe(140);
    expect(takenUntil(100, [look(140, false), look(150, null)])).toBeNull();
  });
  it("takes off its needs what it had until then, panel by panel alike, and never more than there is", () => {
    const block = { projectId: "p", channel: "Ha" as const, subSec: 300, startMs: utcMs(0), endMs: utcMs(100), countsMin: 200, exposureMin: 200 }; // prettier-ignore
    const need = (panel: string, remainingMin: number, channel: "Ha" | "OIII" = "Ha") => ({ panel, channel, goalMin: 400, remainingMin, subSec: 300 }); // prettier-ignore
    const left = (untilMs: number, id = "p") =>
      lessTaken([need("P1", 300), need("P2", 100), need("P1", 50, "OIII")], id, [{ placeId: "x", rigIds: ["r"], blocks: [block] }], utcMs(untilMs)).map((n) => n.remainingMin); // prettier-ignore
    expect(left(0)).toEqual([300, 100, 50]);
    expect(left(50)).toEqual([225, 75, 50]);
    expect(left(400)).toEqual([150, 50, 50]);
    expect(left(400, "q")).toEqual([300, 100, 50]);
    const full = lessTaken([need("P1", 20)], "p", [{ placeId: "x", rigIds: ["r"], blocks: [block] }], utcMs(400));
    expect(full[0]!.remainingMin).toBe(0);
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
