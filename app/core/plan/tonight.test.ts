import { describe, expect, it } from "vitest";
import { placeNight, USUAL_MOON, type Place } from "~/core/night";
import { nightDate } from "~/core/time";
import { chooseTonight, inNightOrder, projectTonight, type Need, type TonightProject } from ".";
import { eveningsOf, plannedSeason, type Evening } from "~/core/season";
import { testEvening, testQuestion } from "./plan.test-data";

const place: Place = {
  name: "Check", latitudeDeg: 45, longitudeDeg: 5, elevationM: 200, timeZone: "Europe/Paris", skyMagPerArcsec2: 20.5, skyline: [], minAltitudeDeg: 25, seeingArcsec: 3, clearChance: Array<number>(12).fill(0.4),
}; // prettier-ignore
const need = (channel: Need["channel"], remainingMin: number, panel = "P1"): Need => ({
  panel,
  channel,
  goalMin: 600,
  remainingMin,
  subSec: 300,
});
const at = (date: string) => placeNight(place, nightDate(date), USUAL_MOON);
const evening = { frame: "icrs", raDeg: 312, decDeg: 31 } as const; // sets in a December evening
const allNight = { frame: "icrs", raDeg: 70, decDeg: 46 } as const;

describe("the verdict", () => {
  const choose = (night: ReturnType<typeof at>, projects: TonightProject[], evenings: Evening[] = []) =>
    chooseTonight(evenings, {
      isDark: true,
      steps: night.steps,
      projects,
      walkOf: (b) => projects.find((p) => p.id === b.projectId)?.walk ?? null,
    });
  const late = { id: "late", target: allNight, needs: [need("OIII", 600)], own: {} };
  const early = { id: "early", target: evening, needs: [need("OIII", 600)], own: {} };

  it("goes by the plan's first night: the early target first, the late one takes over (the planner's own evening)", () => {
    const night = at("2026-12-05");
    const { plan } = plannedSeason(
      testQuestion([late, early], { places: { home: place }, from: night.date, nights: 3 }),
    );
    const projects = [late, early].map((p) => projectTonight(night, p, ["OIII"])!);
    const verdict = choose(night, projects, eveningsOf(plan, night.date));
    if (verdict.kind !== "go") throw new Error(verdict.reason);
    expect(verdict.blocks.map((b) => b.projectId)).toEqual(["early", "late"]);
    expect(verdict.blocks[0]!.endMs).toBeLessThanOrEqual(verdict.blocks[1]!.startMs);
    expect([verdict.startMs, verdict.endMs]).toEqual([verdict.blocks[0]!.startMs, verdict.blocks[1]!.endMs]);
  });

  it("stays in without darkness, without anything up, without anything left to do, and where a person says so", () => {
    const night = at("2026-12-05");
    const low = {
      id: "south",
      target: { frame: "icrs", raDeg: 70, decDeg: -60 } as const,
      needs: [need("L", 60)],
      own: {},
    };
    const south = projectTonight(night, low, [])!;
    expect(choose(night, [south])).toEqual({ kind: "stayIn", reason: "nothingUp" });
    expect(projectTonight(night, { id: "done", target: allNight, needs: [need("L", 0)], own: {} }, [])).toBeNull();
    expect(choose(night, [])).toEqual({ kind: "stayIn", reason: "allDone" });
    const summer = placeNight({ ...place, latitudeDeg: 69 }, nightDate("2026-06-21"), USUAL_MOON);
    expect(choose(summer, [south])).toEqual({ kind: "stayIn", reason: "noDarkness" });
    const up = projectTonight(night, late, [])!;
    const free = (closed: Evening["closed"]) => [{ ...testEvening(night, []), closed }];
    expect(choose(night, [up], free("busy"))).toEqual({ kind: "stayIn", reason: "busy" });
    expect(choose(night, [up], free("forbidden"))).toEqual({ kind: "stayIn", reason: "forbidden" });
    expect(choose(night, [up], free(null))).toEqual({ kind: "stayIn", reason: "leftFree" });
  });

  it("shows a project in the channel planned, else in the order of the night, and names the weakest panel first", () => {
    const wanted = {
      id: "p",
      target: allNight,
      needs: [need("L", 60), need("Ha", 500, "P1"), need("Ha", 600, "P2")],
      own: {},
    };
    expect(projectTonight(at("2026-12-05"), wanted, [])!.channel).toBe("L");
    const ha = projectTonight(at("2026-12-05"), wanted, ["Ha"])!;
    expect([ha.channel, ha.panels, ha.isPlanned]).toEqual(["Ha", ["P2", "P1"], true]);
  });
});

it("orders channels by what the Moon leaves them, then by what bears it least, then by what is behind (rule of the trade, no source)", () => {
  const chance = (channel: Need["channel"], worthMin: number, lacking = 0.5) => ({
    channel,
    worthMin,
    moonlessWorthMin: 100,
    lacking,
  });
  expect(inNightOrder([chance("Ha", 100), chance("L", 98), chance("OIII", 100)]).map((c) => c.channel)).toEqual([
    "L",
    "OIII",
    "Ha",
  ]);
  expect(inNightOrder([chance("L", 10), chance("OIII", 50), chance("Ha", 85)]).map((c) => c.channel)).toEqual([
    "Ha",
    "OIII",
    "L",
  ]);
  expect(inNightOrder([chance("R", 100, 0.2), chance("B", 100, 0.9)]).map((c) => c.channel)).toEqual(["B", "R"]);
});
