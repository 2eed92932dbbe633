import type { RecordKind } from "~/core/crew";
import { act, onStored, openStore, type Store } from "~/storage/store";
import { libraryOf, type Library } from "./library";
import { partsToAdopt } from "./parts";
import { keepLeftBehind } from "./pending";

let store: Store | null = null;
let current: Library | null = null;
let opening: Promise<Library> | null = null;
const listeners = new Set<(by: "here" | "elsewhere") => void>();

async function openOnce(): Promise<Library> {
  const start = performance.now();
  store = await openStore();
  await keepLeftBehind();
  current = libraryOf(store);
  // Projects from before members had parts of their own; what is refused stays as it is, and is offered on the project's page.
  const adopted = partsToAdopt(current);
  if (adopted.length > 0 && (await act(adopted)).ok) current = libraryOf(store);
  performance.measure("library", { start }); // read by the bench
  onStored((keys, by) => {
    if (!store || !current) return;
    const kinds = new Set(keys.map((key) => key.slice(0, key.indexOf("/")) as RecordKind));
    current = libraryOf(store, { before: current, kinds });
    listeners.forEach((listener) => listener(by));
  });
  return current;
}

/** The library of this tab: read once, then a value in memory that every change replaces. */
export const libraryHere = (): Library | Promise<Library> => current ?? (opening ??= openOnce());

/** Calls back after every change, and tells which tab made it; returns how to stop listening. */
export function onLibrary(listener: (by: "here" | "elsewhere") => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
