import { counted } from "~/components/numbers";
import type { Desk } from "~/desk/desk";
import { data } from "react-router";
import { numberFault } from "~/components/forms/form-numbers";
import { parseNumber } from "~/core/notation";
import { WISH_FIELD, type EditOf } from "~/core/records";
import { nightWindow } from "~/core/sky";
import { DAY_MS } from "~/core/time";
import { keep } from "~/desk/records/acts";
import { intentOf } from "~/desk/records/answer";
import { beginByLook, beginEdit } from "~/desk/plan/begin";
import { loadChoice } from "~/desk/sky/choice";
import { changeSettings } from "~/desk/kit/kit";
import { begunOn } from "~/desk/plan/season-question";
import { askAnew, forecastEdits, readTyped } from "~/desk/sky/weather";
import { notify } from "~/desk/records/notices";
import { clockTime } from "~/components/clock";
import { theDrafts } from "~/desk/records/kept";
import type { Library } from "~/desk/records/library";
import type { NightDate } from "~/core/time";
import type { TonightAnswer, TonightIntent } from "./intents";
import { forecastNoteWords, typedFaultWords } from "./forecast-words";

/** How many forecasts of a night were typed already. */
const typedBefore = (library: Library, placeId: string, night: NightDate): number =>
  library.forecasts.filter(
    ({ data: f }) => f.placeId === placeId && f.night === night && /^typed( \d+)?$/.test(f.sourceId),
  ).length;

const TYPED = { sourceId: "typed", sourceName: "Typed in by hand" } as const;

const wrong = (fault: string) => data<TonightAnswer>({ fault }, { status: 400 });

async function kept(desk: Desk, edits: readonly EditOf[], said: string) {
  const done = edits.length > 0 ? await keep(desk, edits) : null;
  return done && !done.ok
    ? data<TonightAnswer>({ refusal: done.error }, { status: 507 })
    : data<TonightAnswer>({ said });
}

/** What Tonight writes down: a look at the sky, a forecast of one's own, the wish. */
export async function tonightAction(desk: Desk, request: Request) {
  const intent = await intentOf<TonightIntent>(request);
  const { library, choice } = await loadChoice(desk, request);
  const { place, night, today } = choice;
  const { settings } = library;
  if (!place || !settings) return wrong("Enter a place in Kit first.");
  const window = nightWindow(place.data, night);
  const isTonight = night === today;
  switch (intent.act) {
    case "look": {
      const atMs = isTonight ? desk.now() : window.startMs + DAY_MS / 2;
      const look = { placeId: place.id, memberId: settings.data.memberId, atMs, isClear: intent.isClear };
      const begins = isTonight ? await beginByLook(library, night) : null;
      const done = await keep(desk, [
        ...(begins ? [begins] : []),
        { kind: "look", id: `look-${place.id}-${atMs}`, data: look, baseRev: "latest" },
      ]);
      if (!done.ok) return data<TonightAnswer>({ refusal: done.error }, { status: 507 });
      const said = `${intent.isClear ? "Clear" : "Cloudy"} at ${clockTime(atMs, place.data.timeZone)}, written down.`;
      const goesOn = intent.isClear && (begins !== null || begunOn(library, night) !== null);
      const then = goesOn ? "The night goes on as planned." : "What is left of the night is planned anew.";
      notify(desk, isTonight ? `${said} ${then}` : said, done.value.undoId);
      return data<TonightAnswer>({ said: "" });
    }
    case "begin": {
      const edit = await beginEdit(library, night);
      if (!edit) return wrong("Nothing is planned for tonight that could begin.");
      const done = await keep(desk, [edit]);
      if (!done.ok) return data<TonightAnswer>({ refusal: done.error }, { status: 507 });
      notify(desk, "Begun: tonight stays as it is planned now.", done.value.undoId);
      return data<TonightAnswer>({ said: "" });
    }
    case "typed": {
      const nowMs = isTonight ? desk.now() : window.startMs;
      const hours = await readTyped(intent.text, { window, zone: place.data.timeZone, nowMs });
      if (!hours.ok) return wrong(typedFaultWords(hours.error));
      // One more stands beside what was typed before; else it takes its place.
      const before = intent.isOneMore ? typedBefore(library, place.id, night) : 0;
      const source =
        before === 0
          ? TYPED
          : { sourceId: `${TYPED.sourceId} ${before + 1}`, sourceName: `${TYPED.sourceName}, ${before + 1}` };
      const read = { ...source, issuedMs: nowMs, hours: hours.value, notes: [] };
      const done = await kept(
        desk,
        forecastEdits(library, place, read, intent),
        `${counted(hours.value.length, "hour")} taken.`,
      );
      if (!done.data.refusal) desk.at(theDrafts).drop("typed forecast");
      return done;
    }
    case "forecastFile": {
      const { read } = intent;
      const edits = forecastEdits(library, place, { ...read, sourceId: `file ${read.sourceId}` }, intent);
      const left = read.notes.map((n) => ` ${forecastNoteWords(n)};`).join("");
      const count = `${counted(read.hours.length, "hour")} from “${read.sourceName}”.`;
      return kept(desk, edits, left === "" ? count : `${count} Left out:${left}`);
    }
    case "wish": {
      const fault = numberFault(WISH_FIELD, intent.hours);
      if (fault) return wrong(fault);
      const done = await changeSettings(library, { wishHours: parseNumber(intent.hours) ?? 0 });
      if (done.ok) desk.at(theDrafts).drop("wish hours");
      return done.ok
        ? data<TonightAnswer>({ said: "" })
        : data<TonightAnswer>({ refusal: done.error }, { status: 507 });
    }
    case "again":
      askAnew(desk);
      return data<TonightAnswer>({ said: "" });
  }
}
