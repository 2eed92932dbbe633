import { DAY_MS, FIRST_INSTANT_MS, LAST_INSTANT_MS } from "./instant";

declare const night: unique symbol;

/** A night, named by the civil date of its evening: "2026-12-05". */
export type NightDate = string & { readonly [night]: "evening" };

const midday = (date: string): number => Date.parse(`${date}T12:00:00Z`);

/** Whether a text is a real date as YYYY-MM-DD, of the years 1900 to 2200. */
export function isNightDate(text: string): text is NightDate {
  if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return false;
  const ms = midday(text);
  return ms >= FIRST_INSTANT_MS && ms <= LAST_INSTANT_MS && new Date(ms).toISOString().startsWith(text);
}

/** Marks a text as a night, or throws. */
export function nightDate(text: string): NightDate {
  if (!isNightDate(text)) throw new RangeError(`not a date as YYYY-MM-DD: ${text}`);
  return text;
}

/** The night `count` evenings later. */
export const addNights = (date: NightDate, count: number): NightDate =>
  new Date(midday(date) + count * DAY_MS).toISOString().slice(0, 10) as NightDate;

/** Evenings from `from` to `to`; negative when `to` is earlier. */
export const nightsBetween = (from: NightDate, to: NightDate): number =>
  Math.round((midday(to) - midday(from)) / DAY_MS);

/** Day of the week of the evening, 0 = Sunday. */
export const weekdayOf = (date: NightDate): number => new Date(midday(date)).getUTCDay();

/** Month of the evening, 1–12. */
export const monthOf = (date: NightDate): number => Number(date.slice(5, 7));
