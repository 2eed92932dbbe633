import type { Channel } from "~/core/exposure";
import type { Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import type { MoonWishes } from "./moon-school";
import { clearChanceOn, type Place } from "./place";
import { placeNight, type PlaceNight } from "./place-night";
import { targetNight } from "./target-night";
import type { OwnLight } from "./walk";

/** One night of a year for a target. */
export interface YearNight {
  readonly date: NightDate;
  readonly usableMin: number;
  /** What it would be without the Moon. */
  readonly moonlessMin: number;
  readonly worthMin: number;
  readonly moonlessWorthMin: number;
  readonly illuminatedFraction: number;
}

/** When a target can be shot: the useful nights in a row around the best weeks, ignoring the Moon. */
export type Season =
  | { readonly kind: "never" }
  | {
      readonly kind: "season";
      /** The 28 nights in a row with most usable time, ignoring the Moon. */
      readonly bestFrom: NightDate;
      readonly bestTo: NightDate;
      /** First and last useful night around them; null when it is useful all year round. */
      readonly firstUseful: NightDate | null;
      readonly lastUseful: NightDate | null;
    };

const BEST_NIGHTS = 28; // a Moon, so that no choice of weeks gains by dodging it

/** `count` nights over a place: about 4 ms a night, the same for every target. */
export const yearNights = (place: Place, from: NightDate, count: number, moon: MoonWishes): PlaceNight[] =>
  Array.from({ length: count }, (_, i) => placeNight(place, addNights(from, i), moon));

/** Every one of some nights for a target in one channel, clear sky assumed. */
export const yearOf = (
  nights: readonly PlaceNight[],
  target: Equatorial<"icrs">,
  channel: Channel,
  own?: OwnLight,
): YearNight[] =>
  nights.map((night) => {
    const { usableMin, worthMin, moonlessMin, moonlessWorthMin } = targetNight(night, target, channel, own);
    const { illuminatedFraction } = night.sky;
    return { date: night.date, usableMin, worthMin, moonlessMin, moonlessWorthMin, illuminatedFraction };
  });

/** The season of a target from a year of nights, ignoring the Moon: useful = at least `usefulMin` without the Moon. */
export function seasonOf(nights: readonly YearNight[], usefulMin: number): Season {
  if (!nights.some((n) => n.moonlessMin >= usefulMin)) return { kind: "never" };
  const at = (i: number) => nights[((i % nights.length) + nights.length) % nights.length]!;
  let best = { from: 0, worth: -1 };
  let worth = 0;
  for (let i = 0; i < nights.length + BEST_NIGHTS; i++) {
    worth += at(i).moonlessMin - (i >= BEST_NIGHTS ? at(i - BEST_NIGHTS).moonlessMin : 0);
    if (i >= BEST_NIGHTS - 1 && worth > best.worth) best = { from: i - BEST_NIGHTS + 1, worth };
  }
  const isUseful = (i: number) => at(i).moonlessMin >= usefulMin;
  const season = {
    kind: "season" as const,
    bestFrom: at(best.from).date,
    bestTo: at(best.from + BEST_NIGHTS - 1).date,
  };
  if (nights.every((_, i) => isUseful(i))) return { ...season, firstUseful: null, lastUseful: null };
  // From the best night of the best weeks outwards: their middle itself need not be useful where seasons are short.
  const weeks = Array.from({ length: BEST_NIGHTS }, (_, i) => best.from + i);
  const peak = weeks.reduce((a, b) => (at(b).moonlessMin > at(a).moonlessMin ? b : a));
  let [first, last] = [peak, peak];
  while (isUseful(first - 1)) first--;
  while (isUseful(last + 1)) last++;
  return { ...season, firstUseful: at(first).date, lastUseful: at(last).date };
}

/** A month of a year of nights in numbers, the Moon counted. */
export interface MonthInNumbers {
  /** "2026-12". */
  readonly month: string;
  /** Nights with at least an hour usable. */
  readonly nights: number;
  readonly usableHours: number;
  /** Of the usable hours, what clear nights leave on average. */
  readonly clearHours: number;
  readonly longestMin: number;
}

/** A year of nights by calendar month, in order; the first and last month may be cut. `clearChance` January to December. */
export function monthsOf(nights: readonly YearNight[], clearChance: readonly number[]): MonthInNumbers[] {
  const months = new Map<string, YearNight[]>();
  for (const night of nights) {
    const month = night.date.slice(0, 7);
    months.set(month, [...(months.get(month) ?? []), night]);
  }
  return [...months].map(([month, of]) => {
    const usableHours = of.reduce((sum, n) => sum + n.usableMin, 0) / 60;
    return {
      month,
      nights: of.filter((n) => n.usableMin >= 60).length,
      usableHours,
      clearHours: usableHours * (clearChance[Number(month.slice(5)) - 1] ?? 0),
      longestMin: Math.max(...of.map((n) => n.usableMin)),
    };
  });
}

/** Hours that count of some nights, by month ("2026-12"): their worth over the target's best, times the chance that each is clear. */
export function clearHoursByMonth(
  nights: readonly YearNight[],
  place: Place,
  best: number,
): { readonly month: string; readonly hours: number }[] {
  const months = new Map<string, number>();
  for (const n of nights) {
    const month = n.date.slice(0, 7);
    months.set(month, (months.get(month) ?? 0) + ((n.worthMin / best) * clearChanceOn(place, n.date)) / 60);
  }
  return [...months].map(([month, hours]) => ({ month, hours }));
}
