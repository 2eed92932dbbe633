import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { bestRate, placeNight, targetNight, USUAL_MOON, type Place } from "~/core/night";
import { addNights, MINUTE_MS, nightDate, weekdayOf } from "~/core/time";
import { testPlace } from "../test-data";
import { testQuestion, type TestProject } from "~/core/plan/plan.test-data";
import type { Need } from "~/core/plan";
import { lockConflicts, type Lock } from "./locks";
import { movedNights } from "./moved";
import { eveningsOf, plannedSeason } from "./plan";
import type { SeasonPlan } from "./season-plan";
import { USUAL_PERSON_RULES, type NightStock } from "./question";
import { neededOn, plannedHours, shareOf } from "./share";
import { changedBy } from "./what-if";
import { whyEvening } from "./why";

const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);
const from = nightDate("2026-11-02");
const need = (channel: Need["channel"], remainingMin: number): Need => ({ panel: "P1", channel, goalMin: 900, remainingMin, subSec: 300 }); // prettier-ignore
const target = (raDeg: number, decDeg: number) => ({ frame: "icrs", raDeg, decDeg }) as const;
const early: TestProject = { id: "early", target: target(312, 31), needs: [need("OIII", 300)] };
const late: TestProject = { id: "late", target: target(70, 46), needs: [need("OIII", 500), need("L", 200)] };
const low: TestProject = { id: "low", target: target(10, 2), needs: [need("L", 120)] };
const stock: NightStock = new Map(); // the nights are the same for all of these tests
const ask = (projects: readonly TestProject[], nights = 8, more = {}, place: Place = testPlace) =>
  testQuestion(projects, { places: { home: place }, from, nights }, more);
const plan = (...args: Parameters<typeof ask>): SeasonPlan => plannedSeason(ask(...args), { stock }).plan;
const lock = (id: string, night: number, about: Partial<Lock>): Lock => ({ id, memberId: "m", night: addNights(from, night), does: "fix", ...about }); // prettier-ignore

describe("a plan", () => {
  it("keeps every rule, whatever is asked: usable time only, in order, long enough, few targets, free evenings, deadlines (law, by the walks themselves)", () => {
    const project = fc.record({ raDeg: fc.integer({ min: 0, max: 359 }), decDeg: fc.integer({ min: -25, max: 85 }), rig: fc.constantFrom("a", "b"), deadline: fc.option(fc.integer({ min: 0, max: 3 }), { nil: undefined }), channels: fc.uniqueArray(fc.constantFrom("L" as const, "Ha" as const, "OIII" as const), { minLength: 1, maxLength: 3 }) }); // prettier-ignore
    const rule = fc.record({ targetsANight: fc.integer({ min: 1, max: 3 }), minBlockMin: fc.constantFrom(30, 45, 90), isOneRig: fc.boolean(), busyWeekdays: fc.subarray([0, 1, 2, 3, 4, 5, 6], { maxLength: 4 }), mostHours: fc.option(fc.constantFrom(2, 4), { nil: undefined }) }); // prettier-ignore
    fc.assert(
      fc.property(fc.array(project, { minLength: 1, maxLength: 4 }), rule, (list, { mostHours, ...rules }) => {
        const projects = list.map((p, i): TestProject => ({ id: `p${i}`, rigId: p.rig, target: target(p.raDeg, p.decDeg), needs: p.channels.map((c) => need(c, 240)) })); // prettier-ignore
        const bare = ask(projects, 4, {
          rules: { ...rules, ...(mostHours === undefined ? {} : { mostHours }) },
          runs: 20,
        });
        const question = {
          ...bare,
          projects: bare.projects.map((p, i) => ({ ...p, ...(list[i]!.deadline === undefined ? {} : { deadline: addNights(from, list[i]!.deadline) }) })), // prettier-ignore
        };
        const made = plannedSeason(question, { stock }).plan;
        expect(made.bound).toBeGreaterThanOrEqual(made.value - 1e-9);
        for (const e of made.evenings) {
          if (e.blocks.length === 0) continue;
          expect(rules.busyWeekdays).not.toContain(weekdayOf(e.night));
          const names = e.blocks.map((b) => b.projectId);
          expect(names.filter((n, i) => n !== names[i - 1]).length).toBeLessThanOrEqual(rules.targetsANight);
          const span = e.blocks.at(-1)!.endMs - e.blocks[0]!.startMs;
          if (mostHours !== undefined) expect(span / 3_600_000).toBeLessThanOrEqual(mostHours + 1e-9);
          e.blocks.forEach((b, i) => {
            const p = question.projects.find((x) => x.id === b.projectId)!;
            if (p.deadline !== undefined) expect(e.night <= p.deadline).toBe(true);
            if (i > 0) expect(b.startMs).toBeGreaterThanOrEqual(e.blocks[i - 1]!.endMs);
            // Usable from its first step to its last, by the walk of that night.
            const night = placeNight(testPlace, e.night, USUAL_MOON);
            const { walk } = targetNight(night, p.target, b.channel);
            const { startMs, stepMin } = night.steps;
            const step = (ms: number) => Math.round((ms - startMs) / (stepMin * MINUTE_MS));
            expect(walk.cause[step(b.startMs)]).toBe(0);
            expect(walk.cause[step(b.endMs) - 1]).toBe(0);
            // What it counts is at most its worth by the walk, over the target's best.
            let worth = 0;
            for (let s = step(b.startMs); s < step(b.endMs); s++) worth += walk.worth[s]! * stepMin;
            expect(b.countsMin).toBeLessThanOrEqual(worth / bestRate(testPlace, p.target, b.channel) + 1e-6);
            expect((b.endMs - b.startMs) / MINUTE_MS).toBeGreaterThan(rules.minBlockMin - 2 * 15);
          });
        }
        // One rig at a time: no two evenings of a night at one place overlap.
        if (rules.isOneRig)
          for (const night of new Set(made.evenings.map((e) => e.night)))
            expect(eveningsOf(made, night).length).toBe(1);
      }),
      { numRuns: runs(25, 600) },
    );
  });

  it("is the same whatever order things are stored in, and the same again when asked again (law)", () => {
    const all = [early, late, low];
    const told = (p: SeasonPlan) => p.evenings.map((e) => [e.night, e.blocks.map((b) => [b.projectId, b.channel, b.startMs])]); // prettier-ignore
    const first = plan(all);
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: 3 }), (order) => {
        const turned = order.map((p) => ({ ...p, needs: [...p.needs].reverse() }));
        const again = plan(turned);
        expect(told(again)).toEqual(told(first));
        expect([again.value, again.bound, again.odds]).toEqual([first.value, first.bound, first.odds]);
      }),
      { numRuns: 6 },
    );
  });

  it("shoots what sets early before what is up all night, and both in one evening", () => {
    const inTurn = (p: SeasonPlan) =>
      eveningsOf(p, from).flatMap((e) => e.blocks.map((b) => b.projectId).filter((id, i, all) => id !== all[i - 1]));
    expect(inTurn(plan([early, late]))).toEqual(["early", "late"]);
    expect(inTurn(plan([early, late], 8, { rules: { ...USUAL_PERSON_RULES, targetsANight: 1 } }))).toHaveLength(1);
  });

  it("books no channel past what is left of it on any night, and leaves no usable hour and a half of a planned evening idle beside unfinished work, nor does the plan made anew after a clear night (law, by the walks themselves)", () => {
    const channel = fc.record({ channel: fc.constantFrom("L" as const, "Ha" as const, "OIII" as const), left: fc.integer({ min: 30, max: 900 }) }); // prettier-ignore
    let planned = 0;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: -10, max: 85 }), fc.uniqueArray(channel, { minLength: 1, maxLength: 3, selector: (c) => c.channel }), fc.constantFrom("kept" as const, "light" as const), (raDeg, decDeg, wanted, counts) => {
        const at = target(raDeg, decDeg);
        const of = (left: typeof wanted) => [{ id: "p", target: at, counts, needs: left.map((w) => need(w.channel, w.left)) }];
        const isFull = (made: SeasonPlan, asked: typeof wanted) => {
          for (const e of made.evenings) {
            if (e.blocks.length === 0) continue;
            planned++;
            const night = placeNight(testPlace, e.night, USUAL_MOON);
            const edges = [night.steps.startMs, ...e.blocks.flatMap((b) => [b.startMs, b.endMs]), night.steps.startMs + night.steps.count * night.steps.stepMin * 60_000];
            for (const w of asked) {
              const mine = e.blocks.filter((b) => b.channel === w.channel).reduce((s, b) => s + b.countsMin, 0);
              expect(mine).toBeLessThanOrEqual(w.left + 1e-6);
              if (w.left - mine < 90) continue;
              const { walk, windows } = targetNight(night, at, w.channel);
              const best = bestRate(testPlace, at, w.channel);
              for (let i = 0; i < edges.length; i += 2)
                for (const x of windows) {
                  const [from, to] = [Math.max(edges[i]!, x.startMs), Math.min(edges[i + 1]!, x.endMs)];
                  if (to - from < 90 * 60_000) continue;
                  const step = (ms: number) => Math.floor((ms - night.steps.startMs) / 60_000 / night.steps.stepMin);
                  const light = walk.worth.slice(step(from), step(to)).reduce((s, v) => s + (v / best) * night.steps.stepMin, 0);
                  // By light poor minutes may be worth less than the move.
                  expect(light).toBeLessThan(20);
                }
            }
          }
        };
        const made = plan(of(wanted), 5, { runs: 5 });
        isFull(made, wanted);
        const taken = (c: string) => eveningsOf(made, from).reduce((s, e) => s + e.blocks.reduce((m, b) => m + (b.channel === c ? b.countsMin : 0), 0), 0);
        const left = wanted.map((w) => ({ ...w, left: Math.max(0, w.left - taken(w.channel)) }));
        const next = testQuestion(of(left), { places: { home: testPlace }, from: addNights(from, 1), nights: 4 }, { runs: 1 });
        isFull(plannedSeason(next, { stock, before: made, seen: made }).plan, left);
      }),
      { numRuns: runs(12, 300) },
    );
    expect(planned).toBeGreaterThan(5);
  }); // prettier-ignore

  it("stays as it was seen when forecasts move a little: tonight never, of the next fortnight hardly a night (law)", () => {
    const question = ask([early, late, low], 21, { runs: 1 });
    const seen = plannedSeason(question, { stock }).plan;
    const chance = (p: number, by: number) => Math.min(0.98, Math.max(0.02, p + by));
    const changed: number[] = [];
    fc.assert(
      fc.property(fc.array(fc.double({ min: -0.08, max: 0.08, noNaN: true }), { minLength: 3, maxLength: 3 }), (by) => {
        const moved = { ...question, places: question.places.map((p) => ({ ...p, chances: p.chances.map((c, n) => chance(c, by[n] ?? 0)) })) }; // prettier-ignore
        const next = plannedSeason(moved, { stock, before: seen, seen }).plan;
        const nights = movedNights(seen, next, 14).map((m) => m.night);
        expect(nights).not.toContain(from);
        changed.push(nights.length);
      }),
      { numRuns: runs(8, 150) },
    );
    expect(changed.sort((a, b) => a - b)[changed.length >> 1]!).toBeLessThanOrEqual(1);
    // The very same question has the very same plan, from nothing and from whatever was seen of it.
    expect(plannedSeason(question, { stock }).plan.evenings).toEqual(seen.evenings);
  });

  it("names what cannot be: a target that is never up, a chance of nothing, no hours left, nobody free", () => {
    const never = plan([{ id: "south", target: target(70, -70), needs: [need("L", 60)] }], 4);
    expect([never.value, shareOf(never, "south").nights.length, never.odds![0]!.doneShare]).toEqual([0, 0, 0]);
    expect(plan([{ ...late, needs: [need("L", 0)] }], 4).jobs).toEqual([]);
    const longSub = plan([{ ...early, needs: [{ ...need("OIII", 300), subSec: 7200 * 3 }] }], 4);
    expect(longSub.value).toBe(0); // a sub of six hours fits into no evening of it
    const huge = plan([{ ...late, needs: [need("L", 600_000)] }], 4);
    expect([huge.odds![0]!.doneShare, huge.value > 0]).toEqual([0, true]);
    const many = Array.from({ length: 200 }, (_, i) => ({ ...need("L", 30), panel: `P${i + 1}` }));
    expect(plan([{ ...late, needs: many }], 8).jobs).toHaveLength(1); // panels of a channel are one job
    expect(plan([], 4)).toMatchObject({ value: 0, bound: 0, gap: 0, evenings: [] });
    const clouded = testQuestion([late], { places: { home: testPlace }, from, nights: 4, chance: 0 });
    expect(plannedSeason(clouded, { stock }).plan.value).toBe(0);
    const sure = testQuestion([early], { places: { home: testPlace }, from, nights: 8, chance: 1 });
    expect(plannedSeason(sure, { stock }).plan.odds![0]!.doneShare).toBe(1);
    const busy = plan([late], 4, { rules: { ...USUAL_PERSON_RULES, busyWeekdays: [0, 1, 2, 3, 4, 5, 6] } });
    expect(busy.evenings.every((e) => e.closed === "busy" && e.blocks.length === 0)).toBe(true);
  });

  it("is for one place a night where a person has two, and takes the road off", () => {
    const far = { ...testPlace, name: "far", skyMagPerArcsec2: 21.8, travelMin: 600 };
    const near = { ...far, travelMin: 20 };
    const of = (there: Place) =>
      plannedSeason(
        testQuestion([late, { ...early, id: "away", placeId: "away", rigId: "b" }], { places: { home: testPlace, away: there }, from, nights: 6 }), // prettier-ignore
      ).plan;
    for (const p of [of(far), of(near)])
      for (const night of new Set(p.evenings.map((e) => e.night)))
        expect(new Set(eveningsOf(p, night).filter((e) => e.blocks.length > 0).map((e) => e.placeId)).size).toBeLessThan(2); // prettier-ignore
    expect(of(far).evenings.some((e) => e.placeId === "away" && e.blocks.length > 0)).toBe(false);
  });
});

it("goes to the dark place where a person would drive, when it brings enough more, and never where they would not", () => {
  const dark = { ...testPlace, name: "dark", skyMagPerArcsec2: testPlace.skyMagPerArcsec2 + 1.2, travelMin: 60 };
  const of = (fromHours: number | null) =>
    plannedSeason(
      // More than six nights at home hold: else no road pays.
      testQuestion([{ ...late, needs: [need("OIII", 1500), need("L", 1200)] }], { places: { home: testPlace, dark }, from, nights: 6 }, {
        rules: { ...USUAL_PERSON_RULES, ...(fromHours === null ? {} : { drives: [{ placeId: "dark", fromHours }] }) },
      }), // prettier-ignore
    ).plan;
  const nightsAt = (p: SeasonPlan, id: string) =>
    p.evenings.filter((e) => e.placeId === id && e.blocks.length > 0).length;
  expect(nightsAt(of(null), "dark")).toBe(0);
  expect(nightsAt(of(2), "dark")).toBeGreaterThan(0);
  expect(nightsAt(of(20), "dark")).toBe(0);
  const driven = of(2);
  for (const night of new Set(driven.evenings.map((e) => e.night)))
    expect(new Set(eveningsOf(driven, night).filter((e) => e.blocks.length > 0).map((e) => e.placeId)).size).toBeLessThan(2); // prettier-ignore
  // An hour there counts by its sky: 10^(0.4 · 1.2) = 3.02 times.
  const rate = (p: SeasonPlan, id: string) => {
    const b = p.evenings.find((e) => e.placeId === id && e.blocks.length > 0)!.blocks[0]!;
    return b.countsMin / b.exposureMin;
  };
  expect(rate(driven, "dark") / rate(of(null), "home")).toBeGreaterThan(2);
});

describe("locks", () => {
  it("keep what they fix, leave out what they forbid, and close a night", () => {
    const projects = [early, late, low];
    const locked = plan(projects, 8, {
      locks: [
        lock("a", 1, { projectId: "low" }),
        lock("b", 2, { projectId: "late", does: "forbid" }),
        lock("c", 3, { does: "forbid" }),
      ],
    });
    const on = (n: number) => eveningsOf(locked, addNights(from, n)).flatMap((e) => e.blocks.map((b) => b.projectId));
    expect(locked.conflicts).toEqual([]);
    expect(on(1)).toContain("low");
    expect(on(2)).not.toContain("late");
    expect(on(3)).toEqual([]);
    expect(eveningsOf(locked, addNights(from, 1))[0]!.isFixed).toBe(true);
  });

  it("make a covered project shot all the same", () => {
    const short = { ...late, needs: [need("L", 20)] };
    const locks = [0, 1, 2, 3, 4, 5].map((n) => lock(`l${n}`, n, { projectId: "late" }));
    const locked = plan([early, short], 6, { locks });
    for (const e of locked.evenings) expect(e.blocks.map((b) => b.projectId)).toContain("late");
  });

  it("that contradict each other are named by the smallest sets, and by no others (law, against all subsets)", () => {
    const projects = [
      { id: "p", placeId: "home", rigId: "a", hasWork: true },
      { id: "q", placeId: "home", rigId: "a", hasWork: true },
      { id: "r", placeId: "away", rigId: "b", hasWork: true },
      { id: "s", placeId: "home", rigId: "b", hasWork: false },
    ];
    const usable = (id: string, night: string) =>
      id === "q" && night === addNights(from, 1) ? [] : id === "p" ? (["L", "Ha"] as const) : (["L"] as const);
    const any = fc.record({ night: fc.integer({ min: 0, max: 1 }), does: fc.constantFrom("fix" as const, "forbid" as const), about: fc.constantFrom({}, { projectId: "p" }, { projectId: "p", channel: "L" as const }, { projectId: "p", channel: "Ha" as const }, { projectId: "p", channel: "OIII" as const }, { projectId: "q" }, { projectId: "r" }, { projectId: "s" }, { placeId: "home" }, { placeId: "away" }) }); // prettier-ignore
    // Whether there is any way to spend the nights that keeps all of a set: a place, and targets within the rules.
    const canKeep = (set: readonly Lock[], most: number, drives: readonly string[]): boolean =>
      [...new Set(set.map((l) => l.night))].every((night) => {
        const mine = set.filter((l) => l.night === night);
        const fixes = mine.filter((l) => l.does === "fix");
        if (fixes.length === 0) return true;
        if (mine.some((l) => l.does === "forbid" && !l.projectId && !l.placeId)) return false;
        return ["home", "away", "hut"].some((place) => {
          if (mine.some((l) => l.placeId === place && l.does === "forbid")) return false;
          const wanted = [...new Set(fixes.flatMap((l) => l.projectId ?? []))].map((id) => projects.find((p) => p.id === id)!); // prettier-ignore
          if (fixes.some((l) => l.placeId !== undefined && l.placeId !== place)) return false;
          if (wanted.some((p) => (p.placeId !== place && !drives.includes(place)) || !p.hasWork)) return false;
          const without = (id: string, channel: string) =>
            mine.some((l) => l.does === "forbid" && l.projectId === id && (l.channel ?? channel) === channel);
          const open = (id: string) => usable(id, night).filter((c) => !without(id, c));
          const isDone = ({ projectId: id, channel }: Lock) => !id || open(id).some((c) => (channel ?? c) === c);
          if (!fixes.every(isDone)) return false;
          return ["a", "b"].every((rig) => wanted.filter((p) => p.rigId === rig).length <= most);
        });
      });
    fc.assert(
      fc.property(
        fc.array(any, { maxLength: 6 }),
        fc.integer({ min: 1, max: 2 }),
        fc.constantFrom([], ["hut"], ["away"]),
        (list, most, drives) => {
          // prettier-ignore
          const locks = list
          .filter((l) => !(l.does === "fix" && Object.keys(l.about).length === 0)) // nobody fixes nothing
          .map((l, i) => lock(`l${i}`, l.night, { does: l.does, ...l.about }));
          const named = lockConflicts(locks, projects, { targetsANight: most, isOneRig: false, drives, usable });
          // Every set named cannot be kept, and each smaller one can.
          for (const { locks: ids } of named) {
            const set = locks.filter((l) => ids.includes(l.id));
            expect(canKeep(set, most, drives)).toBe(false);
            for (const one of set) expect(canKeep(set.filter((l) => l !== one), most, drives)).toBe(true); // prettier-ignore
          }
          // What is left without the sets named can be kept.
          const gone = new Set(named.flatMap((c) => c.locks));
          expect(canKeep(locks.filter((l) => !gone.has(l.id)), most, drives)).toBe(true); // prettier-ignore
        },
      ),
      { numRuns: runs(300, 5000) },
    );
  });
});

describe("why", () => {
  it("says what else competed, what each would cost, and which nights would do instead", () => {
    const { plan: made, work } = plannedSeason(ask([early, late, low], 10), { stock });
    const evening = eveningsOf(made, from)[0]!;
    const why = whyEvening(work, evening)!;
    expect(why.idleLossMin).toBeGreaterThan(0);
    for (const r of why.rivals) {
      expect(evening.blocks.some((b) => b.projectId === r.projectId)).toBe(false);
      expect(r.lossMin).toBeGreaterThan(-0.02 * made.value); // no better than the plan beyond its gap
    }
    for (const [id, nights] of Object.entries(why.instead)) {
      expect(evening.blocks.some((b) => b.projectId === id)).toBe(true);
      expect(nights.length).toBeLessThanOrEqual(2);
      for (const n of nights) expect(n.night > from).toBe(true);
    }
    expect(whyEvening(work, { ...evening, placeId: "nowhere" })).toBeNull();
  });
});

describe("what if", () => {
  const { plan: made } = plannedSeason(ask([early, late, low], 10), { stock });
  const share = (p: SeasonPlan, id: string) => p.odds!.find((o) => o.projectId === id)!.doneShare;
  const after = (what: Parameters<typeof changedBy>[1]) =>
    plannedSeason(changedBy(ask([early, late, low], 10), what), { stock }).plan;
  it("another night is clear, a project comes first or waits, wants less, a channel is dropped", () => {
    expect(after({ kind: "clearNight", night: addNights(from, 2) }).value).toBeGreaterThan(
      made.value - 0.01 * made.value,
    );
    expect(share(after({ kind: "lessOf", projectId: "late", share: 0.3 }), "late")).toBeGreaterThanOrEqual(share(made, "late")); // prettier-ignore
    const waits = after({ kind: "wait", projectId: "early", weeks: 1 });
    expect(shareOf(waits, "early").nights.every((n) => n.night >= addNights(from, 7))).toBe(true);
    expect(after({ kind: "withoutChannel", projectId: "late", channel: "L" }).jobs.some((j) => j.projectId === "late" && j.channel === "L")).toBe(false); // prettier-ignore
    expect(after({ kind: "targetsANight", targets: 1 }).value).toBeLessThanOrEqual(made.bound * 1.05);
  });
  it("nights at a darker place count by its sky: 10^(0.4 Δμ)", () => {
    const dark = { ...testPlace, name: "dark", skyMagPerArcsec2: testPlace.skyMagPerArcsec2 + 1 };
    const place = { id: "dark", place: dark, chances: Array<number>(10).fill(0.4), hours: {}, within: {} };
    const trip = after({ kind: "trip", place, from, nights: 1 });
    const [home, there] = [made, trip].map((p) => eveningsOf(p, from)[0]!);
    expect([home!.placeId, there!.placeId]).toEqual(["home", "dark"]);
    const rate = (e: typeof home) => e!.blocks[0]!.countsMin / e!.blocks[0]!.exposureMin;
    expect(rate(there) / rate(home)).toBeGreaterThan(1.8); // 2.51 less what another programme of the night changes
  });
});

describe("a share of the plan", () => {
  it("adds up to no more than the goals, and what comes after the end is a reserve", () => {
    const made = plan([early, late], 20);
    const mine = shareOf(made, "late");
    const hours = plannedHours(mine, 60);
    expect(hours.every((h, i) => i === 0 || h.hours >= hours[i - 1]!.hours)).toBe(true);
    expect(hours.at(-1)!.hours).toBeLessThanOrEqual(1 + 700 / 60 + 1e-9);
    expect(mine.nights.map((n) => n.needed)).toEqual(mine.nights.map((n) => n.needed).sort((a, b) => b - a));
    expect(neededOn(null, from, addNights(from, 5))).toBe(1);
  });
  it("tells what has moved since another plan, and why", () => {
    const before = plan([early, late], 8);
    const after = plan([early, late], 8, { locks: [lock("a", 1, { does: "forbid" })] });
    const moved = movedNights(before, after, 8);
    expect(moved.find((m) => m.night === addNights(from, 1))).toMatchObject({ after: [], why: "lock" });
    expect(movedNights(before, before, 8)).toEqual([]);
  });
});
