import { describe, expect, it } from "vitest";
import { wholeChecklist, type CareChange } from "~/core/care";
import { demoDesk, demoRecords } from "~/desk/demo-library.test-data";
import { memoryBrowser } from "~/desk/desk.test-data";
import { undo } from "~/desk/records/acts";
import { doneOn, eventsOf, keepPress } from "~/desk/plan/live";
import { begunOn } from "~/desk/plan/season-question";
import { choiceOf } from "~/desk/sky/choice";
import { changeCare, saveRig } from "./kit";

const RIG = demoRecords().find((r) => r.kind === "rig")!.id;
const tab = () => demoDesk({ browser: memoryBrowser(), supplies: { sample: () => Promise.resolve(demoRecords()) } });

describe("the checklist of a rig", () => {
  const rigOf = async (desk: ReturnType<typeof tab>) => (await desk.library()).rigs.find((r) => r.id === RIG)!;
  const change = async (desk: ReturnType<typeof tab>, c: CareChange) => {
    const rig = await rigOf(desk);
    const done = await changeCare(await desk.library(), rig, rig.rev, c);
    if (!done.ok) throw new Error(done.error.code);
    return done.value.undoId;
  };

  it("stays with it when its numbers are saved by their form, which knows nothing of it, and an undo brings it back", async () => {
    const desk = tab();
    await change(desk, { what: "leaveOut", id: "laser" });
    await change(desk, { what: "reword", id: "focus", words: "Focused on the masked star" });
    const rig = await rigOf(desk);
    const { care: _, ...typed } = rig.data;
    const saved = await saveRig(await desk.library(), { id: rig.id, baseRev: rig.rev, data: { ...typed, name: "Renamed" } }); // prettier-ignore
    expect(saved.ok).toBe(true);
    const list = async () => wholeChecklist((await rigOf(desk)).data);
    expect((await list()).map((c) => c.id)).not.toContain("laser");
    expect((await list()).find((c) => c.id === "focus")?.words).toBe("Focused on the masked star");
    const undoId = await change(desk, { what: "asUsual" });
    expect((await rigOf(desk)).data.care).toBeUndefined();
    expect((await undo(desk, undoId))?.ok).toBe(true);
    expect((await list()).find((c) => c.id === "focus")?.words).toBe("Focused on the masked star");
  });

  it("ticked is kept with the night and its rig, begins nothing, and is no press of the night", async () => {
    const desk = tab();
    const library = await desk.library();
    const { night, rig } = choiceOf(library, new URLSearchParams());
    const of = { night, rigId: rig!.id, placeId: null };
    const tick = async (check: string, isDone: boolean) => {
      const done = await keepPress(await desk.library(), of, { what: "checked", check, isDone });
      expect(done.ok).toBe(true);
    };
    await tick("ground", true);
    await tick("sun", true);
    await tick("ground", false); // in the same instant
    const after = await desk.library();
    expect([...doneOn(after, night, rig!.id)]).toEqual(["sun"]);
    expect([...doneOn(after, night, "rig-other")]).toEqual([]);
    expect(begunOn(after, night)).toBeNull();
    expect(eventsOf(after, night, rig!.id)).toEqual([]);
  });
});
