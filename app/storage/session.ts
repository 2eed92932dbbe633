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
let browser: string | null = null;

/** This browser's own name, for whoever has none yet; kept for good, or for the tab where storage is blocked. */
export function browserId(): string {
  if (browser !== null) return browser;
  try {
    const key = `${databaseName()}.node`;
    browser = localStorage.getItem(key) ?? random();
    localStorage.setItem(key, browser);
  } catch {
    browser = random();
  }
  return browser;
}

let session = random();

/** This page's name on the logical clock: another one every time the app is loaded, so that no two pages share one, not even in a copied browser profile. */
export const sessionNode = (): string => session;

/** Takes another name: after the store was emptied, what this page wrote before is no longer built upon. */
export function renewSessionNode(): void {
  session = random();
}

/** A name on the clock for one version, where the session's own would hide something. */
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
