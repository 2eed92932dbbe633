import { joinHeads, keyOfRaw, type Edit, type Heads, type StoredRecord } from "~/core/crew";
import type { KeepFault } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import {
  allIn,
  catchUp,
  checkPages,
  headsIn,
  INDEX,
  put,
  putBackPages,
  takePage,
  takePages,
  unreadIn,
  writePages,
  type Aside,
  type Contents,
} from "./contents";
import { memoryDrawer, type Drawer } from "./driver";
import { findLayout1 } from "./layout-1";
import { headsByKey, type Unread } from "./pages";
import type { Clock, Cupboard, Ids } from "./ports";
import { NotFetched, type Checks } from "./reading";
import { versionsOf, type Done, type Writer } from "./versions";

export type { Done } from "./versions";

/** What joining a file did, counted by record. */
export interface Joined {
  readonly added: number;
  readonly changed: number;
  readonly known: number;
}

/** Called after every change of what is stored, with the keys that changed and the tab that changed them. */
export type OnChange = (keys: readonly string[], by: "here" | "elsewhere") => void;

/** What is stored, as it is now. */
export interface Shelf {
  readonly isLasting: boolean;
  heads(key: string): Heads | undefined;
  all(): Iterable<Heads>;
  unread(): Unread[];
}

/** What comes in by a file. */
export interface Incoming {
  readonly records: readonly StoredRecord[];
  /** Changes made upon it, in the same transaction. */
  readonly edits?: readonly Edit[];
  /** Things of it that do not read: set aside. */
  readonly unread?: readonly unknown[];
}

type Kept<T> = Promise<Result<T, KeepFault>>;

/** The store of one tab. */
export interface Store {
  /** What is stored: read and decoded once. */
  readonly open: () => Promise<Shelf>;
  /** Calls back when something stored has changed; returns how to stop listening. */
  readonly onStored: (listener: OnChange) => () => void;
  /** Does an act: all or nothing. A record changed elsewhere since the page showed it keeps both versions. */
  readonly act: (edits: readonly Edit[]) => Kept<Done>;
  /** Joins what a file brings: nothing doubled, nothing newer overwritten. */
  readonly join: (incoming: Incoming) => Kept<Joined>;
  /** Takes a thing that does not read away; `edits` put a record in its place. */
  readonly takeAside: (thing: Unread, edits?: readonly Edit[]) => Kept<null>;
  /** Puts a thing that does not read back where it was. */
  readonly putAside: (thing: Unread) => Kept<null>;
  /** Sets a thing aside that would not read again if it were kept. */
  readonly setAside: (raw: unknown) => Kept<null>;
  /** Checks all that is stored again, as if nobody had checked it; sets aside what does not read and says how much that was. */
  readonly recheck: () => Kept<number>;
  /** Empties the store and hands back what was in it. */
  readonly empty: () => Kept<ReadonlyMap<string, unknown>>;
  /** Puts back what `empty` took; what was written since is joined. */
  readonly refill: (all: ReadonlyMap<string, unknown>) => Kept<null>;
}

/** What a store is made of. */
export interface StorePorts {
  readonly cupboard: Cupboard;
  readonly clock: Clock;
  readonly ids: Ids;
  readonly checks: Checks;
  /** Who writes before anybody has said who they are. */
  readonly nobody: () => string;
  /** What an empty store is filled with, once in a browser; null = it stays empty. */
  readonly fillWith: (() => Promise<readonly StoredRecord[]>) | null;
}

/** One writer at a time over all tabs, so that reading a page and writing it anew is one step. */
const PEN = "write";
/** Remembers that an empty store was filled; it survives clearing, so that cleared means cleared. */
const SEEDED = "seeded";

/** How long until what another tab has written is read again where it could not be read, ms. */
const HEARS_AGAIN_MS = 1000;

const aside = (raw: unknown, reason: string): Unread => ({ key: keyOfRaw(raw), reason, raw });

/** The same answer, of which one thing is told. */
const withOnly = async <A, B>(kept: Kept<A>, of: (a: A) => B): Kept<B> => {
  const result = await kept;
  return result.ok ? ok(of(result.value)) : result;
};

/** Opens the drawer and reads it; one that opens and then does not read is worked without, as one that does not open. */
async function readDrawer(
  cupboard: Cupboard,
): Promise<{ readonly drawer: Drawer; readonly values: ReadonlyMap<string, unknown> }> {
  const drawer = await cupboard.open("library");
  try {
    return { drawer, values: await drawer.readAll() };
  } catch {
    return { drawer: memoryDrawer(), values: new Map() };
  }
}

/** The records of a file sorted by what is there already: what it brings, and how many of each sort. */
function newsOf(store: Contents, incoming: ReadonlyMap<string, Heads>) {
  const joined = { added: 0, changed: 0, known: 0 };
  const news: StoredRecord[] = [];
  for (const [key, versions] of incoming) {
    const heads = headsIn(store, key);
    const all = joinHeads(heads ?? [], versions);
    if (!heads) joined.added++;
    else if (all.length === heads.length && all.every((head, i) => head.rev === heads[i]?.rev)) {
      joined.known++;
      continue;
    } else joined.changed++;
    news.push(...versions);
  }
  return { joined, news };
}

/** What is to be kept at one stroke. */
interface Work extends Aside {
  readonly records?: readonly StoredRecord[];
  readonly edits?: readonly Edit[];
}

/** The store of a tab. */
export function createStore({ cupboard, clock, ids, checks, nobody, fillWith }: StorePorts): Store {
  const { tabs, notes } = cupboard;
  const listeners = new Set<OnChange>();
  /** Another one every time the app is loaded, so that no two pages share one, not even in a copied browser profile. */
  let node = ids.fresh();
  let opened: Promise<Contents> | null = null;
  const open = (): Promise<Contents> => (opened ??= openAll());

  const tell: OnChange = (keys, by) => listeners.forEach((listener) => listener(keys, by));
  /** Says, here and to other tabs, that records have changed. */
  const told = (keys: readonly string[]): void => {
    tell(keys, "here");
    tabs.announce();
  };

  async function openAll(): Promise<Contents> {
    // Fetched while the drawer is looked into: a browser that was never filled finds it empty.
    const filling = fillWith && notes.read(SEEDED) !== "yes" ? fillWith() : null;
    filling?.catch(() => undefined); // told where it is wanted
    // What another tab stores while this one reads is read afterwards.
    let onHeard = (): void => void (isMissed = true);
    let isMissed = false;
    tabs.onAnnounced(() => onHeard());
    const { drawer, values } = await readDrawer(cupboard);
    const store: Contents = { drawer, checks, pages: new Map(), sums: new Map(), foreign: new Set() };
    const stale: string[] = [];
    for (const [name, value] of values) if (name !== INDEX && (await takePage(store, name, value))) stale.push(name);
    if (stale.length > 0) await tabs.exclusively(PEN, () => writePages(store, new Set(stale)));
    if (store.pages.size === 0) await fill(store, filling);
    onHeard = () => void hear(store);
    if (isMissed) onHeard();
    return store;
  }

  /** Fills an empty store: with what an earlier version stored, and in a demo with its group. */
  async function fill(store: Contents, filling: Promise<readonly StoredRecord[]> | null): Promise<void> {
    const found = store.drawer.isLasting ? await findLayout1(cupboard, checks) : null;
    await tabs.exclusively(PEN, async () => {
      await catchUp(store);
      if (found) {
        const kept = await put(store, [...found.page.heads.values()].flat(), { unread: found.page.unread });
        if (kept.ok) await found.takeAway();
      } else if (fillWith && !(notes.read(SEEDED) === "yes" && store.drawer.isLasting)) {
        await put(store, await (filling ?? fillWith()));
        // Without notes it is filled again with every page, which is what one wants there.
        notes.write(SEEDED, "yes");
      }
    });
  }

  /** Reads what another tab has written; when that cannot be read now, once more a moment later, and the next act does. */
  async function hear(store: Contents, tries = 5): Promise<void> {
    try {
      tell(await tabs.exclusively(PEN, () => catchUp(store)), "elsewhere");
    } catch {
      if (tries > 1) setTimeout(() => void hear(store, tries - 1), HEARS_AGAIN_MS);
    }
  }

  /** Works on the store as its one writer; opened before the pen is asked for, since opening asks for it too. */
  async function asWriter<T>(work: (store: Contents) => Kept<T>): Kept<T> {
    try {
      const store = await open();
      return await tabs.exclusively(PEN, () => work(store));
    } catch (error) {
      if (error instanceof NotFetched) return err({ code: "notFetched" });
      // The database went away meanwhile, or another tab does not let go of the pen; a fault of one's own is not hidden either.
      console.error(error);
      return err({ code: "storageBlocked" });
    }
  }

  /** Keeps records of a file and edits upon them in one transaction, every edit checked first; what it did, and what it joined. */
  const keepAll = ({ records = [], edits = [], ...beside }: Work) =>
    asWriter(async (store) => {
      const [fault, dataVersions] = await Promise.all([checks.refused(edits), checks.versions()]);
      if (fault) return err(fault);
      const heard = await catchUp(store);
      const incoming = headsByKey(records);
      const { joined, news } = newsOf(store, incoming);
      const writer: Writer = { node, freshNode: ids.fresh, nobody, nowMs: clock.now(), versions: dataVersions };
      const versions = versionsOf((key) => headsIn(store, key), writer, edits, incoming);
      if (!versions.ok) return versions;
      const done = await put(store, [...news, ...versions.value.records], beside);
      if (!done.ok) return done;
      told([...heard, ...done.value]);
      return ok({ done: versions.value.done, joined });
    });
  const putAside = (thing: Unread): Kept<null> => withOnly(keepAll({ unread: [thing] }), () => null);

  return {
    async open() {
      const store = await open();
      return {
        isLasting: store.drawer.isLasting,
        heads: (key) => headsIn(store, key),
        all: () => allIn(store),
        unread: () => unreadIn(store),
      };
    },
    onStored(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    act: (edits) => withOnly(keepAll({ edits }), (k) => k.done),
    join: ({ records, edits = [], unread = [] }) =>
      withOnly(
        keepAll({ records, edits, unread: unread.map((raw) => aside(raw, "came with a file and does not read")) }),
        (k) => k.joined,
      ),
    takeAside: (thing, edits = []) => withOnly(keepAll({ without: thing, edits }), () => null),
    putAside,
    setAside: (raw) => putAside(aside(raw, "was not saved, and could not be")),
    recheck: () =>
      asWriter(async (store) => {
        const heard = await catchUp(store);
        const done = await checkPages(store);
        if (!done.ok) return done;
        if (heard.length + done.value.length > 0) told([...heard, ...done.value]);
        return ok(done.value.length);
      }),
    empty: () =>
      asWriter(async (store) => {
        await catchUp(store);
        const taken = await takePages(store);
        if (!taken.ok) return taken;
        // What this page wrote before is no longer built upon.
        node = ids.fresh();
        told(taken.value.keys);
        return ok(taken.value.all);
      }),
    refill: (all) =>
      asWriter(async (store) => {
        const heard = await catchUp(store);
        const done = await putBackPages(store, all);
        if (!done.ok) return done;
        told([...heard, ...done.value]);
        return ok(null);
      }),
  };
}
