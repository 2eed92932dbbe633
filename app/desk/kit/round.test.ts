import { beforeEach, describe, expect, it } from "vitest";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";
import type { Desk } from "~/desk/desk";
import { demoLibrary, demoRecords, libraryOfRecords } from "~/desk/demo-library.test-data";
import { choiceOf } from "~/desk/sky/choice";
import { betterNext, firstStepOf } from "./better";
import { goRound, leaveRound, offerRound, ROUND, roundHere, roundOn, takeUpRound } from "./round";

describe("the round through one's first picture", () => {
  let browser: ReturnType<typeof memoryBrowser>;
  let desk: Desk;
  beforeEach(() => {
    browser = memoryBrowser();
    desk = testDesk({ browser });
  });

  it("is offered once, and not again to who has been on it or left it", () => {
    expect(roundHere(desk)).toBeNull();
    offerRound(desk);
    expect(roundHere(desk)).toBe("offered");
    leaveRound(desk);
    expect(roundHere(desk)).toBeNull();
    offerRound(desk);
    expect(roundHere(desk)).toBeNull();
  });

  it("can be left at every stop and is taken up there, in this browser, also another day", () => {
    for (const stop of ROUND.slice(0, -1)) {
      goRound(desk, stop);
      leaveRound(desk);
      expect(roundHere(desk)).toBeNull();
      const later = testDesk({ browser });
      expect(takeUpRound(later)).toBe(stop);
      expect(roundHere(later)).toBe(stop);
    }
  });

  it("begins anew after its end, and where what is noted is no stop", () => {
    goRound(desk, "assumed");
    leaveRound(desk);
    expect(takeUpRound(desk)).toBe("tonight");
    desk.cupboard.notes.write("round", "somewhere");
    expect(roundHere(desk)).toBeNull();
    expect(takeUpRound(desk)).toBe("tonight");
  });

  it("goes to the pages of one's own place and picture, and knows where it cannot go yet", () => {
    const library = demoLibrary();
    const choice = choiceOf(library, new URLSearchParams());
    const own = roundOn("place", library, choice, "project-loop");
    const loop = library.projects.find((p) => p.id === "project-loop")!;
    expect(own.paths).toMatchObject({
      place: `/kit/places/${choice.place!.id}`,
      target: `/targets/${encodeURIComponent(loop.data.targetId)}`,
      frame: "/projects/project-loop/frame",
      hours: "/projects/project-loop/budget",
      plan: "/projects/project-loop/plan",
    });
    expect(own.projectName).toBe(loop.data.name);
    expect(own.assumed).toEqual(betterNext(library, choice.place!, choice.rig));
    const empty = libraryOfRecords([]);
    const none = roundOn("tonight", empty, choiceOf(empty, new URLSearchParams()), null);
    expect(ROUND.filter((stop) => none.paths[stop] === null)).toEqual(["place", "frame", "hours", "plan", "sheet"]);
    expect(none.assumed).toEqual([]);
  });
});

describe("the first step of who has nothing to plan", () => {
  const records = demoRecords();
  const without = (...kinds: readonly string[]) => libraryOfRecords(records.filter((r) => !kinds.includes(r.kind)));

  it("is a place, then a target; what projects lack only where they lack something (was told to who had finished all)", () => {
    expect(firstStepOf(libraryOfRecords([]))).toBe("place");
    expect(firstStepOf(without("project"))).toBe("target");
    expect(firstStepOf(without("frame"))).toBe("gaps");
    const finished = records.map((r) => (r.kind === "project" ? { ...r, data: { ...(r.data as object), finishedOn: "2026-12-01" } } : r)); // prettier-ignore
    expect(firstStepOf(libraryOfRecords(finished))).toBe("target");
  });
});
