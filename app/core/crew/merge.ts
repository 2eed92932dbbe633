import stableText from "fast-json-stable-stringify";
import { err, ok, type Result } from "~/core/result";
import { compareRevs, instantOfRev, nextRev, nodeOfRev, parseRev } from "./clock";
import { recordKey, type Heads, type StoredRecord } from "./record";

/** The latest reading of a node that a version builds upon; none = "". Nodes may be called like anything, `constructor` too. */
const readingOf = ({ seen }: Pick<StoredRecord, "seen">, node: string): string =>
  Object.hasOwn(seen, node) ? seen[node]! : "";

/**
 * Whether version `a` builds upon version `b`. Two that bear one revision but differ, as an edited file makes them, do not
 * build upon each other.
 */
const includes = (a: StoredRecord, b: StoredRecord): boolean =>
  a.rev !== b.rev && readingOf(a, nodeOfRev(b.rev)) >= b.rev;

/** By the texts of both; that of the keys as they stand is five times as fast, and settles nearly all. */
const isSame = (a: StoredRecord, b: StoredRecord): boolean =>
  a === b || JSON.stringify(a) === JSON.stringify(b) || stableText(a) === stableText(b);

/** Whether two versions say the same: a choice between them would be none. */
export const isAlike = (a: StoredRecord, b: StoredRecord): boolean =>
  (a.deletedAt === undefined) === (b.deletedAt === undefined) &&
  (a.deletedAt !== undefined || a.data === b.data || stableText(a.data) === stableText(b.data));

/** Versions without those that say the same as one before them. */
export function unlike<D>(versions: readonly StoredRecord<D>[]): readonly StoredRecord<D>[] {
  if (versions.length < 2) return versions;
  const said = new Map<string, StoredRecord<D>>();
  for (const v of versions) {
    const text = v.deletedAt === undefined ? stableText(v.data) : "deleted";
    if (!said.has(text)) said.set(text, v);
  }
  return [...said.values()];
}

/**
 * What makes a version unbelievable: it must have seen itself, nothing later than itself, and every reading under the name
 * of the node that wrote it. Among versions of which this holds, the latest is built upon by none, so that a merge always
 * leaves one. Null when all is well.
 */
export function unsoundness(record: Pick<StoredRecord, "rev" | "seen">): string | null {
  const { rev, seen } = record;
  if (!parseRev(rev)) return "is not a clock reading up to the year 2200";
  if (readingOf(record, nodeOfRev(rev)) !== rev) return "does not include the version itself";
  for (const [node, reading] of Object.entries(seen)) {
    if (!parseRev(reading) || nodeOfRev(reading) !== node) return `holds no reading of ${node.slice(0, 40)}`;
    if (reading > rev) return "includes a version later than this one";
  }
  return null;
}

/**
 * Joins the versions of one record from two sides: all that no other builds upon, latest first. Commutative, associative
 * and idempotent, so friends can exchange files in any order, as often as they like.
 */
export function joinHeads(a: readonly StoredRecord[], b: readonly StoredRecord[]): StoredRecord[] {
  const [x, y] = [a[0], b[0]];
  if (x && y && a.length === 1 && b.length === 1 && x.rev !== y.rev) {
    // One version on either side, as nearly always: whichever builds upon the other.
    const [isX, isY] = [includes(x, y), includes(y, x)];
    if (isX !== isY) return isX ? [x] : [y];
  }
  const versions = apart([...a, ...b]);
  const isBuiltUpon = builtUponIn(versions);
  return versions
    .filter((v) => !isBuiltUpon(v))
    .sort((x, y) => compareRevs(y.rev, x.rev) || (x === y ? 0 : compareRevs(stableText(y), stableText(x))));
}

/** Versions without repetitions. Of one revision there are several only where files were edited by hand. */
function apart(all: readonly StoredRecord[]): StoredRecord[] {
  const byRev = new Map<string, StoredRecord[]>();
  for (const v of all) {
    const same = byRev.get(v.rev);
    if (!same) byRev.set(v.rev, [v]);
    else if (!same.some((w) => isSame(w, v))) same.push(v);
  }
  return [...byRev.values()].flat();
}

/** Tells which of some versions another one of them builds upon; in time that grows with what they have seen, not with its square. */
function builtUponIn(versions: readonly StoredRecord[]): (v: StoredRecord) => boolean {
  // Of every node the latest reading that a version has seen, and the latest that one of another revision has.
  const latest = new Map<string, { reading: string; rev: string; others: string }>();
  for (const { rev, seen } of versions)
    for (const [node, reading] of Object.entries(seen)) {
      const known = latest.get(node);
      if (!known) latest.set(node, { reading, rev, others: "" });
      else if (known.rev === rev) known.reading = reading > known.reading ? reading : known.reading;
      else if (reading > known.reading) latest.set(node, { reading, rev, others: known.reading });
      else if (reading > known.others) known.others = reading;
    }
  return ({ rev }) => {
    const known = latest.get(nodeOfRev(rev));
    return known !== undefined && (known.rev === rev ? known.others : known.reading) >= rev;
  };
}

/** Merges two stores, by kind and id. */
export function mergeStores(a: ReadonlyMap<string, Heads>, b: ReadonlyMap<string, Heads>): Map<string, Heads> {
  const merged = new Map<string, Heads>(a);
  for (const [key, heads] of b) {
    const here = a.get(key);
    merged.set(
      key,
      here === undefined && heads.length === 1 ? heads : (joinHeads(here ?? [], heads) as unknown as Heads),
    );
  }
  return merged;
}

/** The version that counts: the latest. */
export const winnerOf = <D>(heads: Heads<D>): StoredRecord<D> => heads[0];

/** Versions written at the same time as the winner by someone else (or in another tab), to be shown, never dropped. */
export const losersOf = <D>(heads: Heads<D>): readonly StoredRecord<D>[] => heads.slice(1);

/** Who writes a version, and when. */
export interface Writer {
  /** Name of this session on the clock. */
  readonly node: string;
  /** Makes a name nobody has used: taken when the session's own would hide something. */
  readonly freshNode: () => string;
  readonly author: string;
  readonly nowMs: number;
  /** Versions that stay beside the new one, because it does not build upon them; the clock runs past them all the same. */
  readonly beside?: readonly StoredRecord[];
}

/** Why no version can be written: the clock of this machine, or of what is built upon, stands past the year 2200. */
export interface ClockFault {
  readonly code: "clockOutOfRange";
}

/**
 * The next version of a record. It builds upon `base`, the version its writer had seen, and on `settles`, which it replaces
 * on purpose; on nothing else.
 *
 * A version says what it builds upon by the latest reading of every node. So a writer whose node wrote something that it
 * does not build upon now would claim that too: it writes under a fresh name instead.
 */
export function editRecord<D>(
  edit: { readonly id: string; readonly kind: StoredRecord["kind"]; readonly data: D; readonly deletedAt?: number },
  by: Writer,
  base: StoredRecord | null,
  settles: readonly StoredRecord[] = [],
): Result<StoredRecord<D>, ClockFault> {
  const built = [...(base ? [base] : []), ...settles];
  const seen = new Map<string, string>();
  const know = (reading: string) => {
    const node = nodeOfRev(reading);
    if ((seen.get(node) ?? "") < reading) seen.set(node, reading);
  };
  for (const version of built) Object.values(version.seen).forEach(know);
  const beside = by.beside ?? [];
  const wouldHide = beside.some((v) => readingOf(v, by.node) > (seen.get(by.node) ?? ""));
  const rev = nextRev([...seen.values(), ...beside.map((v) => v.rev)], by.nowMs, wouldHide ? by.freshNode() : by.node);
  if (rev === null) return err({ code: "clockOutOfRange" });
  know(rev);
  return ok({ ...edit, rev, author: by.author, seen: Object.fromEntries(seen) });
}

/** Versions of `incoming` that nothing in `have` is or builds upon: what a file would really bring. */
export function newsIn(have: ReadonlyMap<string, Heads>, incoming: readonly StoredRecord[]): StoredRecord[] {
  return incoming.filter(
    (r) => !(have.get(recordKey(r)) ?? []).some((h) => includes(h, r) || (h.rev === r.rev && isSame(h, r))),
  );
}

/** How far ahead of this machine's clock a version may be written before it is doubted, ms: a day, for clocks set by hand and zones. */
export const DOUBTED_AFTER_MS = 86_400_000;

/** Versions that say they were written more than a day from now: a clock was wrong where they were made, or they are made up. */
export const fromTheFuture = (records: readonly StoredRecord[], nowMs: number): StoredRecord[] =>
  records.filter((r) => instantOfRev(r.rev) > nowMs + DOUBTED_AFTER_MS);
