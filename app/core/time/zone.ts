import { tzOffset } from "@date-fns/tz";
import { HOUR_MS, MINUTE_MS, utcMs, type UtcMs } from "./instant";

const NAME = /^[A-Za-z][A-Za-z0-9_+-]*(?:\/[A-Za-z0-9_+-]+)*$/;
const judged = new Map<string, boolean>();

/** Whether this runtime knows the IANA zone name, such as "Europe/Rome"; offsets such as "+02:00" are none. */
export function isTimeZone(name: string): boolean {
  if (name.length > 60 || !NAME.test(name)) return false;
  const known = judged.get(name);
  if (known !== undefined) return known;
  let isKnown = true;
  try {
    new Intl.DateTimeFormat("en", { timeZone: name });
  } catch {
    isKnown = false;
  }
  if (judged.size < 1000) judged.set(name, isKnown);
  return isKnown;
}

const QUARTER_MS = 15 * MINUTE_MS;
const QUARTERS_KEPT = 50_000; // some 17 months of one zone; then it begins anew
/** Offsets already asked for: every zone changes its clocks on a full quarter hour of UTC (tz database), and asking takes 20 µs. */
const asked = new Map<string, Map<number, number>>();

/** Minutes that local civil time in `zone` is ahead of UTC at an instant. RangeError for an unknown zone. */
export function utcOffsetMinutes(zone: string, ms: UtcMs): number {
  const quarter = Math.floor(ms / QUARTER_MS);
  let ofZone = asked.get(zone);
  const known = ofZone?.get(quarter);
  if (known !== undefined) return known;
  const offset = isTimeZone(zone) ? tzOffset(zone, new Date(ms)) : NaN;
  if (Number.isNaN(offset)) throw new RangeError(`unknown time zone ${zone}`);
  if (!ofZone || ofZone.size >= QUARTERS_KEPT) asked.set(zone, (ofZone = new Map<number, number>()));
  ofZone.set(quarter, offset);
  return offset;
}

/**
 * Instants at which clocks in `zone` show a full hour, from `fromMs` up to but not including `toMs`. In zones 30 or 45 minutes
 * off, these are no full hours of UTC; on the night the clocks go back an hour an hour comes twice, and where they change by half an
 * hour full hours lie 30 or 90 minutes apart that once.
 */
export function fullHours(fromMs: UtcMs, toMs: number, zone: string): UtcMs[] {
  const found: UtcMs[] = [];
  for (let quarter = Math.ceil(fromMs / QUARTER_MS); quarter * QUARTER_MS < toMs; quarter++) {
    const ms = utcMs(quarter * QUARTER_MS);
    if ((ms + utcOffsetMinutes(zone, ms) * MINUTE_MS) % HOUR_MS === 0) found.push(ms);
  }
  return found;
}

/** The instant at which clocks of a zone show a time, given as if they ran on UTC; in the hour that comes twice, one of the two. */
export function instantOfWall(wallMs: number, zone: string): UtcMs {
  const near = utcMs(wallMs - utcOffsetMinutes(zone, utcMs(wallMs)) * MINUTE_MS);
  return utcMs(wallMs - utcOffsetMinutes(zone, near) * MINUTE_MS);
}
