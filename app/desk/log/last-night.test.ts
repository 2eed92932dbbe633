import { describe, expect, it } from "vitest";
import { addNights, nightDate } from "~/core/time";
import { demoLibrary } from "~/desk/demo-library.test-data";
import { lastNightOf, latestNight } from "./last-night";

const library = demoLibrary();

describe("what last night brought", () => {
  it("is one's own exposures of that night by picture, and how far it came by them (49 of 52 subs of 300 s: 4 h 05)", () => {
    const [shell, ...more] = lastNightOf(library, nightDate("2026-11-09"));
    expect(more).toEqual([]);
    expect(shell).toMatchObject({ projectId: "project-shell", taken: 52, kept: 49, keptMin: 245 });
    expect(shell!.shareBefore!).toBeLessThan(shell!.share!);
    // 245 minutes as they count, of a goal of all channels.
    const goalMin = 60 * 35;
    expect(shell!.share! - shell!.shareBefore!).toBeLessThan((1.3 * 245) / goalMin);
    expect(shell!.share! - shell!.shareBefore!).toBeGreaterThan((0.3 * 245) / goalMin);
  });
  it("is nothing of a night without entries", () => {
    expect(lastNightOf(library, nightDate("2026-11-08"))).toEqual([]);
  });
  it("is asked for of the latest night that has any, of all projects or of one", () => {
    const mine = [...library.log.byMember.get("member-ines")!].filter((c) => c.data.taken > 0);
    const last = mine
      .map((c) => c.data.night)
      .sort()
      .at(-1)!;
    const { night, brought } = latestNight(library)!;
    expect(night).toBe(last);
    expect(brought).toEqual(lastNightOf(library, addNights(nightDate(last), 1)));
    const ofShell = latestNight(library, "project-shell")!;
    expect(ofShell.brought.map((b) => b.projectId)).toEqual(["project-shell"]);
    expect(ofShell.night <= last).toBe(true);
    expect(latestNight(library, "project-of-nobody")).toBeNull();
  });
});
