import { expect, it } from "vitest";
import { addNights, nightDate } from "~/core/time";
import { testPlace } from "../test-data";
import { namedPhases } from "./moon-phase";
import { ribbonNight } from "./ribbon";

it("names the phases of December 2026 on the evenings they fall nearest to (phases of astronomy-engine in reference/tables/moon.json)", async () => {
  const { SearchMoonPhase, AstroTime } = await import("astronomy-engine");
  const from = nightDate("2026-12-02");
  const nights = Array.from({ length: 60 }, (_, i) => ribbonNight(testPlace, addNights(from, i)));
  const phases = namedPhases(nights);
  const names = { 0: "new", 90: "firstQuarter", 180: "full", 270: "lastQuarter" } as const;
  for (const [longitude, name] of Object.entries(names)) {
    const at = SearchMoonPhase(Number(longitude), new AstroTime(new Date("2026-12-03T00:00:00Z")), 45)!.date.getTime();
    const found = [...phases].filter(([, phase]) => phase === name).map(([i]) => nights[i]!.startMs + 7 * 3_600_000);
    const nearest = Math.min(...found.map((ms) => Math.abs(ms - at)));
    expect(nearest, name).toBeLessThan(30 * 3_600_000); // the night of it, or the one beside it
  }
  expect([...phases.values()].filter((p) => p === "full")).toHaveLength(2);
});
