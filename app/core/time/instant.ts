declare const timeScale: unique symbol;

/** Milliseconds since 1970-01-01T00:00Z, UTC. The one form of time outside time/ and sky/. */
export type UtcMs = number & { readonly [timeScale]: "utc-ms" };

/** From `startMs` up to, not including, `endMs`. */
export interface UtcInterval {
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
}

export const MINUTE_MS = 60_000;
export const HOUR_MS = 60 * MINUTE_MS;
export const DAY_MS = 24 * HOUR_MS;

/** Marks a number as an instant, or throws if it is not finite. */
export function utcMs(value: number): UtcMs {
  if (!Number.isFinite(value)) throw new RangeError(`instant must be finite, got ${value} ms`);
  return value as UtcMs;
}

/** The instant `ms` milliseconds later (earlier when negative). */
export const addMs = (instant: UtcMs, ms: number): UtcMs => utcMs(instant + ms);

/** The first instant that may be kept: no observer's log and no ephemeris here reaches further back. */
export const FIRST_INSTANT_MS = Date.UTC(1900, 0, 1);
/** The last instant that may be kept. */
export const LAST_INSTANT_MS = Date.UTC(2201, 0, 1) - 1;
