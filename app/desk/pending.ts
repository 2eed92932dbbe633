import stableText from "fast-json-stable-stringify";
import { RECORD_KINDS, recordKey, type Edit } from "~/core/crew";
import { draftNames, draftOf, dropDraft, openDrafts, putDraft } from "~/storage/drafts";
import { act, openStore, setAside } from "~/storage/store";

/**
 * Edits that are kept by themselves a moment after they were made, such as a frame that is dragged. They are written down at
 * once, and those a page could not keep any more are kept by the next one.
 */
const LEAD = "edit ";

/** Writes an edit down; what comes back names this state of it. */
export const putDown = (edit: Edit): number => putDraft(LEAD + recordKey(edit), edit);

/** Crosses an edit out that was kept, unless it has changed since. */
export const crossOut = (edit: Pick<Edit, "kind" | "id">, stamp: number): void =>
  dropDraft(LEAD + recordKey(edit), stamp);

const isEdit = (value: unknown): value is Edit => {
  const { kind, id, data, baseRev } = (typeof value === "object" && value !== null ? value : {}) as Partial<Edit>;
  return (
    RECORD_KINDS.some((k) => k === kind) &&
    typeof id === "string" &&
    typeof data === "object" &&
    (baseRev === null || typeof baseRev === "string")
  );
};

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
