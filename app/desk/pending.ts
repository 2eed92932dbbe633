import stableText from "fast-json-stable-stringify";
import { RECORD_KINDS, recordKey, type Edit } from "~/core/crew";
import { draftNames, draftOf, dropDraft, openDrafts, putDraft } from "~/storage/drafts";
import { act, openStore, setAside } from "~/storage/store";

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
export const putDown = (edit: Edit): void => putDraft(LEAD + recordKey(edit), edit);

/** Takes an edit back that was written down: it is not to be kept by itself any more. */
export const takeUp = (edit: Edit): void => dropDraft(LEAD + recordKey(edit));

/** Crosses an edit out that was kept as version `rev`; one that has changed since builds upon that. */
export function crossOut(kept: Edit, rev: string): void {
  const name = LEAD + recordKey(kept);
  const edit = draftOf(name);
  if (!isEdit(edit)) return;
  if (stableText(edit.data) === stableText(kept.data)) dropDraft(name);
  else if (edit.baseRev === kept.baseRev) putDraft(name, { ...edit, baseRev: rev });
}

/** Takes over what pages left behind that are gone, and keeps the edits among it. */
export async function keepLeftBehind(): Promise<void> {
  await openDrafts();
  for (const name of draftNames().filter((n) => n.startsWith(LEAD))) {
    const edit = draftOf(name);
    if (!isEdit(edit)) {
      dropDraft(name);
      continue;
    }
    const now = (await openStore()).heads(recordKey(edit))?.[0];
    if (now && stableText(now.data) === stableText(edit.data)) {
      dropDraft(name); // it was kept, and the page was gone before it could cross it out
      continue;
    }
    const done = await act([edit]);
    if (done.ok) dropDraft(name);
    else if (done.error.code === "recordRefused" && (await setAside(edit)).ok) dropDraft(name);
  }
}
