import { isAlike, unlike } from "./merge";
import type { Edit, RecordKind, StoredRecord } from "./record";

/** What an act did to one record. */
export interface Change {
  readonly kind: RecordKind;
  readonly id: string;
  /** Its versions before the act, the one that counted first; none = it was new. */
  readonly before: readonly StoredRecord[];
  /** Those of them that the act built upon or settled: they stand no more. */
  readonly replaced: readonly StoredRecord[];
  /** Revisions of what the act wrote and what stands of that; at least one. */
  readonly written: readonly [string, ...string[]];
}

/**
 * The edits that take what an act did to a record back, where `now` are its versions: what was new goes, what it replaced comes back,
 * in the old order, and what it left beside stays the one version it is, so that going to and fro adds nothing. They build upon what
 * the act wrote and on nothing later: what somebody else has changed since stays beside it. Of versions that say the same, one comes back.
 */
export function undoingEdits(
  { kind, id, before, replaced, written }: Change,
  now: readonly StoredRecord[],
): readonly Edit[] {
  const edit = (data: unknown, baseRev: string, isDeleted: boolean): Edit => ({
    kind,
    id,
    data,
    baseRev,
    settles: written,
    isBack: true,
    ...(isDeleted ? { isDeleted } : {}),
  });
  if (before.length === 0) return [edit({}, written[0], true)];
  const left = before.filter((v) => !replaced.includes(v) && now.some((w) => w.rev === v.rev));
  /** The version left that says what one says; none where it is gone. */
  const leftOf = (v: StoredRecord) => (left.includes(v) ? v : left.find((w) => isAlike(v, w)));
  const wanted = unlike(before).filter((v) => replaced.includes(v) || leftOf(v));
  // What stands where it stood is left alone, what stood before something that is gone is written anew after it.
  const last = wanted.findLastIndex((v) => leftOf(v) !== v);
  // Where nothing is gone, what the act wrote gives way to what counts.
  const over =
    wanted.length > 0
      ? wanted.slice(0, Math.max(0, last) + 1)
      : now.filter((v) => !written.includes(v.rev)).slice(0, 1);
  return over
    .toReversed()
    .map((v) =>
      edit(v.data, (leftOf(v) ?? (replaced.includes(v) ? { rev: written[0] } : v)).rev, v.deletedAt !== undefined),
    );
}
