import { recordKey, undoingEdits, type Edit, type RecordKind } from "~/core/crew";
import type { EditOf, KeepFault } from "~/core/records";
import { ok, type Result } from "~/core/result";
import { slot, type Desk } from "~/desk/desk";
import { askToKeepOnce } from "~/storage/lasting";
import type { Done } from "~/storage/store";
import { theStore } from "./kept";

/** What an act did, and the name by which it can be undone in this tab. */
export interface Kept extends Pick<Done, "revs" | "collided"> {
  readonly undoId: string;
}

const MOST_UNDONE = 200;
type Undo = () => Promise<Result<Kept, KeepFault>>;
const undoList = slot(() => ({ acts: 0, back: new Map<string, Undo>() }));

/** Puts a way back on the list of what can be undone; its name there. */
export function undoable(desk: Desk, back: Undo): string {
  const list = desk.at(undoList);
  const undoId = `act-${++list.acts}`;
  list.back.set(undoId, back);
  const [oldest] = list.back.keys();
  if (list.back.size > MOST_UNDONE && oldest) list.back.delete(oldest);
  return undoId;
}

/** Keeps edits, all or none; one entry on the list of what can be undone. */
export const keep = (desk: Desk, edits: readonly EditOf[]): Promise<Result<Kept, KeepFault>> => keepRead(desk, edits);

/** As `keep`, for data of kinds that are not known here: it was stored before, or its schema reads it. The store checks it again. */
export async function keepRead(desk: Desk, edits: readonly Edit[]): Promise<Result<Kept, KeepFault>> {
  const done = await desk.at(theStore).act(edits);
  if (!done.ok) return done;
  askToKeepOnce(desk.cupboard);
  const { changes } = done.value;
  const undoId = undoable(desk, async () => {
    const shelf = await desk.at(theStore).open();
    return keepRead(
      desk,
      changes.flatMap((c) => undoingEdits(c, shelf.heads(recordKey(c)) ?? [])),
    );
  });
  return ok({ undoId, revs: done.value.revs, collided: done.value.collided });
}

/** Takes an act back; null when this tab knows of none by that name. */
export async function undo(desk: Desk, undoId: string): Promise<Result<Kept, KeepFault> | null> {
  const list = desk.at(undoList);
  const back = list.back.get(undoId);
  if (!back) return null;
  const done = await back();
  if (done.ok) list.back.delete(undoId);
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
export const remove = (desk: Desk, things: readonly Deletable[]): Promise<Result<Kept, KeepFault>> =>
  keep(
    desk,
    things.map(({ kind, id, rev, data }) => ({ kind, id, data, baseRev: rev, isDeleted: true as const })),
  );

/** Something with versions written at the same time, as a page shows it. */
export interface Torn {
  readonly kind: RecordKind;
  readonly id: string;
  /** The version that counts. */
  readonly rev: string;
  /** The others that were shown. */
  readonly copies: readonly string[];
}

/** Chooses among versions written at the same time: the one that counts from now on, or none. Copies that were not shown stay. */
export const settle = (desk: Desk, thing: Torn, data: unknown, isDeleted = false): Promise<Result<Kept, KeepFault>> =>
  keepRead(desk, [
    {
      kind: thing.kind,
      id: thing.id,
      data,
      baseRev: thing.rev,
      settles: thing.copies,
      ...(isDeleted ? { isDeleted } : {}),
    },
  ]);
