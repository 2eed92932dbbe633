import { expect, it } from "vitest";
import type { StoredRecord } from "~/core/crew";
import type { Happening } from "~/core/live";
import { demoDesk, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import { nightDate } from "~/core/time";
import type { Library } from "~/desk/records/library";
import { toldNights } from "./told";

const NIGHT = "2026-12-04";
const AT = Date.parse("2026-12-04T20:00:00Z");
const block = { projectId: "project-loop", panel: "P1 the arch", channel: "Ha", subSec: 300, startMs: AT } as const;
const done = (kept: number, lost: number, of = {}): Happening => ({ what: "done", of: { ...block, ...of }, kept, lost, reason: lost > 0 ? "cloud" : "" }); // prettier-ignore

const toldOf = (library: Library, today = "2026-12-05") => toldNights(library, nightDate(today));

/** The demo group with presses of a night and entries of its log. */
function libraryWith(presses: readonly Happening[], entries: readonly object[] = [], memberId = "member-ines") {
  const desk = demoDesk();
  const record = (kind: "event" | "contribution", id: string, data: unknown) =>
    ({ kind, id, rev: "2", author: memberId, seen: {}, data }) as StoredRecord;
  return libraryOfRecords(
    [
      ...demoRecords(),
      ...presses.map((is, i) => record("event", `e${i}`, { memberId, night: NIGHT, rigId: "rig-refractor", atMs: AT + i * 60_000, is })), // prettier-ignore
      ...entries.map((more, i) =>
        record("contribution", `c${i}`, {
          projectId: "project-loop", panel: "P1", channel: "Ha", night: NIGHT, exposureSec: 300, taken: 12, kept: 12, reason: "", note: "",
          memberId, rigId: "rig-refractor", placeId: "place-garden", worthRate: null, startMs: null, fileName: "", ...more,
        }),
      ), // prettier-ignore
    ],
    desk,
  );
}

it("offers what was told at the mount as entries: blocks of one panel, channel and sub together, the panel by its number", () => {
  const [told, ...others] = toldOf(libraryWith([done(6, 0), done(4, 2, { startMs: AT + 9e6 }), { what: "packedUp" }]));
  expect(others).toEqual([]);
  expect(told!.night).toBe(NIGHT);
  expect(told!.entries).toHaveLength(1);
  expect(told!.entries[0]).toMatchObject({ projectId: "project-loop", panel: "P1", channel: "Ha", exposureSec: 300, taken: 12, kept: 10, reason: "cloud", night: NIGHT }); // prettier-ignore
});

it("keeps different subs and channels apart, and offers nothing where nothing was said to be done", () => {
  const [told] = toldOf(libraryWith([done(6, 0), done(3, 0, { subSec: 60 }), done(5, 0, { channel: "OIII" })]));
  expect(told!.entries.map((e) => [e.channel, e.exposureSec, e.kept])).toEqual([
    ["Ha", 300, 6],
    ["Ha", 60, 3],
    ["OIII", 300, 5],
  ]);
  expect(toldOf(libraryWith([{ what: "begun" }, { what: "packedUp" }]))).toEqual([]);
});

it("leaves counts to the files of the night, and still says what they do not know: why some should not be kept", () => {
  const [told] = toldOf(libraryWith([done(10, 2)], [{}]));
  expect(told!.entries).toEqual([]);
  expect(told!.reasons).toMatchObject([{ lost: 2, reason: "cloud", of: { channel: "Ha" } }]);
  // Culled since, or taken with another rig: nothing to say, or not of this.
  expect(toldOf(libraryWith([done(10, 2)], [{ kept: 11, reason: "cloud" }]))).toEqual([]);
  expect(toldOf(libraryWith([done(10, 2)], [{ rigId: "rig-other" }]))[0]!.entries).toHaveLength(1);
});

it("offers nobody else's presses, and none of a panel or a project that is gone", () => {
  expect(toldOf(libraryWith([done(6, 0)], [], "member-wren"))).toEqual([]);
  expect(toldOf(libraryWith([done(6, 0, { panel: "P40" }), done(6, 0, { projectId: "gone" })]))).toEqual([]);
});

it("waits until the night is over, or all is packed up: what comes later of the same panel would not be offered any more", () => {
  expect(toldOf(libraryWith([done(6, 0)]), NIGHT)).toEqual([]);
  const packed: Happening[] = [done(6, 0), { what: "packedUp" }];
  expect(toldOf(libraryWith(packed), NIGHT)).toHaveLength(1);
  expect(toldOf(libraryWith([...packed, { what: "begun" }]), NIGHT)).toEqual([]);
});
