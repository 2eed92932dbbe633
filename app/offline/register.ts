import type { Workbox } from "workbox-window";

/**
 * How the app stands without its server: not yet fetched, ready, incomplete (the network broke off, or something answered in the place
 * of its server), or impossible in this browser (no https, or switched off).
 */
export type OfflineState = "fetching" | "ready" | "incomplete" | "impossible";

/** After the page has loaded: what a person waits for comes first. */
const AFTER_MS = 5000;
/** A tab that stays open for days looks for a new version so often. */
const LOOK_EVERY_MS = 3_600_000;

let box: Workbox | null = null;
let isPrepared = false;
let hasNew = false;
let state: OfflineState = "fetching";
const listeners = new Set<() => void>();
const tell = () => listeners.forEach((listener) => listener());

function setState(next: OfflineState): void {
  state = next;
  document.documentElement.dataset["offline"] = next; // read by the journeys
  tell();
}

/** How the app stands without its server. */
export const offlineState = (): OfflineState => state;
/** Whether a new version is ready and waits to be taken. */
export const hasNewVersion = (): boolean => hasNew;
/** Calls back when either changes; gives the way to stop listening. */
export function onOffline(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

async function register(): Promise<void> {
  const { Workbox } = await import("workbox-window");
  box = new Workbox(`${import.meta.env.BASE_URL}sw.js`);
  // Found by this tab or by another one: all of them are told.
  box.addEventListener("waiting", () => {
    hasNew = true;
    tell();
  });
  // A file did not come, or not with its sum: nothing of it is kept, and what was there before stays.
  box.addEventListener("redundant", () => {
    if (state === "fetching") setState("incomplete");
  });
  void navigator.serviceWorker.ready.then(() => setState("ready"));
  try {
    await box.register();
  } catch {
    setState("impossible"); // the server is gone before it was fetched, or the browser refuses
  }
  setInterval(() => void box?.update().catch(() => undefined), LOOK_EVERY_MS);
}

/** Whether this page was asked to do without: a development build, or a server that switches it off. */
const isOff = () => import.meta.env.DEV || document.documentElement.dataset["offline"] === "off";

/** Fetches the app for use without its server, once the page has been quiet for a while. Called once a page. */
export function prepareOffline(): void {
  if (isPrepared || isOff()) return;
  isPrepared = true;
  if (!("serviceWorker" in navigator)) return setState("impossible");
  const later = () => setTimeout(() => requestIdleCallback(() => void register(), { timeout: 3000 }), AFTER_MS);
  if (document.readyState === "complete") later();
  else window.addEventListener("load", later, { once: true });
}

/** Takes the new version: this tab is loaded anew with it, all others go on with what they have. */
export function takeNewVersion(): void {
  box?.addEventListener("controlling", () => location.reload());
  box?.messageSkipWaiting();
}
