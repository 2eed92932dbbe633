import { describe, expect, it } from "vitest";
import type { Place } from "~/core/night";
import { testDesk } from "~/desk/desk.test-data";
import { testPlace } from "~/core/test-data";
import { isAtRest, type ProjectContext } from "./project";

const desk = testDesk();
const auckland = { ...testPlace, latitudeDeg: -37, longitudeDeg: 175, timeZone: "Pacific/Auckland" };
const angeles = { ...testPlace, latitudeDeg: 34, longitudeDeg: -118, timeZone: "America/Los_Angeles" };
const rests = (place: Place, data: object) =>
  isAtRest({ desk, project: { data }, place: { data: place } } as unknown as Pick<
    ProjectContext,
    "desk" | "project" | "place"
  >);

describe("a project at rest", () => {
  it("wakes on an evening of its place, not on a day of Greenwich (reported)", () => {
    desk.setNow("2026-12-05T23:00:00Z"); // in Auckland noon of the sixth: tonight is the sixth
    expect(rests(auckland, { restsUntil: "2026-12-06" })).toBe(false);
    expect(rests(auckland, { restsUntil: "2026-12-07" })).toBe(true);
    desk.setNow("2026-12-06T02:00:00Z"); // in Los Angeles still the evening of the fifth
    expect(rests(angeles, { restsUntil: "2026-12-06" })).toBe(true);
    expect(rests(angeles, { restsUntil: "2026-12-05" })).toBe(false);
  });
  it("stays so once it is finished, and never is otherwise", () => {
    desk.setNow("2026-12-05T23:00:00Z");
    expect(rests(auckland, { finishedOn: "2026-12-01" })).toBe(true);
    expect(rests(auckland, {})).toBe(false);
  });
});
