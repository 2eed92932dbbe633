import { joinHeads, recordKey, type Heads, type StoredRecord } from "~/core/crew";
import type { KeepFault } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import stableText from "fast-json-stable-stringify";
import type { Drawer, StorageFault } from "./driver";
import type { Checks } from "./reading";
import {
  EMPTY_PAGE,
  headsByKey,
  pageOf,
  readAll,
  readPage,
  writePage,
  type Page,
  type StoredPage,
  type Unread,
} from "./pages";

/** What is stored, as a tab holds it: the pages in memory, and the drawer they lie in. */
export interface Contents {
  readonly drawer: Drawer;
  readonly checks: Checks;
  readonly pages: Map<string, Page>;
  /** Sum of every page as this tab knows it: a page with another one was written elsewhere. */
  readonly sums: Map<string, number>;
  /** Pages of a later version of the app: left alone. */
  readonly foreign: Set<string>;
}

/** Sums of all pages, written together with them. */
export const INDEX = "index";
type Index = Readonly<Record<string, number>>;

export const headsIn = ({ pages }: Contents, key: string): Heads | undefined => pages.get(pageOf(key))?.heads.get(key);

export function* allIn({ pages }: Contents): Generator<Heads> {
  for (const page of pages.values()) yield* page.heads.values();
}

export const unreadIn = ({ pages }: Contents): Unread[] => [...pages.values()].flatMap((p) => p.unread);

/** Takes a stored page into memory; true when it was checked again and should be written anew. */
export async function takePage(store: Contents, name: string, value: unknown): Promise<boolean> {
  const read = await readPage(store.checks, name, value);
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
export async function catchUp(store: Contents): Promise<string[]> {
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
    } else await takePage(store, name, await store.drawer.read(name));
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
export async function writePages(store: Contents, names: ReadonlySet<string>): Promise<Result<null, StorageFault>> {
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
export interface Aside {
  readonly unread?: readonly Unread[];
  readonly without?: Unread;
}

interface DraftPage {
  heads: Map<string, Heads>;
  unread: Unread[];
  earlier: Map<string, readonly StoredRecord[]>;
}

const isSameThing = (a: Unread, b: Unread): boolean => a.key === b.key && stableText(a.raw) === stableText(b.raw);

/** The pages as they would be with more records and things; those that stay as they are left out. */
function changedPages(store: Contents, incoming: ReadonlyMap<string, Heads>, { unread = [], without }: Aside) {
  const next = new Map<string, DraftPage>();
  const onPage = (name: string): DraftPage => {
    const before = store.pages.get(name) ?? EMPTY_PAGE;
    const page = next.get(name) ?? {
      heads: new Map(before.heads),
      unread: [...before.unread],
      earlier: new Map(before.earlier),
    };
    next.set(name, page);
    return page;
  };
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
  return next;
}

/** Joins versions into their pages and stores them: all or nothing, in memory too. Call it as the one writer. */
export async function put(
  store: Contents,
  records: readonly StoredRecord[],
  aside: Aside = {},
): Promise<Result<string[], KeepFault>> {
  const incoming = headsByKey(records);
  const next = changedPages(store, incoming, aside);
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

/** Checks every record again, whoever wrote its page; what does not read is set aside. The keys of that. Call it as the one writer. */
export async function checkPages(store: Contents): Promise<Result<string[], KeepFault>> {
  const broken: string[] = [];
  const changed = new Set<string>();
  for (const [name, page] of store.pages) {
    const read = await readAll(store.checks, [...page.heads.values()].flat(), [...page.earlier.values()].flat());
    if (read.unread.length === 0) continue;
    changed.add(name);
    broken.push(...read.unread.map((u) => u.key));
    store.pages.set(name, { ...read, unread: [...page.unread, ...read.unread] });
  }
  if (changed.size === 0) return ok([]);
  const done = await writePages(store, changed);
  // In memory it stays set aside where it cannot be written: what takes a page down is not put back.
  return done.ok ? ok(broken) : done;
}

/** Puts what was taken out of a store back: versions joined, pages of a later version as they are; the keys of what changed. */
export async function putBackPages(
  store: Contents,
  all: ReadonlyMap<string, unknown>,
): Promise<Result<string[], KeepFault>> {
  const records: StoredRecord[] = [];
  const unread: Unread[] = [];
  const foreign = new Map<string, unknown>();
  for (const [name, value] of all) {
    if (name === INDEX) continue;
    const read = await readPage(store.checks, name, value);
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
  return done;
}

/** Takes everything out of a store and hands it back, as the drawer had it. */
export async function takePages(
  store: Contents,
): Promise<Result<{ readonly all: ReadonlyMap<string, unknown>; readonly keys: readonly string[] }, KeepFault>> {
  const all = await store.drawer.readAll();
  const done = await store.drawer.clear();
  if (!done.ok) return done;
  await store.drawer.write(new Map([[INDEX, {}]]));
  const keys = [...allIn(store)].map(([winner]) => recordKey(winner));
  store.pages.clear();
  store.sums.clear();
  store.foreign.clear();
  return ok({ all, keys });
}
