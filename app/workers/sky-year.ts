import type { Channel } from "~/core/exposure";
import type { CatalogEntry } from "~/core/catalog";
import { type PlaceNight, type Place, type MoonWishes, withMoon, yearNights } from "~/core/night";
import type { NightDate } from "~/core/time";

const YEAR_NIGHTS = 365;
let year: { readonly key: string; readonly nights: readonly PlaceNight[] } | null = null;

/** The nights of a year over a place: its Sun and Moon are kept, since every target and every school of the Moon asks for the same. */
export function nightsOf(at: {
  readonly place: Place;
  readonly from: NightDate;
  readonly moon: MoonWishes;
}): readonly PlaceNight[] {
  const key = JSON.stringify([at.place, at.from]);
  if (year?.key !== key) year = { key, nights: yearNights(at.place, at.from, YEAR_NIGHTS, at.moon) };
  return year.nights.map((night) => withMoon(night, at.moon));
}

/** What a month is best for. */
export interface BestOfMonth {
  readonly night: NightDate;
  readonly best: readonly { readonly entry: CatalogEntry; readonly usableMin: number; readonly channel: Channel }[];
}
