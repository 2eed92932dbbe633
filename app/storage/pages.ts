import { joinHeads, keyOfRaw, recordKey, type Heads, type StoredRecord } from "~/core/crew";
import { EDITION } from "~/core/records";
import type { Checks } from "./reading";

/**
 * Records lie on pages, not each for itself: a database gives out 256 values in a few hundredths of a second, and 20,000 in
 * seconds. A page is one text. It carries the edition of the schemas it was checked by and the sum of its text, so that a
 * page that this version wrote need not be checked again; any other is read record by record.
 */
export interface StoredPage {
  readonly layout: 2;
  readonly edition: number;
  readonly sum: number;
  /** JSON: `{ records, unread, earlier }`. */
  readonly text: string;
}

/** A stored thing that does not read; kept as it is. */
export interface Unread {
  readonly key: string;
  readonly reason: string;
  readonly raw: unknown;
}

/** What lies on one page. */
export interface Page {
  readonly heads: ReadonlyMap<string, Heads>;
  readonly unread: readonly Unread[];
  /** Of records that were changed, the versions that the last change replaced: in force again should the present one not read. */
  readonly earlier: ReadonlyMap<string, readonly StoredRecord[]>;
}

const PAGES = 256;
const LAYOUT = 2;
export const EMPTY_PAGE: Page = { heads: new Map(), unread: [], earlier: new Map() };

/** Hash of a text, 32 bits: Fowler, Noll and Vo, variant 1a, over UTF-16 units. Tells accidents, not intent. */
export function sumOf(text: string): number {
  let sum = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) sum = Math.imul(sum ^ text.charCodeAt(i), 0x01000193);
  return sum >>> 0;
}

/** The page on which a record lies. */
export const pageOf = (key: string): string => `page ${sumOf(key) % PAGES}`;

/** Sorts versions by the record they are of. */
function byKey(records: readonly StoredRecord[]): Map<string, StoredRecord[]> {
  const versions = new Map<string, StoredRecord[]>();
  for (const record of records) {
    const known = versions.get(recordKey(record));
    if (known) known.push(record);
    else versions.set(recordKey(record), [record]);
  }
  return versions;
}

/** Sorts records by what they are a version of; of each, those that nothing builds upon. */
export function headsByKey(records: readonly StoredRecord[]): Map<string, Heads> {
  const heads = new Map<string, Heads>();
  for (const [key, all] of byKey(records))
    heads.set(key, (all.length === 1 ? all : joinHeads(all, [])) as unknown as Heads);
  return heads;
}

/**
 * Sorts what was stored into records that read and things that do not. A record whose present version does not read goes by
 * what it was before.
 */
export async function readAll(
  { records: read }: Checks,
  raws: readonly unknown[],
  earlier: readonly unknown[] = [],
): Promise<Page> {
  const [now, then] = await Promise.all([read(raws), read(earlier)]);
  const records: StoredRecord[] = [];
  const unread: Unread[] = [];
  now.forEach((record, i) => {
    if (record.ok) return void records.push(record.value);
    unread.push({ key: keyOfRaw(raws[i]), reason: `${record.error.path}: ${record.error.message}`, raw: raws[i] });
  });
  const lost = new Set(unread.map((u) => u.key));
  const before = then.flatMap((record) => (record.ok ? [record.value] : []));
  return {
    heads: headsByKey([...records, ...before.filter((r) => lost.has(recordKey(r)))]),
    unread,
    earlier: byKey(before),
  };
}

/** Writes a page. */
export function writePage(page: Page): StoredPage {
  const text = JSON.stringify({
    records: [...page.heads.values()].flat(),
    unread: page.unread.map((u) => u.raw),
    earlier: [...page.earlier.values()].flat(),
  });
  return { layout: LAYOUT, edition: EDITION, sum: sumOf(text), text };
}

/** What came of a stored page: its contents, and whether they had to be checked again and should be written anew. */
export type ReadPage =
  { readonly kind: "read"; readonly page: Page; readonly isChecked: boolean } | { readonly kind: "foreign" };

interface RawPage {
  readonly records: readonly unknown[];
  readonly unread: readonly unknown[];
  readonly earlier: readonly unknown[];
}

function parsed(text: string): RawPage | null {
  try {
    const raw = JSON.parse(text) as Readonly<Partial<Record<keyof RawPage, unknown>>> | null;
    if (!Array.isArray(raw?.records) || !Array.isArray(raw.unread)) return null;
    const { earlier } = raw;
    return { records: raw.records, unread: raw.unread, earlier: Array.isArray(earlier) ? earlier : [] };
  } catch {
    return null;
  }
}

/** Whether something looks like a record at all. A right sum tells that a page is as it was written, not by whom. */
function isRecord(raw: unknown): boolean {
  if (typeof raw !== "object" || raw === null) return false;
  const { id, kind, rev, seen, data } = raw as Readonly<Record<string, unknown>>;
  const isObject = (value: unknown) => typeof value === "object" && value !== null;
  return (
    typeof id === "string" && typeof kind === "string" && typeof rev === "string" && isObject(seen) && isObject(data)
  );
}

/** The whole objects of a torn page's list. */
function salvaged(text: string): unknown[] {
  const found: unknown[] = [];
  let depth = 0;
  let from = 0;
  let isString = false;
  for (let i = text.indexOf("[") + 1; i < text.length && i > 0; i++) {
    const c = text[i];
    if (c === "\\" && isString) i++;
    else if (c === '"') isString = !isString;
    else if (isString) continue;
    else if (c === "{" && depth++ === 0) from = i;
    else if (c === "}" && --depth === 0)
      try {
        found.push(JSON.parse(text.slice(from, i + 1)) as unknown);
      } catch {
        // The torn one.
      }
  }
  return found;
}

/** Reads a stored page. A page of a later layout is foreign: it is left alone. */
export async function readPage(checks: Checks, name: string, value: unknown): Promise<ReadPage> {
  const { layout, edition, sum, text } = (
    typeof value === "object" && value !== null ? value : {}
  ) as Partial<StoredPage>;
  if (typeof layout === "number" && layout > LAYOUT) return { kind: "foreign" };
  const raw = typeof text === "string" ? parsed(text) : null;
  if (!raw) {
    // What is left of a torn page is read record by record; the page itself is set aside as it is.
    const page = await readAll(checks, typeof text === "string" ? salvaged(text) : []);
    const torn = { key: name, reason: "not a whole page of records", raw: value };
    return { kind: "read", isChecked: true, page: { ...page, unread: [torn] } };
  }
  const isOurs = edition === EDITION && sumOf(text!) === sum && raw.unread.length === 0;
  if (isOurs && [...raw.records, ...raw.earlier].every(isRecord)) {
    const heads = headsByKey(raw.records as readonly StoredRecord[]);
    const page = { heads, unread: [], earlier: byKey(raw.earlier as readonly StoredRecord[]) };
    return { kind: "read", isChecked: false, page };
  }
  return { kind: "read", isChecked: true, page: await readAll(checks, [...raw.records, ...raw.unread], raw.earlier) };
}
