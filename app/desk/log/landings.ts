import { slot, type Desk } from "~/desk/desk";

/** Noted while watching is on, so that the next visit goes on with it: when the last file was written that is dealt with, ms since 1970. */
export const WATCH_NOTE = "watch.seen";

/** The folder of the app's own that a rehearsal's frames land in. */
export const REHEARSAL_FOLDER = "rehearsal";

const listeners = slot(() => new Set<() => void>());
const stops = slot(() => new Set<() => void>());

/** Has something stopped when nothing is to be watched any more. */
export const onStopAll = (desk: Desk, stop: () => void): void => void desk.at(stops).add(stop);

/** Watches no folder any more, neither now nor on the next visit. */
export function stopWatching(desk: Desk): void {
  desk.at(stops).forEach((stop) => stop());
  desk.cupboard.notes.drop(WATCH_NOTE);
}

/** Says that subs were added by the watched folder, outside any act of a page. */
export const tellLanding = (desk: Desk): void => desk.at(listeners).forEach((listener) => listener());

/** Calls back when subs were added by the watched folder; returns how to stop listening. */
export function onLanding(desk: Desk, listener: () => void): () => void {
  const all = desk.at(listeners);
  all.add(listener);
  return () => all.delete(listener);
}

/** Goes on watching where this browser did when it was left, on whatever page it opens; fetched only then. */
export async function wakeWatch(desk: Desk): Promise<void> {
  if (desk.cupboard.notes.read(WATCH_NOTE) === null) return;
  const { theWatchedFolder } = await import("./watched-folder");
  await desk.at(theWatchedFolder).wake();
}
