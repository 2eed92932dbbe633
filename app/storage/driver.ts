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

async function attempt(work: () => Promise<unknown>): Promise<Result<null, StorageFault>> {
  try {
    await work();
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
      await store.iterate((value, key) => {
        all.set(key, value);
      });
      return all;
    },
    read: (key) => store.getItem(key),
    write: (values) => attempt(() => store.setItems([...values].map(([key, value]) => ({ key, value })))),
    drop: (key) => attempt(() => store.removeItem(key)),
    clear: () => attempt(() => store.clear()),
  };
}

function memoryDrawer(): Drawer {
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

/** Opens a drawer; falls back to memory, for this tab only, when the browser refuses its database. */
export async function openDrawer(name: string, storeName: string): Promise<Drawer> {
  try {
    const drawer = lastingDrawer(name, storeName);
    await drawer.read("?"); // opens it
    return drawer;
  } catch {
    return memoryDrawer();
  }
}
