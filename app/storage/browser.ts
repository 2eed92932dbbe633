import { utcMs } from "~/core/time";
import { openDrawer } from "./driver";
import { askToKeep, storageState } from "./lasting";
import type { Clock, Cupboard, DrawerName, Ids, Notes, Tabs } from "./ports";

/** The clock of this computer, or the demo's fixed one, which the server writes on the page. */
export function browserClock({ dataset }: HTMLElement): Clock {
  const fixed = () => dataset["now"];
  return { now: () => utcMs(Number(fixed() ?? Date.now())), isDemo: fixed() !== undefined };
}

/** Names by chance. */
export const browserIds: Ids = { fresh: () => crypto.randomUUID().replaceAll("-", "").slice(0, 12) };

/** Notes in localStorage under one lead; a browser that blocks it has none. */
function browserNotes(lead: string): Notes {
  const attempt = <T>(work: (storage: Storage) => T, otherwise: T): T => {
    try {
      return work(localStorage);
    } catch {
      return otherwise; // blocked or full
    }
  };
  return {
    read: (name) => attempt((s) => s.getItem(lead + name), null),
    write: (name, text) =>
      attempt((s) => {
        s.setItem(lead + name, text);
        return true;
      }, false),
    drop: (name) => attempt((s) => s.removeItem(lead + name), undefined),
    names: (start) =>
      attempt(
        (s) =>
          Array.from({ length: s.length }, (_, i) => s.key(i) ?? "").flatMap((key) =>
            key.startsWith(lead + start) ? [key.slice(lead.length)] : [],
          ),
        [],
      ),
  };
}

/** How long another tab may hold the pen before this one gives up, ms. */
const WAITS_MS = 8000;

/** How often a name that another page has is asked for again, and how long between, ms. */
const LOOKS = 3;
const LOOK_AGAIN_MS = 500;

function browserTabs(database: string): Tabs {
  const channel = "BroadcastChannel" in globalThis ? new BroadcastChannel(database) : null;
  const pages = `${database}.page.`;
  return {
    exclusively: (name, work) =>
      navigator.locks
        ? navigator.locks.request(`${database}.${name}`, { signal: AbortSignal.timeout(WAITS_MS) }, work)
        : work(),
    async hold(name, signal) {
      const { locks } = navigator;
      if (!locks) return true;
      const taken = () =>
        new Promise<boolean>((resolve, reject) => {
          locks
            .request(`${database}.${name}`, { ifAvailable: true }, (lock) => {
              resolve(lock !== null);
              if (lock && !signal.aborted)
                return new Promise<void>((letGo) => signal.addEventListener("abort", () => letGo(), { once: true }));
            })
            .catch(reject);
        });
      // A page that was left a moment ago, as by a reload, may have it still.
      for (let look = 0; look < LOOKS; look++) {
        if (await taken()) return true;
        await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS));
      }
      return taken();
    },
    // A page that the browser keeps for the way back is gone like any other, since nothing runs in it; should it be shown
    // again, it is loaded anew.
    showOpen(page) {
      let letGo: () => void = () => undefined;
      void navigator.locks?.request(pages + page, () => new Promise<void>((resolve) => (letGo = resolve)));
      window.addEventListener("pagehide", () => letGo());
      window.addEventListener("pageshow", (event) => {
        if (event.persisted) location.reload();
      });
    },
    async openPages() {
      const held = (await navigator.locks?.query())?.held ?? [];
      return new Set(held.flatMap(({ name }) => (name?.startsWith(pages) ? [name.slice(pages.length)] : [])));
    },
    announce: () => channel?.postMessage("changed"),
    onAnnounced: (listener) => channel?.addEventListener("message", listener),
  };
}

/** What this browser keeps; the demo never mixes with one's own data. */
export function browserCupboard(isDemo: boolean): Cupboard {
  const database = isDemo ? "zenithar-demo" : "zenithar";
  const drawers: Readonly<Record<DrawerName, readonly [name: string, storeName: string]>> = {
    library: [`${database}.library`, "pages"],
    drafts: [`${database}-drafts`, "drafts"],
    plan: [`${database}-plan`, "plan"],
    pictures: [`${database}-pictures`, "pictures"],
    folder: [`${database}-folder`, "folder"],
  };
  return {
    open: (name) => openDrawer(...drawers[name]),
    async openFirst() {
      // Asked first: opening it would make an empty one. A browser that cannot tell is opened all the same.
      const known = await globalThis.indexedDB?.databases?.().catch(() => null);
      return known && !known.some((d) => d.name === database) ? null : openDrawer(database, "records");
    },
    notes: browserNotes(`${database}.`),
    tabs: browserTabs(database),
    storageState,
    askToKeep,
  };
}
