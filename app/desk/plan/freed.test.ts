import { describe, expect, it } from "vitest";
import type { StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import { eveningsOf } from "~/core/season";
import demo from "~/data/demo.json";
import { calibrationOf } from "./calibration";
import { choiceOf } from "~/desk/sky/choice";
import { libraryOfRecords } from "~/desk/demo-library.test-data";
import { freedOf } from "./freed";
import { meOf } from "~/desk/records/parts";
import { ownContextsOf } from "~/desk/projects/project";
import { seasonPlan } from "./season";
import { sheetOf } from "./sheet";
import { nightAt } from "./night-at";

/** The demo group, whose owner wishes for a place in the Lynx that is high after midnight, and one for the far south. */
function libraryWithWishes() {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  const record = (kind: StoredRecord["kind"], id: string, data: unknown) =>
    ({ kind, id, rev: "2", author: "m", seen: {}, data }) as StoredRecord;
  const target = (id: string, name: string, raDeg: number, decDeg: number) =>
    record("target", id, { name, raDeg, decDeg, kind: "galaxy", majorArcmin: 6, light: "broadband", neighbourId: "", note: "" }); // prettier-ignore
  const memberId = meOf(libraryOfRecords(bundle.value.records))!;
  const wish = (targetId: string) => record("wish", `wish-${targetId}`, { memberId, targetId });
  return libraryOfRecords([
    ...bundle.value.records,
    target("target-high", "Corner of the Lynx", 125, 50),
    target("target-low", "Never up here", 20, -75),
    wish("target-high"),
    wish("target-low"),
  ]);
}

describe("dark hours that an evening has no use for", () => {
  it("are offered to the wish that is up then, with the rig and the place of that evening, and the darks that are due after it", async () => {
    const library = libraryWithWishes();
    const plan = await seasonPlan(library);
    const choice = choiceOf(library, new URLSearchParams());
    const place = choice.place!;
    const contexts = ownContextsOf(library);
    const here = nightAt(library, plan, place, choice.night, contexts);
    const evening = eveningsOf(plan, choice.night).find((e) => e.blocks.some((b) => b.projectId === "project-loop"))!;
    const made = sheetOf(library, evening, { place, night: choice.night, contexts, within: null })!;
    const rig = made.contexts[0]!.rig;
    const at = (sheet: typeof made.sheet) => ({
      place,
      night: choice.night,
      steps: here.steps,
      calibration: calibrationOf(library, rig, sheet, here.sky, null),
    });
    // As if the first stretch were all that is wanted.
    const first = made.sheet.lines.findIndex((l) => l.kind === "block");
    const short = { ...made.sheet, lines: made.sheet.lines.slice(0, first + 1), leftOver: [] };
    const freed = (await freedOf(library, { ...made, sheet: short }, at(short)))!;
    expect(freed.fromMs).toBe(short.lines.at(-1)!.endMs);
    expect(freed.wish).toMatchObject({ targetId: "target-high", name: "Corner of the Lynx" });
    expect(freed.wish!.startMs).toBeGreaterThan(freed.fromMs);
    expect(freed.wish!.endMs).toBeLessThanOrEqual(freed.toMs);
    if (freed.darks) expect(freed.darks.fromMs).toBeGreaterThanOrEqual(freed.wish!.endMs);
    // The sheet as it is ends with work left over, when cloud comes in: it is not free.
    expect(made.sheet.leftOver.length).toBeGreaterThan(0);
    expect(await freedOf(library, made, at(made.sheet))).toBeNull();
    // Whoever wishes for nothing is told that the night is free, and of the darks.
    const bare = { ...library, wishes: [] };
    const none = (await freedOf(bare, { ...made, sheet: short }, at(short)))!;
    expect(none.wish).toBeNull();
    expect(none.darks?.count ?? 0).toBeGreaterThan(0);
  });
});
