import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import { habitsNow } from "./habits";
import { MINUTE_MS, utcMs, utcOffsetMinutes } from "~/core/time";

/** "18:05" in a zone, for boxes and machines. */
export const boxTime = (ms: number, zone: string): string =>
  new Date(ms + utcOffsetMinutes(zone, utcMs(ms)) * MINUTE_MS).toISOString().slice(11, 16);

/** "18:05" as its reader writes it: "6:05 pm" where they want it. */
export function readerTime(clock: string): string {
  if (!habitsNow().is12h) return clock;
  const hour = Number(clock.slice(0, 2));
  return `${hour % 12 === 0 ? 12 : hour % 12}${clock.slice(2)} ${hour < 12 ? "am" : "pm"}`;
}

/** "18:05", or "6:05 pm", in a zone. Written hundreds of times on a page, so from the offset alone. */
export const clockTime = (ms: number, zone: string): string => readerTime(boxTime(ms, zone));

/** "18:00", or "6 pm", in a zone: a full hour on an axis with room. */
export const hourWord = (ms: number, zone: string): string => clockTime(ms, zone).replace(/:00 /, " ");

/** "18", or "6p", in a zone: an hour on an axis. */
export function axisHour(ms: number, zone: string): string {
  const clock = boxTime(ms, zone);
  if (!habitsNow().is12h) return clock.slice(0, 2);
  const hour = Number(clock.slice(0, 2));
  return `${hour % 12 === 0 ? 12 : hour % 12}${hour < 12 ? "a" : "p"}`;
}

const zoneNames = new Map<string, Intl.DateTimeFormat>();

/** "CET", "GMT+1": what a zone's clock is called at an instant. */
function zoneName(ms: number, zone: string): string {
  let named = zoneNames.get(zone);
  if (!named)
    zoneNames.set(zone, (named = new Intl.DateTimeFormat("en-GB", { timeZone: zone, timeZoneName: "short" })));
  return named.formatToParts(ms).find((p) => p.type === "timeZoneName")?.value ?? zone;
}

/** "18:05" in a zone, on a page that goes by another one's clock: "18:05 GMT" where the two differ at that instant. */
export const clockTimeBeside = (ms: number, zone: string, pageZone: string): string =>
  utcOffsetMinutes(zone, utcMs(ms)) === utcOffsetMinutes(pageZone, utcMs(ms))
    ? clockTime(ms, zone)
    : `${clockTime(ms, zone)} ${zoneName(ms, zone)}`;

/** "Sat 18:05" in a zone. */
export const weekdayTime = (ms: number, zone: string): string =>
  format(new TZDate(ms, zone), habitsNow().is12h ? "EEE h:mm aaa" : "EEE HH:mm");

/** "5 Dec 2026, 18:05" in a zone. */
export const dayAndTime = (ms: number, zone: string): string =>
  `${format(new TZDate(ms, zone), "d MMM yyyy")}, ${clockTime(ms, zone)}`;

/** "18:05 UTC", for hovering. */
export const utcTime = (ms: number): string => `${new Date(ms).toISOString().slice(11, 16)} UTC`;

/** "Saturday 5 December 2026" of an evening date. */
export const longNight = (date: string): string => format(new TZDate(`${date}T12:00:00Z`, "UTC"), "EEEE d MMMM yyyy");

/** "Sat 5 Dec" of an evening date; "Sat 6 Dec 2025" where `today` lies in another year. */
export const shortNight = (date: string, today?: string): string =>
  format(
    new TZDate(`${date}T12:00:00Z`, "UTC"),
    today !== undefined && today.slice(0, 4) !== date.slice(0, 4) ? "EEE d MMM yyyy" : "EEE d MMM",
  );

/** Day of the month of an evening date. */
export const dayOf = (date: string): string => String(Number(date.slice(8)));

/** Months of the year, short. */
export const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;

/** A month such as "2026-12" by its name. */
export const monthWord = (month: string): string => MONTHS[Number(month.slice(5, 7)) - 1] ?? month;
