import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Block, RunSheet, SheetEvent } from "~/core/night";
import { addMs, HOUR_MS, MINUTE_MS, nightDate, utcMs, type UtcMs } from "~/core/time";
import {
  airNow,
  cloudChoices,
  dueNow,
  focusSlope,
  inOrder,
  liveState,
  toldSubs,
  type DueFacts,
  type Happening,
  type NightEvent,
} from ".";

const T0 = utcMs(Date.UTC(2026, 11, 5, 17, 0));
const at = (min: number): UtcMs => addMs(T0, min * MINUTE_MS);
const event = (kind: SheetEvent["kind"], from: number, to: number): SheetEvent => ({ kind, startMs: at(from), endMs: at(to), detail: "" }); // prettier-ignore
const block = (from: number, to: number, panel = "P1"): Block => ({
  kind: "block",
  startMs: at(from),
  endMs: at(to),
  projectId: "p",
  panel,
  channel: "Ha",
  filterName: "Ha 5 nm",
  subs: (to - from) / 5,
  subSec: 300,
  stage: 0,
});
/** Set up, align, focus, two hours with a flip between. */
const sheet: Pick<RunSheet, "lines"> = {
  lines: [event("setUp", 0, 15), event("align", 15, 25), event("focus", 25, 30), block(30, 90), event("flip", 90, 95), block(95, 155, "P2"), event("packUp", 155, 170)], // prettier-ignore
};
const [first, second] = [sheet.lines[3] as Block, sheet.lines[5] as Block];
let count = 0;
const press = (min: number, is: Happening): NightEvent => ({ id: `e${count++}`, memberId: "me", night: nightDate("2026-12-05"), rigId: "r", atMs: at(min), is }); // prettier-ignore
const done = (min: number, of: Block, kept: number, lost = 0): NightEvent =>
  press(min, { what: "done", of, kept, lost, reason: lost > 0 ? "cloud" : "" });

describe("a night as it goes", () => {
  it("goes as its sheet has it while nobody says otherwise: what is on, how much of it is through, what is next", () => {
    expect(liveState(sheet, [], at(-5)).phase).toBe("before");
    const state = liveState(sheet, [], at(52));
    expect(state.phase).toBe("on");
    expect(state.now?.line).toBe(first);
    expect(state.subsThrough).toBe(4); // 22 min of subs of 5
    expect(state.next?.line.kind).toBe("flip");
    expect(state.behindMin).toBe(0);
    expect(state.focused).toEqual({ atMs: at(30), airC: null, isSaid: false });
    expect(liveState(sheet, [], at(171)).phase).toBe("over");
  });

  it("gives up what was to come when all is packed up, and has only what went by to ask about", () => {
    const { phase, lines } = liveState(sheet, [press(60, { what: "packedUp" })], at(300));
    expect(phase).toBe("over");
    expect(lines.map((l) => l.state)).toEqual(["gone", "gone", "gone", "gone", "givenUp", "givenUp", "givenUp"]);
  });

  it("goes on where its sheet is when somebody begins again after packing up", () => {
    const again = [press(20, { what: "begun" }), press(60, { what: "packedUp" }), press(100, { what: "begun" })];
    const state = liveState(sheet, again, at(120));
    expect([state.phase, state.now?.line]).toEqual(["on", second]);
    expect(liveState(sheet, [...again, press(130, { what: "packedUp" })], at(131)).phase).toBe("over");
  });

  it("is moved by how far it is behind when somebody last said so", () => {
    const late = [press(20, { what: "begun" })];
    expect(liveState(sheet, late, at(60)).behindMin).toBe(20);
    expect(liveState(sheet, late, at(60)).now?.startMs).toBe(at(50));
    const after = [...late, done(104, first, 11, 1)];
    const state = liveState(sheet, after, at(106));
    expect(state.behindMin).toBe(14);
    expect(state.now?.line.kind).toBe("flip");
    expect(state.lines[3]).toMatchObject({ state: "done", said: { kept: 11, lost: 1 } });
    expect(state.next?.startMs).toBe(at(109));
    // Ahead of its sheet, too.
    expect(liveState(sheet, [done(80, first, 12)], at(81)).behindMin).toBe(-10);
  });

  it("takes up what it is behind where the sheet waits for the sky, and brings nothing forward past such a wait", () => {
    const idle: Pick<RunSheet, "lines"> = { lines: [event("setUp", 0, 15), event("align", 60, 70), block(70, 100), event("wait", 100, 130), block(130, 160, "P2")] }; // prettier-ignore
    const late = (min: number) => liveState(idle, [press(min, { what: "begun" })], at(min));
    expect(late(40).lines.map((l) => l.startMs)).toEqual([40, 60, 70, 100, 130].map(at));
    expect(late(40).next).toMatchObject({ startMs: at(60) });
    // Set up from 55 to 70: ten minutes behind until the wait, which has thirty to spare.
    expect(late(55).lines.map((l) => l.startMs)).toEqual([55, 70, 80, 110, 130].map(at));
    const early = liveState(idle, [done(90, idle.lines[2] as Block, 6)], at(91));
    expect(early.now?.line.kind).toBe("wait");
    expect(early.now?.endMs).toBe(at(130));
    expect(early.next?.startMs).toBe(at(130));
  });

  it("never has two lines of one sheet at once, nor one shorter or longer than the sheet has it, but for waits (law)", () => {
    const length = fc.integer({ min: 1, max: 60 });
    const line = fc.record({ gap: fc.constantFrom(0, 0, 0, 20, 90), length, isWait: fc.boolean() });
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), fc.integer({ min: 0, max: 300 }), (drawn, min) => {
        let end = 0;
        const lines = drawn.map(({ gap, length, isWait }) => {
          const from = end + gap;
          end = from + length;
          return event(isWait ? "wait" : "focus", from, end);
        });
        const { lines: live } = liveState({ lines }, [press(min, { what: "begun" })], at(min));
        for (const [i, { startMs, endMs, line }] of live.entries()) {
          expect(startMs).toBeGreaterThanOrEqual(line.startMs);
          if (i > 0) expect(startMs).toBeGreaterThanOrEqual(live[i - 1]!.endMs);
          if (line.kind !== "wait") expect(endMs - startMs).toBe(line.endMs - line.startMs);
          // No later than if nothing had been taken up.
          expect(startMs).toBeLessThanOrEqual(line.startMs + Math.max(0, at(min) - lines[0]!.startMs));
        }
      }),
    );
  });

  it("follows a flip and a focus where they were due, and another block where somebody went to it", () => {
    expect(liveState(sheet, [press(98, { what: "flipped" })], at(99)).now?.line).toBe(second);
    expect(liveState(sheet, [press(98, { what: "flipped" })], at(99)).behindMin).toBe(3);
    expect(liveState(sheet, [press(60, { what: "focused", airC: 4, steps: null })], at(61)).behindMin).toBe(0);
    const { projectId, panel, channel, subSec, startMs } = second;
    const gone = liveState(
      sheet,
      [press(40, { what: "swapped", to: { projectId, panel, channel, subSec, startMs } })],
      at(41),
    );
    expect(gone.now?.line).toBe(second);
    expect(gone.lines[3]?.state).toBe("gone");
  });

  it("stands still under a closed sky, and is over when everything is packed", () => {
    const closed = [press(40, { what: "cloud", isClear: false }), press(45, { what: "cloud", isClear: false })];
    expect(liveState(sheet, closed, at(50))).toMatchObject({
      phase: "cloud",
      cloudSinceMs: at(40),
      now: null,
      decided: null,
    });
    const waits = press(45, { what: "decided", choice: "wait", untilMs: at(60) });
    expect(liveState(sheet, [waits, ...closed], at(50)).decided).toEqual({ choice: "wait", untilMs: at(60) });
    expect(
      liveState(sheet, [waits, ...closed, press(55, { what: "cloud", isClear: true })], at(56)).decided,
    ).toBeNull();
    expect(liveState(sheet, [...closed, press(50, { what: "cloud", isClear: true })], at(51)).phase).toBe("on");
    expect(liveState(sheet, [press(60, { what: "packedUp" })], at(61))).toMatchObject({ phase: "over", now: null });
  });

  it("leaves to a sheet laid out anew what was said before", () => {
    expect(liveState(sheet, [press(20, { what: "begun" })], at(60), at(21)).behindMin).toBe(0);
  });

  const happening: fc.Arbitrary<Happening> = fc.oneof(
    fc.constantFrom<Happening>({ what: "begun" }, { what: "flipped" }, { what: "dithered" }, { what: "packedUp" }),
    fc.record({ what: fc.constant("done" as const), of: fc.constantFrom(first, second), kept: fc.nat(12), lost: fc.nat(12), reason: fc.constantFrom("cloud" as const, "" as const) }),
    fc.record({ what: fc.constant("cloud" as const), isClear: fc.boolean() }),
    fc.record({ what: fc.constant("focused" as const), airC: fc.option(fc.integer({ min: -20, max: 20 })), steps: fc.constant(null) }),
    fc.record({ what: fc.constant("swapped" as const), to: fc.constantFrom(first, second) }),
  ); // prettier-ignore
  const night = fc
    .array(fc.record({ min: fc.integer({ min: -10, max: 200 }), is: happening }), { maxLength: 30 })
    .map((all): NightEvent[] => all.map(({ min, is }, i) => ({ ...press(min, is), id: `n${i}` })));
  const facts: DueFacts = { focusEveryMs: HOUR_MS, focusPerC: 2, ditherEvery: 4, airC: 3, dewPointC: 2, rainMs: at(150), batteryMs: at(100), sunriseMs: at(200) }; // prettier-ignore

  it("is the same whatever the order in which its presses came, and however often (law)", () => {
    fc.assert(
      fc.property(night, fc.integer({ min: -20, max: 220 }), fc.func(fc.nat()), (events, min, by) => {
        const shuffled = [...events, ...events.slice(0, 5)].sort((a, b) => by(a.id) - by(b.id));
        const [one, other] = [liveState(sheet, events, at(min)), liveState(sheet, shuffled, at(min))];
        expect(other).toEqual(one);
        expect(dueNow(other, shuffled, facts, at(min))).toEqual(dueNow(one, events, facts, at(min)));
        expect(toldSubs(shuffled)).toEqual(toldSubs(events));
      }),
    );
  });

  it("never has two things on, none done that nobody said, and no sub more than there is (law)", () => {
    fc.assert(
      fc.property(night, fc.integer({ min: -20, max: 220 }), (events, min) => {
        const state = liveState(sheet, events, at(min));
        expect(state.lines.filter((l) => l.state === "on").length).toBeLessThanOrEqual(1);
        const said = inOrder(events).filter((e) => e.is.what === "done").length;
        expect(state.lines.filter((l) => l.state === "done").length).toBeLessThanOrEqual(said);
        if (state.now?.line.kind === "block") expect(state.subsThrough).toBeLessThanOrEqual(state.now.line.subs);
        expect(state.lines.map((l) => l.line)).toEqual(sheet.lines);
      }),
    );
  });

  it("tells its log when it is played again: the last word of every block, kept and lost (law)", () => {
    fc.assert(
      fc.property(night, (events) => {
        const last = new Map<Block, { kept: number; lost: number }>();
        for (const { is } of inOrder(events)) if (is.what === "done") last.set(is.of as Block, is);
        const told = toldSubs(events);
        const sumOf = (list: readonly { taken: number; kept: number }[]) => ({
          taken: list.reduce((n, x) => n + x.taken, 0),
          kept: list.reduce((n, x) => n + x.kept, 0),
        });
        expect(sumOf(told)).toEqual(sumOf([...last.values()].map(({ kept, lost }) => ({ taken: kept + lost, kept }))));
        for (const t of told) expect(t.taken).toBeGreaterThan(0);
      }),
    );
  });
});

describe("the air at the telescope", () => {
  const typed = (min: number, airC: number | null) => press(min, { what: "focused", airC, steps: null });
  // A forecast that falls from 6 °C by 2 °C an hour.
  const falling = (ms: UtcMs) => 6 - (2 * (ms - T0)) / HOUR_MS;

  it("is the forecast's, moved by what was typed last: a garden 3 °C below it stays so", () => {
    expect(airNow([], falling, at(60))).toBe(4);
    expect(airNow([typed(0, 3)], falling, at(120))).toBe(-1);
    expect(airNow([typed(0, 3), typed(60, 2), typed(90, null)], falling, at(120))).toBe(0);
    expect(airNow([typed(180, -9)], falling, at(120))).toBe(2); // by a clock that was put right since
  });

  it("is what was typed, for an hour, where no forecast says; and so a focus is due by the true change of air", () => {
    expect(airNow([typed(0, 3)], () => null, at(59))).toBe(3);
    expect(airNow([typed(0, 3)], () => null, at(61))).toBeNull();
    const focused = [typed(31, 1)]; // the forecast said about 5 then
    const due = (min: number) =>
      dueNow(liveState(sheet, focused, at(min)), focused, { focusEveryMs: 9 * HOUR_MS, focusPerC: 1.5, ditherEvery: null, airC: airNow(focused, falling, at(min)), dewPointC: null, rainMs: null, batteryMs: null, sunriseMs: null }, at(min)).map((d) => d.what); // prettier-ignore
    expect(due(60)).toEqual([]); // 1 °C colder, though the forecast stands 3 °C over what was typed
    expect(due(80)).toContain("focusByAir");
  });
});

describe("a focuser and the air", () => {
  const focus = (min: number, airC: number | null, steps: number | null, night = "2026-12-05"): NightEvent => ({ ...press(min, { what: "focused", airC, steps }), night: nightDate(night) }); // prettier-ignore

  it("gives the steps for a degree that a straight line has, whatever each night began with (law)", () => {
    const focuses = fc.array(fc.record({ min: fc.integer({ min: 0, max: 600 }), tenths: fc.integer({ min: -200, max: 200 }), night: fc.constantFrom(5, 6, 7) }), { minLength: 2, maxLength: 30 }); // prettier-ignore
    fc.assert(
      fc.property(fc.integer({ min: -60, max: 60 }), focuses, (perTenth, list) => {
        const events = list.map(({ min, tenths, night }) => focus(min, tenths / 10, 20_000 + 1_000 * night + perTenth * tenths, `2026-12-0${night}`)); // prettier-ignore
        const slope = focusSlope(events);
        if (slope) expect(slope.stepsPerC).toBeCloseTo(10 * perTenth, 6);
        if (slope) expect([slope.moves >= 3, slope.overC >= 3]).toEqual([true, true]);
      }),
    );
  });

  it("says nothing from few moves, from air that hardly changed, or where one of the two was not written down", () => {
    const three = [focus(0, 6, 5_000), focus(60, 4, 5_030), focus(120, 3, 5_045), focus(180, 1, 5_075)];
    expect(focusSlope(three)?.stepsPerC).toBeCloseTo(-15, 6);
    expect(focusSlope(three.slice(0, 3))).toBeNull();
    expect(focusSlope(three.map((e, i) => focus(i, 6 - i / 4, 5_000)))).toBeNull();
    expect(focusSlope([focus(0, 6, null), focus(1, 2, 5_000), focus(2, null, 5_100), focus(3, -4, null)])).toBeNull();
    // Nights are not compared with each other: a wheel was taken off between.
    expect(focusSlope(three.map((e, i) => ({ ...e, night: nightDate(`2026-12-0${i + 1}`) })))).toBeNull();
  });
});

describe("what is due", () => {
  const facts: DueFacts = { focusEveryMs: HOUR_MS, focusPerC: 1.5, ditherEvery: null, airC: null, dewPointC: null, rainMs: null, batteryMs: null, sunriseMs: null }; // prettier-ignore
  const due = (events: readonly NightEvent[], min: number, more: Partial<DueFacts> = {}) =>
    dueNow(liveState(sheet, events, at(min)), events, { ...facts, ...more }, at(min)).map((d) => d.what);

  it("is the flip from a quarter of an hour before, until it is said to be done", () => {
    expect(due([], 70)).toEqual([]);
    expect(due([], 80)).toEqual(["flip"]);
    expect(due([press(91, { what: "flipped" })], 92)).not.toContain("flip");
  });
  it("is focus by time and by degrees of air since the last one, in the air that was said", () => {
    expect(due([], 89)).not.toContain("focusByTime");
    expect(due([press(30, { what: "focused", airC: 5, steps: 4000 })], 92)).toContain("focusByTime");
    const warm = [press(31, { what: "focused", airC: 5, steps: 4000 })];
    expect(due(warm, 60, { airC: 3.6 })).toEqual([]);
    const [first] = dueNow(liveState(sheet, warm, at(60)), warm, { ...facts, airC: 3 }, at(60));
    expect(first).toMatchObject({ what: "focusByAir", byC: -2, isOverdue: true });
  });
  it("is a dither by hand after so many subs where nothing guides, until it was pressed", () => {
    const by = { ditherEvery: 4 };
    expect(due([], 49, by)).toEqual([]); // 3 subs through
    expect(due([], 50, by)).toEqual(["dither"]);
    expect(due([], 50)).toEqual([]);
    const moved = press(51, { what: "dithered" });
    expect(due([moved], 69, by)).toEqual([]);
    expect(due([moved], 71, by)).toEqual(["dither"]); // from its 4th to its 8th
    expect(due([press(20, { what: "dithered" })], 50, by)).toEqual(["dither"]); // before the block began
    expect(due([press(52, { what: "cloud", isClear: false })], 60, by)).toEqual([]);
  });

  it("is rain, dew, the battery and the dawn, each in time; nothing before the night and after it", () => {
    const all = { rainMs: at(100), batteryMs: at(100), sunriseMs: at(110), airC: 3, dewPointC: 2 };
    expect(due([], 85, all)).toEqual(expect.arrayContaining(["rain", "battery", "dawn", "dew", "flip"]));
    expect(due([], -20, all)).toEqual([]);
    expect(due([press(60, { what: "packedUp" })], 85, all)).toEqual([]);
    expect(due([], 85, { batteryMs: at(400) })).toEqual(["flip"]); // it lasts
  });
});

describe("a closed sky", () => {
  const hours = (...clear: number[]) =>
    clear.map((c, i) => ({ startMs: addMs(T0, i * HOUR_MS), clear: c, minutes: 50 }));
  const q = { nowMs: T0, darksMin: 0, packUpMin: 20 };
  it("is waited out where the next hours are likely clear, darks meanwhile where some are wanted", () => {
    const [best] = cloudChoices({ ...q, hours: hours(0.1, 0.7, 0.8, 0.8) });
    expect(best).toMatchObject({ does: "wait", untilMs: addMs(T0, HOUR_MS), upMin: 240 });
    expect(best!.keepsMin).toBeCloseTo(50 * 2.3, 9);
    expect(best!.givesUpMin).toBeCloseTo(5, 9);
    expect(cloudChoices({ ...q, darksMin: 40, hours: hours(0.1, 0.7, 0.8, 0.8) })[0]).toMatchObject({
      does: "darks",
      darksMin: 40,
    });
  });
  it("is left where nothing more comes, and each way says what it gives up", () => {
    const choices = cloudChoices({ ...q, hours: [] });
    expect(choices.map((c) => c.does)).toEqual(["packUp", "sleep"]);
    const all = cloudChoices({ ...q, hours: hours(0.2, 0.2) });
    expect(all.find((c) => c.does === "packUp")!.givesUpMin).toBeCloseTo(20, 9);
    for (const c of all) expect(c.keepsMin + c.givesUpMin).toBeCloseTo(20, 9);
  });
});
