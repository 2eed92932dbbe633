import type { RecordKind } from "~/core/crew";
import { slot, type Desk } from "~/desk/desk";
import { theStore } from "./kept";
import { libraryOf, type Library } from "./library";
import { adoptParts } from "./parts";
import { keepLeftBehind } from "./pending";
import { orRechecked } from "./recheck";

type Listener = (by: "here" | "elsewhere") => void;

const opened = slot(() => ({
  current: null as Library | null,
  opening: null as Promise<Library> | null,
  listeners: new Set<Listener>(),
}));

async function openOnce(desk: Desk): Promise<Library> {
  const start = performance.now();
  const here = desk.at(opened);
  const store = desk.at(theStore);
  const shelf = await store.open();
  await keepLeftBehind(desk);
  let current = await orRechecked(desk, () => libraryOf(desk, shelf));
  store.onStored((keys, by) => {
    const kinds = new Set(keys.map((key) => key.slice(0, key.indexOf("/")) as RecordKind));
    current = libraryOf(desk, shelf, { before: current, kinds });
    if (!here.current) return; // nobody has seen it yet
    here.current = current;
    here.listeners.forEach((listener) => listener(by));
  });
  // Projects from before members had parts of their own.
  await adoptParts(current);
  here.current = current;
  performance.measure("library", { start }); // read by the bench
  return current;
}

/** The library of this tab: read once, then a value in memory that every change replaces. */
export function libraryHere(desk: Desk): Library | Promise<Library> {
  const here = desk.at(opened);
  if (here.current) return here.current;
  return (here.opening ??= openOnce(desk).catch((error: unknown) => {
    here.opening = null; // whoever asks next tries again
    throw error;
  }));
}

/** Calls back after every change, and tells which tab made it; returns how to stop listening. */
export function onLibrary(desk: Desk, listener: Listener): () => void {
  const { listeners } = desk.at(opened);
  listeners.add(listener);
  return () => listeners.delete(listener);
}
