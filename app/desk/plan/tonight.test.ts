import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { choiceOf } from "~/desk/sky/choice";
import { demoLibrary } from "~/desk/demo-library.test-data";
import { seasonPlan } from "./season";
import { placesAway, tonightView } from "./tonight";
import { forecastEdits } from "~/desk/sky/weather";

const library = demoLibrary();

const view = async (search = "") => {
  const choice = choiceOf(library, new URLSearchParams(search));
  return tonightView(library, await seasonPlan(library), { ...choice, place: choice.place! });
};

describe("tonight, as the desk puts it together", () => {
  it("has a verdict with three reasons, every open project, and the account of the first", async () => {
    const v = await view();
    expect([v.isTonight, v.isPast, v.hasProjects, v.night]).toEqual([true, false, true, "2026-12-05"]);
    expect(v.verdict.reasons.length).toBeGreaterThan(1);
    expect(v.tonight.map((t) => t.name)).toContain("The whole Veil, two by three");
    const { account } = v;
    const lost = Object.values(account!.lost).reduce((a, b) => a + b, 0);
    expect(lost + account!.usableMin).toBe(account!.nightMin);
  });
  it("asks of a place to drive to only within two nights, and says when it is dark again in a white night", async () => {
    const { place } = choiceOf(library, new URLSearchParams());
    expect((await view()).away.length).toBe(placesAway(library, place!).length);
    expect((await view("night=2027-01-20")).away).toEqual([]);
    expect((await view("night=2026-11-20")).isPast).toBe(true);
  });
  it("keeps a forecast's news as one record a night, and nothing where nothing is new", () => {
    const { place } = choiceOf(library, new URLSearchParams());
    const hour = (h: number) => ({ atMs: utcMs(Date.parse("2026-12-05T18:00:00Z") + h * 3_600_000), issuedMs: utcMs(Date.parse("2026-12-05T12:00:00Z")), lowCloud: 0.2, middleCloud: null, highCloud: null, humidity: null, airC: 4, dewC: 1, windMs: null, gustMs: null, rainChance: null, seeingArcsec: null, hazeMag: null }); // prettier-ignore
    const read = { sourceId: "typed", sourceName: "By hand", issuedMs: utcMs(Date.parse("2026-12-05T12:00:00Z")), notes: [], hours: [hour(0), hour(1), hour(24)] }; // prettier-ignore
    const edits = forecastEdits(library, place!, read);
    expect(edits.map((e) => (e.data as { night: string }).night)).toEqual(["2026-12-05", "2026-12-06"]);
    expect(forecastEdits(library, place!, { ...read, hours: [] })).toEqual([]);
  });
});
