import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { isForm } from "~/components/forms/form-data";
import { counted } from "~/components/numbers";
import { keep } from "~/desk/records/acts";
import { answer, intentOf } from "~/desk/records/answer";
import { intake, intakeEdit } from "~/desk/log/intake";
import { intakeText } from "./intake-words";
import { bookByHand, changeKept, deleteEntries, logBounds, writtenDoubts, type WrittenEntry } from "~/desk/log/log";
import { takeSimulatedOut } from "~/desk/log/simulated";
import { toldNights } from "~/desk/log/told";
import { choiceOf } from "~/desk/sky/choice";
import { keepNightLook } from "~/desk/log/night-facts";
import { impossibleWords } from "~/components/words/log-words";
import { shortNight } from "~/components/clock";
import { readLogLine } from "~/core/ledger";
import { isNightDate, nightDate } from "~/core/time";
import { loggable } from "./load";
import { lineContext, logLineWords } from "./line-words";
import { notify } from "~/desk/records/notices";
import { textOf } from "~/components/forms/form-numbers";
import { theDrafts } from "~/desk/records/kept";
import { libraryHere } from "~/desk/records/open-library";
import type { LogAnswer, LogIntent } from "./intents";
import { readLogEntry } from "./log-form";

async function bookWritten(desk: Desk, form: FormData) {
  const library = await libraryHere(desk);
  const entry = readLogEntry(form, logBounds(library, textOf(form, "projectId")));
  if (!entry.ok) return data<LogAnswer>({ refusal: null, faults: entry.error }, { status: 400 });
  const [doubt] = writtenDoubts(library, [entry.value]);
  if (doubt && textOf(form, "isSure") === "")
    return data<LogAnswer>({ refusal: null, faults: { isSure: impossibleWords(doubt) } }, { status: 400 });
  const done = await bookByHand(library, entry.value);
  if (!done.ok) return data<LogAnswer>({ refusal: done.error, faults: {} }, { status: 507 });
  desk.at(theDrafts).drop(textOf(form, "draft"));
  notify(desk, "Entry added.", done.value.undoId);
  return data<LogAnswer>({ refusal: null, faults: {}, booked: done.value.undoId });
}

/** Says what files would come to, or, when somebody is sure, adds them: the whole intake is one act, and stays readable. */
async function bookFiles(desk: Desk, { files, said, isSure }: Extract<LogIntent, { readonly act: "book" }>) {
  const library = await libraryHere(desk);
  const { edits, report } = intake(library, files, said);
  const told = { ...report, isAdded: isSure };
  if (!isSure || edits.length === 0) return data<LogAnswer>({ refusal: null, report: { ...told, isAdded: false } });
  const record = intakeEdit(library, intakeText(report));
  const done = await keep(desk, [...edits, record]);
  if (!done.ok) return data<LogAnswer>({ refusal: done.error }, { status: 507 });
  const added = edits.length - report.measured;
  notify(
    desk,
    added > 0 ? `${counted(added, "exposure")} added.` : `${counted(report.measured, "sub")} measured.`,
    done.value.undoId,
  );
  return data<LogAnswer>({ refusal: null, report: told });
}

/** Books entries written a line each: all of them, or none with the line that is wrong. */
async function bookLines(
  desk: Desk,
  { projectId, night, text, isSure }: Extract<LogIntent, { readonly act: "lines" }>,
) {
  const library = await libraryHere(desk);
  const wrong = (lineFault: string) => data<LogAnswer>({ refusal: null, lineFault }, { status: 400 });
  const project = loggable(library, projectId);
  if (!project) return wrong("That project is gone.");
  if (!isNightDate(night)) return wrong("Choose a night first.");
  const { today } = logBounds(library, projectId);
  if (night > today) return wrong("This night is still to come.");
  const entries: WrittenEntry[] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === "") continue;
    const read = readLogLine(line, lineContext(project));
    if (!read.ok) return wrong(logLineWords(read.error, i + 1));
    entries.push({ projectId, night, ...read.value });
  }
  const doubts = writtenDoubts(library, entries);
  if (doubts.length > 0 && !isSure)
    return data<LogAnswer>({ refusal: null, lineDoubt: doubts.map(impossibleWords).join(" ") });
  const done = await bookByHand(library, ...entries);
  if (!done.ok) return data<LogAnswer>({ refusal: done.error }, { status: 507 });
  notify(desk, `${counted(entries.length, "entry", "entries")} added.`, done.value.undoId);
  return data<LogAnswer>({ refusal: null, booked: done.value.undoId });
}

/** Books what was told at the mount of a night, as it is then: all of it, or none. */
async function bookTold(desk: Desk, { night, isSure }: Extract<LogIntent, { readonly act: "told" }>) {
  const library = await libraryHere(desk);
  const { today } = choiceOf(library, new URLSearchParams());
  const entries = (toldNights(library, today).find((n) => n.night === night)?.entries ?? []).map(
    ({ projectName: _, ...entry }): WrittenEntry => entry,
  );
  const words = writtenDoubts(library, entries).map(impossibleWords).join(" ");
  if (words !== "" && !isSure) return data<LogAnswer>({ refusal: null, toldDoubt: { night, words } });
  const said = `${counted(entries.length, "entry", "entries")} added.`;
  return answer(desk, await bookByHand(library, ...entries), said);
}

/** Books what was written or dropped, changes what was kept, deletes entries. */
export async function logAction(desk: Desk, request: Request) {
  if (isForm(request)) return bookWritten(desk, await request.formData());
  const intent = await intentOf<LogIntent>(request);
  switch (intent.act) {
    case "book":
      return bookFiles(desk, intent);
    case "lines":
      return bookLines(desk, intent);
    case "told":
      return bookTold(desk, intent);
    case "howItWas": {
      const library = await libraryHere(desk);
      const place = library.places.find((p) => p.id === intent.placeId);
      if (!place) return data<LogAnswer>({ refusal: null, lineFault: "That place is gone." }, { status: 404 });
      const done = await keepNightLook(library, place, nightDate(intent.night), intent.isClear);
      return answer(
        desk,
        done,
        `${shortNight(intent.night)} is written down as ${intent.isClear ? "clear" : "lost to cloud"}.`,
      );
    }
    case "change":
      return answer(desk, await changeKept(desk, intent.record, intent.kept, intent.reason));
    case "takeSimulatedOut":
      return answer(desk, await takeSimulatedOut(await libraryHere(desk)), "Simulated entries taken out.");
    case "delete":
      return answer(
        desk,
        await deleteEntries(desk, intent.records),
        `${intent.records.length === 1 ? "Entry" : counted(intent.records.length, "entry", "entries")} deleted.`,
      );
  }
}
