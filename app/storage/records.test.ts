import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { StoredRecord } from "~/core/crew";
import type { Place } from "~/core/night";

const place = (name: string): Place => ({
  name,
  latitudeDeg: 45,
  longitudeDeg: 9,
  elevationM: 120,
  timeZone: "Europe/Rome",
  skyMagPerArcsec2: 20.4,
  skyline: [],
  minAltitudeDeg: 25,
  seeingArcsec: 2.8,
  clearChance: Array<number>(12).fill(0.4),
});

/** A fresh copy of the storage code, as a new page has it, over the same or an emptied database. */
async function page() {
  vi.resetModules();
  return { ...(await import("./records")), session: await import("./session"), tabs: await import("./tabs") };
}
type Page = Awaited<ReturnType<typeof page>>;

const save = (p: Page, name: string, baseRev: string | null, id = "place-1") =>
  p.saveAll([{ kind: "place", id, data: place(name), baseRev }]);
const shown = async (p: Page) => (await p.loadLibrary()).places.map((x) => x.data.name);

beforeEach(async () => {
  localStorage.clear();
  await (await page()).clearStore();
});
afterEach(() => vi.restoreAllMocks());

describe("the record store", () => {
  it("keeps what was saved for the next page, and moves revisions forward", async () => {
    const first = await page();
    const saved = await save(first, "Yard", null);
    expect(saved.ok && saved.value.collided).toEqual([]);
    const second = await page();
    const [stored] = (await second.loadLibrary()).places;
    expect(stored!.data.name).toBe("Yard");
    const again = await save(second, "Back yard", stored!.rev);
    expect(again.ok && again.value.revs["place-1"]! > stored!.rev).toBe(true);
    expect(again.ok && (again.value.before[0]!.record?.data as Place).name).toBe("Yard");
    expect(await shown(await page())).toEqual(["Back yard"]);
  });

  it("keeps both versions when a page saves over one it had not shown, until someone settles it", async () => {
    const p = await page();
    await save(p, "Yard", null);
    const base = (await p.loadLibrary()).places[0]!.rev;
    await save(p, "From the other tab", base);
    const late = await save(p, "From the old page", base);
    expect(late.ok && late.value.collided).toEqual(["place-1"]);
    const [now] = (await p.loadLibrary()).places;
    expect([now!.data.name, now!.copies.map((c) => c.data.name)]).toEqual([
      "From the old page",
      ["From the other tab"],
    ]);
    await p.saveAll([
      { kind: "place", id: "place-1", data: now!.copies[0]!.data, baseRev: now!.rev, settlesCopies: true },
    ]);
    const [settled] = (await p.loadLibrary()).places;
    expect([settled!.data.name, settled!.copies]).toEqual(["From the other tab", []]);
  });

  it("deletes as a tombstone and brings back with Undo, without leaving a copy", async () => {
    const p = await page();
    await save(p, "Yard", null);
    const [yard] = (await p.loadLibrary()).places;
    await p.saveAll([{ kind: "place", id: "place-1", data: yard!.data, baseRev: yard!.rev, isDeleted: true }]);
    expect(await shown(p)).toEqual([]);
    await p.saveAll([{ kind: "place", id: "place-1", data: yard!.data, baseRev: "latest" }]);
    const [back] = (await p.loadLibrary()).places;
    expect([back!.data.name, back!.copies]).toEqual(["Yard", []]);
  });

  it("joins a friend's records once, whichever way round, and tells what they brought", async () => {
    const p = await page();
    await save(p, "Mine", null);
    const mine = await p.allRecords();
    const theirs: StoredRecord = {
      id: "place-2",
      kind: "place",
      rev: "0l0000000.0000.friend",
      author: "f",
      seen: { friend: "0l0000000.0000.friend" },
      data: place("Theirs"),
    };
    expect(await p.mergeIn([theirs, ...mine])).toEqual({ ok: true, value: { added: 1, changed: 0, known: 1 } });
    expect(await p.mergeIn([theirs])).toEqual({ ok: true, value: { added: 0, changed: 0, known: 1 } });
    const oneWay = await p.allRecords();
    await p.clearStore();
    await p.mergeIn([theirs]);
    await p.mergeIn(mine);
    const byId = (list: readonly StoredRecord[]) => [...list].sort((a, b) => a.id.localeCompare(b.id));
    expect(byId(await p.allRecords())).toEqual(byId(oneWay));
  });

  it("sets aside what does not read, keeps it through later writes, and loads the rest", async () => {
    const p = await page();
    await save(p, "Yard", null);
    const { openDrawer } = await import("./driver");
    const raw = await openDrawer("zenithar", "records");
    const bad = { id: "place-1", kind: "place", rev: "not a clock", author: "x", seen: {}, data: {} };
    const good = (await raw.read("place-1")) as { v: 1; heads: unknown[] };
    await raw.write("place-1", { v: 1, heads: [...good.heads, bad] });
    await raw.write("place-9", { v: 7, heads: [] });
    await raw.write("place-8", "scribble");
    const library = await (await page()).loadLibrary();
    expect(library.places.map((x) => x.data.name)).toEqual(["Yard"]);
    expect(library.quarantine.map((q) => q.key).sort()).toEqual(["place-1", "place-8", "place-9"]);
    expect(library.quarantine.find((q) => q.key === "place-9")!.reason).toContain("newer version (7)");
    const q = await page();
    await save(q, "Renamed", library.places[0]!.rev);
    const later = await q.loadLibrary();
    expect([later.places[0]!.data.name, later.quarantine.filter((x) => x.key === "place-1").length]).toEqual([
      "Renamed",
      1,
    ]);
  });

  it("clears everything and puts it back as it was", async () => {
    const p = await page();
    await save(p, "Yard", null);
    const before = await p.allRecords();
    const taken = await p.clearStore();
    expect(await p.allRecords()).toEqual([]);
    await p.refillStore(taken);
    expect(await p.allRecords()).toEqual(before);
  });

  it("tells a full disk from a refusal, and stores nothing of the failed edit", async () => {
    const p = await page();
    await save(p, "Yard", null);
    const rev = (await p.loadLibrary()).places[0]!.rev;
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("no room", "QuotaExceededError");
    });
    expect(await save(p, "Too much", rev)).toEqual({ ok: false, error: { code: "storageFull" } });
    put.mockImplementation(() => {
      throw new DOMException("denied", "SecurityError");
    });
    expect(await save(p, "Denied", rev)).toEqual({ ok: false, error: { code: "storageBlocked" } });
    put.mockRestore();
    expect(await shown(p)).toEqual(["Yard"]);
  });

  it("works in memory where the browser refuses its database, and says that it does not last", async () => {
    vi.spyOn(indexedDB, "open").mockImplementation(() => {
      throw new DOMException("denied", "SecurityError");
    });
    const { openDrawer } = await import("./driver");
    const drawer = await openDrawer("a-database-never-opened", "records");
    expect(drawer.isLasting).toBe(false);
    const value = { v: 1, heads: [] as number[] };
    await drawer.write("a", value);
    value.heads.push(1); // what is stored is a copy
    expect(await drawer.read("a")).toEqual({ v: 1, heads: [] });
    await drawer.drop("a");
    expect([...(await drawer.readAll()).keys()]).toEqual([]);
  });

  it("writes as the member of the settings", async () => {
    const p = await page();
    await p.saveAll([
      {
        kind: "settings",
        id: "settings",
        data: { memberId: "member-ines", placeId: "", rigId: "", lastBackupMs: null },
        baseRev: null,
      },
      { kind: "place", id: "place-1", data: place("Yard"), baseRev: null },
    ]);
    expect((await p.loadLibrary()).places[0]!.author).toBe("member-ines");
  });
});

describe("the session", () => {
  it("keeps one name on the clock for a browser, and the demo's data apart from one's own", async () => {
    const p = await page();
    const q = await page();
    expect(q.session.nodeId()).toBe(p.session.nodeId());
    expect(p.session.databaseName()).toBe("zenithar");
    document.documentElement.dataset["now"] = String(Date.UTC(2026, 11, 5, 16, 40));
    expect([p.session.databaseName(), p.session.isDemo(), p.session.now()]).toEqual([
      "zenithar-demo",
      true,
      Date.UTC(2026, 11, 5, 16, 40),
    ]);
    delete document.documentElement.dataset["now"];
  });
});
