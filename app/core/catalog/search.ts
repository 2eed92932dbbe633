import type { CatalogEntry } from "./entry";
import { searchKey, wordKey } from "./key";

/** Row numbers by key; rows of `entries` are sorted by rank, so lists come out in that order. */
export interface SearchIndex {
  readonly entries: readonly CatalogEntry[];
  readonly byKey: ReadonlyMap<string, readonly number[]>;
  readonly byWord: ReadonlyMap<string, readonly number[]>;
}

/** Indexes a catalogue by designations, names and words of names. */
export function buildSearchIndex(entries: readonly CatalogEntry[]): SearchIndex {
  const byKey = new Map<string, number[]>();
  const byWord = new Map<string, number[]>();
  const add = (map: Map<string, number[]>, key: string, row: number) => {
    const rows = map.get(key);
    if (!rows) map.set(key, [row]);
    else if (rows.at(-1) !== row) rows.push(row);
  };
  entries.forEach((entry, row) => {
    for (const text of [entry.id, ...entry.aliases, entry.name]) if (text !== "") add(byKey, searchKey(text), row);
    for (const text of [entry.name, ...entry.aliases.filter((a) => !/\d/.test(a))])
      for (const word of wordKey(text)) add(byWord, word, row);
  });
  return { entries, byKey, byWord };
}

/** Whether two words differ by one letter added, dropped, changed, or by two neighbours swapped. */
function isNearly(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false;
  let i = 0;
  while (i < a.length && a[i] === b[i]) i++;
  const [restA, restB] = [a.slice(i), b.slice(i)];
  if (restA.slice(1) === restB.slice(1) || restA.slice(1) === restB || restA === restB.slice(1)) return true;
  return restA[0] === restB[1] && restA[1] === restB[0] && restA.slice(2) === restB.slice(2);
}

const union = (a: readonly number[], b: readonly number[]) => [...new Set([...a, ...b])];
const common = (lists: readonly (readonly number[])[]) =>
  lists.slice(1).reduce((kept, list) => {
    const set = new Set(list);
    return kept.filter((row) => set.has(row));
  }, lists[0] ?? []);

function rowsByWords(
  index: SearchIndex,
  query: string,
  matches: (word: string, asked: string) => boolean,
): readonly number[] {
  const asked = wordKey(query);
  const perWord = asked.map((a) =>
    [...index.byWord].filter(([word]) => matches(word, a)).reduce((rows: number[], [, r]) => union(rows, r), []),
  );
  return [...common(perWord)].sort((a, b) => a - b);
}

/**
 * Entries that a query means, best first: exact designations and names, then beginnings of all its words, then words
 * one letter off. A bare number means NGC first, then Messier. "" gives nothing.
 */
export function searchCatalog(index: SearchIndex, query: string, limit = 12): CatalogEntry[] {
  const key = searchKey(query);
  if (key === "") return [];
  const keys = /^\d+$/.test(key) ? [`NGC${Number(key)}`, `M${Number(key)}`] : [key];
  const exact = keys.flatMap((k) => index.byKey.get(k) ?? []);
  const starting = rowsByWords(index, query, (word, asked) => word.startsWith(asked));
  let rows = union(exact, starting);
  if (rows.length < limit && /[A-Z]\d/.test(key)) {
    rows = union(
      rows,
      [...index.byKey]
        .filter(([k]) => k.startsWith(key))
        .flatMap(([, r]) => r)
        .sort((a, b) => a - b),
    );
  }
  // A number one digit off is another object.
  if (rows.length === 0 && !isDesignation(query)) rows = [...rowsByWords(index, query, isNearly)];
  return rows.slice(0, limit).map((row) => index.entries[row]!);
}

/** Whether an entry is called that, by any of its designations or its name: what is only alike is not taken for it. */
export const isCalled = (entry: CatalogEntry, text: string): boolean =>
  [entry.id, entry.name, ...entry.aliases].some((name) => name !== "" && searchKey(name) === searchKey(text));

/** Whether a text is meant as a designation, a list and a number: "NGC 206", "3C 273", "Abell 6". */
export const isDesignation = (text: string): boolean => /^\d?[A-Z]{1,9}\d/.test(searchKey(text));
