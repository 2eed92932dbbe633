import localforage from "localforage";
import { err, ok, type Result } from "~/core/result";

/** Why something could not be stored. */
export interface StorageFault {
  readonly code: "storageFull" | "storageBlocked";
}

/** Where records are kept: the browser's database, or memory when that is blocked (a private window). */
export interface Drawer {
  readonly isLasting: boolean;
  readAll(): Promise<Map<string, unknown>>;
  read(key: string): Promise<unknown>;
  write(key: string, value: unknown): Promise<Result<null, StorageFault>>;
  drop(key: string): Promise<Result<null, StorageFault>>;
}

function faultOf(error: unknown): StorageFault {
  const name = error instanceof Error || error instanceof DOMException ? error.name : "";
  return { code: /quota/i.test(name) || /quota|space|full/i.test(String(error)) ? "storageFull" : "storageBlocked" };
}

function lastingDrawer(name: string, storeName: string): Drawer {
  const store = localforage.createInstance({ name, storeName, driver: [localforage.INDEXEDDB] });
  const attempt = async (work: () => Promise<unknown>): Promise<Result<null, StorageFault>> => {
    try {
      await work();
      return ok(null);
    } catch (error) {
      return err(faultOf(error));
    }
  };
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
    write: (key, value) => attempt(() => store.setItem(key, value)),
    drop: (key) => attempt(() => store.removeItem(key)),
  };
}

function memoryDrawer(): Drawer {
  const map = new Map<string, unknown>();
  return {
    isLasting: false,
    readAll: () => Promise.resolve(new Map(map)),
    read: (key) => Promise.resolve(map.get(key) ?? null),
    write(key, value) {
      map.set(key, structuredClone(value));
      return Promise.resolve(ok(null));
    },
    drop(key) {
      map.delete(key);
      return Promise.resolve(ok(null));
    },
  };
}

/** Opens a drawer; falls back to memory, for this tab only, when the browser refuses its database. */
export async function openDrawer(name: string, storeName: string): Promise<Drawer> {
  try {
    const drawer = lastingDrawer(name, storeName);
    await drawer.readAll();
    return drawer;
  } catch {
    return memoryDrawer();
  }
}
