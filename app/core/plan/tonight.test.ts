import { describe, expect, it } from "vitest";
import { placeNight, USUAL_MOON, type Place } from "~/core/night";
import { nightDate } from "~/core/time";
import { chooseTonight, inNightOrder, projectTonight, type Need } from ".";

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
  it("sends the early target first and lets the late one take over", () => {
    const night = at("2026-12-05");
    const projects = [
      projectTonight(night, { id: "late", target: allNight, needs: [need("OIII", 600)] })!,
      projectTonight(night, { id: "early", target: evening, needs: [need("OIII", 600)] })!,
    ];
    const verdict = chooseTonight(projects, night.steps);
    expect(verdict.kind === "go" && [verdict.first.id, verdict.then?.id]).toEqual(["early", "late"]);
  });

  it("stays in without darkness, without anything up and without anything left to do", () => {
    const night = at("2026-12-05");
    const south = projectTonight(night, {
      id: "south",
      target: { frame: "icrs", raDeg: 70, decDeg: -60 },
      needs: [need("L", 60)],
    })!;
    expect(chooseTonight([south], night.steps)).toEqual({ kind: "stayIn", reason: "nothingUp" });
    expect(projectTonight(night, { id: "done", target: allNight, needs: [need("L", 0)] })).toBeNull();
    expect(chooseTonight([], night.steps)).toEqual({ kind: "stayIn", reason: "allDone" });
    const north = { ...place, latitudeDeg: 69 };
    const summer = placeNight(north, nightDate("2026-06-21"), USUAL_MOON).steps;
    expect(chooseTonight([south], summer)).toEqual({ kind: "stayIn", reason: "noDarkness" });
  });

  it("goes on to the next channel when the first goal ends within the night, and names the weakest panel first", () => {
    const t = projectTonight(at("2026-12-05"), {
      id: "p",
      target: allNight,
      needs: [need("L", 60), need("Ha", 500, "P1"), need("Ha", 600, "P2")],
    })!;
    expect(t.channels).toEqual(["L", "Ha"]);
    const ha = projectTonight(at("2026-12-05"), {
      id: "p",
      target: allNight,
      needs: [need("Ha", 500, "P1"), need("Ha", 600, "P2")],
    })!;
    expect([ha.channels, ha.panels]).toEqual([["Ha"], ["P2", "P1"]]);
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
