import { nightSky, type NightSky } from "~/core/sky";
import { nightWindow, type NightDate } from "~/core/time";
import type { Place } from "./place";

/** The sky over a place from noon to noon of a night. */
export const placeSky = (place: Place, date: NightDate): NightSky => nightSky(place, nightWindow(date, place.timeZone));
