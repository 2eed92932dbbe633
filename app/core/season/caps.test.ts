import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Block, Lane, Programme, SeasonTask } from "./model";
import { bestColumn, bestProgrammes, valueAt } from "./night";
import { scratchFor } from "./night-scratch";
import { capReward } from "./reward";
import { solvedSeason, solveSeason } from "./solve";
import { nightTable } from "./table";

const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);

/** Any programme of a lane that keeps the rules of blocks, whatever it brings: written out here, no part of the solver is asked. */
function* programmes(task: SeasonTask, { worth }: Lane): Generator<Programme> {
  function* after(blocks: readonly Block[], from: number, stretches: number): Generator<Programme> {
    yield blocks;
    const last = blocks.at(-1);
    for (let k = 0; k < task.jobs.length; k++) {
      const isSame = last !== undefined && task.jobs[last[0]]!.project === task.jobs[k]!.project;
      const count = isSame ? stretches : stretches + 1;
      if (count > task.targetsANight) continue;
      for (let s = from; s < worth.length; s++)
        for (let e = s + 1; e <= worth.length && worth[e - 1]![k]! > 0; e++)
          if (e - s >= task.minSlots && !(last?.[0] === k && last[2] === s))
            yield* after([...blocks, [k, s, e]], e, count);
    }
  }
  yield* after([], 0, 0);
}

/** What a programme brings each job, cut at its need, times the chance; and what it costs. */
function brings(task: SeasonTask, lane: Lane, blocks: Programme) {
  const sums = task.jobs.map(() => 0);
  blocks.forEach(([k, s, e], i) => {
    const before = blocks[i - 1];
    const { start, target, filter } = task.lostMin;
    const lost = !before ? start : task.jobs[before[0]]!.project === task.jobs[k]!.project ? filter : target;
    for (let x = s; x < e; x++) sums[k]! += lane.worth[x]![k]! * (x === s ? 1 - lost / task.slotMin : 1);
  });
  return {
    yields: sums.map((sum, k) => lane.chance * Math.min(task.jobs[k]!.need!, sum)),
    cost: task.tick * blocks.length,
  };
}

const tight = (lanes: number, slots: number, jobs: number): fc.Arbitrary<SeasonTask> =>
  fc
    .record({
      targetsANight: fc.integer({ min: 1, max: 3 }),
      minSlots: fc.integer({ min: 1, max: 2 }),
      start: fc.integer({ min: 0, max: 20 }),
      target: fc.integer({ min: 0, max: 20 }),
      filter: fc.integer({ min: 0, max: 20 }),
      wants: fc.array(fc.tuple(fc.integer({ min: 0, max: 1 }), fc.double({ min: 4, max: 50, noNaN: true }), fc.double({ min: 0.2, max: 3, noNaN: true })), { minLength: jobs, maxLength: jobs }), // prettier-ignore
      lanes: fc.array(
        fc.record({
          chance: fc.double({ min: 0.05, max: 1, noNaN: true }),
          worth: fc.array(fc.array(fc.oneof({ weight: 1, arbitrary: fc.constant(0) }, { weight: 5, arbitrary: fc.double({ min: 0.5, max: 20, noNaN: true }) }), { minLength: jobs, maxLength: jobs }), { minLength: slots, maxLength: slots }), // prettier-ignore
        }),
        { minLength: lanes, maxLength: lanes },
      ),
    })
    .map(({ start, target, filter, wants, ...rest }) => ({
      ...rest,
      slotMin: 20,
      tick: 0.5,
      lostMin: { start, target, filter },
      jobs: wants.map(([project, need, priority]) => ({ project, need, reward: capReward(need, priority) })),
    }));

describe("a night that can bring more than is wanted", () => {
  it("is never told to be worth less than its best programme, and its programmes are as good as they say (law, by all programmes)", () => {
    fc.assert(
      fc.property(tight(1, 5, 3), fc.array(fc.double({ min: 0, max: 3, noNaN: true }), { minLength: 3, maxLength: 3 }), (task, prices) => {
        const lane = task.lanes[0]!;
        const table = nightTable(task, lane);
        let most = 0;
        for (const blocks of programmes(task, lane)) {
          const { yields, cost } = brings(task, lane, blocks);
          most = Math.max(most, yields.reduce((sum, y, k) => sum + prices[k]! * y, -cost));
        }
        const { bound } = bestProgrammes(task, table, prices, scratchFor(task, [table]));
        expect(bound).toBeGreaterThanOrEqual(most - 1e-9);
        const column = bestColumn(task, table, prices, scratchFor(task, [table]));
        const { yields, cost } = brings(task, lane, column.blocks);
        expect(valueAt(column, prices)).toBeCloseTo(yields.reduce((sum, y, k) => sum + prices[k]! * y, -cost), 9);
        expect(valueAt(column, prices)).toBeLessThanOrEqual(most + 1e-9);
      }),
      { numRuns: runs(150, 4000) },
    ); // prettier-ignore
  });
  it("is close to its best on the whole: within a tenth of it over many nights (a figure, by all programmes)", () => {
    let [told, found, truth] = [0, 0, 0];
    fc.assert(
      fc.property(tight(1, 5, 2), (task) => {
        const lane = task.lanes[0]!;
        const table = nightTable(task, lane);
        const prices = task.jobs.map((j) => j.reward.slopes[0]!);
        let most = 0;
        for (const blocks of programmes(task, lane)) {
          const { yields, cost } = brings(task, lane, blocks);
          most = Math.max(
            most,
            yields.reduce((sum, y, k) => sum + prices[k]! * y, -cost),
          );
        }
        truth += most;
        told += bestProgrammes(task, table, prices, scratchFor(task, [table])).bound;
        found += valueAt(bestColumn(task, table, prices, scratchFor(task, [table])), prices);
      }),
      { numRuns: 200, seed: 4 },
    );
    expect(told / truth).toBeLessThan(1.1);
    expect(found / truth).toBeGreaterThan(0.97);
  });
});

describe("a season whose nights can bring more than is wanted", () => {
  it("gives no job more than its need on any night, nor a longer block than that takes (law)", () => {
    fc.assert(
      fc.property(tight(4, 6, 3), (task) => {
        const { plan } = solvedSeason(task, { wantedGap: 0, mostRounds: 5 });
        plan.forEach((blocks, l) => {
          const had = new Map<number, number>();
          blocks.forEach(([k, s, e], i) => {
            const { need } = task.jobs[k]!;
            const before = had.get(k) ?? 0;
            expect(before).toBeLessThan(need!);
            // With one slot less it would not be enough, or it would be too short.
            const one: Programme = [...blocks.slice(0, i), [k, s, e - 1]];
            const short = e - s > task.minSlots ? brings({ ...task, jobs: task.jobs.map((j) => ({ ...j, need: 1e9 })) }, { ...task.lanes[l]!, chance: 1 }, one).yields[k]! : 0; // prettier-ignore
            expect(short).toBeLessThan(need!);
            had.set(k, brings({ ...task, jobs: task.jobs.map((j) => ({ ...j, need: 1e9 })) }, { ...task.lanes[l]!, chance: 1 }, blocks.slice(0, i + 1)).yields[k]!); // prettier-ignore
          });
        });
      }),
      { numRuns: runs(60, 3000) },
    );
  });
  it("has a bound over the best of all plans, and comes near it (law, by all of them)", () => {
    let [found, truth] = [0, 0];
    fc.assert(
      fc.property(tight(2, 4, 2), (task) => {
        const all = task.lanes.map((lane) => [...programmes(task, lane)].map((blocks) => brings(task, lane, blocks)));
        let best = 0;
        for (const a of all[0]!)
          for (const b of all[1]!) {
            const value = task.jobs.reduce((sum, { reward, need }, k) => sum + reward.slopes[0]! * Math.min(need!, a.yields[k]! + b.yields[k]!), -a.cost - b.cost); // prettier-ignore
            best = Math.max(best, value);
          }
        let last = 0;
        for (const step of solveSeason(task, { wantedGap: 0, mostRounds: 5 })) {
          expect(step.bound).toBeGreaterThanOrEqual(best - 1e-6);
          expect(step.value).toBeLessThanOrEqual(best + 1e-6);
          last = step.value;
        }
        truth += best;
        found += last;
      }),
      { numRuns: runs(40, 1500) },
    );
    expect(found).toBeGreaterThan(0.96 * truth);
  });
});

describe("a night that can be spent at one of two places", () => {
  const both = tight(4, 3, 2).chain(
    (task) =>
    fc.record({ near: fc.double({ min: 0, max: 5, noNaN: true }), far: fc.double({ min: 0, max: 12, noNaN: true }) }).map(({ near, far }): SeasonTask => ({ ...task, choices: [0, 2].map((first) => ({ places: [{ lanes: [first], cost: near }, { lanes: [first + 1], cost: far }, { lanes: [], cost: 0 }] })) })), // prettier-ignore
  );
  it("is spent at one, what going there costs is paid, and the bound is over the best of all ways to spend all nights (law, by all of them)", () => {
    let [found, truth] = [0, 0];
    fc.assert(
      fc.property(both, (task) => {
        const ways = task.choices!.map(({ places }) =>
          places.flatMap(({ lanes: [l], cost }) =>
            l === undefined
              ? []
              : [...programmes(task, task.lanes[l]!)].map((blocks) => {
                  const b = brings(task, task.lanes[l]!, blocks);
                  return { ...b, cost: b.cost + (blocks.length > 0 ? cost : 0) };
                }),
          ),
        );
        let best = 0;
        for (const a of ways[0]!)
          for (const b of ways[1]!) {
            const value = task.jobs.reduce((sum, { reward, need }, k) => sum + reward.slopes[0]! * Math.min(need!, a.yields[k]! + b.yields[k]!), -a.cost - b.cost); // prettier-ignore
            best = Math.max(best, value);
          }
        const answer = solvedSeason(task, { wantedGap: 0, mostRounds: 6 });
        expect(answer.bound).toBeGreaterThanOrEqual(best - 1e-6);
        expect(answer.value).toBeLessThanOrEqual(best + 1e-6);
        for (const { places } of task.choices!)
          expect(places.filter((p) => p.lanes.some((l) => answer.plan[l]!.length > 0)).length).toBeLessThan(2);
        found += answer.value;
        truth += best;
      }),
      { numRuns: runs(60, 1500) },
    );
    expect(found).toBeGreaterThan(0.97 * truth);
  });
});
