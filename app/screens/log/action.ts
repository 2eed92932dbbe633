import { data } from "react-router";
import { isForm } from "~/components/forms/form-data";
import { counted } from "~/components/numbers";
import type { BookingAnswer } from "~/core/ledger";
import { keep } from "~/desk/acts";
import { answer, intentOf } from "~/desk/answer";
import { intake } from "~/desk/intake";
import { bookByHand, changeEntries, deleteEntries, logBounds } from "~/desk/log";
import { notify } from "~/desk/notices";
import { textOf } from "~/components/forms/form-numbers";
import { dropDraft } from "~/storage/drafts";
import { libraryHere } from "~/desk/open-library";
import type { ReadFile } from "~/workers/files";
import type { LogAnswer, LogIntent } from "./intents";
import { readLogEntry } from "./log-form";

async function bookWritten(form: FormData) {
  const library = await libraryHere();
  const entry = readLogEntry(form, logBounds(library, textOf(form, "projectId")));
  if (!entry.ok) return data<LogAnswer>({ refusal: null, faults: entry.error }, { status: 400 });
  const done = await bookByHand(library, entry.value);
  if (!done.ok) return data<LogAnswer>({ refusal: done.error, faults: {} }, { status: 507 });
  dropDraft(textOf(form, "draft"));
  notify("Entry added.", done.value.undoId);
  return data<LogAnswer>({ refusal: null, faults: {}, booked: done.value.undoId });
}

async function bookFiles(files: readonly ReadFile[], answers: Readonly<Record<string, BookingAnswer>> = {}) {
  const { edits, report } = intake(await libraryHere(), files, answers);
  const done = edits.length > 0 ? await keep(edits) : null;
  if (done && !done.ok) return data<LogAnswer>({ refusal: done.error }, { status: 507 });
  if (done) notify(`${counted(edits.length, "exposure")} added.`, done.value.undoId);
  return data<LogAnswer>({ refusal: null, report });
}

/** Books what was written or dropped, changes what was kept, deletes entries. */
export async function logAction(request: Request) {
  if (isForm(request)) return bookWritten(await request.formData());
  const intent = await intentOf<LogIntent>(request);
  switch (intent.act) {
    case "book":
      return bookFiles(intent.files, intent.answers);
    case "change":
      return answer(await changeEntries([intent]));
    case "delete":
      return answer(
        await deleteEntries(intent.records),
        `${intent.records.length === 1 ? "Entry" : counted(intent.records.length, "entry", "entries")} deleted.`,
      );
  }
}
