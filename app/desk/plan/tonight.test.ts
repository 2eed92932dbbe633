import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { choiceOf } from "~/desk/sky/choice";
import { demoDesk, demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import { seasonPlan } from "./season";
import { tonightView } from "./tonight";
import { placesAway } from "./away";
import { askAll, forecastEdits } from "~/desk/sky/weather";
import { createSources } from "~/services/sources";
import { readerHere } from "~/desk/desk.test-data";
import type { StoredRecord } from "~/core/crew";

const library = demoLibrary();

const view = async (search = "") => {
  const choice = choiceOf(library, new URLSearchParams(search));
  return tonightView(library, { plan: await seasonPlan(library), previous: null }, { ...choice, place: choice.place! });
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

it("a place of which nothing is heard yet wins over none; once its services are silent, its own odds count (reported: a drive told and taken back)", async () => {
  const silent = () => Promise.resolve({ ok: true, value: { hours: [], notes: [] } } as never);
  const desk = demoDesk({ sources: { ...createSources(undefined, readerHere.forecast), ask: silent } });
  const records = demoLibrary(desk);
  const { place: home } = choiceOf(records, new URLSearchParams());
  const [away] = placesAway(records, home!);
  // Somebody looked up at home and saw clouds all evening, so that the other place is what is left.
  const at = Date.parse("2026-12-05T16:39:00Z");
  const look = { kind: "look", id: "k", rev: "2", author: "m", seen: {}, data: { placeId: home!.id, memberId: "member-ines", atMs: at, isClear: false } } as StoredRecord; // prettier-ignore
  const library = libraryOfRecords([...demoRecords().filter((r) => r.kind !== "forecast"), look], desk);
  const told = async () => {
    const choice = choiceOf(library, new URLSearchParams());
    const plan = await seasonPlan(library);
    return (await tonightView(library, { plan, previous: null }, { ...choice, place: choice.place! })).verdict;
  };
  expect((await told()).kind).not.toBe("borrow");
  await askAll(library, away!, new AbortController().signal);
  const verdict = await told();
  expect([verdict.kind, verdict.away?.placeId]).toEqual(["borrow", away!.id]);
});
