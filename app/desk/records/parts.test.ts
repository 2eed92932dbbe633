import { beforeEach, describe, expect, it } from "vitest";
import { leftForOthersWords } from "~/components/words/target-words";
import { recordKey, type RecordKind, type StoredRecord } from "~/core/crew";
import { decodeBundle } from "~/core/formats";
import { partId } from "~/core/plan";
import { decodeRecord, type KeepFault, type Settings } from "~/core/records";
import type { Result } from "~/core/result";
import { testFilter, testPlace, testRig } from "~/core/test-data";
import { nightDate } from "~/core/time";
import demo from "~/data/demo.json";
import { libraryOfRecords } from "~/desk/demo-library.test-data";
import before from "./fixtures/demo-projects-1.json";
import { partsToAdopt } from "./parts";
import { weightsOf } from "~/desk/projects/equivalence";
import { contextOf, ownContextsOf } from "~/desk/projects/project";
import { saveFilter, savePlace, saveRig } from "~/desk/kit/kit";
import { bookByHand } from "~/desk/log/log";
import { contextsOf } from "~/desk/projects/project";
import { moveFrame, saveGoal, saveProject, shootFrame, startProject } from "~/desk/projects/projects";
import { undo } from "./acts";
import { clearEverything } from "./clear";
import { lookInto } from "./file-view";
import { changeKey } from "./named-records";
import { joinFile } from "./join";
import { theStore } from "./kept";
import { memoryBrowser, testDesk } from "~/desk/desk.test-data";

function done<T>(result: Result<T, KeepFault>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}

/** The demo group as it was stored before members had parts, on the machine of one of them. */
function demoBefore(memberId: string, uses: Partial<Settings>) {
  const bundle = decodeBundle(JSON.stringify(demo));
  if (!bundle.ok) throw new Error(bundle.error.code);
  const projects = before.map((raw) => {
    const r = decodeRecord(raw);
    if (!r.ok) throw new Error(r.error.message);
    return r.value;
  });
  const others = bundle.value.records.filter((r) => r.kind !== "project" && r.kind !== "part");
  return [...others, ...projects].map((r): StoredRecord =>
    r.kind === "settings" ? { ...r, data: { ...(r.data as Settings), memberId, ...uses } } : r,
  );
}

describe("projects from before members had parts of their own", () => {
  const adopt = (memberId: string, uses: Partial<Settings>) => {
    const records = demoBefore(memberId, uses);
    const edits = partsToAdopt(libraryOfRecords(records));
    const parts = edits.map(({ kind, id, data }): StoredRecord => ({ id, kind, rev: "0mx5056o1.0000.me", author: memberId, seen: { me: "0mx5056o1.0000.me" }, data })); // prettier-ignore
    return { edits, library: libraryOfRecords([...records, ...parts]) };
  };
  it("keep the place and the rig they named for whoever wrote them: nothing changes on that machine", () => {
    const { edits, library } = adopt("member-ines", {});
    expect(edits).toHaveLength(3);
    for (const raw of before) {
      const c = contextOf(library, raw.id)!;
      expect([c.place.id, c.rig.id]).toEqual([raw.data.placeId, raw.data.rigId]);
      expect(c.part.isMine).toBe(true);
    }
    // Every hour of the log still counts: nothing was taken with another frame.
    const kept = library.contributions.reduce((sum, { data: c }) => sum + (c.kept * c.exposureSec) / 60, 0);
    const shown = ownContextsOf(library).reduce((sum, c) => sum + c.cells.reduce((s, x) => s + x.keptMin, 0), 0);
    expect(shown).toBeCloseTo(kept, 6);
  });
  it("are shot by friends with what they logged hours with, and by nobody who only has the file", () => {
    const tomasz = adopt("member-tomasz", { placeId: "place-terrace", rigId: "rig-city" });
    expect(tomasz.edits.map((e) => e.data)).toEqual([{ projectId: "project-shell", memberId: "member-tomasz", placeId: "place-terrace", rigId: "rig-city" }]); // prettier-ignore
    expect(ownContextsOf(tomasz.library).map((c) => c.id)).toEqual(["project-shell"]);
    const loop = contextOf(tomasz.library, "project-loop")!; // to look at, as Ines began it
    expect([loop.part.isMine, loop.rig.id]).toEqual([false, "rig-refractor"]);
    expect(adopt("member-new", { placeId: "place-barn", rigId: "rig-lens" }).edits).toEqual([]);
  });
  it("are adopted once: a project somebody has a part in is left alone", () => {
    const { library } = adopt("member-ines", {});
    expect(partsToAdopt(library)).toEqual([]);
  });
});

let browser = memoryBrowser();
/** A tab of its own in the same browser. */
const desk = () => testDesk({ browser });
type Desk = ReturnType<typeof desk>;

const entry = {
  id: "X 1", name: "", aliases: [], kind: "emissionNebula", at: { frame: "icrs", raDeg: 300, decDeg: 40 }, majorArcmin: 30, minorArcmin: 20,
  positionAngleDeg: 10, magnitude: null, constellation: "Cyg", rank: 50, curated: null,
} as const; // prettier-ignore

async function begun(d: Desk) {
  done(await savePlace(await d.library(), { id: "new", baseRev: "", data: { ...testPlace, name: "Yard" } }));
  done(await saveFilter(d, { id: "new", baseRev: "", data: testFilter }));
  const filterIds = (await d.library()).filters.map((f) => f.id);
  done(await saveRig(await d.library(), { id: "new", baseRev: "", data: { ...testRig, filterIds } }));
  const library = await d.library();
  const at = { place: library.places[0]!, rig: library.rigs[0]!, today: nightDate("2026-12-05") };
  const { projectId } = done(await startProject(library, at, entry));
  done(await bookByHand(await d.library(), { projectId, panel: "P1", channel: "Ha", night: "2026-12-04", exposureSec: 300, taken: 12, kept: 12, reason: "", note: "" })); // prettier-ignore
  return projectId;
}

describe("a backup from before members had parts", () => {
  it("is worked on at once when it is restored, and a friend's file of that time is only looked at", async () => {
    const records = demoBefore("member-ines", {});
    const bundle = { scope: "everything" as const, exportedAt: "", records, refused: [] };
    const d = desk();
    done(await joinFile(await d.library(), bundle, { owner: "mine", letsAheadIn: true }));
    expect(ownContextsOf(await d.library())).toHaveLength(3);
    done(await clearEverything(d));
    const friend = desk();
    await begun(friend);
    done(await joinFile(await friend.library(), bundle, { owner: "friend", letsAheadIn: true }));
    expect(ownContextsOf(await friend.library())).toHaveLength(1);
    expect(contextsOf(await friend.library())).toHaveLength(4);
  });
});

/** What a friend's machine makes of records it has been given: a version that builds upon each, by the friend. */
function byFriend(d: Desk, records: readonly StoredRecord[], change: (r: StoredRecord) => unknown): StoredRecord[] {
  return records.map((r, i) => {
    const rev = `0moooooo${i.toString(36)}.0000.friend`;
    return { ...r, rev, author: "member-friend", seen: { ...r.seen, friend: rev }, data: change(r) };
  });
}

beforeEach(() => void (browser = memoryBrowser()));

describe("a friend's file with everything", () => {
  async function setUp() {
    const d = desk();
    const projectId = await begun(d);
    const library = await d.library();
    const stored = [...(await d.at(theStore).open()).all()].map((heads) => heads[0]);
    const of = (kind: RecordKind) => stored.find((r) => r.kind === kind)!;
    const me = library.settings!.data.memberId;
    const records = byFriend(
      d,
      [
        of("place"),
        of("rig"),
        of("frame"),
        of("project"),
        of("part"),
        of("settings"),
        of("member"),
        of("contribution"),
      ],
      (r) => {
        const data = r.data as Record<string, unknown>;
        switch (r.kind) {
          case "place":
            return { ...data, latitudeDeg: 54, name: "Yard up north" };
          case "rig":
            return { ...data, focalLengthMm: 200, sensor: { ...(data["sensor"] as object), binning: 2 } };
          case "frame":
            return { ...data, raDeg: 10 };
          case "project":
            return { ...data, name: "Renamed" };
          case "part":
            return { ...data, rigId: "rig-friend" };
          case "settings":
            return { ...data, wishHours: 9 };
          case "member":
            return { name: "You there" };
          default:
            return { ...data, kept: 1 };
        }
      },
    );
    const bundle = { scope: "everything" as const, exportedAt: "", records, refused: [] };
    return { d, projectId, me, bundle };
  }
  const snapshot = async (d: Desk) => {
    const { places, rigs, frames, projects, parts, settings, members, contributions } = await d.library();
    const bare = (list: readonly { readonly data: unknown }[]) => list.map((e) => e.data);
    return [places, rigs, frames, projects, parts, members, contributions].map(bare).concat([[settings?.data]]);
  };

  it("changes nothing here without a yes (reported: a friend who set the project to their rig changed mine)", async () => {
    const { d, bundle } = await setUp();
    const was = await snapshot(d);
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: true }));
    expect(await snapshot(d)).toEqual(was);
    // It is known now what the friend has: nothing is left beside, and nothing is asked again.
    expect((await d.library()).places[0]!.copies).toEqual([]);
    const again = await lookInto(await d.library(), bundle, "f.json");
    expect(again.changes).toEqual([]);
  });
  it("is shown field by field, and changes those fields alone that are said yes to", async () => {
    const { d, bundle } = await setUp();
    const view = await lookInto(await d.library(), bundle, "f.json");
    const told = view.changes.map((c) => [c.kind, c.isMine, c.fields.map((f) => f.path.join(".")).sort()]);
    expect(new Set(told)).toEqual(
      new Set([
        ["place", true, ["latitudeDeg", "name"]],
        ["rig", true, ["focalLengthMm", "sensor.binning"]],
        ["frame", true, ["raDeg"]],
        ["project", false, ["name"]],
        ["part", true, ["rigId"]],
        ["contribution", true, ["kept"]],
      ]),
    );
    const rig = view.changes.find((c) => c.kind === "rig")!;
    const chosen = [
      changeKey(
        rig,
        rig.fields.find((f) => f.path.at(-1) === "binning")!,
      ),
    ];
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: true, chosen }));
    const library = await d.library();
    expect(library.rigs[0]!.data).toMatchObject({ focalLengthMm: testRig.focalLengthMm, sensor: { binning: 2 } });
    expect(library.projects[0]!.data.name).not.toBe("Renamed");
  });
  it("deletes nothing here without a yes, and what it adds is added", async () => {
    const { d, projectId, bundle } = await setUp();
    const [place] = bundle.records.filter((r) => r.kind === "place");
    const gone = { ...place!, deletedAt: 1 };
    const part: StoredRecord = { id: partId(projectId, "member-friend"), kind: "part", rev: "0mooooooz.0000.friend", author: "member-friend", seen: { friend: "0mooooooz.0000.friend" }, data: { projectId, memberId: "member-friend", placeId: "far", rigId: "far" } }; // prettier-ignore
    const file = { ...bundle, records: [gone, part] };
    const view = await lookInto(await d.library(), file, "f.json");
    expect(view.changes.map((c) => [recordKey(c), c.isDeleted])).toEqual([[recordKey(gone), true]]);
    done(await joinFile(await d.library(), file, { owner: "friend", letsAheadIn: true }));
    const library = await d.library();
    expect(library.places.map((p) => p.data.name)).toEqual(["Yard"]);
    expect(library.parts).toHaveLength(2);
    expect(contextOf(library, projectId)?.part.isMine).toBe(true); // mine, not the friend's
    const yes = [changeKey(view.changes[0]!, null)];
    const later = { ...gone, rev: "0mooooooy.0000.friend", seen: { ...gone.seen, friend: "0mooooooy.0000.friend" } };
    done(await joinFile(library, { ...file, records: [later] }, { owner: "friend", letsAheadIn: true, chosen: yes })); // prettier-ignore
    expect((await d.library()).places).toEqual([]);
  });
});

describe("a frame that has hours", () => {
  it("is moved as another one that follows it, or beside it; hours count as was said, and one undo takes it back", async () => {
    const d = desk();
    const projectId = await begun(d);
    const context = async () => contextOf(await d.library(), projectId)!;
    const c = await context();
    const near = { ...c.frame.data, decDeg: c.frame.data.decDeg + 0.01 };
    const moved = done(await moveFrame(await d.library(), c, c.frame.id, { data: near, counts: true }));
    let now = await context();
    expect(now.frame.id).not.toBe(c.frame.id);
    expect(now.frame.data.decDeg).toBe(near.decDeg);
    expect([now.cells[0]!.keptMin, now.frames.length, now.stock.frames.length]).toEqual([60, 1, 2]);
    expect(now.project.data.frameId).toBe(now.frame.id);
    done((await undo(d, moved.undoId))!);
    now = await context();
    expect([now.frame.id, now.cells[0]!.keptMin, now.stock.frames.length]).toEqual([c.frame.id, 60, 1]);

    const far = { ...c.frame.data, decDeg: c.frame.data.decDeg + 2 };
    const refused = await moveFrame(await d.library(), now, c.frame.id, { data: far, counts: true });
    expect(refused.ok).toBe(false);
    done(await moveFrame(await d.library(), now, c.frame.id, { data: far, counts: false }));
    now = await context();
    expect([now.frame.data.decDeg, now.cells[0]!.keptMin, now.frames.length]).toEqual([far.decDeg, 0, 2]);
    done(await shootFrame(await d.library(), now, c.frame.id));
    now = await context();
    expect([now.frame.id, now.cells[0]!.keptMin]).toEqual([c.frame.id, 60]);
  });
});

describe("what is left of a project", () => {
  it("is not called done where it waits for a filter one has not, or for what others promised (reported: every goal is met)", async () => {
    const d = desk();
    const projectId = await begun(d);
    const library = await d.library();
    const { goal } = contextOf(library, projectId)!;
    const want = (channel: "Ha" | "OIII" | "SII", hoursPerPanel: number) => ({ channel, filterId: "", hoursPerPanel, subSec: 300 }); // prettier-ignore
    const channels = [want("Ha", 0.1), want("OIII", 2), want("SII", 2)]; // an hour of Ha is in the log
    done(await saveGoal(d, { id: goal.id, baseRev: goal.rev, data: { ...goal.data, channels } }));
    const project = (await d.library()).projects[0]!;
    const mine = (await d.library()).parts[0]!;
    done(await saveProject(await d.library(), { id: projectId, baseRev: project.rev, data: project.data }, { rev: mine.rev, data: { ...mine.data, channels: ["Ha", "OIII"] } })); // prettier-ignore
    const c = contextOf(await d.library(), projectId)!;
    expect(c.needs.every((n) => n.remainingMin === 0)).toBe(true);
    expect([c.withoutFilter, c.ofOthers]).toEqual([["OIII"], ["SII"]]);
    expect(leftForOthersWords(c)).toBe(
      "OIII has hours left, but no filter in this rig; SII has hours left that others have promised",
    );
    expect(leftForOthersWords({ withoutFilter: [], ofOthers: [] })).toBe("");
  });
});

describe("what a project has, whoever looks", () => {
  const seenBy = (memberId: string) => {
    const bundle = decodeBundle(JSON.stringify(demo));
    if (!bundle.ok) throw new Error(bundle.error.code);
    const mine = bundle.value.records.map((r) =>
      r.kind === "settings" ? { ...r, data: { ...(r.data as Settings), memberId } } : r,
    );
    return libraryOfRecords(mine);
  };
  it("is the same for each of three members with their own rigs and skies: hours are measured by the project's reference", () => {
    const looms = ["member-ines", "member-tomasz", "member-wren"].map((id) => {
      const library = seenBy(id);
      const c = contextOf(library, "project-shell")!;
      expect(c.part.data.memberId).toBe(id);
      expect(c.reference.memberId).toBe("member-ines");
      return { cells: c.cells, weights: weightsOf(library, c) };
    });
    expect(looms[1]).toEqual(looms[0]);
    expect(looms[2]).toEqual(looms[0]);
    const byHours = looms[0]!.weights.map((w) => [w.memberId, w.keptHours] as const);
    expect(byHours).toHaveLength(3);
  });
  it("leaves to each as many hours of their own as the rest at the reference is worth there", () => {
    const rest = (id: string) => contextOf(seenBy(id), "project-shell")!;
    const [ines, wren] = [rest("member-ines"), rest("member-wren")];
    for (const n of wren.needs) {
      const same = ines.needs.find((x) => x.channel === n.channel && x.panel === n.panel)!;
      expect(n.remainingMin * wren.hourIs(n.channel)).toBeCloseTo(same.remainingMin, 6);
    }
    // By hand, MATHS 4.4: aperture, transmission, band and sky, with the target as high at both places.
    const sky = 10 ** (0.4 * (wren.place.data.skyMagPerArcsec2 - ines.place.data.skyMagPerArcsec2));
    const height = wren.bestRates.OIII! / ines.bestRates.OIII!;
    const skyAlone = (71 / 80) ** 2 * sky * height; // the same filter and camera behind both
    // Light and reading of its own take a little from what a darker sky is worth (MATHS 4.4).
    expect(wren.hourIs("OIII") / skyAlone).toBeGreaterThan(0.9);
    expect(wren.hourIs("OIII") / skyAlone).toBeLessThan(1);
    expect(ines.hourIs("OIII")).toBe(1);
  });
});
