import localforage from "localforage";
import { extendPrototype } from "localforage-setitems";
import { err, ok, type Result } from "~/core/result";

/** Why something could not be stored. */
export interface StorageFault {
  readonly code: "storageFull" | "storageBlocked";
}

/** Where values are kept: the browser's database, or memory when that is blocked (a private window). */
export interface Drawer {
  readonly isLasting: boolean;
  readAll(): Promise<Map<string, unknown>>;
  read(key: string): Promise<unknown>;
  /** All of it or nothing, also when the browser is killed meanwhile. */
  write(values: ReadonlyMap<string, unknown>): Promise<Result<null, StorageFault>>;
  drop(key: string): Promise<Result<null, StorageFault>>;
  clear(): Promise<Result<null, StorageFault>>;
}

function faultOf(error: unknown): StorageFault {
  const name = error instanceof Error || error instanceof DOMException ? error.name : "";
  return { code: /quota/i.test(name) || /quota|space|full/i.test(String(error)) ? "storageFull" : "storageBlocked" };
}

/** How long the browser's database may take for one answer before it counts as blocked, ms. */
const PATIENCE_MS = 8000;

/** How long reading everything may take, ms: 100,000 entries take one to three seconds. */
const READ_WITHIN_MS = 30_000;

/** As `work`, or a refusal when the database does not answer at all. */
async function inTime<T>(work: Promise<T>, ms: number): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error("no answer")), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

async function attempt(work: () => Promise<unknown>): Promise<Result<null, StorageFault>> {
  try {
    await inTime(work(), PATIENCE_MS);
    return ok(null);
  } catch (error) {
    return err(faultOf(error));
  }
}

function lastingDrawer(name: string, storeName: string): Drawer {
  // Adds `setItems`, which puts many values down in one transaction of the database.
  extendPrototype(localforage);
  const store = localforage.createInstance({ name, storeName, driver: [localforage.INDEXEDDB] });
  return {
    isLasting: true,
    async readAll() {
      const all = new Map<string, unknown>();
      await inTime(
        store.iterate((value, key) => {
          all.set(key, value);
        }),
        READ_WITHIN_MS,
      );
      return all;
    },
    read: (key) => inTime(store.getItem(key), PATIENCE_MS),
    write: (values) => attempt(() => store.setItems([...values].map(([key, value]) => ({ key, value })))),
    drop: (key) => attempt(() => store.removeItem(key)),
    clear: () => attempt(() => store.clear()),
  };
}

/** A drawer that lasts as long as the tab. */
export function memoryDrawer(): Drawer {
  const map = new Map<string, unknown>();
  return {
    isLasting: false,
    readAll: () => Promise.resolve(new Map(map)),
    read: (key) => Promise.resolve(map.get(key) ?? null),
    write(values) {
      for (const [key, value] of values) map.set(key, structuredClone(value));
      return Promise.resolve(ok(null));
    },
    drop(key) {
      map.delete(key);
      return Promise.resolve(ok(null));
    },
    clear() {
      map.clear();
      return Promise.resolve(ok(null));
    },
  };
}

/** How long the browser may take to open its database, ms; a large one on a slow disk takes one or two seconds. */
const OPENED_WITHIN_MS = 4000;

/** Opens a drawer; falls back to memory, for this tab only, when the browser refuses its database or does not answer. */
export async function openDrawer(name: string, storeName: string): Promise<Drawer> {
  try {
    const drawer = lastingDrawer(name, storeName);
    await inTime(drawer.read("?"), OPENED_WITHIN_MS); // opens it
    return drawer;
  } catch {
    return memoryDrawer();
  }
}
