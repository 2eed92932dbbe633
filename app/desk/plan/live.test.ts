import { beforeEach, describe, expect, it } from "vitest";
import { memoryBrowser } from "~/desk/desk.test-data";
import { demoDesk, demoRecords } from "~/desk/demo-library.test-data";
import type { Library } from "~/desk/records/library";
import { choiceOf } from "~/desk/sky/choice";
import { decodeBundle } from "~/core/formats";
import { inOrder, type Happening } from "~/core/live";
import { joinFile } from "~/desk/records/join";
import { writeNight } from "~/desk/records/written";
import { eventsOf, keepPress } from "./live";
import { begunOn } from "./season-question";

describe("presses in a night", () => {
  const tab = () => demoDesk({ browser: memoryBrowser(), supplies: { sample: () => Promise.resolve(demoRecords()) } });
  let desk: ReturnType<typeof tab>;
  let library: Library;
  const at = () => {
    const { night, place, rig } = choiceOf(library, new URLSearchParams());
    return { night, rigId: rig!.id, placeId: place!.id };
  };
  const press = async (is: Happening, of = desk) => {
    const done = await keepPress(await of.library(), at(), is);
    expect(done.ok).toBe(true);
    return of.library();
  };
  beforeEach(async () => {
    desk = tab();
    library = await desk.library();
  });

  it("are written once, with who, when and what, and begin a night that has not begun", async () => {
    expect(begunOn(library, at().night)).toBeNull();
    const after = await press({ what: "flipped" });
    expect(begunOn(after, at().night)).not.toBeNull();
    const [event, ...others] = eventsOf(after, at().night, at().rigId);
    expect(others).toEqual([]);
    expect(event).toEqual({ id: event!.id, memberId: "member-ines", night: at().night, rigId: at().rigId, atMs: desk.now(), is: { what: "flipped" } }); // prettier-ignore
  });

  it("that pack up or tick a line begin nothing", async () => {
    await press({ what: "checked", check: "sun", isDone: true });
    expect(begunOn(await press({ what: "packedUp" }), at().night)).toBeNull();
  });

  it("on the sky are looks as well, so that the rest is laid out anew and forecasts are scored", async () => {
    const before = library.looks.length;
    const { looks } = await press({ what: "cloud", isClear: false });
    expect(looks).toHaveLength(before + 1);
    expect(looks.map((l) => l.data)).toContainEqual({ placeId: at().placeId, memberId: "member-ines", isClear: false, atMs: desk.now() }); // prettier-ignore
  });

  it("keep their order where the clock stands still or is set back", async () => {
    const presses = [
      { what: "cloud", isClear: false },
      { what: "cloud", isClear: true },
      { what: "packedUp" },
    ] as const;
    for (const is of presses) {
      await press(is);
      desk.setNow("2026-12-05T16:20:00Z");
    }
    const order = inOrder(eventsOf(await desk.library(), at().night, at().rigId)).map((e) => e.is);
    expect(order).toEqual(presses);
  });

  it("are read back for their night and rig alone", () => {
    expect(eventsOf(library, at().night, at().rigId)).toEqual([]);
  });

  it("go from phone to laptop and back in a file of that night alone: both know all of them, each once", async () => {
    const [phone, laptop] = [tab(), tab()];
    const pressAt = (of: typeof phone, iso: string, is: Happening) => {
      of.setNow(iso);
      return press(is, of);
    };
    await pressAt(phone, "2026-12-05T17:00:00Z", { what: "begun" });
    await pressAt(phone, "2026-12-05T18:00:00Z", { what: "cloud", isClear: false });
    await pressAt(laptop, "2026-12-05T18:30:00Z", { what: "cloud", isClear: true });
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
