import type { Channel } from "~/core/exposure";
import type { CatalogEntry } from "~/core/catalog";
import { type PlaceNight, type Place, type MoonWishes, yearNights } from "~/core/night";
import type { NightDate } from "~/core/time";

const YEAR_NIGHTS = 365;
let year: { readonly key: string; readonly nights: PlaceNight[] } | null = null;

/** The nights of a year over a place: kept, since every target asks for the same. */
export function nightsOf(at: {
  readonly place: Place;
  readonly from: NightDate;
  readonly moon: MoonWishes;
}): PlaceNight[] {
  const key = JSON.stringify([at.place, at.from, at.moon]);
  if (year?.key !== key) year = { key, nights: yearNights(at.place, at.from, YEAR_NIGHTS, at.moon) };
  return year.nights;
}

/** What a month is best for. */
export interface BestOfMonth {
  readonly night: NightDate;
  readonly best: readonly { readonly entry: CatalogEntry; readonly usableMin: number; readonly channel: Channel }[];
}
