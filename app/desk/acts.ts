import type { Edit, RecordKind } from "~/core/crew";
import type { KeepFault } from "~/core/records";
import { ok, type Result } from "~/core/result";
import { act, type Done } from "~/storage/store";

/** What an act did, and the name by which it can be undone in this tab. */
export interface Kept extends Pick<Done, "revs" | "collided"> {
  readonly undoId: string;
}

const MOST_UNDONE = 200;
const undoList = new Map<string, readonly Edit[]>();
let acts = 0;

/** The edits that take an act back: what was new goes, what was there comes back. */
const undoingEdits = ({ before }: Done): Edit[] =>
  before.map(({ kind, id, record }) => ({
    kind,
    id,
    data: record?.data ?? {},
    baseRev: "latest",
    ...(record === null || record.deletedAt !== undefined ? { isDeleted: true } : {}),
  }));

/** Keeps edits, all or none; one entry on the list of what can be undone. */
export async function keep(edits: readonly Edit[]): Promise<Result<Kept, KeepFault>> {
  const done = await act(edits);
  if (!done.ok) return done;
  const undoId = `act-${++acts}`;
  undoList.set(undoId, undoingEdits(done.value));
  const [oldest] = undoList.keys();
  if (undoList.size > MOST_UNDONE && oldest) undoList.delete(oldest);
  return ok({ undoId, revs: done.value.revs, collided: done.value.collided });
}

/** Takes an act back; null when this tab knows of none by that name. */
export async function undo(undoId: string): Promise<Result<Kept, KeepFault> | null> {
  const edits = undoList.get(undoId);
  if (!edits) return null;
  const done = await keep(edits);
  if (done.ok) undoList.delete(undoId);
  return done;
}

/** Something that can be deleted. */
export interface Deletable {
  readonly kind: RecordKind;
  readonly id: string;
  readonly rev: string;
  readonly data: unknown;
}

/** Deletes things; what another tab has changed meanwhile stays beside it as a copy. */
export const remove = (things: readonly Deletable[]): Promise<Result<Kept, KeepFault>> =>
  keep(things.map(({ kind, id, rev, data }) => ({ kind, id, data, baseRev: rev, isDeleted: true })));

/** Chooses among versions written at the same time: the one that counts from now on. */
export const settle = (kind: RecordKind, id: string, data: unknown): Promise<Result<Kept, KeepFault>> =>
  keep([{ kind, id, data, baseRev: "latest", settlesCopies: true }]);
