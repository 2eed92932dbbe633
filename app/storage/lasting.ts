import { databaseName } from "./session";

/** How safely this browser keeps what is stored, and how much that is. */
export interface StorageState {
  /** All of this origin's: records, pictures, and the app itself for use without its server; null = the browser does not say. */
  readonly usedBytes: number | null;
  /** What the browser would let it grow to. */
  readonly mostBytes: number | null;
  /** "kept" = only its owner deletes it; "clearable" = the browser may, when the disk is full; null = it does not say. */
  readonly promise: "kept" | "clearable" | null;
}

/** Asks the browser how things stand. */
export async function storageState(): Promise<StorageState> {
  const storage = navigator.storage as StorageManager | undefined;
  const estimate = await storage?.estimate?.().catch(() => null);
  const isKept = await storage?.persisted?.().catch(() => null);
  return {
    usedBytes: estimate?.usage ?? null,
    mostBytes: estimate?.quota ?? null,
    promise: isKept == null ? null : isKept ? "kept" : "clearable",
  };
}

/** Asks the browser to keep what is stored until its owner deletes it; whether it promises to. */
export async function askToKeep(): Promise<boolean> {
  const storage = navigator.storage as StorageManager | undefined;
  return (await storage?.persist?.().catch(() => false)) ?? false;
}

const key = () => `${databaseName()}.asked-to-keep`;

/** Asks once in a browser, after the first thing that somebody saved; some browsers ask their owner then. */
export function askToKeepOnce(): void {
  try {
    if (localStorage.getItem(key()) !== null) return;
    localStorage.setItem(key(), "yes");
  } catch {
    return; // nothing is kept here at all, and the page says so
  }
  void askToKeep();
}
