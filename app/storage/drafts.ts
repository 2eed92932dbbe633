import { DAY_MS } from "~/core/time";
import type { Drawer } from "./driver";
import type { Cupboard, Ids } from "./ports";

/**
 * What a person is typing or dragging and has not saved: written down at once, so that no reload, close or kill of the tab
 * loses it. It lies twice: in the notes, which are written before the key press is over, and in a database of its own, which
 * a kill of the whole browser leaves alone. Each page has its own drafts; the next page that opens takes over those of pages
 * that are gone.
 */
interface Draft {
  /** Rises with every change; of two copies the later one counts. */
  readonly stamp: number;
  readonly value: unknown;
  /**
   * It was taken away: said in the notes until the database has heard of it, and for a day in the database, since a browser
   * that is killed may have an earlier copy in either of the two.
   */
  readonly isGone?: boolean;
}

/** The drafts of one page. */
export interface Drafts {
  /** Takes over what pages left behind that are gone; call it before anything asks for a draft. */
  readonly open: () => Promise<void>;
  /** The draft of that name on this page; null without one. */
  readonly get: (name: string) => unknown;
  /** Names of all drafts of this page. */
  readonly names: () => readonly string[];
  /** Writes a draft down. */
  readonly put: (name: string, value: unknown) => void;
  /** Takes a draft away: it was saved or is not wanted. */
  readonly drop: (name: string) => void;
  /** Takes all drafts of this page away. */
  readonly dropAll: () => void;
  /** Resolves when everything written so far lies in the database. */
  readonly written: () => Promise<void>;
}

const LEAD = "draft.";
/** Key of a draft: the page it is of, and its name. */
const keyOf = (page: string, name: string) => `${page}|${name}`;

function parse(text: string | null): Draft | null {
  try {
    const raw = JSON.parse(text ?? "") as Partial<Draft> | null;
    return typeof raw?.stamp === "number"
      ? { stamp: raw.stamp, value: raw.value, ...(raw.isGone === true ? { isGone: true } : {}) }
      : null;
  } catch {
    return null;
  }
}

/** Keeps drafts by key in two places at once, the database after the notes. */
function twoPlaces({ open, notes }: Cupboard) {
  let opened: Promise<Drawer> | null = null;
  const drawer = (): Promise<Drawer> => (opened ??= open("drafts"));
  /** What is still to be written into the database, by key. */
  const waiting = new Map<string, Draft>();
  let writing: Promise<void> | null = null;

  async function writeWaiting(): Promise<void> {
    const to = await drawer();
    while (waiting.size > 0) {
      const batch = new Map(waiting);
      waiting.clear();
      const done = await to.write(batch);
      for (const [key, draft] of batch) if (done.ok && draft.isGone && !waiting.has(key)) notes.drop(LEAD + key);
    }
    writing = null;
  }
  return {
    put(key: string, draft: Draft): void {
      notes.write(LEAD + key, JSON.stringify(draft));
      waiting.set(key, draft);
      writing ??= writeWaiting();
    },
    /** Forgets a key for good. */
    async forget(key: string): Promise<void> {
      notes.drop(LEAD + key);
      await (await drawer()).drop(key);
    },
    /** All drafts that lie anywhere, the later of two copies. */
    async all(): Promise<Map<string, Draft>> {
      const found = new Map<string, Draft>();
      const take = (key: string, draft: Draft | null) => {
        if (draft && draft.stamp > (found.get(key)?.stamp ?? 0)) found.set(key, draft);
      };
      for (const name of notes.names(LEAD)) take(name.slice(LEAD.length), parse(notes.read(name)));
      try {
        for (const [key, value] of await (await drawer()).readAll()) take(key, parse(JSON.stringify(value)));
      } catch {
        // The copies in the notes are all there is.
      }
      return found;
    },
    written: (): Promise<void> => writing ?? Promise.resolve(),
  };
}

/** The drafts of a page. */
export function createDrafts(cupboard: Cupboard, ids: Ids): Drafts {
  const page = ids.fresh().slice(0, 8);
  const own = new Map<string, Draft>();
  const places = twoPlaces(cupboard);
  let lastStamp = 0;
  const nextStamp = () => (lastStamp = Math.max(lastStamp + 1, Date.now() * 1000));
  /** Takes the copies under a key away, whatever their age. */
  const putGone = (key: string): void => places.put(key, { stamp: nextStamp(), value: null, isGone: true });
  const drop = (name: string): void => {
    if (own.delete(name)) putGone(keyOf(page, name));
  };

  return {
    async open() {
      cupboard.tabs.showOpen(page);
      const [all, open] = [await places.all(), await cupboard.tabs.openPages()];
      for (const [key, draft] of [...all].toSorted(([, a], [, b]) => a.stamp - b.stamp)) {
        const [of = "", ...rest] = key.split("|");
        const name = rest.join("|");
        if (of === page || open.has(of)) continue;
        lastStamp = Math.max(lastStamp, draft.stamp);
        if (draft.isGone) {
          if (draft.stamp / 1000 < Date.now() - DAY_MS) await places.forget(key);
          continue;
        }
        own.set(name, draft);
        places.put(keyOf(page, name), draft);
        putGone(key);
      }
    },
    get: (name) => own.get(name)?.value ?? null,
    names: () => [...own.keys()],
    put(name, value) {
      const draft = { stamp: nextStamp(), value };
      own.set(name, draft);
      places.put(keyOf(page, name), draft);
    },
    drop,
    dropAll: () => [...own.keys()].forEach(drop),
    written: places.written,
  };
}
