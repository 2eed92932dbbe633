import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { DEFAULT_OVERHEADS } from "~/core/exposure";
import { mosaicPanels, type MosaicLayout } from "~/core/framing";
import { placeNight, USUAL_MOON, type Place } from "~/core/night";
import { apparentVector, horizontalAt, sunAltitudeDeg } from "~/core/sky";
import { nightDate, utcMs } from "~/core/time";
import { testPlace } from "../test-data";
import type { Need } from "./allocate";
import { nightSheet } from "./sheet";

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
const rules = { overheads: DEFAULT_OVERHEADS, school: "allPanelsEveryNight", leastNightMin: 45 } as const;
const need = (panel: string, channel: Need["channel"], remainingMin: number): Need => ({ panel, channel, goalMin: 600, remainingMin, subSec: 300 }); // prettier-ignore
const sheetOf = (needs: readonly Need[], date = "2026-12-05", place: Place = testPlace) =>
  nightSheet({
    night: placeNight(place, nightDate(date), USUAL_MOON),
    panels,
    centre: layout.centre,
    needs,
    rules,
    flips: true,
    filterName: (channel) => `${channel} filter`,
  });
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
        expect(sunAltitudeDeg(night.sky, utcMs(ms))).toBeLessThan(-14.5); // narrow bands begin at −15°
      }
    }
    expect(sheet.exposureMin).toBeGreaterThan(200);
    expect(sheet.clearChance).toBe(0.4); // of December at the test place
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
        const sheet = sheetOf(needs, `2026-12-${String(day).padStart(2, "0")}`);
        const blocks = blocksOf(sheet);
        blocks.forEach((b, i) => {
          expect(b.endMs).toBeGreaterThan(b.startMs);
          if (i > 0) expect(b.startMs).toBeGreaterThanOrEqual(blocks[i - 1]!.endMs);
        });
        for (const n of needs) {
          const mine = blocks.filter((b) => b.panel === n.panel && b.channel === n.channel);
          const minutes = mine.reduce((sum, b) => sum + (b.subs * b.subSec) / 60, 0);
          expect(minutes).toBeLessThanOrEqual(n.remainingMin + 5); // the last sub may go over
        }
      }),
      { numRuns: 40 },
    );
  });
});
