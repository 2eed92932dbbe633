import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { utcMs } from "~/core/time";
import { isOnScreenOnly, paperPx, sheetLines, type SheetLine } from "./sheet-lines";

const said = (words: string, at = 0): SheetLine => ({ at, line: null, words });
const lines = (count: number) => Array.from({ length: count }, (_, i) => said("Moon rises", i));

describe("the sheet on paper", () => {
  it("puts the sky between what is done, by the clock, and leaves heights that a target passes to the screen", () => {
    const focus = { kind: "focus" as const, startMs: utcMs(50), endMs: utcMs(60), detail: "" };
    const all = sheetLines({ lines: [focus], exposureMin: 0, leftOver: [] }, [{ atMs: 90, words: "Target under 30°" }, { atMs: 10, words: "Sunset" }]); // prettier-ignore
    expect(all.map((l) => l.line?.kind ?? l.words)).toEqual(["Sunset", "focus", "Target under 30°"]);
    expect(all.map(isOnScreenOnly)).toEqual([false, false, true]);
  });

  it("is as large as one page holds, between what can be read and what is large enough (law)", () => {
    // A4 between margins of 12 mm is 1032 px high; head and checklist take about a third of it.
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 120 }), (count) => {
        const px = paperPx(lines(count));
        expect(px).toBeGreaterThanOrEqual(10.5);
        expect(px).toBeLessThanOrEqual(15);
        if (px > 10.5) expect(count * px * 1.3).toBeLessThanOrEqual(0.6 * 1032);
        expect(paperPx(lines(count + 1))).toBeLessThanOrEqual(px);
      }),
    );
    expect(paperPx([...lines(10), said("Target over 30°")])).toBe(paperPx(lines(10)));
  });
});
