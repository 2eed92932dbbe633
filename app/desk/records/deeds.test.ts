import { beforeEach, describe, expect, it, vi } from "vitest";
import { nextRev, type StoredRecord } from "~/core/crew";
import type { KeepFault } from "~/core/records";
import { DEFAULT_OVERHEADS } from "~/core/exposure";
import type { Place } from "~/core/night";
import type { Result } from "~/core/result";
import { nightDate } from "~/core/time";
import { testFilter, testPlace, testRig } from "~/core/test-data";
import type { Entity } from "./library";
import { saveFilter, savePlace, saveRig } from "~/desk/kit/kit";
import { bookByHand, changeKept, deleteEntries, logNights } from "~/desk/log/log";
import { contextOf, contextsOf, requireContext } from "~/desk/projects/project";
import { gapOf } from "../projects/project-gap";
import { addFrame, deleteProject, saveFrame, startProject } from "~/desk/projects/projects";
import { keep, remove, settle, undo } from "./acts";
import { answer } from "./answer";
import { dropAside, mendAside } from "./aside";
import { backupState } from "./backup";
import { canPutBack, clearEverything, putBackEverything } from "./clear";
import { lookedInto, lookInto, readBundle } from "./file-view";
import { changeKey } from "./named-records";
import { joinFile, joinLookedInto } from "./join";
import { onNotice } from "./notices";
import { onLibrary } from "./open-library";
import { heldBack, holdBack, letGo, putDown } from "./pending";
import { writeEverything, writeProject } from "./written";
import { choiceOf } from "~/desk/sky/choice";
import { withLearntChances } from "~/desk/sky/learnt";
import { memoryBrowser, readerHere, testDesk } from "~/desk/desk.test-data";
import { NotStarted } from "~/workers/client";

let browser = memoryBrowser();
/** A tab of its own in the same browser. */
const desk = () => testDesk({ browser });
type Desk = ReturnType<typeof desk>;

function done<T>(result: Result<T, KeepFault>): T {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
}
const entry = {
  id: "X 1",
  name: "",
  aliases: [],
  kind: "emissionNebula",
  at: { frame: "icrs", raDeg: 300, decDeg: 40 },
  majorArcmin: 30,
  minorArcmin: 20,
  positionAngleDeg: 10,
  magnitude: null,
  constellation: "Cyg",
  rank: 50,
  curated: null,
} as const;

/** A place under another name, as a page that shows this version of it saves it. */
const renamed = ({ id, rev, data }: Entity<Place>, name: string) => ({ id, baseRev: rev, data: { ...data, name } });

/** A place, a rig with a filter, and a project begun with them. */
async function begun(d: Desk) {
  done(await savePlace(await d.library(), { id: "new", baseRev: "", data: { ...testPlace, name: "Yard" } }));
  done(await saveFilter(d, { id: "new", baseRev: "", data: testFilter }));
  const filterIds = (await d.library()).filters.map((f) => f.id);
  done(await saveRig(await d.library(), { id: "new", baseRev: "", data: { ...testRig, filterIds } }));
  const library = await d.library();
  const [place, rig] = [library.places[0]!, library.rigs[0]!];
  const at = { place, rig, today: nightDate("2026-12-05") };
  const { projectId } = done(await startProject(library, at, entry));
  return projectId;
}
const written = (projectId: string) => ({ projectId, panel: "P1", channel: "Ha" as const, night: "2026-12-04", exposureSec: 300, taken: 12, kept: 10, reason: "cloud" as const, note: "" }); // prettier-ignore

beforeEach(() => void (browser = memoryBrowser()));

describe("the library of a tab", () => {
  it("is read once and then a value: a change makes another one and shares what did not change", async () => {
    const d = desk();
    const projectId = await begun(d);
    const before = await d.library();
    expect(await d.library()).toBe(before);
    const heard = vi.fn();
    onLibrary(d, heard);
    done(await bookByHand(before, written(projectId)));
    const after = await d.library();
    expect(heard).toHaveBeenCalledWith("here");
    expect([after.contributions.length, before.contributions.length]).toEqual([1, 0]);
    expect([after.places, after.rigs, after.frames, after.settings]).toEqual([before.places, before.rigs, before.frames, before.settings]); // prettier-ignore
    expect(after.places).toBe(before.places);
    expect(contextOf(after, projectId)).toBe(contextOf(after, projectId));
  });

  it("indexes the log by project, place, member and night, and keeps the lists nothing happened to", async () => {
    const d = desk();
    const projectId = await begun(d);
    done(await bookByHand(await d.library(), written(projectId)));
    done(await bookByHand(await d.library(), { ...written(projectId), night: "2026-12-03" }));
    const one = await d.library();
    done(await bookByHand(one, { ...written(projectId), night: "2026-12-02" }));
    const { log } = await d.library();
    expect([log.byProject.get(projectId)?.length, log.byNight.get("2026-12-03")?.length]).toEqual([3, 1]);
    expect(log.byNight.get("2026-12-03")).toBe(one.log.byNight.get("2026-12-03"));
    expect(log.byPlace.size).toBe(1);
    expect([...log.byMember.keys()]).toEqual([one.settings!.data.memberId]);
  });

  it("follows what another tab keeps", async () => {
    const [one, other] = [desk(), desk()];
    await one.library();
    await other.library();
    const heard = new Promise((resolve) => onLibrary(other, (by) => by === "elsewhere" && resolve(null)));
    done(await savePlace(await one.library(), { id: "new", baseRev: "", data: { ...testPlace, name: "Field" } })); // prettier-ignore
    await heard;
    expect((await other.library()).places.map((p) => p.data.name)).toEqual(["Field"]);
  });
});

describe("a desk whose checks do not load", () => {
  it("keeps nothing and says so; the next act is checked by a worker that does, and nothing was stored in between", async () => {
    let isThere = false;
    const down = () => Promise.reject(new NotStarted("404"));
    const reader: typeof readerHere = {
      ...readerHere,
      refused: (edits) => (isThere ? readerHere.refused(edits) : down()),
      versions: () => (isThere ? readerHere.versions() : down()),
    };
    const here = testDesk({ browser, reader });
    const saved = async () => savePlace(await here.library(), { id: "", data: { ...testPlace, name: "Yard" }, baseRev: "" }); // prettier-ignore
    expect(await saved()).toEqual({ ok: false, error: { code: "notFetched" } });
    expect((await here.library()).places).toEqual([]);
    isThere = true;
    done(await saved());
    expect((await here.library()).places.map((p) => p.data.name)).toEqual(["Yard"]);
  });

  it("does not take a fault of the checks themselves for one that did not load", async () => {
    const told = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const broken = () => Promise.reject(new TypeError("a schema is wrong"));
    const here = testDesk({ browser, reader: { ...readerHere, refused: broken } });
    const saved = await savePlace(await here.library(), { id: "", data: testPlace, baseRev: "" });
    expect(saved).toEqual({ ok: false, error: { code: "storageBlocked" } });
    expect(told).toHaveBeenCalled();
    told.mockRestore();
  });
});

describe("deeds", () => {
  it("are undone as a whole, by one entry an act: a project with its frame and goals goes and comes back", async () => {
    const d = desk();
    const projectId = await begun(d);
    done(await bookByHand(await d.library(), written(projectId)));
    const c = requireContext(await d.library(), projectId);
    done(await addFrame(c, { ...c.frame.data, title: "wide" }));
    const gone = done(await deleteProject(await d.library(), requireContext(await d.library(), projectId)));
    let library = await d.library();
    expect([library.projects.length, library.frames.length, library.goals.length, library.contributions.length]).toEqual([0, 0, 0, 0]); // prettier-ignore
    done((await undo(d, gone.undoId))!);
    library = await d.library();
    expect([library.projects.length, library.frames.length, library.goals.length]).toEqual([1, 2, 1]);
    expect(contextOf(library, projectId)?.cells[0]?.keptMin).toBe(50);
    expect(await undo(d, gone.undoId)).toBeNull();
  });

  it("take back what was new, too", async () => {
    const d = desk();
    const projectId = await begun(d);
    const booked = done(await bookByHand(await d.library(), written(projectId)));
    done((await undo(d, booked.undoId))!);
    expect((await d.library()).contributions).toEqual([]);
  });

  it("are refused when what they keep would not read again; nothing is kept and nothing said", async () => {
    const d = desk();
    await begun(d);
    const said = vi.fn();
    onNotice(d, said);
    const refused = await saveRig(await d.library(), { id: "new", baseRev: "", data: { ...testRig, name: "n".repeat(130), overheads: DEFAULT_OVERHEADS } }); // prettier-ignore
    expect(refused).toMatchObject({ ok: false, error: { code: "recordRefused", kind: "rig", path: "name" } });
    answer(d, refused, "Saved.");
    expect(said).not.toHaveBeenCalled();
    expect((await d.library()).rigs).toHaveLength(1);
  });

  it("say what they did once it is done, with the act that Undo takes back", async () => {
    const d = desk();
    await begun(d);
    const said = vi.fn();
    onNotice(d, said);
    const [rig] = (await d.library()).rigs;
    const gone = await remove(d, [{ kind: "rig", ...rig! }]);
    answer(d, gone, "Gone.");
    expect(said.mock.calls).toEqual([[{ text: "Gone.", undoId: done(gone).undoId }]]);
  });

  it("choose among versions written at the same time", async () => {
    const d = desk();
    await begun(d);
    const [place] = (await d.library()).places;
    const draft = (name: string) => ({ id: place!.id, baseRev: place!.rev, data: { ...place!.data, name } });
    done(await savePlace(await d.library(), draft("North yard")));
    expect(done(await savePlace(await d.library(), draft("South yard"))).collided).toEqual([place!.id]);
    const [torn] = (await d.library()).places;
    expect([torn!.data.name, torn!.copies.map((c) => c.data.name)]).toEqual(["South yard", ["North yard"]]);
    const shown = { kind: "place" as const, id: place!.id, rev: torn!.rev, copies: torn!.copies.map((c) => c.rev) };
    done(await settle(d, shown, torn!.copies[0]!.data));
    const [settled] = (await d.library()).places;
    expect([settled!.data.name, settled!.copies]).toEqual(["North yard", []]);
  });

  it("are made and taken back beside an unsettled copy without copying it", async () => {
    const d = desk();
    await begun(d);
    const [place] = (await d.library()).places;
    done(await savePlace(await d.library(), renamed(place!, "North yard")));
    done(await savePlace(await d.library(), renamed(place!, "South yard")));
    for (let i = 0; i < 9; i++) {
      const [torn] = (await d.library()).places;
      const kept = done(await savePlace(await d.library(), renamed(torn!, `Yard ${i}`)));
      done((await undo(d, kept.undoId))!);
    }
    const [torn] = (await d.library()).places;
    expect([torn!.data.name, ...torn!.copies.map((c) => c.data.name)]).toEqual(["South yard", "North yard"]);
  });

  it("ask nobody to choose between versions that say the same", async () => {
    const d = desk();
    await begun(d);
    const [place] = (await d.library()).places;
    for (const name of ["North yard", "South yard", "North yard"])
      done(await savePlace(await d.library(), renamed(place!, name)));
    const [torn] = (await d.library()).places;
    expect([torn!.data.name, ...torn!.copies.map((c) => c.data.name)]).toEqual(["North yard", "South yard"]);
    const shown = { kind: "place" as const, id: torn!.id, rev: torn!.rev, copies: torn!.copies.map((c) => c.rev) };
    done(await settle(d, shown, torn!.data));
    const [settled] = (await d.library()).places;
    expect([settled!.data.name, settled!.copies]).toEqual(["North yard", []]);
  });

  it("show what was deleted in one place and changed in another, and ask which it shall be", async () => {
    const d = desk();
    await begun(d);
    const [place] = (await d.library()).places;
    const changed = { id: place!.id, baseRev: place!.rev, data: { ...place!.data, name: "Changed" } };
    done(await savePlace(await d.library(), changed));
    done(await remove(d, [{ kind: "place", ...place! }])); // the page still showed the version before
    const [torn] = (await d.library()).places;
    expect([torn!.data.name, torn!.copies.map((c) => c.deletedAt !== undefined)]).toEqual(["Changed", [true]]);
    const shown = { kind: "place" as const, id: torn!.id, rev: torn!.rev, copies: torn!.copies.map((c) => c.rev) };
    const gone = done(await settle(d, shown, torn!.data, true));
    expect((await d.library()).places).toEqual([]);
    done((await undo(d, gone.undoId))!);
    const [asked] = (await d.library()).places;
    expect([asked!.data.name, asked!.copies.length]).toEqual(["Changed", 1]);
    const again = { ...shown, rev: asked!.rev, copies: asked!.copies.map((c) => c.rev) };
    done(await settle(d, again, asked!.data));
    expect((await d.library()).places.map((p) => [p.data.name, p.copies])).toEqual([["Changed", []]]);
  });

  it("take back only their own: what somebody else changed since stays beside it", async () => {
    const d = desk();
    await begun(d);
    const [place] = (await d.library()).places;
    const named = (name: string, baseRev: string) => ({ id: place!.id, baseRev, data: { ...place!.data, name } });
    const first = done(await savePlace(await d.library(), named("First", place!.rev)));
    done(await savePlace(await d.library(), named("Since", first.revs[place!.id]!)));
    done((await undo(d, first.undoId))!);
    const [now] = (await d.library()).places;
    expect([now!.data.name, ...now!.copies.map((c) => c.data.name)]).toEqual(["Yard", "Since"]);
  });

  it("change entries and delete them, and the log by nights follows", async () => {
    const d = desk();
    const projectId = await begun(d);
    done(await bookByHand(await d.library(), written(projectId)));
    const [total] = logNights(await d.library(), projectId);
    expect(total).toMatchObject({ taken: 12, kept: 10, keptMin: 50, reasons: ["cloud"] });
    const [record] = total!.entries;
    done(await changeKept(d, record!, 4, "cloud"));
    const [changed] = logNights(await d.library(), null);
    expect([changed!.kept, changed!.entries[0]!.rev > record!.rev]).toEqual([4, true]);
    expect(changed!.entries[0]!.data.history).toMatchObject([{ kept: 10, reason: "cloud" }]);
    done(await deleteEntries(d, changed!.entries));
    expect(logNights(await d.library(), null)).toEqual([]);
  });
});

describe("everything at once", () => {
  it("is deleted at one stroke, put back, and written as a file that another browser joins whole", async () => {
    const dropped: string[] = [];
    const d = testDesk({ folders: { dropOwn: (name) => Promise.resolve(void dropped.push(name)) } });
    const projectId = await begun(d);
    done(await bookByHand(await d.library(), written(projectId)));
    const file = await writeEverything(await d.library());
    expect((await d.library()).settings?.data.lastBackupMs).not.toBeNull();
    done(await clearEverything(d));
    expect([(await d.library()).places.length, canPutBack(d)]).toEqual([0, true]);
    expect(dropped).toEqual(["rehearsal"]); // what a rehearsal wrote goes too
    done(await putBackEverything(d));
    expect([(await d.library()).projects.length, canPutBack(d)]).toEqual([1, false]);
    done(await clearEverything(d));
    const elsewhere = desk();
    const bundle = await readBundle(elsewhere, new Blob([file.text]), AbortSignal.timeout(9000));
    if (!bundle.ok) throw new Error(bundle.error.code);
    // Whoever stops while it is looked into has looked at nothing.
    await expect(lookInto(await elsewhere.library(), bundle.value, "all.json", AbortSignal.abort())).rejects.toThrow();
    expect(elsewhere.at(lookedInto).size).toBe(0);
    const view = await lookInto(await elsewhere.library(), bundle.value, "all.json");
    expect([view.fresh, view.owner, view.news[0]?.keptMin]).toEqual([bundle.value.records.length - 1, "mine", 50]);
    expect(view.own.map((line) => [line.what, line.from, line.to]).slice(0, 2)).toEqual([
      ["You are", "nobody yet", "Me"],
      ["Usual place", "none", "Yard"],
    ]);
    const other = { ...bundle.value, records: [] };
    await lookInto(await elsewhere.library(), other, "another.json");
    const joined = await joinLookedInto(await elsewhere.library(), view.handle, { owner: "mine", letsAheadIn: false });
    // The file that is joined is the one the page shows, not the one looked into last (reported).
    expect(joined!.fileName).toBe("all.json");
    done(joined!.done);
    const restored = await elsewhere.library();
    expect(contextOf(restored, projectId)?.cells[0]?.keptMin).toBe(50);
    expect(restored.settings?.data.placeId).toBe(restored.places[0]!.id);
    expect((await lookInto(restored, bundle.value, "all.json")).fresh).toBe(0);
  });

  it("leaves one's own settings and name alone when a friend's file has others, also where there are none yet", async () => {
    const d = desk();
    await begun(d);
    const mine = (await d.library()).settings!.data;
    const friend = (kind: "settings" | "member", id: string, data: unknown, rev: string): StoredRecord => ({
      id, kind, rev, author: "wren", seen: { friend: rev }, ...(kind === "settings" ? { v: 2 } : {}), data,
    }); // prettier-ignore
    const records = [
      friend("settings", "settings", { ...mine, memberId: "wren", wishHours: 5 }, "0moooooo0.0000.friend"),
      friend("member", mine.memberId, { name: "The other one" }, "0moooooo0.0001.friend"),
      friend("member", "wren", { name: "Wren" }, "0moooooo0.0002.friend"),
    ];
    const bundle = { scope: "everything" as const, exportedAt: "", records, refused: [] };
    const view = await lookInto(await d.library(), bundle, "w.json");
    expect(view.owner).toBe("friend");
    expect(view.own).toContainEqual({ what: "Hours wished for", from: "2 h", to: "5 h" });
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: false }));
    const library = await d.library();
    expect(library.settings!.data).toEqual(mine);
    expect(library.members.map((m) => m.data.name)).toEqual(["Me", "Wren"]);
    done(await joinFile(library, bundle, { owner: "mine", letsAheadIn: false }));
    expect((await d.library()).settings!.data).toEqual({ ...mine, memberId: "wren", wishHours: 5 });
    done(await clearEverything(d));
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: false }));
    expect((await d.library()).settings).toBeNull();
  });

  it("leaves kit of a friend's that one uses oneself as it is unless one says yes, field by field; kit nobody here uses follows its owner", async () => {
    const d = desk();
    await begun(d);
    const { data } = (await d.library()).rigs[0]!;
    let written = 0;
    const theirs = (
      id: string,
      name: string,
      after: StoredRecord | null,
      apertureMm = data.apertureMm,
    ): StoredRecord => {
      const seen = after?.seen ?? {};
      const rev = nextRev(Object.values(seen), Date.UTC(2026, 10, 26) + ++written, "friend")!;
      return { id, kind: "rig", rev, author: "wren", seen: { ...seen, friend: rev }, data: { ...data, name, apertureMm } }; // prettier-ignore
    };
    const file = (...records: StoredRecord[]) => ({ scope: "project" as const, exportedAt: "", records, refused: [] });
    const join = async (records: StoredRecord[], ...chosen: string[]) =>
      done(await joinFile(await d.library(), file(...records), { owner: "friend", letsAheadIn: false, chosen }));
    const changes = async (...records: StoredRecord[]) =>
      (await lookInto(await d.library(), file(...records), "w.json")).changes.map((c) => [c.id, c.isMine]);
    const rig = async (id: string) => (await d.library()).rigs.find((r) => r.id === id)!.data;

    const [spare, lent] = [theirs("rig-spare", "Spare", null), theirs("rig-lent", "Lent", null)];
    await join([spare, lent]);
    const settings = (await d.library()).settings!;
    done(await keep(d, [{ kind: "settings", id: "settings", data: { ...settings.data, rigId: "rig-lent" }, baseRev: settings.rev }])); // prettier-ignore

    const news = [theirs("rig-spare", "Spare, sold", spare), theirs("rig-lent", "Hers again", lent, 61)];
    expect(await changes(...news)).toEqual([["rig-lent", true]]);
    await join(news);
    expect((await rig("rig-lent")).name).toBe("Lent");
    expect((await rig("rig-spare")).name).toBe("Spare, sold");
    // Known from then on: the same file brings nothing to say yes to.
    expect(await changes(...news)).toEqual([]);
    const more = theirs("rig-lent", "Hers for good", news[1]!, 62);
    await join([more], changeKey({ kind: "rig", id: "rig-lent" }, { path: ["apertureMm"] }));
    expect(await rig("rig-lent")).toEqual({ ...data, name: "Lent", apertureMm: 62 });
  });

  it("keeps out what says it was written more than a day from now, names it, and lets it in when asked to", async () => {
    const d = desk();
    await begun(d);
    const rev = nextRev([], Date.UTC(2031, 0, 1), "friend")!;
    const far: StoredRecord = { id: "place-far", kind: "place", rev, author: "w", seen: { friend: rev }, data: { ...testPlace, name: "Far" } }; // prettier-ignore
    const bundle = { scope: "project" as const, exportedAt: "", records: [far], refused: [] };
    const view = await lookInto(await d.library(), bundle, "w.json");
    expect(view.ahead).toEqual([{ kind: "place", name: "Far", atMs: Date.UTC(2031, 0, 1) }]);
    const names = async () => (await d.library()).places.map((p) => p.data.name);
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: false }));
    expect(await names()).toEqual(["Yard"]);
    done(await joinFile(await d.library(), bundle, { owner: "friend", letsAheadIn: true }));
    expect(await names()).toEqual(["Far", "Yard"]);
  });

  it("hides nothing of any kind when a file has a record of another kind under the same id (all pairs)", async () => {
    const d = desk();
    await begun(d);
    const library = await d.library();
    const own = [library.places[0]!, library.rigs[0]!, library.filters[0]!, library.projects[0]!, library.frames[0]!, library.goals[0]!, library.members[0]!]; // prettier-ignore
    const kinds = ["place", "rig", "filter", "project", "frame", "goal", "member"] as const;
    const rev = nextRev([], Date.UTC(2026, 10, 26), "friend")!;
    const records = own.flatMap(({ id }, i) =>
      kinds.flatMap((kind, k): StoredRecord[] =>
        k === i ? [] : [{ id, kind, rev, author: "w", seen: { friend: rev }, data: { ...own[k]!.data } }],
      ),
    );
    const before = contextOf(library, library.projects[0]!.id);
    done(await joinFile(library, { scope: "project", exportedAt: "", records, refused: [] }, { owner: "friend", letsAheadIn: true })); // prettier-ignore
    const after = await d.library();
    for (const [i, { id, data }] of own.entries()) {
      const list = [after.places, after.rigs, after.filters, after.projects, after.frames, after.goals, after.members][i]!; // prettier-ignore
      expect((list as readonly Entity<unknown>[]).find((e) => e.id === id)?.data).toEqual(data);
    }
    expect(before).not.toBeNull();
  });

  it("carries what does not read along, sets it aside where it is restored, and mends or drops it", async () => {
    const d = desk();
    await begun(d);
    const bad = { kind: "place", id: "place-bad", rev: "00000000a.0000.x", author: "x", seen: { x: "00000000a.0000.x" }, data: { ...testPlace, latitudeDeg: 95 } }; // prettier-ignore
    const text = JSON.stringify({ format: "zenithar-bundle", version: 1, scope: "everything", exportedAt: "", records: [bad] }); // prettier-ignore
    const read = async (t: string) => {
      const bundle = await readBundle(d, new Blob([t]), AbortSignal.timeout(9000));
      if (!bundle.ok) throw new Error(bundle.error.code);
      return bundle.value;
    };
    const mine = { owner: "mine" as const, letsAheadIn: false };
    done(await joinFile(await d.library(), await read(text), mine));
    done(await joinFile(await d.library(), await read(text), mine)); // once only
    const aside = async () => (await d.library()).quarantine;
    expect((await aside()).map((q) => q.key)).toEqual(["place/place-bad"]);
    const exported = await read((await writeEverything(await d.library())).text);
    expect(exported.refused.map((r) => [r.key, r.raw])).toEqual([["place/place-bad", bad]]);
    const [thing] = await aside();
    const dropped = done(await dropAside(d, thing!));
    expect(await aside()).toEqual([]);
    done((await undo(d, dropped.undoId))!);
    expect(await aside()).toHaveLength(1);
    expect(await mendAside(d, thing!, JSON.stringify(bad))).toEqual({ ok: false, error: "data.latitudeDeg: Latitude must be less than or equal to 90" }); // prettier-ignore
    const mended = await mendAside(d, thing!, JSON.stringify({ ...bad, data: { ...testPlace, name: "Mended" } }));
    expect(mended.ok && mended.value.ok).toBe(true);
    expect(await aside()).toEqual([]);
    expect((await d.library()).places.map((p) => p.data.name)).toContain("Mended");
  });

  it("gives a friend one project with the kit it needs, and nothing of the others", async () => {
    const d = desk();
    const [first, second] = [await begun(d), await begun(d)];
    const file = await writeProject(d, first, "loop");
    const ids = (JSON.parse(file.text) as { records: { id: string; kind: string }[] }).records;
    expect(ids.some((r) => r.id === first) && !ids.some((r) => r.id === second)).toBe(true);
    expect(new Set(ids.map((r) => r.kind))).toEqual(new Set(["project", "part", "frame", "goal", "place", "rig", "filter", "member"])); // prettier-ignore
  });
});

describe("a project that cannot be put together", () => {
  it("says which part of it does not read, or is gone, and takes no other down", async () => {
    const d = desk();
    const [first, second] = [await begun(d), await begun(d)];
    const library = await d.library();
    const frame = library.frames.find((f) => f.data.projectId === first)!;
    const without = { ...library, frames: library.frames.filter((f) => f !== frame) };
    expect(gapOf(without, first)).toEqual({ part: "frame", reason: null });
    const raw = { id: frame.id, kind: "frame", data: { ...frame.data, decDeg: 95 } };
    const aside = { ...without, quarantine: [{ key: `frame/${frame.id}`, reason: "data.decDeg: too large", raw }] };
    expect(gapOf(aside, first)).toEqual({ part: "frame", reason: "data.decDeg: too large" });
    expect(contextsOf(aside).map((c) => c.id)).toEqual([second]);
    // Of the first project: both have one of their own, and records lie in no order that a test could count on.
    const its = contextOf(library, first)!.rig;
    const rig = { ...its, data: { ...its.data, sensor: null as never } };
    const odd = { ...library, rigs: [rig] }; // no schema lets this in; should one ever, it is set aside with its reason
    expect(contextOf(odd, first)).toBeNull();
    expect(gapOf(odd, first)).toMatchObject({ part: "project", reason: expect.stringContaining("null") as string }); // prettier-ignore
    expect(contextOf(library, first)).not.toBeNull();
    expect(gapOf(library, first)).toBeNull();
  });
});

describe("backups", () => {
  it("are called for once there is much to lose, not while nothing changes, and again a month after changes", async () => {
    const d = desk();
    const projectId = await begun(d);
    const day = (n: number) => Date.parse("2026-12-05T16:40:00Z") + n * 86_400_000;
    const state = async (ms: number) => backupState(await d.library(), ms);
    expect(await state(day(0))).toEqual({ ageDays: null, changes: 6, isDue: false });
    for (let i = 0; i < 4; i++) done(await bookByHand(await d.library(), written(projectId)));
    expect(await state(day(0))).toEqual({ ageDays: null, changes: 10, isDue: true });
    await writeEverything(await d.library());
    expect(await state(day(40))).toEqual({ ageDays: 40, changes: 0, isDue: false });
    d.setNow("2026-12-05T16:41:00Z");
    done(await bookByHand(await d.library(), written(projectId)));
    expect(await state(day(29))).toMatchObject({ changes: 1, isDue: false });
    expect(await state(day(31))).toMatchObject({ changes: 1, isDue: true });
  });
});

describe("edits that a page could not keep any more", () => {
  const frameOf = async (d: Desk) => (await d.library()).frames[0]!;

  it("are kept by the next page, upon the version they were made from", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const data = { ...frame.data, positionAngleDeg: 33 };
    putDown(d, { kind: "frame", id: frame.id, data, baseRev: frame.rev });
    const next = desk();
    const kept = await frameOf(next);
    expect([kept.data.positionAngleDeg, kept.copies]).toEqual([33, []]);
    expect((await frameOf(desk())).rev).toBe(kept.rev); // and once only
  });

  it("are crossed out once they are kept", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const edit = {
      kind: "frame" as const,
      id: frame.id,
      data: { ...frame.data, positionAngleDeg: 33 },
      baseRev: frame.rev,
    };
    putDown(d, edit);
    done(await saveFrame(d, edit));
    const { rev } = await frameOf(d);
    expect((await frameOf(desk())).rev).toBe(rev);
  });

  it("that changed while they were being kept build upon what was kept, and are no copy beside it", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const turned = (positionAngleDeg: number) => ({
      kind: "frame" as const,
      id: frame.id,
      data: { ...frame.data, positionAngleDeg },
      baseRev: frame.rev,
    });
    putDown(d, turned(33));
    const saving = saveFrame(d, turned(33));
    putDown(d, turned(44));
    done(await saving);
    const kept = await frameOf(desk());
    expect([kept.data.positionAngleDeg, kept.copies]).toEqual([44, []]);
  });

  it("that are saved while the save before is under way build upon it: nobody is at odds with oneself", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const turned = (positionAngleDeg: number) => ({
      id: frame.id,
      data: { ...frame.data, positionAngleDeg },
      baseRev: frame.rev,
    });
    const saves = [33, 44, 55].map((angle) => saveFrame(d, turned(angle)));
    for (const save of saves) expect(done(await save).collided).toEqual([]);
    const kept = await frameOf(d);
    expect([kept.data.positionAngleDeg, kept.copies]).toEqual([55, []]);
  });

  it("that ask something first wait for the answer: nothing keeps them, they are read back, and what does not read is not", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const data = { ...frame.data, positionAngleDeg: 33 };
    const waiting = { kind: "frame" as const, id: frame.id, data, baseRev: frame.rev };
    holdBack(d, waiting);
    const next = desk();
    expect((await frameOf(next)).data.positionAngleDeg).toBe(frame.data.positionAngleDeg);
    expect(await heldBack(next, "frame", frame.id)).toEqual(data);
    expect(await heldBack(next, "frame", "another")).toBeNull();
    holdBack(next, { ...waiting, data: { ...data, columns: "many" } });
    expect(await heldBack(next, "frame", frame.id)).toBeNull();
    holdBack(next, waiting);
    letGo(next, waiting);
    expect(await heldBack(desk(), "frame", frame.id)).toBeNull();
  });

  it("that were kept do not come back when somebody changes the frame afterwards", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    const edit = { kind: "frame" as const, id: frame.id, data: { ...frame.data, positionAngleDeg: 33 }, baseRev: frame.rev }; // prettier-ignore
    putDown(d, edit);
    done(await saveFrame(d, edit)); // the page is left before it hears of it
    const other = desk();
    const now = await frameOf(other);
    done(await keep(other, [{ ...edit, data: { ...now.data, positionAngleDeg: 55 }, baseRev: now.rev }]));
    const later = await frameOf(desk());
    expect([later.data.positionAngleDeg, later.copies]).toEqual([55, []]);
  });

  it("are set aside, not lost, when they would not read again", async () => {
    const d = desk();
    await begun(d);
    const frame = await frameOf(d);
    putDown(d, { kind: "frame", id: frame.id, data: { ...frame.data, decDeg: 95 }, baseRev: frame.rev });
    const next = desk();
    expect((await frameOf(next)).data.decDeg).toBe(frame.data.decDeg);
    expect((await next.library()).quarantine.map((q) => q.key)).toEqual([`frame/${frame.id}`]);
  });
});

describe("what the log teaches", () => {
  it("corrects the place's chance of clear nights, and is not reckoned again until something there changes", async () => {
    const d = desk();
    const projectId = await begun(d);
    for (let day = 1; day <= 9; day++)
      done(await bookByHand(await d.library(), { ...written(projectId), night: `2026-11-0${day}` }));
    const library = await d.library();
    const [place] = library.places;
    const learnt = withLearntChances(library, place!);
    expect(learnt.data.clearChance[10]!).toBeGreaterThan(place!.data.clearChance[10]!);
    expect(learnt.data.clearChance[5]!).toBeCloseTo(place!.data.clearChance[5]!, 9);
    expect(withLearntChances(library, place!)).toBe(learnt);
    expect(withLearntChances(library, learnt)).toBe(learnt); // what the log says counts once, however often it is asked
    const [rig] = library.rigs;
    done(await saveRig(library, { id: rig!.id, baseRev: rig!.rev, data: { ...rig!.data, name: "Other" } }));
    expect(withLearntChances(await d.library(), place!)).toBe(learnt);
    expect(choiceOf(await d.library(), new URLSearchParams()).place).toBe(learnt);
  });
});
