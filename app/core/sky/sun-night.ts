import { addMs, addNights, DAY_MS, MINUTE_MS, nightDate, utcMs, utcOffsetMinutes } from "~/core/time";
import type { NightDate, UtcInterval, UtcMs } from "~/core/time";
import { wrap180 } from "~/core/units";
import { bodyOfDate, greenwichSiderealDeg } from "./ephemeris";
import { directionOf } from "./frames";

/** What bounds and names the nights of a place. */
export interface NightPlace {
  /** East positive, [−180, 180]. */
  readonly longitudeDeg: number;
  /** IANA name. */
  readonly timeZone: string;
}

const MOST_EQUATION_OF_TIME_MS = 20 * MINUTE_MS; // 16.5 min at most

/** Mean noon number `day`: noon of that day since 1970 by the mean Sun of a longitude. */
const meanNoonMs = (longitudeDeg: number, day: number): number => (day + 0.5 - longitudeDeg / 360) * DAY_MS;

/** The upper transit of the true Sun next to mean noon number `day`, to 0.01 s. About 0.1 ms. */
function noonMs(longitudeDeg: number, day: number): UtcMs {
  const from = { latitudeDeg: 0, longitudeDeg, elevationM: 0 };
  let ms = utcMs(meanNoonMs(longitudeDeg, day));
  for (let i = 0; i < 2; i++) {
    const { raDeg } = directionOf(bodyOfDate("sun", ms, from).unit);
    const hourAngleDeg = wrap180(greenwichSiderealDeg(ms) + longitudeDeg - raDeg);
    ms = addMs(ms, (-hourAngleDeg / 360) * DAY_MS);
  }
  return utcMs(Math.round(ms));
}

const standardOffsets = new Map<string, number>();

/** Minutes a zone is ahead of UTC outside summer time, as it stands in 2026: one figure a zone, so that no name of a night comes twice. */
function standardOffsetMin(zone: string): number {
  const known = standardOffsets.get(zone);
  if (known !== undefined) return known;
  const at = (month: number) => utcOffsetMinutes(zone, utcMs(Date.UTC(2026, month, 1)));
  const offset = Math.min(at(0), at(6));
  if (standardOffsets.size < 1000) standardOffsets.set(zone, offset);
  return offset;
}

/** Days from the number of a mean noon to that of its date on the clocks of the place: 0 where clocks follow the Sun. */
const daysToDate = ({ longitudeDeg, timeZone }: NightPlace): number =>
  Math.floor(0.5 - longitudeDeg / 360 + standardOffsetMin(timeZone) / 1440);

const dayNumber = (date: NightDate): number => Date.parse(`${date}T00:00:00Z`) / DAY_MS;

/**
 * A night of a place: from the Sun's upper transit to the next, whatever the clocks show, so that every dark minute belongs
 * to exactly one night, near the poles and in zones far from the Sun too. It is named by the local date of its first noon;
 * where that noon falls within an hour and a half of midnight by the clocks, by the date of the mean noon outside summer time.
 */
export function nightWindow(place: NightPlace, date: NightDate): UtcInterval {
  const day = dayNumber(date) - daysToDate(place);
  return { startMs: noonMs(place.longitudeDeg, day), endMs: noonMs(place.longitudeDeg, day + 1) };
}

const DAY_0 = nightDate("1970-01-01");

/**
 * The night an instant belongs to at a place: it changes at the Sun's transit. On the first morning of what dates can be asked for it is
 * the evening before them.
 */
export function nightOf(place: NightPlace, ms: UtcMs): NightDate {
  const { longitudeDeg } = place;
  const sinceNoon = (ms - meanNoonMs(longitudeDeg, 0)) / DAY_MS;
  const near = Math.round(sinceNoon);
  // Only close to noon does the true Sun matter.
  const isClose = Math.abs(sinceNoon - near) * DAY_MS < MOST_EQUATION_OF_TIME_MS;
  const day = isClose ? (ms >= noonMs(longitudeDeg, near) ? near : near - 1) : Math.floor(sinceNoon);
  return addNights(DAY_0, day + daysToDate(place));
}
