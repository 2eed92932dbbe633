import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { nightDate } from "~/core/time";
import { testPlace } from "../test-data";
import { layEvenings } from "~/core/plan";
import { testQuestion } from "~/core/plan/plan.test-data";
import type { Need } from "~/core/plan";
import { columnOf } from "./columns";
import { plannedSeason } from "./plan";
import type { Programme, SeasonTask } from "./model";
import type { NightStock, SeasonQuestion } from "./question";
import { shortFirst, withShort } from "./short-first";
import { nightTable } from "./table";

const from = nightDate("2026-11-02");
const stock: NightStock = new Map();
const need = (channel: Need["channel"], remainingMin: number, subSec: number): Need => ({ panel: "P1", channel, goalMin: 900, remainingMin, subSec }); // prettier-ignore
const at = { frame: "icrs", raDeg: 70, decDeg: 46 } as const;
const needs = [need("Ha", 400, 300), need("Ha", 30, 10)];

/** A picture in Ha with half an hour of short subs, and what lays its evenings out. */
function ask(counts: "kept" | "light"): SeasonQuestion {
  const bare = testQuestion([{ id: "p", target: at, needs, counts }], { places: { home: testPlace }, from, nights: 6 });
  const [p] = bare.projects;
  const wants = p!.wants.map((w) => (w.subSec === 10 ? { ...w, isShort: true } : w));
  const shot = { panels: [{ number: 1, centre: at }], needs, own: {}, school: "panelAfterPanel" } as const;
  return { ...bare, projects: [{ ...p!, wants, shot }] };
}

describe("a short set", () => {
  it("comes first in its night, in the plan and by the clock, however hours count", () => {
    for (const counts of ["kept", "light"] as const) {
      const question = ask(counts);
      const { plan } = plannedSeason(question, { stock, lay: layEvenings(question, stock) });
      // On the first night that is shot; on later ones again, in case the first is clouded out.
      const nights = plan.evenings.filter((e) => e.blocks.length > 0);
      expect(nights.length).toBeGreaterThan(1);
      expect(nights[0]!.blocks.map((b) => b.subSec)).toEqual([10, 300]);
      for (const { blocks } of nights) {
        const short = blocks.flatMap((b, i) => (b.subSec === 10 ? [{ ...b, i }] : []));
        if (short.length === 0) continue;
        // All of it at once, and each minute kept counts as one.
        expect(short.map((b) => b.i)).toEqual([0]);
        expect(short[0]!.exposureMin).toBeCloseTo(30, 6);
        expect(short[0]!.countsMin).toBeCloseTo(30, 6);
      }
    }
  });

  it("begins the nights of its picture until it is had, though the plan that was seen had no room for it", () => {
    const question = ask("kept");
    const [p] = question.projects;
    const before = { ...question, projects: [{ ...p!, wants: p!.wants.filter((w) => !w.isShort) }] };
    const { plan: seen } = plannedSeason(before, { stock, lay: layEvenings(before, stock) });
    const { plan } = plannedSeason(question, { stock, seen, before: seen, lay: layEvenings(question, stock) });
    const nights = plan.evenings.filter((e) => e.blocks.length > 0);
    expect(nights[0]!.blocks.map((b) => b.subSec)).toEqual([10, 300]);
    // Half an hour at four chances in ten: two nights and a half.
    expect(nights.slice(0, 2).every((e) => e.blocks[0]!.subSec === 10)).toBe(true);
  });

  it("law: moving it up keeps all rules and costs little, and where any slot is as good as the others it is first", () => {
    const jobs = fc.array(fc.record({ project: fc.integer({ min: 0, max: 1 }), isAhead: fc.boolean() }), { minLength: 2, maxLength: 4 }); // prettier-ignore
    const slots = (worth: fc.Arbitrary<number>, n: number) =>
      fc.array(fc.array(worth, { minLength: n, maxLength: n }), { minLength: 12, maxLength: 12 });
    const night = jobs.chain((of) =>
      fc.record({
        of: fc.constant(of),
        worth: fc.oneof(slots(fc.constant(15), of.length), slots(fc.constantFrom(0, 3, 9, 15, 15, 15), of.length)), // prettier-ignore
        cuts: fc.array(fc.tuple(fc.nat(of.length - 1), fc.nat(2), fc.integer({ min: 1, max: 4 })), { minLength: 2, maxLength: 4 }), // prettier-ignore
      }),
    );
    fc.assert(
      fc.property(night, ({ of, worth, cuts }) => {
        const task: SeasonTask = {
          slotMin: 15,
          targetsANight: 4,
          minSlots: 1,
          lostMin: { start: 2, target: 2, filter: 1 },
          tick: 0.5,
          jobs: of.map((j) => ({ ...j, reward: { widths: [1e9], slopes: [1] } })),
          lanes: [{ chance: 1, worth }],
        };
        const table = nightTable(task, task.lanes[0]!);
        let end = 0;
        const blocks: Programme = cuts.map(([job, gap, length]) => {
          const start = end + gap;
          end = start + length;
          return [job, start, end];
        });
        const column = columnOf(task, table, blocks);
        fc.pre(column !== null);
        const ordered = shortFirst(task, table, column);
        expect(columnOf(task, table, ordered.blocks)).toEqual(ordered); // it keeps the rules, and brings what it says
        column.jobs.forEach((job, i) =>
          expect(ordered.yields[ordered.jobs.indexOf(job)]).toBeGreaterThanOrEqual(
            0.8 ** cuts.length * column.yields[i]!,
          ),
        );
        // Begun with what is still wanted it keeps the rules too, as long in all, and takes no other short set's place.
        const begun = withShort(task, table, column, () => true);
        expect(columnOf(task, table, begun.blocks)).toEqual(begun);
        const length = (some: Programme, is: (job: number) => boolean) =>
          some.reduce((sum, [job, s, e]) => sum + (is(job) ? e - s : 0), 0);
        expect(length(begun.blocks, () => true)).toBe(length(column.blocks, () => true));
        for (const job of column.jobs.filter((k) => of[k]!.isAhead))
          expect(length(begun.blocks, (k) => k === job)).toBe(length(column.blocks, (k) => k === job));
        // Where every slot is as good as the others, it always comes first.
        if (worth.every((slot) => slot.every((w) => w === 15)))
          of.forEach(({ project }) => {
            const mine = ordered.blocks.filter(([job]) => of[job]!.project === project).map(([job]) => of[job]!.isAhead); // prettier-ignore
            expect(mine).toEqual([...mine].sort((a, b) => Number(b) - Number(a)));
          });
      }),
    );
  });
});
