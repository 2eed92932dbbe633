import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { CHANNELS } from "~/core/exposure";
import { acquisitionCard, type CardNames } from "./acquisition";
import type { ContributionData } from "./contribution";

const names: CardNames = {
  memberOf: (id) => `member ${id}`,
  rigOf: (id) => `rig ${id}`,
  placeOf: (id) => ({ name: `place ${id}`, skyMagPerArcsec2: 20.5 }),
  moonOn: (night) => (night < "2026-12-10" ? 0 : 1),
};
const entry = (more: Partial<ContributionData>): ContributionData => ({ projectId: "p", panel: "P1", channel: "Ha", night: "2026-12-05", memberId: "a", rigId: "r", placeId: "x", exposureSec: 300, taken: 12, kept: 12, reason: "", worthRate: null, startMs: null, fileName: "", note: "", ...more }); // prettier-ignore

describe("the card of a picture", () => {
  it("adds up by channel, member and season, by hand", () => {
    const card = acquisitionCard(
      [
        entry({}),
        entry({ night: "2026-12-12", channel: "OIII", kept: 6, memberId: "b", placeId: "y" }),
        entry({ night: "2027-08-01", exposureSec: 600, kept: 3, panel: "P2" }),
        entry({ night: "2027-08-02", kept: 0, taken: 5, reason: "cloud" }), // nothing of it is in the picture
      ],
      names,
    );
    expect(card).toMatchObject({ hours: 2, subs: 21, nights: 3, first: "2026-12-05", last: "2027-08-01", panels: 2 });
    expect(card.channels).toEqual([
      { channel: "Ha", hours: 1.5, sets: [{ subs: 3, exposureSec: 600 }, { subs: 12, exposureSec: 300 }] },
      { channel: "OIII", hours: 0.5, sets: [{ subs: 6, exposureSec: 300 }] },
    ]); // prettier-ignore
    expect(card.members.map((m) => [m.name, m.hours])).toEqual([["member a", 1.5], ["member b", 0.5]]); // prettier-ignore
    expect(card.seasons.map((s) => [s.from, s.hours])).toEqual([["2026", 1.5], ["2027", 0.5]]); // prettier-ignore
    expect(card.moon).toBeCloseTo((0.5 + 0.5) / 2, 9); // the hours of 12 December and of August had the Moon
    expect(acquisitionCard([], names)).toMatchObject({ hours: 0, nights: 0, first: null, moon: null, channels: [] });
  });
  it("tells the same sum in every cut (law)", () => {
    const any = fc.record({
      channel: fc.constantFrom(...CHANNELS),
      night: fc.constantFrom("2026-06-30", "2026-07-01", "2027-01-05"),
      memberId: fc.constantFrom("a", "b", "c"),
      exposureSec: fc.constantFrom(30, 300),
      kept: fc.integer({ min: 0, max: 40 }),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 20 }), (list) => {
        const card = acquisitionCard(list.map((e) => entry(e)), names); // prettier-ignore
        const sum = list.reduce((s, e) => s + (e.kept * e.exposureSec) / 3600, 0);
        for (const cut of [card.channels, card.members, card.seasons])
          expect(cut.reduce((s, x) => s + x.hours, 0)).toBeCloseTo(sum, 9);
        expect(card.hours).toBeCloseTo(sum, 9);
      }),
      { numRuns: process.env["LAWS_SEED"] === "new" ? 3000 : 100 },
    );
  });
});
