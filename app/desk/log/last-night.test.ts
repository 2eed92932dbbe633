import { describe, expect, it } from "vitest";
import { nightDate } from "~/core/time";
import { demoLibrary } from "~/desk/demo-library.test-data";
import { lastNightOf } from "./last-night";

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
});
