import localforage from "localforage";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { winnerOf, type Edit, type StoredRecord } from "~/core/crew";
import { USUAL_MOON, type Place } from "~/core/night";
import { dataVersions, decodeRecords, refusedEdit, type Settings } from "~/core/records";
import { browserClock, browserCupboard, browserIds } from "./browser";
import { openDrawer } from "./driver";
import { pageOf, sumOf } from "./pages";
import type { Checks } from "./reading";
import { createStore } from "./store";
import { browserIdOf } from "./who";
import layout1 from "./fixtures/store-1.json";

const place = (name: string, more: Partial<Place> = {}): Place => ({
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
  ...more,
});

/** Checks as the browser's worker does. */
const checks: Checks = {
  records: (raws) => Promise.resolve(decodeRecords(raws)),
  refused: (edits) => Promise.resolve(refusedEdit(edits)),
  versions: () => Promise.resolve(dataVersions()),
};

/** A tab of one browser: a store of its own over the same database. */
function tab(isDemo = false, cupboard = browserCupboard(isDemo)) {
  const store = createStore({
    cupboard,
    clock: browserClock(document.documentElement),
    ids: browserIds,
    checks,
    nobody: () => "member-nobody",
    fillWith: null,
  });
  return {
    ...store,
    heads: async (id: string) => (await store.open()).heads(`place/${id}`) ?? null,
    names: async () =>
      [...(await store.open()).all()]
        .map(winnerOf)
        .filter((r) => r.kind === "place" && r.deletedAt === undefined)
        .map((r) => (r.data as Place).name)
        .sort(),
    versions: async () => [...(await store.open()).all()].flat(),
  };
}
type Tab = ReturnType<typeof tab>;

const edit = (name: string, baseRev: string | null, id = "place-1"): Edit => ({
  kind: "place",
  id,
  data: place(name),
  baseRev,
});
async function save(t: Tab, name: string, baseRev: string | null, id?: string) {
  const done = await t.act([edit(name, baseRev, id)]);
  if (!done.ok) throw new Error(done.error.code);
  return done.value;
}
const pages = () => openDrawer("zenithar.library", "pages");

beforeEach(async () => {
  localStorage.clear();
  await tab().empty();
});
afterEach(() => vi.restoreAllMocks());

describe("the store", () => {
  it("keeps what was saved for the next tab, and moves revisions forward", async () => {
    await save(tab(), "Yard", null);
    const second = tab();
    const [stored] = (await second.heads("place-1"))!;
    expect((stored.data as Place).name).toBe("Yard");
    const again = await save(second, "Back yard", stored.rev);
    expect(again.revs["place-1"]! > stored.rev).toBe(true);
    expect((again.changes[0]!.before[0]!.data as Place).name).toBe("Yard");
    expect(await tab().names()).toEqual(["Back yard"]);
  });

  it("keeps both versions when a page saves over one it had not shown, until someone settles it", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    const base = revs["place-1"]!;
    await save(t, "From the other tab", base);
    expect((await save(t, "From the old page", base)).collided).toEqual(["place-1"]);
    const [now, copy] = (await t.heads("place-1"))!;
    expect([now.data, copy!.data].map((d) => (d as Place).name)).toEqual(["From the old page", "From the other tab"]);
    await t.act([{ kind: "place", id: "place-1", data: copy!.data, baseRev: now.rev, settles: [copy!.rev] }]);
    expect((await t.heads("place-1"))!.map((h) => (h.data as Place).name)).toEqual(["From the other tab"]);
  });

  it("hears of what another tab stored, tells which records changed, and leaves the others the same objects", async () => {
    const [one, other] = [tab(), tab()];
    await save(one, "Field", null, "place-2");
    await one.open();
    await other.open();
    const field = await other.heads("place-2");
    const heard = new Promise<readonly string[]>((resolve) =>
      other.onStored((keys, by) => by === "elsewhere" && keys.length > 0 && resolve(keys)),
    );
    await save(one, "Yard", null);
    expect(await heard).toEqual(["place/place-1"]);
    expect(await other.names()).toEqual(["Field", "Yard"]);
    expect(await other.heads("place-2")).toBe(field);
  });

  it("hears of what another tab stores while this one is still opening", async () => {
    const one = tab();
    await save(one, "Field", null, "place-2");
    const cupboard = browserCupboard(false);
    const opening = tab(false, {
      ...cupboard,
      async open(name) {
        const drawer = await cupboard.open(name);
        const readAll = async () => {
          const all = await drawer.readAll();
          await save(one, "Yard", null);
          await new Promise((resolve) => setTimeout(resolve, 50)); // its announcement has come by then
          return all;
        };
        return { ...drawer, readAll };
      },
    });
    await opening.open();
    await vi.waitFor(async () => expect(await opening.names()).toEqual(["Field", "Yard"]));
  });

  it("reads what another tab stored once it can, when it cannot at once", async () => {
    const one = tab();
    const cupboard = browserCupboard(false);
    let isHeld = false;
    const refused = vi.fn();
    const exclusively: typeof cupboard.tabs.exclusively = (name, work) => {
      if (!isHeld) return cupboard.tabs.exclusively(name, work);
      refused();
      return Promise.reject(new DOMException("held too long", "TimeoutError"));
    };
    const other = tab(false, { ...cupboard, tabs: { ...cupboard.tabs, exclusively } });
    await other.open();
    isHeld = true;
    await save(one, "Yard", null);
    await vi.waitFor(() => expect(refused).toHaveBeenCalled());
    isHeld = false;
    await vi.waitFor(async () => expect(await other.names()).toEqual(["Yard"]), { timeout: 5000 });
  });

  it("builds upon what another tab stored a moment ago, heard of or not", async () => {
    const [one, other] = [tab(), tab()];
    await other.open();
    const { revs } = await save(one, "Yard", null);
    const done = await save(other, "Back yard", revs["place-1"]!); // the version its page was told of
    expect(done.collided).toEqual([]);
    expect(await tab().names()).toEqual(["Back yard"]);
  });

  it("joins a friend's records once, whichever way round, and tells what they brought", async () => {
    const t = tab();
    await save(t, "Mine", null);
    const mine = await t.versions();
    const rev = "0l0000000.0000.friend";
    const theirs: StoredRecord = { id: "place-2", kind: "place", rev, author: "f", seen: { friend: rev }, data: place("Theirs") }; // prettier-ignore
    expect(await t.join({ records: [theirs, ...mine] })).toEqual({
      ok: true,
      value: { added: 1, changed: 0, known: 1 },
    });
    expect(await t.join({ records: [theirs] })).toEqual({ ok: true, value: { added: 0, changed: 0, known: 1 } });
    const byId = (list: readonly StoredRecord[]) => [...list].sort((a, b) => a.id.localeCompare(b.id));
    const oneWay = byId(await t.versions());
    await t.empty();
    await t.join({ records: [theirs] });
    await t.join({ records: mine });
    expect(byId(await t.versions())).toEqual(oneWay);
  });

  it("knows a record by its kind and its id", async () => {
    const t = tab();
    await t.act([edit("Yard", null, "same"), { kind: "member", id: "same", data: { name: "Tamsin" }, baseRev: null }]);
    expect((await tab().versions()).map((r) => r.kind).sort()).toEqual(["member", "place"]);
  });

  it("clears everything and puts it back as it was", async () => {
    const t = tab();
    await save(t, "Yard", null);
    const before = await t.versions();
    const taken = await t.empty();
    expect(await t.versions()).toEqual([]);
    expect(await tab().names()).toEqual([]);
    await t.refill(taken.ok ? taken.value : new Map());
    expect(await t.versions()).toEqual(before);
    expect(await tab().names()).toEqual(["Yard"]);
  });

  it("writes as the member of the settings", async () => {
    const t = tab();
    const settings: Settings = {
      memberId: "member-ines",
      placeId: "",
      rigId: "",
      lastBackupMs: null,
      wishHours: 2,
      moon: USUAL_MOON,
      standsBeforeDark: true,
      simulatedServices: false,
    };
    await t.act([{ kind: "settings", id: "settings", data: settings, baseRev: null }, edit("Yard", null)]);
    expect((await t.heads("place-1"))![0].author).toBe("member-ines");
  });
});

describe("an act", () => {
  it("is refused whole when one of its edits would not read again, and names the field", async () => {
    const t = tab();
    const done = await t.act([
      edit("Yard", null),
      { kind: "place", id: "place-2", data: place("n".repeat(121)), baseRev: null },
    ]);
    expect(done).toMatchObject({ ok: false, error: { code: "recordRefused", kind: "place", path: "name" } });
    expect(await t.names()).toEqual([]);
    expect(await tab().names()).toEqual([]);
  });

  it("is stored whole or not at all when the disk is full, and the tab shows nothing of it either", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    let puts = 0;
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      puts++;
      throw new DOMException("full", "QuotaExceededError");
    });
    const both = await t.act([edit("Renamed", revs["place-1"]!), edit("Field", null, "place-2")]);
    expect(both).toEqual({ ok: false, error: { code: "storageFull" } });
    expect(puts).toBeGreaterThan(0);
    put.mockImplementation(() => {
      throw new DOMException("denied", "SecurityError");
    });
    expect(await t.act([edit("Denied", revs["place-1"]!)])).toEqual({ ok: false, error: { code: "storageBlocked" } });
    put.mockRestore();
    expect(await t.names()).toEqual(["Yard"]);
    expect(await tab().names()).toEqual(["Yard"]);
    await save(t, "Renamed", revs["place-1"]!);
    expect(await tab().names()).toEqual(["Renamed"]);
  });

  it("leaves nothing behind when the browser dies between its pages: they are one transaction", async () => {
    const t = tab();
    await save(t, "Yard", null);
    const real = Object.getOwnPropertyDescriptor(IDBObjectStore.prototype, "put")!.value as IDBObjectStore["put"];
    const many = Array.from({ length: 40 }, (_, i) => edit(`Place ${i}`, null, `place-${i + 10}`));
    let puts = 0;
    const put = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(function (this: IDBObjectStore, ...args) {
      if (++puts === 5) queueMicrotask(() => this.transaction.abort()); // what a kill does to an open transaction
      return real.apply(this, args);
    });
    expect((await t.act(many)).ok).toBe(false);
    put.mockRestore();
    expect(await tab().names()).toEqual(["Yard"]);
  });
});

describe("what does not read", () => {
  it("is set aside and kept through later writes; the rest loads", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    const drawer = await pages();
    const [name, page] = [...(await drawer.readAll())].find(([key]) => key !== "index")! as [string, { text: string }];
    const raw = JSON.parse(page.text) as { records: unknown[] };
    const bad = { id: "place-1", kind: "place", rev: "not a clock", author: "x", seen: {}, data: {} };
    await drawer.write(
      new Map([[name, { ...page, text: JSON.stringify({ ...raw, records: [...raw.records, bad] }) }]]),
    );
    const second = tab();
    expect(await second.names()).toEqual(["Yard"]);
    const aside = async (x: Tab) => (await x.open()).unread().map((u) => [u.key, u.reason]);
    expect(await aside(second)).toEqual([["place/place-1", "rev: is not a clock reading up to the year 2200"]]);
    await save(second, "Renamed", revs["place-1"]!);
    const third = tab();
    expect([await third.names(), (await aside(third)).length]).toEqual([["Renamed"], 1]);
  });

  it("is looked at again, record by record, when a page's text was changed outside the app", async () => {
    const t = tab();
    await save(t, "Yard", null);
    const drawer = await pages();
    const [name, page] = [...(await drawer.readAll())].find(([key]) => key !== "index")! as [string, { text: string }];
    const text = page.text.replace('"latitudeDeg":45', '"latitudeDeg":450');
    await drawer.write(new Map([[name, { ...page, text }]]));
    const store = await tab().open();
    expect(store.unread().map((u) => u.reason)).toEqual([
      "data.latitudeDeg: Latitude must be less than or equal to 90",
    ]);
  });

  /** The page of the only record, its text changed and its sum right, as a program that knows both would leave it. */
  const forge = async (change: (text: string) => string) => {
    const drawer = await pages();
    const [name, page] = [...(await drawer.readAll())].find(([key]) => key !== "index")! as [string, { text: string }];
    const text = change(page.text);
    await drawer.write(new Map([[name, { ...page, text, sum: sumOf(text) }]]));
  };

  it("is found on a page with a right sum too, where it is no record at all", async () => {
    await save(tab(), "Yard", null);
    await forge((text) => text.replace(/"data":\{.*?"clearChance":\[[^\]]*\]\}/, '"data":null'));
    const t = tab();
    expect(await t.names()).toEqual([]);
    expect((await t.open()).unread().map((u) => u.key)).toEqual(["place/place-1"]);
  });

  it("is set aside when all is checked again, and the version before it counts; other tabs hear of it", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    await save(t, "Back yard", revs["place-1"]!);
    await forge((text) => text.replace('"name":"Back yard"', '"name":["Back yard"]'));
    const [second, third] = [tab(), tab()];
    await Promise.all([second.open(), third.open()]); // believed, since the sum is right
    const told = vi.fn();
    second.onStored(told);
    expect(await second.recheck()).toEqual({ ok: true, value: 1 });
    expect(told).toHaveBeenCalledWith(["place/place-1"], "here");
    expect([await second.names(), (await second.open()).unread().length]).toEqual([["Yard"], 1]);
    expect(await second.recheck()).toEqual({ ok: true, value: 0 });
    expect([await tab().names(), (await tab().open()).unread().length]).toEqual([["Yard"], 1]);
  });

  it("never supersedes the last good version: that one counts, and the bad one is listed", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    await save(t, "Back yard", revs["place-1"]!);
    const drawer = await pages();
    const [name, page] = [...(await drawer.readAll())].find(([key]) => key !== "index")! as [string, { text: string }];
    const from = page.text.indexOf('"Back yard"');
    const text = page.text.slice(0, from) + page.text.slice(from).replace('"latitudeDeg":45', '"latitudeDeg":450');
    await drawer.write(new Map([[name, { ...page, text }]]));
    const second = tab();
    expect(await second.names()).toEqual(["Yard"]);
    expect((await second.open()).unread().map((u) => u.key)).toEqual(["place/place-1"]);
    await save(second, "Front yard", (await second.heads("place-1"))![0].rev);
    const third = tab();
    expect([await third.names(), (await third.open()).unread().length]).toEqual([["Front yard"], 1]);
  });

  it("is read record by record where a page is torn, and the page itself is kept", async () => {
    const t = tab();
    // Two records of one page: the search is over ids, since the page goes by their sum.
    const second = Array.from({ length: 5000 }, (_, i) => `place-${i + 2}`).find((id) => pageOf(`place/${id}`) === pageOf("place/place-1"))!; // prettier-ignore
    await save(t, 'Yard "quoted" {', null);
    await save(t, "Field", null, second);
    const drawer = await pages();
    const name = pageOf("place/place-1");
    const page = (await drawer.read(name)) as { text: string };
    await drawer.write(new Map([[name, { ...page, text: page.text.slice(0, page.text.indexOf('"Field"')) }]]));
    const reopened = tab();
    expect(await reopened.names()).toEqual(['Yard "quoted" {']);
    expect((await reopened.open()).unread().map((u) => [u.key, u.reason])).toEqual([[name, "not a whole page of records"]]); // prettier-ignore
  });

  it("may be a page of a later version: it is left alone, and writing to it is refused", async () => {
    const t = tab();
    await save(t, "Yard", null);
    const drawer = await pages();
    const [name, page] = [...(await drawer.readAll())].find(([key]) => key !== "index")! as [string, object];
    await drawer.write(new Map([[name, { ...page, layout: 3 }]]));
    const second = tab();
    expect(await second.act([edit("Over it", null)])).toEqual({ ok: false, error: { code: "storageNewer" } });
    expect(await drawer.read(name)).toMatchObject({ layout: 3 });
  });
});

describe("a database that goes wrong while the tab is open", () => {
  it("is written anew from what the tab holds when the browser cleared it", async () => {
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    await (await pages()).clear(); // what a person does in the browser's own settings
    await save(t, "Field", null, "place-2");
    await save(t, "Renamed", revs["place-1"]!);
    expect(await tab().names()).toEqual(["Field", "Renamed"]);
  });

  it("stays empty when it was this app that deleted everything", async () => {
    const [one, other] = [tab(), tab()];
    await save(one, "Yard", null);
    await other.open();
    await one.empty();
    await save(other, "Field", null, "place-2");
    expect(await tab().names()).toEqual(["Field"]);
  });

  it("is a refusal, not an error, when it does not answer", async () => {
    const t = tab();
    await save(t, "Yard", null);
    vi.spyOn(IDBDatabase.prototype, "transaction").mockImplementation(() => {
      throw new DOMException("closed", "UnknownError");
    });
    expect(await t.act([edit("Field", null, "place-2")])).toEqual({ ok: false, error: { code: "storageBlocked" } });
    vi.restoreAllMocks();
    expect(await t.names()).toEqual(["Yard"]);
    await save(t, "Field", null, "place-2");
    expect(await tab().names()).toEqual(["Field", "Yard"]);
  });

  it("is worked without, in memory, when it never answers at all", async () => {
    vi.spyOn(indexedDB, "open").mockImplementation(() => ({}) as IDBOpenDBRequest);
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout"] });
    const opening = openDrawer("never-answers", "pages");
    await vi.advanceTimersByTimeAsync(5000);
    expect((await opening).isLasting).toBe(false);
    vi.useRealTimers();
  });
});

describe("the clock of this machine", () => {
  const at = (ms: number) => vi.useFakeTimers({ toFake: ["Date"], now: ms });
  afterEach(() => vi.useRealTimers());

  it("may stand in 1969: what is saved then is there and moves forward", async () => {
    at(Date.UTC(1969, 6, 20));
    const t = tab();
    const { revs } = await save(t, "Yard", null);
    const again = await save(t, "Back yard", revs["place-1"]!);
    expect(again.revs["place-1"]! > revs["place-1"]!).toBe(true);
    expect(await tab().names()).toEqual(["Back yard"]);
    const heads = (await t.heads("place-1"))!;
    await t.act([{ kind: "place", id: "place-1", data: {}, baseRev: heads[0].rev, isDeleted: true }]);
    const third = tab();
    expect([await third.names(), (await third.open()).unread()]).toEqual([[], []]);
  });

  it("is refused in the year 9999, by name, and nothing is half kept", async () => {
    at(Date.UTC(9999, 0, 1));
    const t = tab();
    expect(await t.act([edit("Yard", null)])).toEqual({ ok: false, error: { code: "clockOutOfRange" } });
    expect(await t.names()).toEqual([]);
    expect(await tab().names()).toEqual([]);
  });
});

describe("data of the version before (stored by the app of 25 November 2026, as it lay in the browser)", () => {
  const old = () => localforage.createInstance({ name: "zenithar", storeName: "records" });
  beforeEach(async () => {
    await (await pages()).clear();
    for (const [key, value] of Object.entries(layout1)) await old().setItem(key, value);
  });

  it("is read whole: records, copies written at once, tombstones, and what did not read then", async () => {
    const t = tab();
    expect(await t.names()).toEqual(["Front yard"]);
    expect((await t.heads("place-1"))!.map((h) => (h.data as Place).name)).toEqual(["Front yard", "Back yard"]);
    expect((await t.heads("place-2"))![0].deletedAt).toBe(1795201200000);
    expect((await t.versions()).map((r) => r.rev).sort()).toEqual(
      Object.values(layout1)
        .flatMap((e) => e.heads.map((h) => h.rev))
        .filter((rev) => !rev.startsWith("0mfz5x000"))
        .sort(),
    );
    expect((await t.open()).unread().map((u) => u.key)).toEqual(["place/place-9"]);
  });

  it("gets what later versions ask for: the settings' wish, which was absent until somebody changed it", async () => {
    const settings = (await tab().open()).heads("settings/settings")![0];
    expect(settings).toMatchObject({ v: 5, data: { memberId: "member-1", wishHours: 2 } });
    expect(settings.rev).toBe(layout1.settings.heads[0]!.rev);
  });

  it("is taken over once, and then lies in the new layout only", async () => {
    await tab().open();
    expect(await old().length()).toBe(0);
    expect(await tab().names()).toEqual(["Front yard"]);
  });
});

describe("a browser without storage", () => {
  it("is worked with in memory, and it is said that it does not last", async () => {
    vi.spyOn(indexedDB, "open").mockImplementation(() => {
      throw new DOMException("denied", "SecurityError");
    });
    const drawer = await openDrawer("a-database-never-opened", "pages");
    expect(drawer.isLasting).toBe(false);
    const value = { list: [] as number[] };
    await drawer.write(new Map([["a", value]]));
    value.list.push(1); // what is stored is a copy
    expect(await drawer.read("a")).toEqual({ list: [] });
    await drawer.drop("a");
    expect([...(await drawer.readAll()).keys()]).toEqual([]);
  });
});

describe("a browser", () => {
  it("has one name, whoever asks, and keeps the demo's data apart from one's own", async () => {
    const name = () => browserIdOf(browserCupboard(false), browserIds)();
    expect(name()).toBe(name());
    document.documentElement.dataset["now"] = String(Date.UTC(2026, 11, 5, 16, 40));
    const clock = browserClock(document.documentElement);
    expect([clock.isDemo, clock.now()]).toEqual([true, Date.UTC(2026, 11, 5, 16, 40)]);
    delete document.documentElement.dataset["now"];
    expect(browserClock(document.documentElement).isDemo).toBe(false);
    await save(tab(true), "Of the demo", null);
    expect([await tab(true).names(), await tab().names()]).toEqual([["Of the demo"], []]);
  });

  it("takes another name on the clock with every page, so that no two write as one (also in a copy of its profile)", async () => {
    const { revs } = await save(tab(), "Yard", null);
    const other = await save(tab(), "Field", null, "place-2");
    const nodeOf = (rev: string | undefined) => rev!.split(".")[2];
    expect(nodeOf(other.revs["place-2"])).not.toBe(nodeOf(revs["place-1"]));
  });
});
