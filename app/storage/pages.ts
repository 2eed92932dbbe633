import { joinHeads, recordKey, type Heads, type StoredRecord } from "~/core/crew";
import { decodeRecord, EDITION } from "~/core/records";

/**
 * Records lie on pages, not each for itself: a database gives out 256 values in a few hundredths of a second, and 20,000 in
 * seconds. A page is one text. It carries the edition of the schemas it was checked by and the sum of its text, so that a
 * page that this version wrote need not be checked again; any other is read record by record.
 */
export interface StoredPage {
  readonly layout: 2;
  readonly edition: number;
  readonly sum: number;
  /** JSON: `{ records, unread }`. */
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
}

const PAGES = 256;
const LAYOUT = 2;
export const EMPTY_PAGE: Page = { heads: new Map(), unread: [] };

/** Hash of a text, 32 bits: Fowler, Noll and Vo, variant 1a, over UTF-16 units. Tells accidents, not intent. */
export function sumOf(text: string): number {
  let sum = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) sum = Math.imul(sum ^ text.charCodeAt(i), 0x01000193);
  return sum >>> 0;
}

/** The page on which a record lies. */
export const pageOf = (key: string): string => `page ${sumOf(key) % PAGES}`;

/** Sorts records by what they are a version of; of each, those that nothing builds upon. */
export function headsByKey(records: readonly StoredRecord[]): Map<string, Heads> {
  const versions = new Map<string, StoredRecord[]>();
  for (const record of records) {
    const known = versions.get(recordKey(record));
    if (known) known.push(record);
    else versions.set(recordKey(record), [record]);
  }
  const heads = new Map<string, Heads>();
  for (const [key, all] of versions) heads.set(key, (all.length === 1 ? all : joinHeads(all, [])) as unknown as Heads);
  return heads;
}

/** Sorts what was stored into records that read and things that do not. */
export function readAll(raws: readonly unknown[]): Page {
  const records: StoredRecord[] = [];
  const unread: Unread[] = [];
  for (const raw of raws) {
    const record = decodeRecord(raw);
    if (record.ok) records.push(record.value);
    else {
      const { kind, id } = (typeof raw === "object" && raw !== null ? raw : {}) as { kind?: unknown; id?: unknown };
      const key = `${typeof kind === "string" ? kind : "?"}/${typeof id === "string" ? id : "?"}`;
      unread.push({ key, reason: `${record.error.path}: ${record.error.message}`, raw });
    }
  }
  return { heads: headsByKey(records), unread };
}

/** Writes a page. */
export function writePage(page: Page): StoredPage {
  const text = JSON.stringify({ records: [...page.heads.values()].flat(), unread: page.unread.map((u) => u.raw) });
  return { layout: LAYOUT, edition: EDITION, sum: sumOf(text), text };
}

/** What came of a stored page: its contents, and whether they had to be checked again and should be written anew. */
export type ReadPage =
  { readonly kind: "read"; readonly page: Page; readonly isChecked: boolean } | { readonly kind: "foreign" };

function parsed(text: string): { readonly records: readonly unknown[]; readonly unread: readonly unknown[] } | null {
  try {
    const raw = JSON.parse(text) as { readonly records?: unknown; readonly unread?: unknown } | null;
    return Array.isArray(raw?.records) && Array.isArray(raw.unread)
      ? { records: raw.records as unknown[], unread: raw.unread as unknown[] }
      : null;
  } catch {
    return null;
  }
}

/** Reads a stored page. A page of a later layout is foreign: it is left alone. */
export function readPage(name: string, value: unknown): ReadPage {
  const { layout, edition, sum, text } = (
    typeof value === "object" && value !== null ? value : {}
  ) as Partial<StoredPage>;
  if (typeof layout === "number" && layout > LAYOUT) return { kind: "foreign" };
  const raw = typeof text === "string" ? parsed(text) : null;
  if (!raw)
    return {
      kind: "read",
      isChecked: true,
      page: { heads: new Map(), unread: [{ key: name, reason: "not a page of records", raw: value }] },
    };
  if (edition === EDITION && sumOf(text!) === sum && raw.unread.length === 0)
    return {
      kind: "read",
      isChecked: false,
      page: { heads: headsByKey(raw.records as readonly StoredRecord[]), unread: [] },
    };
  return { kind: "read", isChecked: true, page: readAll([...raw.records, ...raw.unread]) };
}
