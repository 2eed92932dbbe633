import { addNights, type NightDate } from "~/core/time";
import type { MoonWishes } from "./moon-school";
import type { Place } from "./place";
import { channelSkyOf, placeNight, type PlaceNight } from "./place-night";

const LOOKED_AHEAD = 366;

/** Whether a night has a minute dark enough overhead, the Moon set aside, for whoever takes twilight like that. */
export function isEverDark(night: PlaceNight): boolean {
  const { isDark, twilight, leastTwilightShare } = channelSkyOf(night, "L");
  return isDark.some((is, i) => is === 1 && 1 >= leastTwilightShare * (1 + twilight[i]!));
}

/** The first night from one on in which it gets dark enough; null when there is none within a year. About 4 ms a night. */
export function firstDarkNight(place: Place, from: NightDate, moon: MoonWishes): NightDate | null {
  for (let i = 0; i < LOOKED_AHEAD; i++) {
    const date = addNights(from, i);
    if (isEverDark(placeNight(place, date, moon))) return date;
  }
  return null;
}
