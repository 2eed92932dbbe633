import {
  editRecord,
  joinHeads,
  keyOfRaw,
  recordKey,
  type Edit,
  type Heads,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { decodeData, stamped, type KeepFault, type RecordFault, type Settings } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import stableText from "fast-json-stable-stringify";
import { demoRecords, markSeeded, wasSeeded } from "./demo";
import { memoryDrawer, openDrawer, type Drawer, type StorageFault } from "./driver";
import { findLayout1 } from "./layout-1";
import { EMPTY_PAGE, headsByKey, pageOf, readPage, writePage, type Page, type StoredPage, type Unread } from "./pages";
import { browserId, databaseName, freshNodeId, isDemo, now, renewSessionNode, sessionNode } from "./session";
import { announce, onAnnounced } from "./tabs";

/** What there was of a record before a change: its versions, the one that counts first; none = it is new. */
export interface Before {
  readonly kind: RecordKind;
  readonly id: string;
  readonly heads: readonly StoredRecord[];
  /** The version that took their place. */
  readonly rev: string;
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

/** How long another tab may hold the pen before this one gives up, ms. */
const WAITS_MS = 8000;

/** One writer at a time over all tabs, so that reading a page and writing it anew is one step. */
const exclusively = <T>(work: () => Promise<T>): Promise<T> =>
  navigator.locks
    ? navigator.locks.request(`${databaseName()}.write`, { signal: AbortSignal.timeout(WAITS_MS) }, work)
    : work();

/** The store of this tab: read and decoded once. */
export const openStore = (): Promise<Store> => open();
const open = (): Promise<Opened> => (opened ??= openAll());

/** Works on the store as its one writer; opened before the lock is asked for, since opening asks for it too. */
async function asWriter<T>(work: (store: Opened) => Promise<Result<T, KeepFault>>): Promise<Result<T, KeepFault>> {
  try {
    const store = await open();
    return await exclusively(() => work(store));
  } catch (error) {
    // The database went away meanwhile, or another tab does not let go of the pen; a fault of one's own is not hidden either.
    console.error(error);
    return err({ code: "storageBlocked" });
  }
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
  const { drawer, values } = await readDrawer();
  const store = emptyStore(drawer);
  const stale: string[] = [];
  for (const [name, value] of values) if (name !== INDEX && take(store, name, value)) stale.push(name);
  if (stale.length > 0) await exclusively(() => writePages(store, new Set(stale)));
  if (store.pages.size === 0) await fill(store);
  onAnnounced(() => void hear(store));
  return store;
}

/** Opens the drawer and reads it; one that opens and then does not read is worked without, as one that does not open. */
async function readDrawer(): Promise<{ readonly drawer: Drawer; readonly values: ReadonlyMap<string, unknown> }> {
  const drawer = await openDrawer(`${databaseName()}.library`, "pages");
  try {
    return { drawer, values: await drawer.readAll() };
  } catch {
    return { drawer: memoryDrawer(), values: new Map() };
  }
}

/** Reads what another tab has written; when that cannot be read now, the next act does. */
async function hear(store: Opened): Promise<void> {
  try {
    tell(await exclusively(() => catchUp(store)), "elsewhere");
  } catch {
    // Tried again before anything is written.
  }
}

/** Fills an empty store: with what an earlier version stored, and in a demo with its group. */
async function fill(store: Opened): Promise<void> {
  const found = store.isLasting ? await findLayout1(databaseName()) : null;
  await exclusively(async () => {
    await catchUp(store);
    if (found) {
      const kept = await put(store, [...found.page.heads.values()].flat(), { unread: found.page.unread });
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
  const stored = (await store.drawer.read(INDEX)) as Index | null;
  if (stored === null && store.pages.size > 0) {
    // The browser's data was cleared while this tab was open, not by this app, which leaves an index: what is here is written anew.
    await writePages(store, new Set(store.pages.keys()));
    return [];
  }
  const index = stored ?? {};
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

/** What is to be put down beside records: things that do not read, and such as are taken away. */
interface Aside {
  readonly unread?: readonly Unread[];
  readonly without?: Unread;
}

/** Joins versions into their pages and stores them: all or nothing, in memory too. Call it as the one writer. */
async function put(
  store: Opened,
  records: readonly StoredRecord[],
  { unread = [], without }: Aside = {},
): Promise<Result<string[], KeepFault>> {
  const next = new Map<
    string,
    { heads: Map<string, Heads>; unread: Unread[]; earlier: Map<string, readonly StoredRecord[]> }
  >();
  const onPage = (name: string) => {
    const before = store.pages.get(name) ?? EMPTY_PAGE;
    const page = next.get(name) ?? {
      heads: new Map(before.heads),
      unread: [...before.unread],
      earlier: new Map(before.earlier),
    };
    next.set(name, page);
    return page;
  };
  const incoming = headsByKey(records);
  for (const [key, heads] of incoming) {
    const page = onPage(pageOf(key));
    const before = page.heads.get(key) ?? [];
    const joined = joinHeads(before, heads);
    const replaced = before.filter((head) => !joined.includes(head));
    if (replaced.length > 0) page.earlier.set(key, replaced);
    page.heads.set(key, joined as unknown as Heads);
  }
  for (const thing of unread) {
    const { unread: there } = onPage(pageOf(thing.key));
    if (!there.some((u) => isSameThing(u, thing))) there.push(thing);
  }
  if (without) {
    const name = [...store.pages].find(([, page]) => page.unread.some((u) => isSameThing(u, without)))?.[0];
    if (name !== undefined) {
      const page = onPage(name);
      page.unread = page.unread.filter((u) => !isSameThing(u, without));
    }
  }
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

const isSameThing = (a: Unread, b: Unread): boolean => a.key === b.key && stableText(a.raw) === stableText(b.raw);

/** What is refused before anything is stored: the first edit whose data its own schema would not read again. */
function refused(edits: readonly Edit[]): KeepFault | null {
  for (const { kind, data, isDeleted } of edits) {
    const read: Result<unknown, RecordFault> = isDeleted ? ok(null) : decodeData(kind, data);
    if (!read.ok) return { code: "recordRefused", kind, path: read.error.path, message: read.error.message };
  }
  return null;
}

/** The next version of a record: `before` are its versions as stored, `heads` with what this act has already made of them. */
function nextVersion(edit: Edit, before: readonly StoredRecord[], heads: readonly StoredRecord[], author: string) {
  const base =
    edit.baseRev === "latest" ? (heads[0] ?? null) : (before.find((head) => head.rev === edit.baseRev) ?? null);
  const settled = heads.filter((head) => edit.settles?.includes(head.rev));
  const beside = heads.filter((head) => head !== base && !settled.includes(head));
  const by = { node: sessionNode(), freshNode: freshNodeId, author, nowMs: now(), beside };
  const fields = { id: edit.id, kind: edit.kind, data: edit.data, ...(edit.isDeleted ? { deletedAt: now() } : {}) };
  const made = editRecord(fields, by, base, settled);
  return made.ok ? ok({ record: stamped(made.value), isStale: base === null && before.length > 0 }) : made;
}

/** Who is writing: the member of the settings, stored or among the edits; before there are any, this browser. */
function authorOf(store: Store, edits: readonly Edit[]): string {
  const data = store.heads("settings/settings")?.[0].data ?? edits.find((e) => e.kind === "settings")?.data;
  return (data as Settings | undefined)?.memberId ?? `member-${browserId()}`;
}

/** The versions that edits make, one after the other, upon what is stored and what `news` bring. */
function versionsOf(store: Store, edits: readonly Edit[], news: ReadonlyMap<string, Heads> = new Map()) {
  const author = authorOf(store, edits);
  const before: Before[] = [];
  const collided: string[] = [];
  const revs: Record<string, string> = {};
  const records: StoredRecord[] = [];
  const made = new Map<string, readonly StoredRecord[]>();
  for (const edit of edits) {
    const key = recordKey(edit);
    const stored = joinHeads(store.heads(key) ?? [], news.get(key) ?? []);
    const heads = made.get(key) ?? stored;
    const next = nextVersion(edit, stored, heads, author);
    if (!next.ok) return next;
    const { record, isStale } = next.value;
    made.set(key, joinHeads(heads, [record]));
    records.push(record);
    before.push({ kind: edit.kind, id: edit.id, heads: stored, rev: record.rev });
    revs[edit.id] = record.rev;
    if (isStale) collided.push(edit.id);
  }
  return ok({ records, done: { before, collided, revs } });
}

/** What is to be kept at one stroke. */
interface Work extends Aside {
  readonly records?: readonly StoredRecord[];
  readonly edits?: readonly Edit[];
}

/** Keeps records of a file and edits upon them in one transaction, every edit checked first; what it did, and what it joined. */
const keepAll = ({ records = [], edits = [], ...aside }: Work) =>
  asWriter(async (store) => {
    const fault = refused(edits);
    if (fault) return err(fault);
    const heard = await catchUp(store);
    const joined = { added: 0, changed: 0, known: 0 };
    const news: StoredRecord[] = [];
    const incoming = headsByKey(records);
    for (const [key, versions] of incoming) {
      const heads = store.heads(key);
      const all = joinHeads(heads ?? [], versions);
      if (!heads) joined.added++;
      else if (all.length === heads.length && all.every((head, i) => head.rev === heads[i]?.rev)) {
        joined.known++;
        continue;
      } else joined.changed++;
      news.push(...versions);
    }
    const versions = versionsOf(store, edits, incoming);
    if (!versions.ok) return versions;
    const done = await put(store, [...news, ...versions.value.records], aside);
    if (!done.ok) return done;
    told([...heard, ...done.value]);
    return ok({ done: versions.value.done, joined });
  });

/** Says, here and to other tabs, that records have changed. */
function told(keys: readonly string[]): void {
  tell(keys);
  announce();
}

const part = async <A, B>(kept: Promise<Result<A, KeepFault>>, of: (a: A) => B): Promise<Result<B, KeepFault>> => {
  const result = await kept;
  return result.ok ? ok(of(result.value)) : result;
};

/** Does an act: all or nothing. A record changed elsewhere since the page showed it keeps both versions. */
export const act = (edits: readonly Edit[]): Promise<Result<Done, KeepFault>> =>
  part(keepAll({ edits }), (k) => k.done);

/** What comes in by a file. */
export interface Incoming {
  readonly records: readonly StoredRecord[];
  /** Changes made upon it, in the same transaction. */
  readonly edits?: readonly Edit[];
  /** Things of it that do not read: set aside. */
  readonly unread?: readonly unknown[];
}

const aside = (raw: unknown, reason: string): Unread => ({ key: keyOfRaw(raw), reason, raw });

/** Joins what a file brings: nothing doubled, nothing newer overwritten. */
export const join = ({ records, edits = [], unread = [] }: Incoming): Promise<Result<Joined, KeepFault>> =>
  part(
    keepAll({ records, edits, unread: unread.map((raw) => aside(raw, "came with a file and does not read")) }),
    (k) => k.joined,
  );

/** Takes a thing that does not read away; `edits` put a record in its place. */
export const takeAside = (thing: Unread, edits: readonly Edit[] = []): Promise<Result<null, KeepFault>> =>
  part(keepAll({ without: thing, edits }), () => null);

/** Puts a thing that does not read back where it was. */
export const putAside = (thing: Unread): Promise<Result<null, KeepFault>> =>
  part(keepAll({ unread: [thing] }), () => null);

/** Sets a thing aside that would not read again if it were kept. */
export const setAside = (raw: unknown): Promise<Result<null, KeepFault>> =>
  putAside(aside(raw, "was not saved, and could not be"));

/** Empties the store and hands back what was in it. */
export const empty = (): Promise<Result<ReadonlyMap<string, unknown>, KeepFault>> =>
  asWriter(async (store) => {
    await catchUp(store);
    const all = await store.drawer.readAll();
    const done = await store.drawer.clear();
    if (!done.ok) return done;
    await store.drawer.write(new Map([[INDEX, {}]]));
    const keys = [...store.all()].map(([winner]) => recordKey(winner));
    store.pages.clear();
    store.sums.clear();
    store.foreign.clear();
    renewSessionNode();
    told(keys);
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
    const done = await put(store, records, { unread });
    if (!done.ok) return done;
    if (foreign.size > 0) await store.drawer.write(foreign);
    foreign.forEach((_, name) => store.foreign.add(name));
    told([...heard, ...done.value]);
    return ok(null);
  });
