import { openDrawer, type Drawer } from "./driver";
import { databaseName } from "./session";

/**
 * What a person is typing or dragging and has not saved: written down at once, so that no reload, close or kill of the tab
 * loses it. It lies twice: in localStorage, which is written before the key press is over, and in a database of its own, which
 * a kill of the whole browser leaves alone. Each page has its own drafts; the next page that opens takes over those of pages
 * that are gone.
 */
interface Draft {
  /** Rises with every change; of two copies the later one counts. */
  readonly stamp: number;
  readonly value: unknown;
  /**
   * It was taken away: said in localStorage until the database has heard of it, and for a day in the database, since a browser
   * that is killed may have an earlier copy in either of the two.
   */
  readonly isGone?: boolean;
}

/** How long the database remembers that a draft was taken away, ms: browsers write localStorage down within seconds. */
const REMEMBERED_MS = 86_400_000;

const pageId = crypto.randomUUID().slice(0, 8);
const own = new Map<string, Draft>();
let lastStamp = 0;
let opened: Promise<Drawer> | null = null;

const drawer = (): Promise<Drawer> => (opened ??= openDrawer(`${databaseName()}-drafts`, "drafts"));
const prefix = () => `${databaseName()}.draft.`;
/** Key of a draft: the page it is of, and its name. */
const keyOf = (page: string, name: string) => `${page}|${name}`;
const lockOf = (page: string) => `${databaseName()}.page.${page}`;
const nextStamp = () => (lastStamp = Math.max(lastStamp + 1, Date.now() * 1000));

function local<T>(work: (storage: Storage) => T): T | null {
  try {
    return work(localStorage);
  } catch {
    return null; // blocked or full: the database has it a moment later
  }
}

/** What is still to be written into the database, by key. */
const waiting = new Map<string, Draft>();
let writing: Promise<void> | null = null;

async function writeWaiting(): Promise<void> {
  const to = await drawer();
  while (waiting.size > 0) {
    const batch = new Map(waiting);
    waiting.clear();
    const done = await to.write(batch);
    for (const [key, draft] of batch)
      if (done.ok && draft.isGone && !waiting.has(key)) local((s) => s.removeItem(prefix() + key));
  }
  writing = null;
}

function put(key: string, draft: Draft): void {
  local((s) => s.setItem(prefix() + key, JSON.stringify(draft)));
  waiting.set(key, draft);
  writing ??= writeWaiting();
}

/** Takes the copies under a key away, whatever their age. */
const putGone = (key: string): void => put(key, { stamp: nextStamp(), value: null, isGone: true });

/** Forgets a key for good. */
async function forget(key: string): Promise<void> {
  local((s) => s.removeItem(prefix() + key));
  await (await drawer()).drop(key);
}

/** The draft of that name on this page; null without one. */
export const draftOf = (name: string): unknown => own.get(name)?.value ?? null;

/** Names of all drafts of this page. */
export const draftNames = (): readonly string[] => [...own.keys()];

/** Writes a draft down. */
export function putDraft(name: string, value: unknown): void {
  const draft = { stamp: nextStamp(), value };
  own.set(name, draft);
  put(keyOf(pageId, name), draft);
}

/** Takes a draft away: it was saved or is not wanted. */
export function dropDraft(name: string): void {
  if (own.delete(name)) putGone(keyOf(pageId, name));
}

/** Takes all drafts of this page away. */
export const dropAllDrafts = (): void => draftNames().forEach((name) => dropDraft(name));

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

/** All drafts that lie anywhere, the later of two copies. */
async function findAll(): Promise<Map<string, Draft>> {
  const found = new Map<string, Draft>();
  const take = (key: string, draft: Draft | null) => {
    if (draft && draft.stamp > (found.get(key)?.stamp ?? 0)) found.set(key, draft);
  };
  local((s) => {
    for (let i = 0; i < s.length; i++) {
      const key = s.key(i) ?? "";
      if (key.startsWith(prefix())) take(key.slice(prefix().length), parse(s.getItem(key)));
    }
  });
  try {
    for (const [key, value] of await (await drawer()).readAll()) take(key, parse(JSON.stringify(value)));
  } catch {
    // The copies in localStorage are all there is.
  }
  return found;
}

/** Pages that are open now, by the locks they hold. */
async function openPages(): Promise<ReadonlySet<string>> {
  const held = (await navigator.locks?.query())?.held ?? [];
  const lead = lockOf("");
  return new Set(held.flatMap(({ name }) => (name?.startsWith(lead) ? [name.slice(lead.length)] : [])));
}

/**
 * Held as long as this page is shown. A page that the browser keeps for the way back is gone like any other, since nothing runs
 * in it; should it be shown again, it is loaded anew.
 */
function holdOwnLock(): void {
  let letGo: () => void = () => undefined;
  void navigator.locks?.request(lockOf(pageId), () => new Promise<void>((resolve) => (letGo = resolve)));
  window.addEventListener("pagehide", () => letGo());
  window.addEventListener("pageshow", (event) => {
    if (event.persisted) location.reload();
  });
}

/** Takes over what pages left behind that are gone; call it before anything asks for a draft. */
export async function openDrafts(): Promise<void> {
  holdOwnLock();
  const [all, open] = [await findAll(), await openPages()];
  for (const [key, draft] of [...all].toSorted(([, a], [, b]) => a.stamp - b.stamp)) {
    const [page = "", ...rest] = key.split("|");
    const name = rest.join("|");
    if (page === pageId || open.has(page)) continue;
    lastStamp = Math.max(lastStamp, draft.stamp);
    if (draft.isGone) {
      if (draft.stamp / 1000 < Date.now() - REMEMBERED_MS) await forget(key);
      continue;
    }
    own.set(name, draft);
    put(keyOf(pageId, name), draft);
    putGone(key);
  }
}

/** Resolves when everything written so far lies in the database. @public for tests */
export const draftsWritten = (): Promise<void> => writing ?? Promise.resolve();
