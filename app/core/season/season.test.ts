import fc from "fast-check";
import { describe, expect, it } from "vitest";
import checks from "../../../reference/season-checks.json";
import { exactSeason, everyProgramme } from "./exact";
import type { Lane, Programme, SeasonTask } from "./model";
import { columnOf } from "./columns";
import { bestColumn, bestProgrammes, valueAt } from "./night";
import { scratchFor } from "./night-scratch";
import { nightTable } from "./table";
import { capReward, riskReward, sqrtReward, valueOf } from "./reward";
import { solvedSeason, solveSeason } from "./solve";

const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);

type Check = (typeof checks.tiny)[number] | (typeof checks.medium)[number];
const taskOf = (c: Check): SeasonTask => ({
  slotMin: c.slotMin,
  targetsANight: c.targetsANight,
  minSlots: c.minSlots,
  lostMin: c.lostMin,
  tick: c.tick,
  jobs: c.jobs.map((j) => {
    const { priority } = c.projects[j.project]!;
    return {
      project: j.project,
      reward: c.reward === "sqrt" ? sqrtReward(j.goal, j.need, priority) : capReward(j.need, priority),
    };
  }),
  lanes: c.lanes.map(({ chance, worth }) => ({ chance, worth })),
});

/** The worth of a plan by the words of the check file's own readme, sum by sum: no part of the solver is asked. */
function worthOf(task: SeasonTask, plan: readonly Programme[]): number {
  const yields = task.jobs.map(() => 0);
  let cost = 0;
  plan.forEach((blocks, l) => {
    const { chance, worth } = task.lanes[l]!;
    let stretches = 0;
    blocks.forEach(([job, from, to], i) => {
      const before = i === 0 ? null : blocks[i - 1]!;
      if (before && from < before[2]) throw new Error("blocks overlap");
      if (to - from < (task.jobs[job]!.minSlots ?? task.minSlots)) throw new Error("a block is too short");
      const { project } = task.jobs[job]!;
      const isSame = before !== null && task.jobs[before[0]]!.project === project;
      if (!isSame) stretches++;
      const lost = before === null ? task.lostMin.start : isSame ? task.lostMin.filter : task.lostMin.target;
      for (let s = from; s < to; s++) {
        const w = worth[s]![job]!;
        if (!(w > 0)) throw new Error("a block runs through a slot that is not usable");
        yields[job]! += chance * (w - (s === from ? (lost / task.slotMin) * w : 0));
      }
      cost += task.tick;
    });
    if (stretches > task.targetsANight) throw new Error("too many targets in a night");
  });
  return task.jobs.reduce((sum, { reward }, k) => sum + valueOf(reward, yields[k]!), -cost);
}

describe("a season against the independent instances", () => {
  it.each(checks.tiny.map((c) => c.name))(
    "%s: finds the optimum of a full enumeration, and its bound is one",
    (name) => {
      const c = checks.tiny.find((t) => t.name === name)!;
      const task = taskOf(c);
      expect(worthOf(task, c.plan as unknown as Programme[])).toBeCloseTo(c.optimum, 3); // we value plans as the file does
      const found = solvedSeason(task, { wantedGap: 0, mostRounds: 24 });
      expect(worthOf(task, found.plan)).toBeCloseTo(found.value, 6);
      expect(found.bound).toBeGreaterThanOrEqual(c.optimum - 1e-6);
      expect(found.bound).toBeLessThanOrEqual(c.lagrangeBound * 1.01);
      const exact = exactSeason(task, found);
      expect(exact.isProven).toBe(true);
      expect(exact.value).toBeCloseTo(c.optimum, 3);
      expect(worthOf(task, exact.plan)).toBeCloseTo(exact.value, 6);
    },
  );
  it.each(checks.medium.map((c) => c.name))(
    "%s: within a hundredth of the bound, and near the best plan known",
    (name) => {
      const c = checks.medium.find((t) => t.name === name)!;
      const task = taskOf(c);
      expect(worthOf(task, c.plan as unknown as Programme[])).toBeCloseTo(c.bestValue, 2);
      const found = solvedSeason(task);
      expect(worthOf(task, found.plan)).toBeCloseTo(found.value, 6);
      expect(found.gap).toBeLessThan(0.01);
      expect(found.value).toBeGreaterThan(c.bestValue * 0.995);
      expect(found.bound).toBeGreaterThanOrEqual(c.bestValue - 1e-6);
      expect(c.bound).toBeGreaterThanOrEqual(found.value - 1e-6); // their bound holds for our plan too
    },
  );
});

const lane = (slots: number, jobs: number, chances = fc.double({ min: 0, max: 1, noNaN: true })): fc.Arbitrary<Lane> =>
  fc.record({
    chance: chances,
    worth: fc.array(
      fc.array(fc.oneof({ weight: 1, arbitrary: fc.constant(0) }, { weight: 4, arbitrary: fc.double({ min: 0.5, max: 20, noNaN: true }) }), { minLength: jobs, maxLength: jobs }), // prettier-ignore
      { minLength: slots, maxLength: slots },
    ),
  });
const season = (lanes: number, slots: number, jobs: number): fc.Arbitrary<SeasonTask> =>
  fc
    .record({
      targetsANight: fc.integer({ min: 1, max: 3 }),
      minSlots: fc.integer({ min: 1, max: 2 }),
      start: fc.integer({ min: 0, max: 20 }),
      target: fc.integer({ min: 0, max: 20 }),
      filter: fc.integer({ min: 0, max: 20 }),
      wants: fc.array(fc.tuple(fc.integer({ min: 0, max: 1 }), fc.double({ min: 1, max: 80, noNaN: true }), fc.double({ min: 0.2, max: 3, noNaN: true }), fc.option(fc.integer({ min: 1, max: 3 }), { nil: undefined })), { minLength: jobs, maxLength: jobs }), // prettier-ignore
      lanes: fc.array(lane(slots, jobs), { minLength: 1, maxLength: lanes }),
    })
    .map(({ start, target, filter, wants, ...rest }) => ({
      ...rest,
      slotMin: 20,
      tick: 0.5,
      lostMin: { start, target, filter },
      jobs: wants.map(([project, need, priority, own]) => ({
        project,
        reward: capReward(need, priority),
        ...(own === undefined ? {} : { minSlots: own }),
      })),
    }));

describe("the instance of the published formulas (MATHS 7.3 A)", () => {
  const [L, Ha, OIII] = [
    [1, 0.9, 0.2, 0.1, 0.9, 0.8, 0.1, 0.1],
    [0.9, 0.9, 0.8, 0.6, 0.8, 0.8, 0.7, 0.5],
    [1, 0.8, 0.5, 0.3, 0.9, 0.7, 0.4, 0.2],
  ] as const;
  const lanes = [0, 4].map((from) => ({
    chance: 1,
    worth: [0, 1, 2, 3].map((s) => [L[from + s]!, Ha[from + s]!, OIII[from + s]!]),
  }));
  const task = (tick: number): SeasonTask => ({
    slotMin: 1,
    targetsANight: 4,
    minSlots: 1,
    lostMin: { start: 0, target: 0, filter: 0 },
    tick,
    jobs: [[2, 1], [2.5, 0.8], [1.5, 1.2]].map(([need, priority], project) => ({ project, reward: capReward(need!, priority!) })), // prettier-ignore
    lanes,
  });
  const best = (tick: number) => exactSeason(task(tick), solvedSeason(task(tick), { wantedGap: 0, mostRounds: 24 }));
  it("has its optimum with and without a cost of changes (C7.1), and its night's best at given prices (C7.3)", () => {
    expect(best(0).value).toBeCloseTo(5.7, 6);
    // There a change costs 0.15; here every block does, so one more on each of the two nights.
    expect(best(0.15).value).toBeCloseTo(5.4 - 2 * 0.15, 6);
    const table = nightTable(task(0.15), lanes[0]!);
    const night = bestProgrammes(task(0.15), table, [0.7, 0.5, 0.9], scratchFor(task(0.15), [table]));
    expect(night.bound).toBeCloseTo(2.34 - 0.15, 6);
  });
});

describe("one night", () => {
  it("has its best programme found exactly, at any prices, zero among them (a law, by full enumeration)", () => {
    const price = fc.oneof(fc.constant(0), fc.double({ min: 0, max: 3, noNaN: true }));
    fc.assert(
      fc.property(season(1, 5, 3), fc.array(price, { minLength: 3, maxLength: 3 }), (task, prices) => {
        const table = nightTable(task, task.lanes[0]!);
        const found = bestProgrammes(task, table, prices, scratchFor(task, [table]));
        let most = 0;
        for (const blocks of everyProgramme(task, table))
          most = Math.max(most, valueAt(columnOf(task, table, blocks)!, prices));
        expect(found.bound).toBeCloseTo(most, 6);
        expect(valueAt(bestColumn(task, table, prices, scratchFor(task, [table])), prices)).toBeCloseTo(most, 6);
      }),
      { numRuns: runs(150, 3000) },
    );
  });
});

describe("a season, laws", () => {
  it("no plan found is over any bound shown; the exact finish is at least the plan and at most the bound", () => {
    fc.assert(
      fc.property(season(3, 4, 3), (task) => {
        let bound = Number.POSITIVE_INFINITY;
        for (const step of solveSeason(task, { wantedGap: 0, mostRounds: 6 })) {
          expect(step.value).toBeLessThanOrEqual(step.bound + 1e-6);
          expect(step.bound).toBeLessThanOrEqual(bound + 1e-6);
          expect(worthOf(task, step.plan)).toBeCloseTo(step.value, 6);
          bound = step.bound;
        }
        const found = solvedSeason(task, { wantedGap: 0, mostRounds: 6 });
        const exact = exactSeason(task, found);
        if (!exact.isProven) return;
        expect(exact.value).toBeGreaterThanOrEqual(found.value - 1e-6);
        expect(exact.value).toBeLessThanOrEqual(bound + 1e-6);
      }),
      { numRuns: runs(30, 1000) },
    );
  });
  it("more clear nights never lower the optimum, a fixed night never raises it, and order changes nothing (by the exact finish)", () => {
    const best = (task: SeasonTask) => exactSeason(task, solvedSeason(task, { wantedGap: 0, mostRounds: 6 }));
    fc.assert(
      fc.property(season(2, 4, 2), lane(4, 2), (task, more) => {
        const all = best(task);
        const richer = best({ ...task, lanes: [...task.lanes, more] });
        const fixed = best({ ...task, lanes: task.lanes.map((l, i) => (i === 0 ? { ...l, fixed: [] } : l)) });
        const mirrored = best({
          ...task,
          jobs: [...task.jobs].reverse(),
          lanes: [...task.lanes].reverse().map((l) => ({ ...l, worth: l.worth.map((slot) => [...slot].reverse()) })),
        });
        if (![all, richer, fixed, mirrored].every((x) => x.isProven)) return;
        expect(richer.value).toBeGreaterThanOrEqual(all.value - 1e-6);
        expect(fixed.value).toBeLessThanOrEqual(all.value + 1e-6);
        expect(mirrored.value).toBeCloseTo(all.value, 6);
      }),
      { numRuns: runs(25, 800) },
    );
  });
  it("has the same answer for the same question, and starts from an answer to nearly the same", () => {
    const task = taskOf(checks.medium[0]!);
    const [a, b] = [solvedSeason(task), solvedSeason(task)];
    expect(b).toEqual(a);
    const later = { ...task, lanes: task.lanes.slice(3) };
    const warm = solvedSeason(later, { wantedGap: 0.01, mostRounds: 24, warm: { prices: a.prices, plan: a.plan.slice(3) } }); // prettier-ignore
    expect(warm.gap).toBeLessThan(0.01);
    const cold = solvedSeason(later, { wantedGap: 0.01, mostRounds: 24 });
    expect(warm.rounds).toBeLessThanOrEqual(cold.rounds);
  });
  it("does nothing where nothing is to be had: no lanes, no need, never clear", () => {
    const empty: SeasonTask = { slotMin: 20, targetsANight: 2, minSlots: 2, lostMin: { start: 10, target: 8, filter: 2 }, tick: 0.5, jobs: [], lanes: [] }; // prettier-ignore
    expect(solvedSeason(empty)).toMatchObject({ value: 0, gap: 0, plan: [] });
    const never = { ...empty, jobs: [{ project: 0, reward: capReward(100, 1) }], lanes: [{ chance: 0, worth: [[10], [10]] }] }; // prettier-ignore
    expect(solvedSeason(never).plan).toEqual([[]]);
  });
});

describe("rewards", () => {
  it("of chance are what can be expected of yields that come in whole nights (by drawing them), and never convex", () => {
    const need = 300;
    const [nights, chance, amount] = [14, 0.4, 60];
    // Nights are clear one by one: the mean of what they bring together, cut at the need, by the binomial distribution.
    const exactly = (n: number) => {
      let [sum, odds] = [0, (1 - chance) ** n];
      for (let k = 0; k <= n; k++) {
        sum += odds * Math.min(k * amount, need);
        odds *= ((n - k) / (k + 1)) * (chance / (1 - chance));
      }
      return sum;
    };
    const reward = riskReward(need, ((1 - chance) * amount ** 2) / amount, 2);
    for (let n = 1; n <= nights; n++) {
      const shown = valueOf(reward, n * chance * amount) / 2;
      expect(Math.abs(shown - exactly(n))).toBeLessThan(0.04 * need); // within 4 % of the need (PLAN.md 8.6: −4 to +3 %)
    }
    expect(valueOf(reward, 0)).toBe(0);
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 500, noNaN: true }),
        fc.double({ min: 0, max: 300, noNaN: true }),
        (need, scale) => {
          const { slopes } = riskReward(need, scale, 1);
          for (let i = 1; i < slopes.length; i++) expect(slopes[i]!).toBeLessThanOrEqual(slopes[i - 1]!);
          expect(Math.min(...slopes)).toBeGreaterThanOrEqual(0);
        },
      ),
    );
  });
});
