import { utcMs, type UtcMs } from "~/core/time";

/** The instant the app takes for now: the demo's fixed one, which the server writes on the page, or the real one. */
export function now(): UtcMs {
  const fixed = document.documentElement.dataset["now"];
  return utcMs(fixed ? Number(fixed) : Date.now());
}

/** Whether this page runs the demo. */
export const isDemo = (): boolean => document.documentElement.dataset["now"] !== undefined;

/** Name of the database: the demo never mixes with one's own data. */
export const databaseName = (): string => (isDemo() ? "zenithar-demo" : "zenithar");

const random = () => crypto.randomUUID().replaceAll("-", "").slice(0, 12);
let remembered: string | null = null;

/** This browser's name on the logical clock; kept for good, or for the tab where storage is blocked. */
export function nodeId(): string {
  if (remembered !== null) return remembered;
  try {
    const key = `${databaseName()}.node`;
    remembered = localStorage.getItem(key) ?? random();
    localStorage.setItem(key, remembered);
  } catch {
    remembered = random();
  }
  return remembered;
}

/** A name on the clock for one edit made from an out-of-date page, so that it counts as concurrent. */
export const freshNodeId = random;

/** An identifier for a new record. */
export const newId = (prefix: string): string => `${prefix}-${random()}`;

const hintKey = (name: string) => `${databaseName()}.hint.${name}`;

/** Whether somebody has put a first explanation away in this browser. Where nothing can be stored, none is shown again and again. */
export function isHintRead(name: string): boolean {
  try {
    return localStorage.getItem(hintKey(name)) !== null;
  } catch {
    return true;
  }
}

/** Puts a first explanation away for good. */
export function markHintRead(name: string): void {
  try {
    localStorage.setItem(hintKey(name), "read");
  } catch {
    // Without storage it is not shown at all.
  }
}
