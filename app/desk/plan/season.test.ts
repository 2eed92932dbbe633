import { beforeEach, describe, expect, it } from "vitest";
import ICAL from "ical.js";
import type { RecordKind, StoredRecord } from "~/core/crew";
import { decodeBundle, runSheetToCalendar } from "~/core/formats";
import { eveningsOf, plannedSeason, shareOf, type PlannedBlock } from "~/core/season";
import { addNights, nightDate } from "~/core/time";
import demo from "~/data/demo.json";
import { choiceOf } from "~/desk/sky/choice";
import { plannerHere } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary, libraryOfRecords } from "~/desk/demo-library.test-data";
import type { Library } from "~/desk/records/library";
import { ownContextsOf } from "~/desk/projects/project";
import { seasonPlan, seasonRun } from "./season";
import { seasonQuestion } from "./season-question";
import { sheetOf } from "./sheet";
import { tonightView } from "./tonight";
import { nightAt } from "./night-at";

const planner = plannerHere();
let desk = demoDesk();
const setNow = (iso: string) => desk.setNow(iso);
// Nights worked out once serve all tests; plans under way are of each test.
beforeEach(() => (desk = demoDesk({ season: planner })));

const records = (() => {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  return bundle.value.records;
})();
const record = (kind: RecordKind, id: string, data: unknown) =>
  ({ kind, id, rev: "2", author: "m", seen: {}, data }) as StoredRecord;
const withRecords = (...more: StoredRecord[]) =>
  libraryOfRecords([...records.filter((r) => !more.some((m) => m.kind === r.kind && m.id === r.id)), ...more], desk);

const name = (b: Pick<PlannedBlock, "projectId" | "channel">) => `${b.projectId} ${b.channel}`;
const byStart = (a: PlannedBlock, b: PlannedBlock) => a.startMs - b.startMs || a.projectId.localeCompare(b.projectId);

/** What every screen says of tonight: the plan's first night, the verdict, the sheets, the calendar file, the projects' shares. */
async function told(library: Library) {
  const plan = await seasonPlan(library);
  // Known again when it is asked again: its odds are there, and it is left.
  await seasonRun(library).whole;
  await new Promise((resolve) => setTimeout(resolve, 20));
  const choice = choiceOf(library, new URLSearchParams());
  const place = choice.place!;
  const contexts = ownContextsOf(library);
  const view = await tonightView(library, { plan, previous: null }, { ...choice, place });
  const here = nightAt(library, plan, place, choice.night, contexts);
  const sheets = here.evenings.flatMap(
    (evening) => sheetOf(library, evening, { place, night: choice.night, contexts, within: null }) ?? [],
  );
  const first = eveningsOf(plan, choice.night).flatMap((e) => e.blocks);
  return { plan, night: choice.night, first, view, sheets, contexts };
}

/** Runs of like names, one after the other. */
const runs = (names: readonly string[]) => names.filter((n, i) => n !== names[i - 1]);

async function expectNoContradiction(library: Library) {
  const { plan, night, first, view, sheets, contexts } = await told(library);
  const verdict = view.choice.kind === "go" ? view.choice.blocks : [];
  const plain = (b: PlannedBlock) => [name(b), b.startMs, b.endMs];
  expect(verdict.map(plain)).toEqual([...first].sort(byStart).map(plain));
  for (const { evening, sheet } of sheets) {
    const lines = sheet.lines.flatMap((l) => (l.kind === "block" ? [l] : []));
    // A stretch may be too short for a sub after its focus; what is there is in the plan's order and within its stretches.
    expect(runs(evening.blocks.map(name)).join(" | ")).toContain(runs(lines.map(name)).join(" | "));
    for (const l of lines)
      expect(evening.blocks.some((b) => name(b) === name(l) && b.startMs <= l.startMs && l.endMs <= b.endMs + 60_000)).toBe(true); // prettier-ignore
    const file = runSheetToCalendar(sheet, { titleOf: (id) => id, place: "x", uidBase: "u", stampMs: 0 });
    const events = new ICAL.Component(ICAL.parse(file) as unknown[]).getAllSubcomponents("vevent");
    const minute = (ms: number) => Math.floor(ms / 60_000);
    expect(events.map((e) => minute(new ICAL.Event(e).startDate.toUnixTime() * 1000))).toEqual(lines.map((l) => minute(l.startMs))); // prettier-ignore
  }
  for (const c of contexts) {
    const mine = shareOf(plan, c.id)
      .nights.filter((n) => n.night === night)
      .flatMap((n) => n.blocks);
    expect(mine.map(plain)).toEqual(first.filter((b) => b.projectId === c.id).map(plain));
  }
  return first;
}

describe("one plan", () => {
  it("is what Tonight, the sheets, the calendar file and the projects' shares say of tonight (the demo group)", async () => {
    const first = await expectNoContradiction(demoLibrary(desk));
    expect(first.length).toBeGreaterThan(1);
  });

  it("stays one through twelve months of the demo group: never a contradiction between screens", async () => {
    const said: string[] = [];
    for (let month = 0; month < 12; month++) {
      const day = addNights(nightDate("2026-12-05"), month * 30);
      setNow(`${day}T16:40:00Z`);
      said.push(String((await expectNoContradiction(demoLibrary(desk))).length));
    }
    expect(new Set(said).size).toBeGreaterThan(1); // nights with work and nights without were among them
  });

  it("is one for a mosaic of twelve panels, and has its even chance among its own nights", async () => {
    const [frame] = records.filter((r) => r.id === "frame-loop");
    const library = withRecords(record("frame", "frame-loop", { ...(frame!.data as object), columns: 3, rows: 4 }));
    const first = await expectNoContradiction(library);
    expect(first.some((b) => b.projectId === "project-loop")).toBe(true);
    const { plan, contexts } = await told(library);
    expect(contexts.find((c) => c.id === "project-loop")!.panels.length).toBe(12);
    // The odds come after the plan that screens go by.
    const whole = plannedSeason(seasonQuestion(library)).plan;
    for (const { projectId, tenth, half } of whole.odds!) {
      const nights = shareOf(whole, projectId).nights.map((n) => n.night);
      for (const date of [tenth, half]) {
        if (date === null) continue;
        expect(date >= nights[0]!).toBe(true);
        expect(date <= nights.at(-1)!).toBe(true);
      }
    }
    expect(plan.from).toBe(whole.from);
  });

  it("keeps what is locked, and moves the rest", async () => {
    const { plan } = await told(demoLibrary(desk));
    const night = addNights(plan.from, 3);
    const before = eveningsOf(plan, night).flatMap((e) => e.blocks.map((b) => b.projectId));
    expect(before.length).toBeGreaterThan(0);
    const free = withRecords(record("lock", "l1", { memberId: "member-ines", night, does: "forbid" }));
    const after = await told(free);
    expect(eveningsOf(after.plan, night).flatMap((e) => e.blocks)).toEqual([]);
    expect(eveningsOf(after.plan, night).every((e) => e.closed === "forbidden")).toBe(true);
    // Somebody else's lock is none of mine.
    const others = withRecords(record("lock", "l1", { memberId: "member-wren", night, does: "forbid" }));
    expect(eveningsOf((await told(others)).plan, night).flatMap((e) => e.blocks).length).toBeGreaterThan(0);
  });

  it("is the same when a night is freed and used again, and when a stretch that it has is kept by hand", async () => {
    const { plan } = await told(demoLibrary(desk));
    const bare = (p: typeof plan) => p.evenings.map(({ isFixed: _, ...e }) => e);
    const [first] = eveningsOf(plan, plan.from).flatMap((e) => e.blocks);
    const stretch = { projectId: first!.projectId, channel: first!.channel };
    const kept = await told(withRecords(record("lock", "l1", { memberId: "member-ines", night: plan.from, does: "fix", ...stretch }))); // prettier-ignore
    expect(bare(kept.plan)).toEqual(bare(plan));
    expect(eveningsOf(kept.plan, plan.from).some((e) => e.isFixed)).toBe(true);
    expect((await told(demoLibrary(desk))).plan.evenings).toEqual(plan.evenings);
    const night = addNights(plan.from, 3);
    const freed = await told(withRecords(record("lock", "l2", { memberId: "member-ines", night, does: "forbid" })));
    expect(freed.plan.evenings).not.toEqual(plan.evenings);
    expect((await told(demoLibrary(desk))).plan.evenings).toEqual(plan.evenings);
  });

  it("plans anew from the look on once somebody has looked up", async () => {
    setNow("2026-12-05T22:10:00Z");
    const atMs = Date.parse("2026-12-05T22:05:00Z");
    const library = withRecords(
      record("look", "k1", { placeId: "place-garden", memberId: "member-ines", atMs, isClear: true }),
    );
    const first = await expectNoContradiction(library);
    expect(first.length).toBeGreaterThan(0);
    for (const b of first) expect(b.startMs).toBeGreaterThanOrEqual(atMs);
  });

  it("moves what hung on a night that was clouded out, once it is logged", () => {
    const question = seasonQuestion(demoLibrary(desk));
    const { plan } = plannedSeason(question);
    setNow("2026-12-06T16:40:00Z");
    const next = plannedSeason(seasonQuestion(demoLibrary(desk)), { before: plan }).plan;
    expect(next.from).toBe(addNights(plan.from, 1));
    const need = (p: typeof plan) => p.jobs.reduce((s, j) => s + j.needMin, 0);
    expect(need(next)).toBeCloseTo(need(plan), 6); // nothing was kept, so all of it is still wanted
    expect(next.gap).toBeLessThan(0.01);
  });

  it("goes on for whoever follows it when a newer question overtakes it: their listener hears the newer plan, whole", async () => {
    const overtaken: (() => void)[] = [];
    let isFirst = true;
    const d = demoDesk({
      season: {
        ...planner,
        // As the worker does: what is under way when a newer question comes answers with nothing.
        plan(question, from, onPlan) {
          if (!isFirst) return planner.plan(question, from, onPlan);
          isFirst = false;
          return new Promise((resolve) => overtaken.push(() => resolve(null)));
        },
      },
    });
    const first = seasonRun(demoLibrary(d));
    const heard: string[] = [];
    first.listen((plan) => heard.push(plan.stage));
    while (overtaken.length === 0) await new Promise((r) => setTimeout(r, 1));
    const free = record("lock", "l9", { memberId: "member-ines", night: nightDate("2026-12-08"), does: "forbid" });
    const second = seasonRun(libraryOfRecords([...records, free], d));
    expect(second).not.toBe(first);
    const plan = await second.whole;
    overtaken[0]!();
    expect(await first.whole).toBe(plan);
    expect(first.latest()).toBe(plan);
    expect(heard.at(-1)).toBe("whole");
  });
});
