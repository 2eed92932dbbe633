import { beforeEach, describe, expect, it } from "vitest";
import { memoryBrowser } from "~/desk/desk.test-data";
import { demoDesk, demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import type { Library } from "~/desk/records/library";
import { choiceOf } from "~/desk/sky/choice";
import type { StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import { inOrder, type Happening } from "~/core/live";
import { keep } from "~/desk/records/acts";
import { joinFile } from "~/desk/records/join";
import { writeNight } from "~/desk/records/written";
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

  it("go from phone to laptop and back in a file of that night alone: both know all of them, each once", async () => {
    const tab = () =>
      demoDesk({ browser: memoryBrowser(), supplies: { sample: () => Promise.resolve(demoRecords()) } });
    const [phone, laptop] = [tab(), tab()];
    const press = async (of: typeof phone, iso: string, is: Happening) => {
      of.setNow(iso);
      const done = await keep(of, await pressEdits(await of.library(), at(), is));
      expect(done.ok).toBe(true);
    };
    await press(phone, "2026-12-05T17:00:00Z", { what: "begun" });
    await press(phone, "2026-12-05T18:00:00Z", { what: "cloud", isClear: false });
    await press(laptop, "2026-12-05T18:30:00Z", { what: "cloud", isClear: true });
    const carry = async (from: typeof phone, to: typeof phone) => {
      const bundle = decodeBundle((await writeNight(from, at().night)).text);
      if (!bundle.ok) throw new Error(bundle.error.code);
      expect(new Set(bundle.value.records.map((r) => r.kind))).toEqual(new Set(["event", "begun", "look"]));
      to.setNow("2026-12-05T19:00:00Z");
      expect((await joinFile(await to.library(), bundle.value, { owner: "friend", letsAheadIn: false })).ok).toBe(true);
    };
    const told = async (of: typeof phone) => inOrder(eventsOf(await of.library(), at().night, at().rigId)).map((e) => [e.atMs, e.is.what]); // prettier-ignore
    await carry(phone, laptop);
    await carry(laptop, phone);
    await carry(phone, laptop);
    expect(await told(phone)).toHaveLength(3);
    expect(await told(laptop)).toEqual(await told(phone));
    expect((await laptop.library()).looks.length).toBe((await phone.library()).looks.length);
  });
});
