/**
 * Stands in the page before all else, since it works where nothing else came: marks a page whose scripts did not load, and fetches the
 * app anew where a button says `data-fetch-anew`: past whatever answers for the server, without touching what is stored. Taken over as
 * text: it may use nothing but what it is given.
 */
function rescue(base: string, notLoaded: string, going: string): void {
  const page = document.documentElement;
  const mark = () => (page.dataset["unloaded"] = "");
  addEventListener("error", (event) => event.target instanceof HTMLScriptElement && mark(), true);
  addEventListener("unhandledrejection", ({ reason }) => new RegExp(notLoaded).test(String(reason)) && mark());

  /** Whether the server itself answers, not something in its place. */
  async function isThere(): Promise<boolean> {
    try {
      const sign = await fetch(`${base}mark.svg?past=${Date.now()}`, { cache: "no-store", redirect: "error" });
      return sign.ok && (sign.headers.get("content-type") ?? "").startsWith("image/svg");
    } catch {
      return false;
    }
  }

  async function fetchAnew(): Promise<void> {
    page.dataset["anew"] = "asking";
    if (!(await isThere())) {
      page.dataset["anew"] = "refused";
      return;
    }
    // Only this app's own: others may lie beside it under the same host.
    const scope = `${location.origin}${base}`;
    const worker = await navigator.serviceWorker?.getRegistration(scope);
    if (worker?.scope === scope) await worker.unregister();
    const kept = "caches" in globalThis ? await caches.keys() : [];
    await Promise.all(kept.filter((name) => name.endsWith(scope)).map((name) => caches.delete(name)));
    // What the browser itself remembers of these addresses goes as well.
    const parts = document.querySelectorAll<HTMLLinkElement | HTMLScriptElement>("link[href],script[src]");
    const asked = [...parts].map((part) => ("src" in part && part.src ? part.src : "href" in part ? part.href : ""));
    const seen = performance.getEntriesByType("resource").map((entry) => entry.name);
    const own = [...new Set([...asked, ...seen])].filter((url) => url.startsWith(`${location.origin}${base}assets/`));
    await Promise.allSettled(own.map((url) => fetch(url, { cache: "reload" })));
    location.reload();
  }

  addEventListener(
    "click",
    ({ target }) => {
      if (!(target instanceof Element)) return;
      if (target.closest("[data-fetch-anew]")) void fetchAnew();
      // At once: the page may be loaded anew before anything else hears that one is going somewhere.
      const link = target.closest<HTMLAnchorElement>("a[href]");
      if (link?.origin === location.origin && link.getAttribute("href") !== "")
        sessionStorage.setItem(going, link.pathname);
    },
    true,
  );
}

/** Where a tab is going, in its session. */
const GOING = "going";

/** The script for the page, given the path under which the app lies and what errors of parts that do not load say. */
export const rescueScript = (base: string, notLoaded: RegExp): string =>
  `(${String(rescue)})(${JSON.stringify(base)},${JSON.stringify(notLoaded.source)},${JSON.stringify(GOING)})`;

/** Pages that came in so short a time without one that drew itself are a ring. */
const RING = 3;
const RING_MS = 60_000;
const LOADS = "loads";

const isTimes = (data: unknown): data is readonly number[] =>
  Array.isArray(data) && data.every((time) => typeof time === "number");

/** Counts a page that begins at an instant; says whether pages come round and round without drawing themselves. */
export function isInRing(kept: Storage, nowMs: number): boolean {
  let before: unknown = null;
  try {
    before = JSON.parse(kept.getItem(LOADS) ?? "[]");
  } catch {
    // Written by something else: it counts for nothing.
  }
  const loads = [...(isTimes(before) ? before : []), nowMs].filter((time) => Math.abs(nowMs - time) < RING_MS);
  kept.setItem(LOADS, JSON.stringify(loads));
  return loads.length >= RING;
}

/** A page has drawn itself: those before it were no ring. */
export const hasDrawn = (kept: Storage): void => kept.removeItem(LOADS);

/** A tab goes to another page of the app; null = it has come there. */
export function isGoing(kept: Storage, pathname: string | null): void {
  if (pathname === null) kept.removeItem(GOING);
  else kept.setItem(GOING, pathname);
}

/** Where a tab was going as its page was loaded anew, asked once; null = nowhere. */
export function wasGoing(kept: Storage): string | null {
  const pathname = kept.getItem(GOING);
  kept.removeItem(GOING);
  return pathname;
}
