import {
  editRecord,
  isAlike,
  joinHeads,
  recordKey,
  type Change,
  type Edit,
  type Heads,
  type RecordKind,
  type StoredRecord,
} from "~/core/crew";
import { marked, type KeepFault, type Settings } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import type { UtcMs } from "~/core/time";

/** What an act did. */
export interface Done {
  /** What it did to each record, for Undo. */
  readonly changes: readonly Change[];
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
  const chosen = heads.filter((head) => edit.settles?.includes(head.rev));
  // What says the same as what is built upon needs nobody's choice.
  const taken = [...(base ? [base] : []), ...chosen];
  const settled = edit.isBack ? chosen : heads.filter((v) => v !== base && taken.some((w) => isAlike(v, w)));
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
  const collided: string[] = [];
  const revs: Record<string, string> = {};
  const records: StoredRecord[] = [];
  const made = new Map<string, Pick<Change, "kind" | "id" | "before"> & { readonly heads: readonly StoredRecord[] }>();
  for (const edit of edits) {
    const key = recordKey(edit);
    const stored = joinHeads(headsOf(key) ?? [], news.get(key) ?? []);
    const heads = made.get(key)?.heads ?? stored;
    const next = nextVersion(edit, stored, heads, by);
    if (!next.ok) return err(next.error);
    const record = marked(next.value.record, writer.versions[edit.kind]);
    made.set(key, { kind: edit.kind, id: edit.id, before: stored, heads: joinHeads(heads, [record]) });
    records.push(record);
    revs[edit.id] = record.rev;
    if (next.value.isStale) collided.push(edit.id);
  }
  const changes = [...made.values()].map(({ heads, ...of }) => ({
    ...of,
    replaced: of.before.filter((v) => !heads.includes(v)),
    written: heads.filter((v) => !of.before.includes(v)).map((v) => v.rev) as [string, ...string[]], // the last one written stands
  }));
  return ok({ records, done: { changes, collided, revs } });
}
