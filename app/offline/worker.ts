import { clientsClaim, type WorkboxPlugin } from "workbox-core";
import { PrecacheController, PrecacheRoute, type PrecacheEntry } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { DROP_IN_NONCE, TAKE_OVER } from "./words";

/**
 * The service worker: after one visit the whole app opens without its server. Every file of the build is fetched once; every
 * page is answered with the shell, which draws itself from them. A new version waits until a tab asks for it.
 */
declare const FILES: readonly PrecacheEntry[];
declare const SHELL: string;
/** The path under which the app lies, with its slashes. */
declare const BASE: string;

const here = globalThis as unknown as ServiceWorkerGlobalScope;

/** Files of earlier versions, for tabs that still run them: so many versions back. */
const KEPT_VERSIONS = 3;
const KEPT = "kept-";

/**
 * Refuses what is no answer of this server while the app is being fetched: files are known by their sums, the shell, which the server
 * makes, by its look. One that is refused ends the whole, and what was kept before stays.
 */
const ownAnswers: WorkboxPlugin = {
  fetchDidSucceed: async ({ request, response, event }) => {
    if (event?.type !== "install") return response;
    const { pathname, search } = new URL(request.url);
    const refuse = (why: string): never => {
      throw new Error(`${pathname}: ${why}`);
    };
    if (response.redirected) refuse("was answered from elsewhere");
    if (`${pathname}${search}` === SHELL && !isShell(response.headers, await response.clone().text()))
      refuse("is not the app");
    return response;
  },
};
const isShell = (headers: Headers, text: string): boolean =>
  (headers.get("content-type") ?? "").startsWith("text/html") && text.includes(DROP_IN_NONCE);

const files = new PrecacheController({ plugins: [ownAnswers] });
files.addToCacheList([...FILES, { url: SHELL, revision: null }]);

/** Moves aside what this version does not use any more, so that open tabs of the version before go on. */
async function keepDropped(): Promise<void> {
  const precache = await caches.open(files.strategy.cacheName);
  const used = new Set(files.getURLsToCacheKeys().values());
  const dropped = (await precache.keys()).filter((request) => !used.has(request.url));
  if (dropped.length > 0) {
    const kept = await caches.open(`${KEPT}${Date.now()}`);
    for (const request of dropped) {
      const response = await precache.match(request);
      if (response) await kept.put(request, response);
    }
  }
  const old = (await caches.keys()).filter((name) => name.startsWith(KEPT)).sort();
  await Promise.all(old.slice(0, -KEPT_VERSIONS).map((name) => caches.delete(name)));
}

/** The shell with a nonce of its own for this page, in its scripts and in its policy. */
async function shellPage(request: Request): Promise<Response> {
  const kept = await files.matchPrecache(SHELL);
  if (!kept) return fetch(request);
  const nonce = btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(16))));
  const headers = new Headers(kept.headers);
  for (const name of ["content-encoding", "content-length", "etag"]) headers.delete(name);
  const policy = headers.get("content-security-policy");
  if (policy) headers.set("content-security-policy", policy.replaceAll(DROP_IN_NONCE, nonce));
  return new Response((await kept.text()).replaceAll(DROP_IN_NONCE, nonce), { headers });
}

here.addEventListener("install", (event) => void files.install(event));
here.addEventListener("activate", (event) => event.waitUntil(keepDropped().then(() => files.activate(event))));
here.addEventListener("message", (event) => {
  if ((event.data as { readonly type?: unknown } | null)?.type === TAKE_OVER) void here.skipWaiting();
});
clientsClaim();

const literally = (text: string) => text.replace(/[^\w/]/g, "\\$&");
registerRoute(new PrecacheRoute(files, { cleanURLs: false, directoryIndex: "" }));
registerRoute(
  new NavigationRoute(({ request }) => shellPage(request), {
    denylist: [new RegExp(`^${literally(BASE)}(?:(?:assets|demo|services|shell|healthz)(?:/|$)|[^/]+\\.[a-z]+$)`)],
  }),
);
// A file of an earlier version, that a tab which still runs it asks for.
registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith(`${BASE}assets/`),
  async ({ request }) => (await caches.match(request)) ?? fetch(request),
);
