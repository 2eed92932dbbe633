import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import { MINUTE_MS, utcMs, utcOffsetMinutes } from "~/core/time";

/** "18:05" in a zone. Written hundreds of times on a page, so from the offset alone. */
export const clockTime = (ms: number, zone: string): string =>
  new Date(ms + utcOffsetMinutes(zone, utcMs(ms)) * MINUTE_MS).toISOString().slice(11, 16);

/** "Sat 18:05" in a zone. */
export const weekdayTime = (ms: number, zone: string): string => format(new TZDate(ms, zone), "EEE HH:mm");

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
