export {
  MINUTE_MS,
  HOUR_MS,
  DAY_MS,
  FIRST_INSTANT_MS,
  LAST_INSTANT_MS,
  addMs,
  utcMs,
  type UtcInterval,
  type UtcMs,
} from "./instant";
export { deltaTSeconds, jdUtcOf } from "./julian";
export { nightDate, addNights, nightsBetween, isNightDate, monthOf, weekdayOf, type NightDate } from "./night-date";
export { fullHours, instantOfWall, isTimeZone, utcOffsetMinutes } from "./zone";
