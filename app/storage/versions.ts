import {
  editRecord,
  joinHeads,
  recordKey,
  type Edit,
  type Heads,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { marked, type KeepFault, type Settings } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { UtcMs } from "~/core/time";

/** What there was of a record before a change: its versions, the one that counts first; none = it is new. */
export interface Before {
  readonly kind: RecordKind;
  readonly id: string;
  readonly heads: readonly StoredRecord[];
  /** The version that took their place. */
  readonly rev: string;
}

/** What an act did. */
export interface Done {
  /** Versions before it, for Undo. */
  readonly before: readonly Before[];
  /** Records that another tab or person had changed meanwhile: both versions are kept. */
  readonly collided: readonly string[];
  /** The new revision of each record, by id. */
  readonly revs: Readonly<Record<string, string>>;
}

/** Who writes, and by which clock. */
export interface Writer {
  /** This page's name on the logical clock. */
  readonly node: string;
  /** A name on the clock for one version, where the page's own would hide something. */
  readonly freshNode: () => string;
  /** Who writes as long as no settings say it. */
  readonly nobody: () => string;
  readonly nowMs: UtcMs;
  /** Of the data of every kind, as it is written now. */
  readonly versions: Readonly<Record<RecordKind, number>>;
}

/** The next version of a record: `before` are its versions as stored, `heads` with what this act has already made of them. */
function nextVersion(
  edit: Edit,
  before: readonly StoredRecord[],
  heads: readonly StoredRecord[],
  by: Writer & { readonly author: string },
) {
  const base =
    edit.baseRev === "latest" ? (heads[0] ?? null) : (before.find((head) => head.rev === edit.baseRev) ?? null);
  const settled = heads.filter((head) => edit.settles?.includes(head.rev));
  const beside = heads.filter((head) => head !== base && !settled.includes(head));
  const { node, freshNode, author, nowMs } = by;
  const fields = { id: edit.id, kind: edit.kind, data: edit.data, ...(edit.isDeleted ? { deletedAt: nowMs } : {}) };
  const made = editRecord(fields, { node, freshNode, author, nowMs, beside }, base, settled);
  return made.ok ? ok({ record: made.value, isStale: base === null && before.length > 0 }) : made;
}

type HeadsOf = (key: string) => Heads | undefined;

/** Who is writing: the member of the settings, stored or among the edits; before there are any, whoever uses this browser. */
function authorOf(stored: HeadsOf, edits: readonly Edit[], nobody: () => string): string {
  const data = stored("settings/settings")?.[0].data ?? edits.find((e) => e.kind === "settings")?.data;
  return (data as Settings | undefined)?.memberId ?? nobody();
}

/** The versions that edits make, one after the other, upon what is stored and what `news` bring. */
export function versionsOf(
  headsOf: HeadsOf,
  writer: Writer,
  edits: readonly Edit[],
  news: ReadonlyMap<string, Heads> = new Map(),
): Result<{ readonly records: readonly StoredRecord[]; readonly done: Done }, KeepFault> {
  const by = { ...writer, author: authorOf(headsOf, edits, writer.nobody) };
  const before: Before[] = [];
  const collided: string[] = [];
  const revs: Record<string, string> = {};
  const records: StoredRecord[] = [];
  const made = new Map<string, readonly StoredRecord[]>();
  for (const edit of edits) {
    const key = recordKey(edit);
    const stored = joinHeads(headsOf(key) ?? [], news.get(key) ?? []);
    const heads = made.get(key) ?? stored;
    const next = nextVersion(edit, stored, heads, by);
    if (!next.ok) return err(next.error);
    const record = marked(next.value.record, writer.versions[edit.kind]);
    made.set(key, joinHeads(heads, [record]));
    records.push(record);
    before.push({ kind: edit.kind, id: edit.id, heads: stored, rev: record.rev });
    revs[edit.id] = record.rev;
    if (next.value.isStale) collided.push(edit.id);
  }
  return ok({ records, done: { before, collided, revs } });
}
