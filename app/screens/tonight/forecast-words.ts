import { counted, wordFor } from "~/components/numbers";
import type { ForecastFault, ForecastNote, TypedFault } from "~/core/formats";

/** Why a source has nothing new. */
export function askFaultWords(f: { readonly code: string; readonly found: string }): string {
  switch (f.code) {
    case "timedOut":
      return `no answer within ${f.found}, asked three times`;
    case "refused":
      return `refused (${f.found})`;
    case "unreachable":
      return "cannot be reached";
    default:
      return forecastFaultWords(f as ForecastFault);
  }
}

/** Why nothing of a forecast can be used. */
export function forecastFaultWords(f: ForecastFault): string {
  switch (f.code) {
    case "forecastNotJson":
      return "the answer is no forecast: it does not read as JSON";
    case "forecastForeign":
      return `not in the form of a forecast file (${f.found})`;
    case "forecastNewer":
      return `written for a newer version (${f.found})`;
    case "forecastNoTimes":
      return "no hour in it has a time that can be read; write them as 2026-12-05T18:00:00Z, on the full hour";
    case "forecastOver":
      return `every hour in it is over; the last is ${f.found.slice(0, 16).replace("T", " ")} UTC`;
  }
}

/** What of a forecast was left out. */
export function forecastNoteWords(n: ForecastNote): string {
  const name = n.variable.replaceAll("_", " ");
  switch (n.code) {
    case "missingHours":
      return `${counted(n.count, "hour")} missing in between`;
    case "notANumber":
      return `${name}: ${counted(n.count, "value")} ${wordFor(n.count, "is no number", "are no numbers")} (“${n.found}”)`;
    case "outOfRange":
      return `${name}: ${counted(n.count, "value")} ${wordFor(n.count, "is", "are")} impossible (${n.found})`;
    case "pastHours":
      return `${counted(n.count, "hour")} ${wordFor(n.count, "lies", "lie")} before the forecast was issued`;
    case "unknownUnit":
      return `${name}: unit “${n.found}” is not known here, left out`;
    case "wrongLength":
      return `${name}: ${counted(n.count, "value")} for ${n.found} hours, left out`;
    case "badTimes":
      return `${counted(n.count, "time")} cannot be read (“${n.found}”)`;
    case "leftOut":
      return `${name}: ${n.found}`;
    case "doubleHours":
      return `${counted(n.count, "hour")} ${wordFor(n.count, "comes", "come")} twice, the first counts`;
    case "noCloud":
      return "nothing about cloud in it";
    case "elsewhere":
      return `made for a place about ${n.count} km away (${n.found})`;
  }
}

/** What is wrong with a typed forecast. */
export function typedFaultWords(f: TypedFault): string {
  const where = `Line ${f.line}, “${f.text}”: `;
  switch (f.code) {
    case "typedLine":
      return `${where}write hours, cloud in % and gusts in km/h if you know them, for example “18-23 20 15”.`;
    case "typedHour":
      return `${where}clock hours run from 0 to 24, and a stretch is an hour at least.`;
    case "typedCloud":
      return `${where}cloud is a number from 0 to 100 %.`;
    case "typedGust":
      return `${where}gusts are a number of km/h.`;
    case "typedRain":
      return `${where}the chance of rain is a number from 0 to 100 %.`;
    case "typedOutside":
      return "None of these hours is still to come in this night.";
    case "typedNothing":
      return "Write a line for each stretch of hours, for example “18-23 20”.";
  }
}
