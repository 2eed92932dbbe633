import stableText from "fast-json-stable-stringify";
import { RECORD_KINDS, recordKey, type Edit, type RecordKind } from "~/core/crew";
import type { DataOf } from "~/core/records";
import type { Desk } from "~/desk/desk";
import { theChecks, theDrafts, theStore } from "./kept";

/**
 * Edits that are kept by themselves a moment after they were made, such as a frame that is dragged. They are written down at
 * once, and those a page could not keep any more are kept by the next one.
 */
const LEAD = "edit ";

const isEdit = (value: unknown): value is Edit => {
  const { kind, id, data, baseRev } = (typeof value === "object" && value !== null ? value : {}) as Partial<Edit>;
  return (
    RECORD_KINDS.some((k) => k === kind) &&
    typeof id === "string" &&
    typeof data === "object" &&
    (baseRev === null || typeof baseRev === "string")
  );
};

/** Writes an edit down. */
export const putDown = (desk: Desk, edit: Edit): void => desk.at(theDrafts).put(LEAD + recordKey(edit), edit);

/** Takes an edit back that was written down: it is not to be kept by itself any more. */
export const takeUp = (desk: Desk, edit: Edit): void => desk.at(theDrafts).drop(LEAD + recordKey(edit));

/** Crosses an edit out that was kept as version `rev`; one that has changed since builds upon that. */
export function crossOut(desk: Desk, kept: Edit, rev: string): void {
  const drafts = desk.at(theDrafts);
  const name = LEAD + recordKey(kept);
  const edit = drafts.get(name);
  if (!isEdit(edit)) return;
  if (stableText(edit.data) === stableText(kept.data)) drafts.drop(name);
  else if (edit.baseRev === kept.baseRev) drafts.put(name, { ...edit, baseRev: rev });
}

/** Takes over what pages left behind that are gone, and keeps the edits among it. */
export async function keepLeftBehind(desk: Desk): Promise<void> {
  const [drafts, store] = [desk.at(theDrafts), desk.at(theStore)];
  await drafts.open();
  for (const name of drafts.names().filter((n) => n.startsWith(LEAD))) {
    const edit = drafts.get(name);
    if (!isEdit(edit)) {
      drafts.drop(name);
      continue;
    }
    const now = (await store.open()).heads(recordKey(edit))?.[0];
    if (now && stableText(now.data) === stableText(edit.data)) {
      drafts.drop(name); // it was kept, and the page was gone before it could cross it out
      continue;
    }
    const done = await store.act([edit]);
    if (done.ok) drafts.drop(name);
    else if (done.error.code === "recordRefused" && (await store.setAside(edit)).ok) drafts.drop(name);
  }
}

/** Where an edit waits that asks its author something first: nothing keeps it by itself. */
const heldName = (of: { readonly kind: RecordKind; readonly id: string }) => `moved ${of.kind} ${of.id}`;

/** Lets an edit wait until its author has answered. */
export const holdBack = (desk: Desk, edit: Edit): void => desk.at(theDrafts).put(heldName(edit), edit.data);

/** The edit that waited is not wanted any more, or is kept another way. */
export const letGo = (desk: Desk, of: { readonly kind: RecordKind; readonly id: string }): void =>
  desk.at(theDrafts).drop(heldName(of));

/** What waited when the page was left; null without one, or where its schema does not read it. */
export async function heldBack<K extends RecordKind>(desk: Desk, kind: K, id: string): Promise<DataOf[K] | null> {
  const data = desk.at(theDrafts).get(heldName({ kind, id }));
  if (data === null) return null;
  const fault = await desk.at(theChecks).refused([{ kind, id, data, baseRev: null }]);
  return fault ? null : (data as DataOf[K]);
}
