import { expect, it } from "vitest";
import { nightDate, utcMs } from "~/core/time";
import { savesOf } from "./saves";
import type { ProjectShare } from "./share";

const share = (needMin: number, expectedMin: number, doneShare: number): ProjectShare => ({
  nights: [],
  jobs: [{ projectId: "p", channel: "L", subSec: 60, needMin, expectedMin, price: 1 }],
  odds: { projectId: "p", tenth: null, half: null, ninetieth: null, doneBy: [], doneShare },
  deciding: null,
  clockMin: null,
  lastUsable: nightDate("2026-12-20"),
});
const at = { goalMin: 600, elsewhere: [{ placeName: "Pass", countsMin: 100 }, { placeName: "Field", countsMin: 1 }], lower: { altitudeDeg: 15, nowMin: 40, thenMin: 80 } }; // prettier-ignore

it("says what would finish a project: less goal, nights elsewhere, a lower altitude, a friend's hours", () => {
  // 400 of 600 minutes still wanted, 150 of them to be expected: 250 are missing.
  expect(savesOf(share(400, 150, 0.05), at)).toEqual([
    { kind: "lessGoal", share: 1 - 250 / 600 },
    { kind: "nightsAt", placeName: "Pass", nights: 3 },
    { kind: "lower", altitudeDeg: 15, gain: 2 },
    { kind: "friendHours", hours: 250 / 60 },
  ]);
  expect(savesOf(share(400, 380, 0.6), at)).toEqual([]); // likely to be finished as it is
  expect(savesOf(share(590, 20, 0), { ...at, elsewhere: [], lower: null })).toEqual([
    { kind: "friendHours", hours: 570 / 60 },
  ]); // a twentieth of the goal would be another picture
});

it("says how many weeks of next season would do, by the best weeks of this one", () => {
  const night = (day: number, countsMin: number): ProjectShare["nights"][number] => {
    const date = nightDate(`2026-11-${String(day).padStart(2, "0")}`);
    const block = { projectId: "p", channel: "L" as const, subSec: 60, startMs: utcMs(0), endMs: utcMs(1), countsMin, exposureMin: countsMin }; // prettier-ignore
    const evening = { night: date, placeId: "home", rigIds: ["rig"], chance: 0.5, usableMin: 300, blocks: [block], isFixed: false, closed: null }; // prettier-ignore
    return { night: date, evening, blocks: [block], needed: 1 };
  };
  // Two weeks of 100 and 60 minutes in expectation: 80 a week, and 250 are missing.
  const mine = { ...share(400, 150, 0.05), nights: [night(2, 100), night(3, 100), night(9, 120)] };
  expect(savesOf(mine, { ...at, elsewhere: [], lower: null })).toContainEqual({ kind: "nextYear", weeks: 4 });
  // What half a year of such weeks cannot bring is not promised.
  const poor = { ...share(590, 20, 0), nights: [night(2, 10)] };
  expect(savesOf(poor, { ...at, elsewhere: [], lower: null }).some((s) => s.kind === "nextYear")).toBe(false);
});
