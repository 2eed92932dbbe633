import { describe, expect, it } from "vitest";
import { placeNight, targetNight, USUAL_MOON } from "~/core/night";
import { addNights, MINUTE_MS, nightDate } from "~/core/time";
import { testPlace } from "../test-data";
import { testQuestion, type TestProject } from "~/core/plan/plan.test-data";
import type { Need } from "~/core/plan";
import { plannedSeason } from "./plan";
import type { SeasonPlan } from "./season-plan";
import type { NightStock, SeasonQuestion } from "./question";
import type { SeasonProject } from "./request";
import { changedBy } from "./what-if";

const from = nightDate("2026-11-02");
const stock: NightStock = new Map();
const need = (channel: Need["channel"], remainingMin: number): Need => ({ panel: "P1", channel, goalMin: 900, remainingMin, subSec: 300 }); // prettier-ignore
const at = { frame: "icrs", raDeg: 70, decDeg: 46 } as const;
const picture = (...needs: Need[]): TestProject => ({ id: "p", target: at, needs });
const ask = (project: TestProject, rules: Partial<SeasonProject>, nights = 8, more: Partial<SeasonQuestion> = {}) => {
  const bare = testQuestion([project], { places: { home: testPlace }, from, nights }, more);
  return { ...bare, projects: bare.projects.map((p) => ({ ...p, ...rules })) };
};
const planOf = (question: SeasonQuestion): SeasonPlan => plannedSeason(question, { stock }).plan;
const blocksOf = (plan: SeasonPlan) => plan.evenings.flatMap((e) => e.blocks.map((b) => ({ ...b, night: e.night })));

describe("the rules of a project", () => {
  it("a shortest stretch is kept, longer or shorter than the person's own", () => {
    for (const leastMin of [30, 150]) {
      const blocks = blocksOf(planOf(ask(picture(need("L", 300), need("OIII", 300)), { leastMin })));
      expect(blocks.length).toBeGreaterThan(0);
      // Slots count from and to the usable minute: up to a slot less at either end.
      for (const b of blocks) expect((b.endMs - b.startMs) / MINUTE_MS).toBeGreaterThan(leastMin - 2 * 15);
    }
  });

  it("what comes first is done before anything else is begun, and the rest follows", () => {
    const project = picture(need("Ha", 500), need("L", 300));
    const plan = planOf(ask(project, { first: "Ha" }, 20, { wasClear: null }));
    const blocks = blocksOf(plan);
    const firstL = blocks.find((b) => b.channel === "L")!.night;
    // Up to the night on which L begins, the nights there were could bring all of Ha in expectation: by the walks themselves.
    let could = 0;
    for (const e of plan.evenings.filter((x) => x.night <= firstL)) {
      const { worthMin } = targetNight(placeNight(testPlace, e.night, USUAL_MOON), at, "Ha");
      could += (e.chance * worthMin) / 0.8; // no minute counts more than at the best; 0.8 = least there is for it
    }
    expect(could).toBeGreaterThan(500 * 0.8);
    expect(blocks.filter((b) => b.night < firstL).every((b) => b.channel === "Ha")).toBe(true);
    // The other way round it is the other one that waits.
    const turned = blocksOf(planOf(ask(project, { first: "L" }, 20)));
    expect(turned[0]!.channel).toBe("L");
    expect(turned.find((b) => b.channel === "Ha")!.night > blocks[0]!.night).toBe(true);
    // What can never be done first leaves the rest waiting.
    expect(blocksOf(planOf(ask(picture(need("Ha", 90_000), need("L", 300)), { first: "Ha" }))).some((b) => b.channel === "L")).toBe(false); // prettier-ignore
  });

  it("channels in turn are one stretch, until the first of them is done; the rest is planned by itself", () => {
    const cycle = [
      { channel: "L" as const, subs: 3 },
      { channel: "R" as const, subs: 1 },
    ];
    const project = picture(need("L", 300), need("R", 100), need("Ha", 60));
    const plan = planOf(ask(project, { cycle }, 10));
    const turns = plan.jobs.filter((j) => j.turn);
    expect(turns).toHaveLength(1);
    expect(turns[0]!.turn).toEqual([
      { channel: "L", subs: 3, subSec: 300 },
      { channel: "R", subs: 1, subSec: 300 },
    ]);
    expect(turns[0]!.needMin).toBeCloseTo(400, 6); // 300 of L and 100 of R, three to one: nothing is left of either
    expect(plan.jobs.map((j) => j.channel).sort()).toEqual(["Ha", "L"]);
    const rest = planOf(ask(picture(need("L", 300), need("R", 60)), { cycle }, 4));
    expect(rest.jobs.map((j) => [j.channel, Math.round(j.needMin)])).toEqual([["L", 240], ["L", 120]]); // prettier-ignore
    // One of them alone is no cycle.
    expect(planOf(ask(picture(need("L", 300), need("R", 0)), { cycle }, 4)).jobs[0]!.turn).toBeUndefined();
  });

  it("clear nights in a row: the night waits where the forecast ends the run, and is taken where it goes on", () => {
    const hours = (night: number, odds: number) => {
      const { steps } = placeNight(testPlace, addNights(from, night), USUAL_MOON);
      const first = Math.floor(steps.startMs / 3_600_000) * 3_600_000;
      return Array.from({ length: 16 }, (_, i) => ({ atMs: (first + i * 3_600_000) as typeof steps.startMs, odds }));
    };
    const of = (tomorrow: number) => {
      const bare = ask(picture(need("L", 300)), { clearRun: 2 }, 6, { wasClear: false });
      const places = bare.places.map((p) => ({ ...p, chances: [0.8, tomorrow, 0.4, 0.4, 0.4, 0.4], hours: { [from]: hours(0, 0.8), [addNights(from, 1)]: hours(1, tomorrow) } })); // prettier-ignore
      return planOf({ ...bare, places }).evenings[0]!.blocks.length;
    };
    expect(of(0.05)).toBe(0);
    expect(of(0.8)).toBeGreaterThan(0);
    // Far nights count as often as they will be one of a run: less than without the wish, more than nothing.
    const value = (clearRun?: number) => planOf(ask(picture(need("L", 3000)), clearRun ? { clearRun } : {}, 8)).value;
    expect(value(3)).toBeLessThan(value(2));
    expect(value(2)).toBeLessThan(value());
    expect(value(3)).toBeGreaterThan(0);
  });

  it("a channel bound to a place is shot there only, and the plan goes there for it", () => {
    const dark = { ...testPlace, name: "dark", skyMagPerArcsec2: 21.8, travelMin: 40 };
    const bare = testQuestion([picture(need("OIII", 300), need("L", 120))], { places: { home: testPlace, dark }, from, nights: 8 }); // prettier-ignore
    const plan = planOf({
      ...bare,
      projects: bare.projects.map((p) => ({ ...p, wants: p.wants.map((w) => (w.channel === "OIII" ? { ...w, onlyAt: "dark" } : w)) })), // prettier-ignore
    });
    const placesOf = (channel: string) =>
      new Set(plan.evenings.filter((e) => e.blocks.some((b) => b.channel === channel)).map((e) => e.placeId));
    expect([...placesOf("OIII")]).toEqual(["dark"]);
  });

  it("a stretch kept by hand is one of its channel; one ruled out is not there", () => {
    const project = picture(need("OIII", 400), need("L", 200));
    const lock = (does: "fix" | "forbid", channel: "L" | "OIII") => ({ id: does, memberId: "m", night: from, does, projectId: "p", channel }); // prettier-ignore
    const on = (locks: readonly ReturnType<typeof lock>[]) => planOf(ask(project, {}, 8, { locks })).evenings[0]!;
    const kept = on([lock("fix", "L")]);
    expect(kept.blocks.map((b) => b.channel)).toContain("L");
    expect(kept.isFixed).toBe(true);
    expect(on([lock("forbid", "OIII")]).blocks.map((b) => b.channel)).not.toContain("OIII");
  });

  it("a second rig like the first brings more, and no more than twice as much", () => {
    const bare = ask(picture(need("L", 5000)), {}, 6);
    const [one, two] = [planOf(bare), planOf(changedBy(bare, { kind: "secondRig" }))];
    expect(two.value).toBeGreaterThan(1.5 * one.value);
    expect(two.value).toBeLessThanOrEqual(2 * one.bound + 1e-6);
  });
});
