import { beforeAll, describe, expect, it } from "vitest";
import { decodeBundle } from "~/core/formats";
import demo from "~/data/demo.json";
import { demoDesk } from "~/desk/demo-library.test-data";
import { budgetRows, goalAsTyped, nightHoursOf, totalsOf, type BudgetMaterial } from "./budget-rows";
import { loadBudget } from "./load";
import { readTyped, typedOf, type BudgetDraft } from "./typed-budget";

const bundle = decodeBundle(JSON.stringify(demo));
if (!bundle.ok) throw new Error(bundle.error.code);
const { records } = bundle.value;

let m: BudgetMaterial;
let typed: readonly BudgetDraft[];
const rowsOf = (change: Partial<BudgetDraft> = {}) =>
  budgetRows([{ ...typed[0]!, ...change }, ...typed.slice(1)], m.goal.data.protectedMag, m);

describe("a budget as typed (the demo's mosaic of six panels: 2 h of Ha, 2.5 h of OIII each)", () => {
  beforeAll(async () => {
    const desk = demoDesk({ supplies: { sample: () => Promise.resolve(records) } });
    m = await loadBudget(desk, new Request("http://localhost/?night=2026-12-05"), "project-loop");
    typed = typedOf(m.goal.rev, m.goal.data).rows;
  });

  it("is the goal again where nothing was changed, and comes back from a draft as it was", () => {
    expect(goalAsTyped(m.goal.data, rowsOf(), m.goal.data.protectedMag)).toEqual(m.goal.data);
    const whole = typedOf(m.goal.rev, m.goal.data);
    expect(readTyped(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
    expect(readTyped({ ...whole, rows: [{ ...typed[0], channel: "X-ray" }] })).toBeNull();
    // Drafts of before panels could have hours of their own.
    const { own: _, ...older } = typed[0]!;
    expect(readTyped({ ...whole, rows: [older] })?.rows[0]?.own).toBe("");
  });

  it("comes to the sum over its panels, by hand: 6 × 2 h and 6 × 2.5 h, 12 subs an hour", () => {
    const { hours, subs, clockHours } = totalsOf(rowsOf());
    expect(hours).toBeCloseTo(27, 9);
    expect(subs).toBeCloseTo(27 * 12, 9);
    expect(clockHours).toBeGreaterThan(hours);
    // Two panels have hours of their own: 4 × 2 + 4 + 1, and OIII as before.
    expect(totalsOf(rowsOf({ own: "P3 4, P5 1" })).hours).toBeCloseTo(13 + 15, 9);
  });

  it("says which box does not read, counts the others, and is no goal until it does", () => {
    for (const [change, box] of [
      [{ hours: "soon" }, "hours"],
      [{ hours: "-1" }, "hours"],
      [{ sub: "0" }, "sub"],
      [{ own: "P9 4" }, "own"],
    ] as const) {
      const rows = rowsOf(change);
      expect(rows[0]!.faults[box]).toBeTruthy();
      expect([rows[0]!.goal, rows[0]!.clockHours]).toEqual([null, null]);
      expect(totalsOf(rows).hours).toBeCloseTo(15, 9);
      expect(goalAsTyped(m.goal.data, rows, null)).toBeNull();
    }
  });

  it("keeps a channel that the rig has no filter for, and says nothing of its subs", () => {
    const rows = rowsOf({ channel: "SII", filterId: "gone" });
    expect([rows[0]!.question, rows[0]!.advice, rows[0]!.clockHours]).toEqual([null, null, null]);
    expect(goalAsTyped(m.goal.data, rows, null)?.channels[0]?.channel).toBe("SII");
  });

  it("shares what a night brings among the panels, and longer subs waste less of it", () => {
    const short = nightHoursOf({ channel: "OIII", subSec: 30 }, m);
    const long = nightHoursOf({ channel: "OIII", subSec: 300 }, m);
    expect(short).toBeGreaterThan(0);
    expect(long).toBeGreaterThan(short);
    expect(nightHoursOf({ channel: "OIII", subSec: 300 }, { ...m, panels: 1 })).toBeCloseTo(6 * long, 9);
  });
});
