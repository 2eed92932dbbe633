import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_OVERHEADS, efficiencyOf } from "~/core/exposure";
import { placeNight, targetNight, USUAL_MOON } from "~/core/night";
import { testPlace } from "~/core/test-data";
import { addNights, nightDate } from "~/core/time";
import type { Programmes, SeasonTask } from "./model";
import { capReward } from "./reward";
import { playSeasons, type FollowedPlan, type SeasonWeather } from "./seasons";
import { solvedSeason } from "./solve";
import { seasonTables, SLOT_MIN } from "./tables";
import type { SeasonRequest } from "./request";

const runs = (few: number, many: number) => (process.env["LAWS_SEED"] === "new" ? many : few);
const from = nightDate("2026-11-01");
const request: SeasonRequest = {
  from,
  nights: 6,
  places: [{ id: "yard", place: testPlace }],
  rigs: [{ id: "r", overheads: DEFAULT_OVERHEADS }],
  projects: [
    { id: "a", priority: 1, counts: "light", target: { frame: "icrs", raDeg: 40, decDeg: 55 }, placeId: "yard", rigId: "r", moon: USUAL_MOON, wants: [{ channel: "Ha", goalMin: 600, remainingMin: 500, subSec: 300 }, { channel: "OIII", goalMin: 600, remainingMin: 600, subSec: 300 }] },
    { id: "b", priority: 1, counts: "light", target: { frame: "icrs", raDeg: 90, decDeg: 20 }, placeId: "yard", rigId: "r", moon: USUAL_MOON, wants: [{ channel: "L", goalMin: 300, remainingMin: 300, subSec: 60 }], deadline: addNights(from, 3) },
  ],
  chanceOf: () => 0.4,
  isFree: (night) => night !== addNights(from, 2),
  targetsANight: 2,
  minBlockMin: 30,
}; // prettier-ignore

describe("the tables of a season", () => {
  const { task, lanes, jobs } = seasonTables(request);
  it("hold for every night and job what the night's own sums say, times the time that is exposed: one truth for list, page and plan", () => {
    expect(jobs.map((j) => `${j.projectId} ${j.channel}`)).toEqual(["a Ha", "a OIII", "b L"]);
    expect(task.minSlots).toBe(2);
    lanes.forEach(({ night }, l) => {
      if (night === addNights(from, 2)) return;
      jobs.forEach((job, k) => {
        const project = request.projects.find((p) => p.id === job.projectId)!;
        const want = project.wants.find((w) => w.channel === job.channel)!;
        const offered = targetNight(placeNight(testPlace, night, USUAL_MOON), project.target, job.channel).worthMin;
        const isLate = project.deadline !== undefined && night > project.deadline;
        const told = task.lanes[l]!.worth.reduce((sum, slot) => sum + slot[k]!, 0);
        expect(told).toBeCloseTo(isLate ? 0 : offered * efficiencyOf(want.subSec, DEFAULT_OVERHEADS), 3);
      });
    });
  });
  it("give nothing on an evening that is not free, and slots of a quarter of an hour on the clock", () => {
    expect(task.lanes[2]!.worth.flat().every((w) => w === 0)).toBe(true);
    for (const { startMs } of lanes) expect(startMs % (SLOT_MIN * 60_000)).toBe(0);
    for (const lane of task.lanes) for (const slot of lane.worth) for (const w of slot) expect(w).toBeLessThan(1.3 * SLOT_MIN); // prettier-ignore
  });
  it("make a plan that keeps the person's rules", () => {
    const found = solvedSeason(task);
    expect(found.gap).toBeLessThan(0.05); // few nights: a true gap may be left
    found.plan.forEach((blocks, l) => {
      expect(l === 2 ? blocks : []).toEqual([]);
      for (const [, s, e] of blocks) expect(e - s).toBeGreaterThanOrEqual(2);
      expect(new Set(blocks.map(([k]) => task.jobs[k]!.project)).size).toBeLessThanOrEqual(2);
    });
  });
  it("are empty where nothing is wanted, and where a project's place is gone", () => {
    expect(seasonTables({ ...request, projects: [] }).task.lanes).toEqual([]);
    expect(seasonTables({ ...request, places: [] }).task.lanes).toEqual([]);
  });
});

/** One job that wants so many clear nights of the same yield. */
const plain = (nights: number, wanted: number, chance: number): { task: SeasonTask; weather: SeasonWeather } => ({
  task: {
    slotMin: 15,
    targetsANight: 1,
    minSlots: 1,
    lostMin: { start: 0, target: 0, filter: 0 },
    tick: 0,
    jobs: [{ project: 0, reward: capReward(wanted * 10 - 1, 1) }],
    lanes: Array.from({ length: nights }, () => ({ chance, worth: [[10]] })),
  },
  weather: {
    nightOf: Array.from({ length: nights }, (_, n) => n),
    placeOf: Array.from({ length: nights }, () => "yard"),
    persistence: 0,
  },
});
/** A plan of which nothing more is known. */
const bare = (task: SeasonTask, plan: Programmes): FollowedPlan => ({
  plan,
  prices: task.jobs.map(() => 1),
  pools: [],
});
const all = (nights: number) => Array.from({ length: nights }, () => [[0, 0, 1] as const]);

describe("seasons played", () => {
  it("end as binomial and Markov chances say they must, counted exactly (law)", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 30 }),
        fc.integer({ min: 1, max: 8 }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        fc.double({ min: 0, max: 0.6, noNaN: true }),
        (nights, wanted, chance, persistence) => {
          const { task, weather } = plain(nights, wanted, chance);
          const count = 4000;
          const odds = playSeasons(
            task,
            bare(task, all(nights)),
            { ...weather, persistence },
            { runs: count, seed: 5 },
          );
          // By night: chance of (clear nights so far, was the last one clear), summed over all ways.
          let states = new Map([["0 ?", 1]]);
          for (let n = 0; n < nights; n++) {
            const next = new Map<string, number>();
            const put = (key: string, p: number) => next.set(key, (next.get(key) ?? 0) + p);
            for (const [key, p] of states) {
              const [clear, last] = key.split(" ") as [string, string];
              const q = last === "?" ? chance : last === "1" ? chance + persistence * (1 - chance) : chance * (1 - persistence); // prettier-ignore
              put(`${Number(clear) + 1} 1`, p * q);
              put(`${clear} 0`, p * (1 - q));
            }
            states = next;
            const done = [...states].reduce((sum, [key, p]) => sum + (Number(key.split(" ")[0]) >= wanted ? p : 0), 0);
            const error = 5 * Math.sqrt(Math.max(0, done * (1 - done)) / count) + 0.003;
            expect(Math.abs((odds.projects[0]?.doneBy[n] ?? 0) - done)).toBeLessThan(error);
          }
        },
      ),
      { numRuns: runs(15, 200) },
    );
  });
  it("come true: dates by which 10, 50 and 90 of 100 seasons are done hold for other seasons, in three climates and however nights cling together", () => {
    const { task, lanes } = seasonTables({ ...request, nights: 60, isFree: () => true });
    for (const chance of [0.25, 0.45, 0.7])
      for (const persistence of [0, 0.25, 0.5]) {
        const climate = { ...task, lanes: task.lanes.map((l) => ({ ...l, chance })) };
        const found = solvedSeason(climate);
        const weather: SeasonWeather = { nightOf: lanes.map((_, l) => l), placeOf: lanes.map((l) => l.placeId), persistence }; // prettier-ignore
        const told = playSeasons(climate, found, weather, { runs: 400, seed: 1 });
        const drawn = playSeasons(climate, found, weather, { runs: 200, seed: 99 });
        told.projects.forEach((p, i) => {
          for (const [share, date] of [
            [0.1, p.tenth],
            [0.5, p.half],
            [0.9, p.ninetieth],
          ] as const) {
            if (date === null) continue;
            // Of a night that reaches the share: at least that many, but for the error of two samples.
            const came = drawn.projects[i]!.doneBy[date]!;
            const error = 4 * Math.sqrt((share * (1 - share)) / 200 + (share * (1 - share)) / 400);
            expect(came).toBeGreaterThan(share - error);
            if (date > 0) expect(drawn.projects[i]!.doneBy[date - 1]!).toBeLessThan(share + error);
          }
        });
        // No season is worth more on average than the bound allows.
        expect(told.value).toBeLessThan(found.bound * 1.02);
      }
  });
  it("are the same for the same seed; certain weather leaves nothing to chance", () => {
    const { task, weather } = plain(6, 3, 1);
    const odds = playSeasons(task, bare(task, all(6)), weather, { runs: 50, seed: 2 });
    expect(odds.projects[0]).toMatchObject({ tenth: 2, half: 2, ninetieth: 2 });
    expect(playSeasons(task, bare(task, all(6)), weather, { runs: 50, seed: 2 })).toEqual(odds);
    const never = plain(6, 3, 0);
    expect(
      playSeasons(never.task, bare(never.task, all(6)), never.weather, { runs: 50, seed: 2 }).projects[0]!.half,
    ).toBeNull();
  });
});
