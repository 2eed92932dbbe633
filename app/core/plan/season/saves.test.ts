import { expect, it } from "vitest";
import { nightDate } from "~/core/time";
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
