import { placeNight, withMoon, type MoonWishes, type Place, type PlaceNight } from "~/core/night";
import type { NightDate } from "~/core/time";
import type { Desk } from "~/desk/desk";
import { topic } from "~/desk/memo";

const nights = topic<PlaceNight>(80);

/** A night over a place, for every screen: the same object, tables and all, while the place and the wishes stay the same. */
export function nightOver(desk: Desk, place: Place, date: NightDate, moon: MoonWishes): PlaceNight {
  const night = desk.memo(nights, `${place.name} ${date}`, [place], () => placeNight(place, date, moon));
  return desk.memo(nights, `${place.name} ${date} ${JSON.stringify(moon)}`, [night], () => withMoon(night, moon));
}
