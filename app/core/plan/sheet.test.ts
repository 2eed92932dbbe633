import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_OVERHEADS } from "~/core/exposure";
import { mosaicPanels, type MosaicLayout, type Panel } from "~/core/framing";
import { bestRate, foldRounds, placeNight, targetNight, USUAL_MOON, type Place, type PlaceNight } from "~/core/night";
import { apparentVector, horizontalAt, sunAltitudeDeg, type Equatorial } from "~/core/sky";
import { nightDate, utcMs, type UtcInterval } from "~/core/time";
import { testPlace } from "../test-data";
import { testQuestion } from "./plan.test-data";
import type { Need } from "./project";
import { eveningsOf, plannedSeason, readCycle } from "~/core/season";
import { laidOut, nightSheet } from "./sheet";

const layout: MosaicLayout = {
  centre: { frame: "icrs", raDeg: 70, decDeg: 46 },
  positionAngleDeg: 0,
  planeWidthArcmin: 168,
  planeHeightArcmin: 112,
  columns: 2,
  rows: 1,
  overlap: 0.15,
};
const panels = mosaicPanels(layout);
const need = (panel: string, channel: Need["channel"], remainingMin: number): Need => ({ panel, channel, goalMin: 600, remainingMin, subSec: 300 }); // prettier-ignore
interface Wanted {
  readonly id: string;
  readonly target: Equatorial<"icrs">;
  readonly needs: readonly Need[];
  readonly counts?: "kept" | "light";
  readonly panels?: readonly Panel[];
}

/** The sheet of what the planner itself has for one rig's projects on a night, and that evening. */
function planned(
  wanted: readonly Wanted[],
  night: PlaceNight,
  more: { readonly within?: UtcInterval; readonly standsBeforeDark?: boolean } = {},
) {
  const { plan } = plannedSeason(testQuestion(wanted, { places: { home: night.place }, from: night.date, nights: 1 }));
  const evening = eveningsOf(plan, night.date)[0] ?? null;
  const at = {
    evening: evening ?? { night: night.date, placeId: "home", rigIds: [], chance: 0.4, usableMin: 0, blocks: [], isFixed: false, closed: null }, // prettier-ignore
    projects: wanted.map((p) => ({
      id: p.id,
      night,
      panels: p.panels ?? mosaicPanels({ ...layout, centre: p.target, columns: 1 }),
      needs: p.needs,
      own: {},
      school: "allPanelsEveryNight" as const,
      filterName: (channel: string) => `${channel} filter`,
    })),
    night,
    overheads: DEFAULT_OVERHEADS,
    flips: true,
    standsBeforeDark: more.standsBeforeDark ?? true,
    within: more.within ?? null,
  };
  const laid = evening && laidOut(at);
  return { sheet: nightSheet(at), evening, laid, again: laid && laidOut({ ...at, evening: laid }) };
}
const sheetOf = (needs: readonly Need[], date = "2026-12-05", place: Place = testPlace) =>
  planned([{ id: "p", target: layout.centre, needs, panels }], placeNight(place, nightDate(date), USUAL_MOON)).sheet;
const blocksOf = (sheet: ReturnType<typeof sheetOf>) => sheet.lines.flatMap((l) => (l.kind === "block" ? [l] : []));

describe("the sheet of a night", () => {
  it("lays both panels into the night, each sub above the lowest altitude and under a dark sky (altitudes by the sky itself)", () => {
    const sheet = sheetOf([need("P1", "OIII", 240), need("P2", "OIII", 240)]);
    const blocks = blocksOf(sheet);
    expect(new Set(blocks.map((b) => b.panel))).toEqual(new Set(["P1", "P2"]));
    const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
    for (const b of blocks) {
      const panel = panels.find((p) => `P${p.number}` === b.panel)!;
      for (const ms of [b.startMs, b.endMs]) {
        const at = horizontalAt(night.sky, apparentVector(night.sky, panel.centre), utcMs(ms));
        expect(at.altitudeDeg).toBeGreaterThan(testPlace.minAltitudeDeg - 0.5); // a step of two minutes
        expect(sunAltitudeDeg(night.sky, utcMs(ms))).toBeLessThan(-12); // half of the light left (MATHS 2.12) // narrow bands begin at −15°
      }
    }
    expect(sheet.exposureMin).toBeGreaterThan(200);
  });

  it("is empty in a night without dark, and when all is done", () => {
    expect(blocksOf(sheetOf([need("P1", "L", 0), need("P2", "L", 0)]))).toEqual([]);
    expect(blocksOf(sheetOf([need("P1", "L", 240)], "2026-06-21", { ...testPlace, latitudeDeg: 62 }))).toEqual([]);
  });

  it("never has two blocks at once nor more exposure than is wanted, whatever is wanted (law)", () => {
    const wish = fc.array(fc.record({ panel: fc.constantFrom("P1", "P2"), channel: fc.constantFrom("Ha" as const, "OIII" as const, "L" as const), remainingMin: fc.integer({ min: 0, max: 400 }) }), { minLength: 1, maxLength: 6 }); // prettier-ignore
    fc.assert(
      fc.property(wish, fc.integer({ min: 1, max: 28 }), (list, day) => {
        const needs = [...new Map(list.map((w) => [`${w.panel} ${w.channel}`, need(w.panel, w.channel, w.remainingMin)])).values()]; // prettier-ignore
        const date = `2026-12-${String(day).padStart(2, "0")}`;
        const sheet = sheetOf(needs, date);
        const night = placeNight(testPlace, nightDate(date), USUAL_MOON);
        const blocks = blocksOf(sheet);
        blocks.forEach((b, i) => {
          expect(b.endMs).toBeGreaterThan(b.startMs);
          if (i > 0) expect(b.startMs).toBeGreaterThanOrEqual(blocks[i - 1]!.endMs);
        });
        for (const n of needs) {
          const mine = blocks.filter((b) => b.panel === n.panel && b.channel === n.channel);
          const minutes = mine.reduce((sum, b) => sum + (b.subs * b.subSec) / 60, 0);
          if (minutes === 0) continue;
          // A minute counts at least as much as the poorest usable one of that night does.
          const { walk } = targetNight(night, panels.find((p) => `P${p.number}` === n.panel)!.centre, n.channel);
          const poorest = Math.min(...walk.worth.filter((w) => w > 0)) / bestRate(testPlace, layout.centre, n.channel);
          expect(minutes * poorest).toBeLessThanOrEqual(n.remainingMin * 1.05 + 5); // the last sub may go over
        }
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 400 : 40 },
    );
  });
});

describe("the meridian", () => {
  /** West of the meridian or east, by the azimuth that the sky itself gives; null within a quarter of a degree of it. */
  function sideOf(night: PlaceNight, at: Equatorial<"icrs">, ms: number): "east" | "west" | null {
    const { azimuthDeg } = horizontalAt(night.sky, apparentVector(night.sky, at), utcMs(ms));
    const fromMeridian = Math.min(azimuthDeg, Math.abs(azimuthDeg - 180), 360 - azimuthDeg);
    return fromMeridian < 0.25 ? null : azimuthDeg < 180 ? "east" : "west";
  }
  const gap = { name: "a tree", shape: "box" as const, azimuthDeg: 180, widthDeg: 30, altitudeDeg: 75 };
  const yard: Place = { ...testPlace, latitudeDeg: 50, longitudeDeg: 10, timeZone: "Europe/Berlin", landmarks: [gap] };
  const sheetAt = (place: Place, target: Equatorial<"icrs">, date: string, minutes = 900) => {
    const night = placeNight(place, nightDate(date), USUAL_MOON);
    const { sheet } = planned([{ id: "p", target, needs: [need("P1", "L", minutes)] }], night);
    return { night, sheet, kinds: sheet.lines.map((l) => l.kind) };
  };

  it("is crossed with a flip when the transit falls into a gap between windows (reported: no flip)", () => {
    const { kinds, sheet } = sheetAt(yard, { frame: "icrs", raDeg: 120, decDeg: 20 }, "2026-01-18");
    const blocks = sheet.lines.filter((l) => l.kind === "block");
    const transit = Date.parse("2026-01-18T23:28:00Z"); // the reported one, local 00:28
    expect(blocks.some((b) => b.endMs < transit) && blocks.some((b) => b.startMs > transit)).toBe(true);
    expect(kinds.filter((k) => k === "flip")).toHaveLength(1);
    expect(kinds[kinds.indexOf("flip") + 1]).toBe("focus"); // the train hangs the other way round
  });

  it("has a flip between subs on different sides and no other, ends on subs and packing up, and focuses after each flip (law, sides by the sky's own azimuth)", () => {
    const target = fc.record({ raDeg: fc.double({ min: 0, max: 359, noNaN: true }), decDeg: fc.double({ min: -15, max: 85, noNaN: true }) }); // prettier-ignore
    const tree = fc.record({ azimuthDeg: fc.integer({ min: 90, max: 270 }), widthDeg: fc.integer({ min: 5, max: 60 }), altitudeDeg: fc.integer({ min: 20, max: 85 }) }); // prettier-ignore
    fc.assert(
      fc.property(target, tree, fc.integer({ min: 1, max: 28 }), (at, t, day) => {
        const icrs: Equatorial<"icrs"> = { frame: "icrs", ...at };
        const place = { ...yard, landmarks: [{ ...gap, ...t }] };
        const { night, sheet, kinds } = sheetAt(place, icrs, `2026-11-${String(day).padStart(2, "0")}`);
        if (kinds.length === 0) return;
        expect(kinds.slice(-2)).toEqual(["block", "packUp"]);
        let side: "east" | "west" | null = null;
        let flips = 0;
        for (const [i, l] of sheet.lines.entries()) {
          if (l.kind === "flip") {
            flips++;
            expect(sheet.lines.slice(i + 1).find((x) => x.kind === "block" || x.kind === "focus")!.kind).toBe("focus");
          }
          if (l.kind !== "block") continue;
          // What begins shortly before its passage is taken from the other side: mounts go on a quarter of an hour past the meridian.
          const isFirst = !sheet.lines.slice(0, i).some((x) => x.kind === "block");
          const from = isFirst ? Math.min(l.startMs + 15 * 60_000 + 1000, l.endMs - 60_000) : l.startMs + 1000;
          const [a, b] = [from, l.endMs - 60_000].map((ms) => sideOf(night, icrs, ms)) as ["east", "west"];
          if (a !== null && b !== null) expect(a).toBe(b);
          const here = a ?? b;
          if (here === null) continue;
          if (side !== null) expect(flips).toBe(here === side ? 0 : 1);
          [side, flips] = [here, 0];
        }
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 60 },
    );
  });

  it("asks for no flip when the panel begins west of it", () => {
    expect(sheetAt(testPlace, { frame: "icrs", raDeg: 330, decDeg: 30 }, "2026-12-05", 120).kinds).not.toContain(
      "flip",
    );
  });
});

describe("the beginning and the end of a night", () => {
  it("stands before sunset and aligns when stars show, or right before the first sub where that is not wanted", () => {
    const at = (standsBeforeDark: boolean) => {
      const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
      const target = { frame: "icrs", raDeg: 10, decDeg: 40 } as const; // up when it gets dark
      const { sheet } = planned([{ id: "p", target, needs: [need("P1", "L", 120)] }], night, { standsBeforeDark });
      const [setUp, align] = sheet.lines;
      const sun = (ms: number) => sunAltitudeDeg(night.sky, utcMs(ms));
      return { setUp: sun(setUp!.endMs), align: sun(align!.startMs), kinds: [setUp!.kind, align!.kind] };
    };
    const early = at(true);
    expect(early.kinds).toEqual(["setUp", "align"]);
    expect(early.setUp).toBeCloseTo(-0.833, 1);
    expect(early.align).toBeCloseTo(-8, 1);
    expect(at(false).setUp).toBeLessThan(early.setUp - 7);
  });

  it("stays within the stretch that is clear, and lists what does not fit", () => {
    const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
    const within = {
      startMs: utcMs(Date.parse("2026-12-05T19:10:00Z")),
      endMs: utcMs(Date.parse("2026-12-05T21:30:00Z")),
    };
    const needs = [need("P1", "OIII", 400), need("P2", "OIII", 400)];
    const { sheet } = planned([{ id: "p", target: layout.centre, needs, panels }], night, { within });
    for (const b of sheet.lines.filter((l) => l.kind === "block")) {
      expect(b.startMs).toBeGreaterThanOrEqual(within.startMs);
      expect(b.endMs - 30_000).toBeLessThanOrEqual(within.endMs); // the last download may go over
    }
    expect(sheet.exposureMin).toBeGreaterThan(60);
  });
});

it("says what the plan says, once its evening is laid out: the same stretches, start, end and exposure, no more than is wanted (law, by the sheet's own lines)", () => {
  const any = fc.record({ raDeg: fc.double({ min: 0, max: 359, noNaN: true }), decDeg: fc.double({ min: -10, max: 80, noNaN: true }), remainingMin: fc.integer({ min: 5, max: 400 }), channels: fc.uniqueArray(fc.constantFrom("L" as const, "Ha" as const, "OIII" as const), { minLength: 1, maxLength: 2 }) }); // prettier-ignore
  let several = 0;
  fc.assert(
    fc.property(fc.array(any, { minLength: 1, maxLength: 3 }), fc.integer({ min: 1, max: 28 }), fc.constantFrom("kept" as const, "light" as const), (list, day, counts) => {
      const night = placeNight(testPlace, nightDate(`2026-10-${String(day).padStart(2, "0")}`), USUAL_MOON);
      const wanted = list.map(({ channels, remainingMin, ...t }, i) => ({
        id: `p${i}`,
        counts,
        target: { frame: "icrs", ...t } as const,
        needs: channels.map((c) => need("P1", c, remainingMin)),
      }));
      const { sheet, laid, again } = planned(wanted, night);
      if (!laid) return;
      if (new Set(laid.blocks.map((b) => b.projectId)).size > 1) several++;
      const name = (b: { readonly projectId: string; readonly channel: string }) => `${b.projectId} ${b.channel}`;
      const lines = sheet.lines.flatMap((l) => (l.kind === "block" ? [l] : []));
      const runs = (names: readonly string[]) => names.filter((n, i) => n !== names[i - 1]);
      expect(runs(lines.map(name))).toEqual(runs(laid.blocks.map(name)));
      for (const b of laid.blocks) {
        const mine = lines.filter((l) => name(l) === name(b) && l.startMs >= b.startMs && l.endMs <= b.endMs);
        expect(mine.at(-1)!.endMs).toBe(b.endMs);
        expect(mine.reduce((s, l) => s + (l.subs * l.subSec) / 60, 0)).toBeCloseTo(b.exposureMin, 9);
        expect(b.endMs).toBeLessThanOrEqual(b.slots!.endMs + 60_000); // the last download
      }
      // Laid out once more it is the same.
      expect(again).toEqual(laid);
      for (const w of wanted)
        for (const n of w.needs) {
          const mine = laid.blocks.filter((b) => b.projectId === w.id && b.channel === n.channel);
          // What a sub counts is known for a stretch: whole subs, the last of which may go over.
          expect(mine.reduce((s, b) => s + b.countsMin, 0)).toBeLessThan(n.remainingMin + 5.01);
        }
    }),
    { numRuns: process.env["LAWS_SEED"] === "new" ? 300 : 40 },
  );
  expect(several).toBeGreaterThan(5);
}); // prettier-ignore

describe("a sheet in turn", () => {
  const night = placeNight(testPlace, nightDate("2026-12-05"), USUAL_MOON);
  const inTurn = (
    needs: readonly Need[],
    more: { readonly roundSubs?: number; readonly cycle?: ReturnType<typeof readCycle> },
  ) => {
    const bare = testQuestion([{ id: "p", target: layout.centre, needs }], { places: { home: testPlace }, from: night.date, nights: 1 }); // prettier-ignore
    const question = {
      ...bare,
      projects: bare.projects.map((p) => ({
        ...p,
        ...(more.cycle ? { cycle: more.cycle } : {}),
        ...(more.roundSubs === undefined ? {} : { round: more.roundSubs }),
      })),
    };
    const { plan } = plannedSeason(question);
    const evening = eveningsOf(plan, night.date)[0]!;
    const sheet = nightSheet({
      evening,
      projects: [{ id: "p", night, panels, needs, own: {}, school: "allPanelsEveryNight", filterName: (c) => `${c} filter`, ...(more.roundSubs === undefined ? {} : { roundSubs: more.roundSubs }) }], // prettier-ignore
      night,
      overheads: DEFAULT_OVERHEADS,
      flips: true,
      standsBeforeDark: true,
      within: null,
    });
    return { evening, sheet, blocks: blocksOf(sheet) };
  };

  it("goes from panel to panel after so many subs, and gives both as much", () => {
    const { blocks, sheet } = inTurn([need("P1", "L", 600), need("P2", "L", 600)], { roundSubs: 4 });
    const names = blocks.map((b) => b.panel);
    expect(names.slice(0, 4)).toEqual(["P1", "P2", "P1", "P2"]);
    expect(blocks.every((b) => b.subs <= 4)).toBe(true);
    const subs = (panel: string) => blocks.reduce((s, b) => s + (b.panel === panel ? b.subs : 0), 0);
    expect(Math.abs(subs("P1") - subs("P2"))).toBeLessThanOrEqual(8);
    // Told as rounds: what is between two breaks of the night is one line, and no sub is lost by it.
    const folded = foldRounds(sheet.lines);
    const told = folded.reduce((s, l) => s + (l.kind === "rounds" ? l.parts.reduce((x, p) => x + p.subs, 0) : l.kind === "block" ? l.subs : 0), 0); // prettier-ignore
    expect(told).toBe(subs("P1") + subs("P2"));
    expect(folded.length).toBeLessThan(sheet.lines.length / 3);
  });

  it("goes round the channels of a panel without a focus at each filter, and fills the stretch that the plan has", () => {
    const cycle = readCycle("3 L, R, G", ["L", "R", "G"]);
    const needs = (["L", "R", "G"] as const).map((c) => need("P1", c, c === "L" ? 360 : 120));
    const { blocks, sheet, evening } = inTurn(needs, { cycle });
    expect(evening.blocks[0]!.turn).toHaveLength(3);
    expect(blocks.slice(0, 4).map((b) => `${b.subs}${b.channel}`)).toEqual(["3L", "1R", "1G", "3L"]);
    const focuses = sheet.lines.filter((l) => l.kind === "focus").length;
    expect(focuses).toBeLessThan(blocks.length / 3);
    // As much as the plan counts on, to within a round and what a night takes at its head.
    const planned = evening.blocks.reduce((s, b) => s + b.exposureMin, 0);
    expect(sheet.exposureMin).toBeGreaterThan(planned - 25 - 15);
    expect(sheet.exposureMin).toBeLessThan(planned + 25);
  });
});
