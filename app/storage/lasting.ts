import type { Cupboard, StorageState } from "./ports";

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

const ASKED = "asked-to-keep";

/** Asks once in a browser, after the first thing that somebody saved; some browsers ask their owner then. */
export function askToKeepOnce({ notes, askToKeep: ask }: Cupboard): void {
  // Where no notes are kept, nothing is, and the page says so.
  if (notes.read(ASKED) === null && notes.write(ASKED, "yes")) void ask();
}
