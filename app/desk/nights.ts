import { placeNight, withMoon, type MoonWishes, type Place, type PlaceNight } from "~/core/night";
import type { NightDate } from "~/core/time";
import { recaller } from "./recall";

const nights = recaller<PlaceNight>(80);

/** A night over a place, for every screen: the same object, tables and all, while the place and the wishes stay the same. */
export function nightOver(place: Place, date: NightDate, moon: MoonWishes): PlaceNight {
  const night = nights(`${place.name} ${date}`, [place], () => placeNight(place, date, moon));
  return nights(`${place.name} ${date} ${JSON.stringify(moon)}`, [night], () => withMoon(night, moon));
}
