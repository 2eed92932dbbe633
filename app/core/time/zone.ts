import { tzOffset } from "@date-fns/tz";
import type { UtcMs } from "./instant";

/** Whether this runtime knows the IANA zone name, such as "Europe/Rome". */
export const isTimeZone = (name: string): boolean => name !== "" && !Number.isNaN(tzOffset(name, new Date(0)));

/** Minutes that local civil time in `zone` is ahead of UTC at an instant. RangeError for an unknown zone. */
export function utcOffsetMinutes(zone: string, ms: UtcMs): number {
  const offset = tzOffset(zone, new Date(ms));
  if (Number.isNaN(offset)) throw new RangeError(`unknown time zone ${zone}`);
  return offset;
}
