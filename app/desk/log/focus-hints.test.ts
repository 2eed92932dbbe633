import { describe, expect, it } from "vitest";
import type { RunSheet } from "~/core/night";
import { testFilter, testRig } from "~/core/test-data";
import { createMemo } from "~/desk/memo";
import type { Library } from "~/desk/records/library";
import { focusHint, hintsOnSheet, measuredMoves } from "./focus-hints";

const rig = { id: "rig-1", rev: "r", author: "me", copies: [], data: { ...testRig, filterIds: ["l", "ha", "o"] } };
const filter = (id: string, channel: "L" | "Ha" | "OIII", thicknessMm?: number) => ({
  id,
  data: { ...testFilter, channel, ...(thicknessMm === undefined ? {} : { thicknessMm }) },
});
const sub = (channel: string, minute: number, focusSteps: number, memberId = "me") => ({
  data: { memberId, rigId: "rig-1", night: "2026-12-04", channel, exposureSec: 300, focusSteps, startMs: Date.parse("2026-12-04T20:00:00Z") + minute * 60_000 },
}); // prettier-ignore
const memo = createMemo();
const withLog = (entries: readonly ReturnType<typeof sub>[]) =>
  ({
    desk: { memo },
    log: { byMember: new Map([["me", entries.filter((e) => e.data.memberId === "me")]]) },
    settings: { data: { memberId: "me" } },
    filters: [filter("l", "L", 2), filter("ha", "Ha", 2), filter("o", "OIII", 3)],
  }) as unknown as Library;
const library = withLog([sub("L", 0, 5000), sub("Ha", 10, 5100), sub("Ha", 12, 7000, "friend"), sub("L", 20, 5006)]);

describe("how the focus moves from filter to filter", () => {
  it("goes by one's own subs, else by the glass, and is silent where neither says anything that shows", () => {
    const hint = focusHint(library, rig);
    expect(hint("L", "Ha")).toEqual({ by: "subs", from: "L", steps: 97, changes: 2, spread: 3 });
    expect(hint("Ha", "Ha")).toBeNull();
    // A millimetre of glass of n = 1.52 moves it by 0.342 mm (MATHS, plane plate), a little more in a fast beam.
    const glass = hint("Ha", "OIII");
    expect(glass).toMatchObject({ by: "glass", from: "Ha" });
    expect(glass?.by === "glass" && glass.mm).toBeCloseTo(0.342, 2);
    const even = withLog([]);
    expect(focusHint(even, rig)("L", "Ha")).toBeNull();
    expect(measuredMoves(library, rig)).toEqual([{ from: "L", to: "Ha", steps: 97, changes: 2, spread: 3 }]);
    expect(measuredMoves(even, rig)).toEqual([]);
  });

  it("stands on a sheet at each change, from what was shot before to what comes next; not at the first filter", () => {
    const line = (kind: string, startMs: number, channel?: string) => ({ kind, startMs, ...(channel ? { channel } : { detail: "" }) }); // prettier-ignore
    const sheet = {
      lines: [line("filter", 1), line("block", 2, "L"), line("filter", 3), line("focus", 4), line("block", 5, "Ha"), line("filter", 6)],
    } as unknown as RunSheet; // prettier-ignore
    expect(hintsOnSheet(sheet, focusHint(library, rig))).toEqual({
      3: { by: "subs", from: "L", steps: 97, changes: 2, spread: 3 },
    });
  });
});
