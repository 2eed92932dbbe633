import { beforeEach, describe, expect, it } from "vitest";
import { memoryBrowser } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import type { Library } from "~/desk/records/library";
import { choiceOf } from "~/desk/sky/choice";
import type { StoredRecord } from "~/core/crew";
import { inOrder } from "~/core/live";
import { eventsOf, pressEdits } from "./live";

describe("presses in a night", () => {
  let desk: ReturnType<typeof demoDesk>;
  let library: Library;
  const at = () => {
    const { night, place, rig } = choiceOf(library, new URLSearchParams());
    return { night, rigId: rig!.id, placeId: place!.id };
  };
  beforeEach(() => {
    desk = demoDesk({ browser: memoryBrowser() });
    library = demoLibrary(desk);
  });

  it("are written once, with who, when and what, and begin a night that has not begun", async () => {
    const edits = await pressEdits(library, at(), { what: "flipped" });
    expect(edits.map((e) => e.kind)).toEqual(["begun", "event"]);
    const event = edits[1]!;
    expect(event.baseRev).toBeNull();
    expect(event.data).toEqual({ memberId: "member-ines", night: at().night, rigId: at().rigId, atMs: library.desk.now(), is: { what: "flipped" } }); // prettier-ignore
    expect((await pressEdits(library, at(), { what: "packedUp" })).map((e) => e.kind)).toEqual(["event"]);
  });

  it("on the sky are looks as well, so that the rest is laid out anew and forecasts are scored", async () => {
    const edits = await pressEdits(library, at(), { what: "cloud", isClear: false });
    expect(edits.map((e) => e.kind)).toEqual(["begun", "event", "look"]);
    expect(edits[2]!.data).toMatchObject({ placeId: at().placeId, isClear: false, atMs: library.desk.now() });
  });

  it("keep their order where the clock stands still or is set back", async () => {
    const pressed: StoredRecord[] = [];
    const presses = [
      { what: "cloud", isClear: false },
      { what: "cloud", isClear: true },
      { what: "packedUp" },
    ] as const;
    const now = () => libraryOfRecords([...demoRecords(), ...pressed], desk);
    for (const is of presses) {
      const edits = await pressEdits(now(), at(), is);
      const event = edits.find((e) => e.kind === "event")!;
      pressed.push({ ...event, rev: "2", author: "m", seen: {} });
      desk.setNow("2026-12-05T16:20:00Z");
    }
    const order = inOrder(eventsOf(now(), at().night, at().rigId)).map((e) => e.is);
    expect(order).toEqual(presses);
  });

  it("are read back for their night and rig alone", () => {
    expect(eventsOf(library, at().night, at().rigId)).toEqual([]);
  });
});
