import { compareRevs, nextRev, nodeOfRev } from "./clock";
import type { Heads, StoredRecord } from "./record";

/** Whether version `a` builds upon version `b` (or is `b`). */
export const includes = (a: StoredRecord, b: StoredRecord): boolean => (a.seen[nodeOfRev(b.rev)] ?? "") >= b.rev;

/**
 * Joins the versions of one record from two sides: all that no other builds upon, latest first. Commutative, associative
 * and idempotent, so friends can exchange files in any order, as often as they like.
 */
export function joinHeads(a: readonly StoredRecord[], b: readonly StoredRecord[]): StoredRecord[] {
  const all = new Map([...a, ...b].map((r) => [r.rev, r]));
  const versions = [...all.values()];
  return versions
    .filter((v) => !versions.some((w) => w.rev !== v.rev && includes(w, v)))
    .sort((x, y) => compareRevs(y.rev, x.rev));
}

/** Merges two stores, by record id. */
export function mergeStores(a: ReadonlyMap<string, Heads>, b: ReadonlyMap<string, Heads>): Map<string, Heads> {
  const merged = new Map<string, Heads>(a);
  for (const [id, heads] of b) merged.set(id, joinHeads(a.get(id) ?? [], heads) as unknown as Heads);
  return merged;
}

/** The version that counts: the latest. */
export const winnerOf = <D>(heads: Heads<D>): StoredRecord<D> => heads[0];

/** Versions written at the same time as the winner by someone else (or in another tab), to be shown, never dropped. */
export const losersOf = <D>(heads: Heads<D>): readonly StoredRecord<D>[] => heads.slice(1);

/**
 * The next version of a record. It builds upon `base`, the version its writer had seen, and on nothing else: what was
 * stored meanwhile stays beside it as another head. `settles` are further versions it replaces on purpose.
 */
export function editRecord<D>(
  edit: { readonly id: string; readonly kind: StoredRecord["kind"]; readonly data: D; readonly deletedAt?: number },
  by: {
    readonly node: string;
    readonly author: string;
    readonly nowMs: number;
    /** Revisions this device has heard of without building upon them: the clock runs past them all the same. */
    readonly heard?: readonly string[];
  },
  base: StoredRecord | null,
  settles: readonly StoredRecord[] = [],
): StoredRecord<D> {
  const before = [...(base ? [base] : []), ...settles];
  const known = before.flatMap((r) => Object.values(r.seen));
  const rev = nextRev([...known, ...(by.heard ?? [])], by.nowMs, by.node);
  const seen: Record<string, string> = {};
  for (const reading of [...known, rev]) {
    const node = nodeOfRev(reading);
    if ((seen[node] ?? "") < reading) seen[node] = reading;
  }
  return { ...edit, rev, author: by.author, seen };
}

/** Versions of `incoming` that nothing in `have` is or builds upon: what a file would really bring. */
export function newsIn(have: readonly StoredRecord[], incoming: readonly StoredRecord[]): StoredRecord[] {
  const byId = new Map<string, StoredRecord[]>();
  for (const r of have) byId.set(r.id, [...(byId.get(r.id) ?? []), r]);
  return incoming.filter((r) => !(byId.get(r.id) ?? []).some((h) => includes(h, r)));
}
