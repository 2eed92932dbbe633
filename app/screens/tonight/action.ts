import { data } from "react-router";
import { forecastFaultWords, forecastNoteWords, typedFaultWords } from "./weather-words";
import { textOf } from "~/components/forms/form-numbers";
import { readForecast, readTypedForecast } from "~/core/formats";
import { parseNumber } from "~/core/notation";
import { DAY_MS, nightWindow } from "~/core/time";
import type { Edit } from "~/core/crew";
import { saveAll } from "~/storage/records";
import { now } from "~/storage/session";
import { loadChoice } from "~/desk/choice";
import { askAnew, forecastEdits } from "~/desk/weather";

const TYPED = { sourceId: "typed", sourceName: "Typed in by hand" } as const;

const saved = async (edits: readonly Edit[], said: string) => {
  const done = await saveAll(edits);
  return done.ok ? { said } : data({ storage: done.error.code }, { status: 507 });
};

/** What Tonight writes down: a look at the sky, a forecast of one's own, the wish. */
export async function tonightAction(request: Request) {
  const form = await request.formData();
  const { library, choice } = await loadChoice(request);
  const { place, night, today } = choice;
  const settings = library.settings;
  if (!place || !settings) return data({ fault: "Enter a place in Kit first." }, { status: 400 });
  const window = nightWindow(night, place.data.timeZone);
  switch (textOf(form, "intent")) {
    case "look": {
      const atMs = night === today ? now() : window.startMs + DAY_MS / 2;
      const look = { placeId: place.id, memberId: settings.data.memberId, atMs, isClear: textOf(form, "isClear") === "true" }; // prettier-ignore
      return saved([{ kind: "look", id: `look-${place.id}-${atMs}`, data: look, baseRev: "latest" }], "");
    }
    case "typed": {
      const nowMs = night === today ? now() : window.startMs;
      const hours = readTypedForecast(textOf(form, "text"), { window, zone: place.data.timeZone, nowMs });
      if (!hours.ok) return data({ fault: typedFaultWords(hours.error) }, { status: 400 });
      const read = { ...TYPED, issuedMs: nowMs, hours: hours.value, notes: [] };
      return saved(forecastEdits(library, place, read), `${hours.value.length} hours taken.`);
    }
    case "forecastFile": {
      const name = textOf(form, "name");
      if (textOf(form, "tooLarge") === "true") return data({ fault: `${name}: a forecast file has 2 MB at most.` }, { status: 400 }); // prettier-ignore
      const read = readForecast(textOf(form, "text"), { ...place.data, nowMs: now() });
      if (!read.ok) return data({ fault: `${name}: ${forecastFaultWords(read.error)}.` }, { status: 400 });
      const edits = forecastEdits(library, place, { ...read.value, sourceId: `file ${read.value.sourceId}` });
      const left = read.value.notes.map((n) => ` ${forecastNoteWords(n)};`).join("");
      return saved(edits, `${read.value.hours.length} hours from “${read.value.sourceName}”.${left === "" ? "" : ` Left out:${left}`}`); // prettier-ignore
    }
    case "wish": {
      const hours = parseNumber(textOf(form, "hours"));
      if (hours === null || hours < 0.25 || hours > 12) return data({ fault: "From 0.25 to 12 h." }, { status: 400 });
      return saved([{ kind: "settings", id: "settings", data: { ...settings.data, wishHours: hours }, baseRev: "latest" }], ""); // prettier-ignore
    }
    case "again":
      askAnew();
      return { said: "" };
    default:
      return data({ fault: "Unknown act." }, { status: 400 });
  }
}
