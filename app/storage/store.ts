import {
  editRecord,
  joinHeads,
  recordKey,
  winnerOf,
  type Edit,
  type Heads,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { decodeData, stamped, type KeepFault, type RecordFault, type Settings } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { demoRecords, markSeeded, wasSeeded } from "./demo";
import { openDrawer, type Drawer, type StorageFault } from "./driver";
import { findLayout1 } from "./layout-1";
import { EMPTY_PAGE, headsByKey, pageOf, readPage, writePage, type Page, type StoredPage, type Unread } from "./pages";
import { databaseName, freshNodeId, isDemo, nodeId, now } from "./session";
import { announce, onAnnounced } from "./tabs";

/** A version before a change; null = there was none. */
export interface Before {
  readonly kind: RecordKind;
  readonly id: string;
  readonly record: StoredRecord | null;
}

/** What an act did. */
export interface Done {
  /** Versions before it, for Undo. */
  readonly before: readonly Before[];
  /** Records that another tab or person had changed meanwhile: both versions are kept. */
  readonly collided: readonly string[];
  /** The new revision of each record, by id. */
  readonly revs: Readonly<Record<string, string>>;
}

/** What joining a file did, counted by record. */
export interface Joined {
  readonly added: number;
  readonly changed: number;
  readonly known: number;
}

/** Called after every change of what is stored, with the keys that changed and the tab that changed them. */
export type OnChange = (keys: readonly string[], by: "here" | "elsewhere") => void;

/** The store as this tab holds it. */
export interface Store {
  readonly isLasting: boolean;
  heads(key: string): Heads | undefined;
  all(): Iterable<Heads>;
  unread(): Unread[];
}

interface Opened extends Store {
  readonly drawer: Drawer;
  readonly pages: Map<string, Page>;
  /** Sum of every page as this tab knows it: a page with another one was written elsewhere. */
  readonly sums: Map<string, number>;
  readonly foreign: Set<string>;
}

/** Sums of all pages, written together with them. */
const INDEX = "index";
type Index = Readonly<Record<string, number>>;

let opened: Promise<Opened> | null = null;
const listeners = new Set<OnChange>();
const tell = (keys: readonly string[], by: "here" | "elsewhere" = "here") =>
  listeners.forEach((listener) => listener(keys, by));

/** Calls back when something stored has changed; returns how to stop listening. */
export function onStored(listener: OnChange): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** One writer at a time over all tabs, so that reading a page and writing it anew is one step. */
const exclusively = <T>(work: () => Promise<T>): Promise<T> =>
  navigator.locks ? navigator.locks.request(`${databaseName()}.write`, work) : work();

/** The store of this tab: read and decoded once. */
export const openStore = (): Promise<Store> => open();
const open = (): Promise<Opened> => (opened ??= openAll());

/** Works on the store as its one writer; opened before the lock is asked for, since opening asks for it too. */
async function asWriter<T>(work: (store: Opened) => Promise<T>): Promise<T> {
  const store = await open();
  return exclusively(() => work(store));
}

function emptyStore(drawer: Drawer): Opened {
  const pages = new Map<string, Page>();
  return {
    drawer,
    pages,
    sums: new Map(),
    foreign: new Set(),
    isLasting: drawer.isLasting,
    heads: (key) => pages.get(pageOf(key))?.heads.get(key),
    *all() {
      for (const page of pages.values()) yield* page.heads.values();
    },
    unread: () => [...pages.values()].flatMap((p) => p.unread),
  };
}

async function openAll(): Promise<Opened> {
  const drawer = await openDrawer(`${databaseName()}.library`, "pages");
  const store = emptyStore(drawer);
  const stale: string[] = [];
  for (const [name, value] of await drawer.readAll()) if (name !== INDEX && take(store, name, value)) stale.push(name);
  if (stale.length > 0) await exclusively(() => writePages(store, new Set(stale)));
  if (store.pages.size === 0) await fill(store);
  onAnnounced(() => void exclusively(() => catchUp(store)).then((keys) => tell(keys, "elsewhere")));
  return store;
}

/** Fills an empty store: with what an earlier version stored, and in a demo with its group. */
async function fill(store: Opened): Promise<void> {
  const found = await findLayout1(databaseName());
  await exclusively(async () => {
    await catchUp(store);
    if (found) {
      const kept = await put(store, [...found.page.heads.values()].flat(), found.page.unread);
      if (kept.ok) await found.takeAway();
    } else if (isDemo() && !(wasSeeded() && store.isLasting)) {
      await put(store, await demoRecords());
      markSeeded();
    }
  });
}

/** Takes a stored page into memory; true when it was checked again and should be written anew. */
function take(store: Opened, name: string, value: unknown): boolean {
  const read = readPage(name, value);
  if (read.kind === "foreign") {
    store.foreign.add(name);
    return false;
  }
  store.pages.set(name, read.page);
  store.sums.set(name, (value as Partial<StoredPage> | null)?.sum ?? 0);
  return read.isChecked && read.page.unread.length === 0;
}

const revsOf = (heads: Heads | undefined): string => heads?.map((h) => h.rev).join() ?? "";

/** Reads the pages that another tab has written since; the keys of what changed. Call it as the one writer. */
async function catchUp(store: Opened): Promise<string[]> {
  const index = ((await store.drawer.read(INDEX)) ?? {}) as Index;
  const changed: string[] = [];
  const names = new Set([...Object.keys(index), ...store.sums.keys()]);
  for (const name of names) {
    if (index[name] === store.sums.get(name)) continue;
    const before = store.pages.get(name) ?? EMPTY_PAGE;
    if (index[name] === undefined) {
      store.pages.delete(name);
      store.sums.delete(name);
    } else take(store, name, await store.drawer.read(name));
    const after = store.pages.get(name) ?? EMPTY_PAGE;
    // What did not change stays the same object, so that what was derived from it stays too.
    const heads = new Map(after.heads);
    for (const key of new Set([...before.heads.keys(), ...after.heads.keys()])) {
      const [old, fresh] = [before.heads.get(key), after.heads.get(key)];
      if (revsOf(old) !== revsOf(fresh)) changed.push(key);
      else if (old) heads.set(key, old);
    }
    if (store.pages.has(name)) store.pages.set(name, { ...after, heads });
  }
  return changed;
}

/** Writes pages as they are in memory, in one transaction. */
async function writePages(store: Opened, names: ReadonlySet<string>): Promise<Result<null, StorageFault>> {
  const values = new Map<string, unknown>();
  const sums = new Map(store.sums);
  for (const name of names) {
    const stored = writePage(store.pages.get(name) ?? EMPTY_PAGE);
    values.set(name, stored);
    sums.set(name, stored.sum);
  }
  values.set(INDEX, Object.fromEntries(sums));
  const done = await store.drawer.write(values);
  if (done.ok) for (const [name, sum] of sums) store.sums.set(name, sum);
  return done;
}

/** Joins versions into their pages and stores them: all or nothing, in memory too. Call it as the one writer. */
async function put(
  store: Opened,
  records: readonly StoredRecord[],
  unread: readonly Unread[] = [],
): Promise<Result<string[], KeepFault>> {
  const next = new Map<string, { heads: Map<string, Heads>; unread: Unread[] }>();
  const onPage = (name: string) => {
    const before = store.pages.get(name) ?? EMPTY_PAGE;
    const page = next.get(name) ?? { heads: new Map(before.heads), unread: [...before.unread] };
    next.set(name, page);
    return page;
  };
  const incoming = headsByKey(records);
  for (const [key, heads] of incoming) {
    const page = onPage(pageOf(key));
    page.heads.set(key, joinHeads(page.heads.get(key) ?? [], heads) as unknown as Heads);
  }
  for (const thing of unread) onPage(pageOf(thing.key)).unread.push(thing);
  if ([...next.keys()].some((name) => store.foreign.has(name))) return err({ code: "storageNewer" });
  const before = new Map([...next.keys()].map((name) => [name, store.pages.get(name)]));
  for (const [name, page] of next) store.pages.set(name, page);
  const done = await writePages(store, new Set(next.keys()));
  if (done.ok) return ok([...incoming.keys()]);
  for (const [name, page] of before) {
    if (page) store.pages.set(name, page);
    else store.pages.delete(name);
  }
  return done;
}

/** What is refused before anything is stored: the first edit whose data its own schema would not read again. */
function refused(edits: readonly Edit[]): KeepFault | null {
  for (const { kind, data, isDeleted } of edits) {
    const read: Result<unknown, RecordFault> = isDeleted ? ok(null) : decodeData(kind, data);
    if (!read.ok) return { code: "recordRefused", kind, path: read.error.path, message: read.error.message };
  }
  return null;
}

function nextVersion(edit: Edit, heads: Heads | null, author: string) {
  const winner = heads ? winnerOf(heads) : null;
  const isStale = winner !== null && edit.baseRev !== "latest" && winner.rev !== edit.baseRev;
  const shown = edit.baseRev === null ? null : (heads?.find((h) => h.rev === edit.baseRev) ?? null);
  const by = { node: isStale ? freshNodeId() : nodeId(), author, nowMs: now(), heard: heads?.map((h) => h.rev) ?? [] };
  const fields = { id: edit.id, kind: edit.kind, data: edit.data, ...(edit.isDeleted ? { deletedAt: now() } : {}) };
  const settled = (edit.settlesCopies || edit.baseRev === "latest") && heads ? heads.slice(1) : [];
  return { record: stamped(editRecord(fields, by, isStale ? shown : winner, settled)), isStale };
}

/** Who is writing: the member of the settings, stored or among the edits; before there are any, this browser. */
function authorOf(store: Store, edits: readonly Edit[]): string {
  const data = store.heads("settings/settings")?.[0].data ?? edits.find((e) => e.kind === "settings")?.data;
  return (data as Settings | undefined)?.memberId ?? `member-${nodeId()}`;
}

/** Does an act: every edit checked first, then all stored in one transaction. A record changed elsewhere since the page showed it keeps both versions. */
export const act = (edits: readonly Edit[]): Promise<Result<Done, KeepFault>> =>
  asWriter(async (store) => {
    const fault = refused(edits);
    if (fault) return err(fault);
    const heard = await catchUp(store);
    const author = authorOf(store, edits);
    const before: Before[] = [];
    const collided: string[] = [];
    const revs: Record<string, string> = {};
    const records = edits.map((edit) => {
      const heads = store.heads(recordKey(edit)) ?? null;
      const next = nextVersion(edit, heads, author);
      before.push({ kind: edit.kind, id: edit.id, record: heads?.[0] ?? null });
      revs[edit.id] = next.record.rev;
      if (next.isStale) collided.push(edit.id);
      return next.record;
    });
    const done = await put(store, records);
    if (!done.ok) return done;
    tell([...heard, ...done.value]);
    announce();
    return ok({ before, collided, revs });
  });

/** Joins the versions of a file: nothing doubled, nothing newer overwritten. */
export const join = (records: readonly StoredRecord[]): Promise<Result<Joined, KeepFault>> =>
  asWriter(async (store) => {
    const heard = await catchUp(store);
    const report = { added: 0, changed: 0, known: 0 };
    const news: StoredRecord[] = [];
    for (const [key, incoming] of headsByKey(records)) {
      const heads = store.heads(key);
      const joined = joinHeads(heads ?? [], incoming);
      if (!heads) report.added++;
      else if (revsOf(joined as unknown as Heads) === revsOf(heads)) {
        report.known++;
        continue;
      } else report.changed++;
      news.push(...incoming);
    }
    const done = await put(store, news);
    if (!done.ok) return done;
    tell([...heard, ...done.value]);
    announce();
    return ok(report);
  });

/** Empties the store and hands back what was in it. */
export const empty = (): Promise<Result<ReadonlyMap<string, unknown>, KeepFault>> =>
  asWriter(async (store) => {
    await catchUp(store);
    const all = await store.drawer.readAll();
    const done = await store.drawer.clear();
    if (!done.ok) return done;
    const keys = [...store.all()].map(([winner]) => recordKey(winner));
    store.pages.clear();
    store.sums.clear();
    store.foreign.clear();
    tell(keys);
    announce();
    return ok(all);
  });

/** Puts back what `empty` took; what was written since is joined. */
export const refill = (all: ReadonlyMap<string, unknown>): Promise<Result<null, KeepFault>> =>
  asWriter(async (store) => {
    const heard = await catchUp(store);
    const records: StoredRecord[] = [];
    const unread: Unread[] = [];
    const foreign = new Map<string, unknown>();
    for (const [name, value] of all) {
      if (name === INDEX) continue;
      const read = readPage(name, value);
      if (read.kind === "foreign") foreign.set(name, value);
      else {
        records.push(...[...read.page.heads.values()].flat());
        unread.push(...read.page.unread);
      }
    }
    const done = await put(store, records, unread);
    if (!done.ok) return done;
    if (foreign.size > 0) await store.drawer.write(foreign);
    foreign.forEach((_, name) => store.foreign.add(name));
    tell([...heard, ...done.value]);
    announce();
    return ok(null);
  });
