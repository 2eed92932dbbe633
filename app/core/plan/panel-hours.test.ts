import { describe, expect, it } from "vitest";
import { remainingWork } from "./project";
import { hoursOfAll, panelHoursText, readPanelHours } from "./panel-hours";

const panels = ["P1", "P2", "P3"];

describe("hours of single panels", () => {
  it("are read as people write them, and come back as text", () => {
    const read = readPanelHours("P3 40, 1: 2.5 h; p2=0", panels);
    expect(read).toEqual({ ok: true, value: { P3: 40, P1: 2.5, P2: 0 } });
    expect(read.ok && readPanelHours(panelHoursText(read.value), panels)).toEqual(read);
    expect(readPanelHours("  ", panels)).toEqual({ ok: true, value: {} });
  });
  it("name the part that is wrong", () => {
    expect(readPanelHours("P1 3, P7 4", panels)).toEqual({ ok: false, error: { code: "noSuchPanel", part: "P7 4" } });
    expect(readPanelHours("P1 three", panels)).toEqual({ ok: false, error: { code: "noHours", part: "P1 three" } });
    expect(readPanelHours("P1 10000", panels)).toEqual({ ok: false, error: { code: "noHours", part: "P1 10000" } });
  });
  it("make uneven goals: 30 h and 40 h (the issue's own figures)", () => {
    const goal = { channel: "L" as const, filterId: "f", hoursPerPanel: 30, subSec: 120, byPanel: { P2: 40 } };
    expect(hoursOfAll(goal, panels)).toBe(100);
    const work = remainingWork([goal], [{ number: 1 }, { number: 2 }, { number: 3 }], () => 600);
    expect(work.map((n) => [n.panel, n.goalMin, n.remainingMin])).toEqual([
      ["P1", 1800, 1200],
      ["P2", 2400, 1800],
      ["P3", 1800, 1200],
    ]);
  });
});
