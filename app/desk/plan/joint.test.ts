import { describe, expect, it } from "vitest";
import { nightDate, weekdayOf } from "~/core/time";
import { demoDesk, demoLibrary, demoRecords } from "~/desk/demo-library.test-data";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import { requireContext } from "~/desk/projects/project";
import { joinFile } from "~/desk/records/join";
import { belonging } from "~/desk/records/written";
import { jointRows, tellEvenings, toldEvenings } from "./joint";

const TODAY = nightDate("2026-12-05");
const sky = {
  // Two hours every night: only who is free, and where, is asked here.
  year: () => Promise.resolve(Array.from({ length: 12 }, (_, i) => ({ date: nightDate(`2026-12-${String(5 + i).padStart(2, "0")}`), usableMin: 120, worthMin: 60, moonAltitudeDeg: 0, illuminatedFraction: 0 }))) as never, // prettier-ignore
};

describe("when each of a crew has the target", () => {
  it("knows a friend's busy evenings from their file, one's own from the rules, and says the places one drives to", async () => {
    const library = demoLibrary(demoDesk({ sky }));
    const c = requireContext(library, "project-shell");
    const rows = await jointRows(library, c, TODAY, new AbortController().signal);
    const busy = (name: string) => rows.find((r) => r.memberId === name && !r.isAway)!.nights.filter((n) => n.isBusy);
    expect(busy("member-wren").map((n) => weekdayOf(n.night))).toEqual([1, 3, 1]); // 7, 9 and 14 December 2026, by the calendar
    expect(busy("member-wren")[0]!.night).toBe("2026-12-07");
    expect(busy("member-tomasz")).toEqual([]); // their file says nothing
    expect(rows.filter((r) => r.isAway).map((r) => [r.memberId, r.placeName])).toEqual([["member-ines", "Pass above the larches"]]); // prettier-ignore
  });

  it("tells the others only when asked, brings the places along in their file, and takes it back", async () => {
    const d = testDesk({ browser: memoryBrowser(), sky });
    const bundle = { scope: "everything" as const, exportedAt: "", records: demoRecords(), refused: [] };
    expect((await joinFile(await d.library(), bundle, { owner: "mine", letsAheadIn: true })).ok).toBe(true);
    const places = async () => {
      const library = await d.library();
      const part = library.parts.find(
        (p) => p.data.memberId === "member-ines" && p.data.projectId === "project-shell",
      )!;
      const all = [...demoRecords().filter((r) => r.kind !== "part"), { ...demoRecords().find((r) => r.id === part.id)!, data: part.data }]; // prettier-ignore
      return belonging(all as never, "project-shell").filter((r) => r.kind === "place").map((r) => r.id); // prettier-ignore
    };
    expect(toldEvenings(await d.library(), "project-shell")).toEqual({ isTold: false, isCurrent: false });
    expect(await places()).not.toContain("place-pass");
    expect((await tellEvenings(await d.library(), "project-shell", true)).ok).toBe(true);
    expect(toldEvenings(await d.library(), "project-shell")).toEqual({ isTold: true, isCurrent: true });
    expect(await places()).toContain("place-pass");
    expect((await tellEvenings(await d.library(), "project-shell", false)).ok).toBe(true);
    expect(toldEvenings(await d.library(), "project-shell")?.isTold).toBe(false);
  });
});
