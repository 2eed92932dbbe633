/** What files that were brought in came to, as it was told then: kept, so that it can be read again. */
export interface IntakeData {
  readonly memberId: string;
  readonly atMs: number;
  readonly total: number;
  readonly added: number;
  readonly known: number;
  /** Hours by which the one clock of all files was put right; in older records. Later ones say it in a line a session. */
  readonly clockHours?: number;
  readonly lines: readonly { readonly count: number; readonly words: string; readonly notes: readonly string[] }[];
  readonly left: readonly { readonly name: string; readonly why: string }[];
}

/** A light taken with the Sun higher than this, degrees, was not taken then. */
export const LIT_DEG = -6;
const DARK_DEG = -9; // and so low it must be for a clock to be trusted
const MOST_HOURS = 14; // zones are no further apart than that from any clock

/**
 * Whole hours by which a camera's clock was ahead, where lights seem to be taken under the Sun and a shift of whole hours puts every
 * one of them into the dark: the smallest such; null where the clock is right, or no shift does. `sunAltitudeDeg` of a light a number
 * of hours before its own time.
 */
export function clockAheadHours(
  count: number,
  sunAltitudeDeg: (light: number, hours: number) => number,
): number | null {
  const all = Array.from({ length: count }, (_, i) => i);
  if (all.every((i) => sunAltitudeDeg(i, 0) < LIT_DEG)) return null;
  for (let h = 1; h <= MOST_HOURS; h++)
    for (const hours of [h, -h]) if (all.every((i) => sunAltitudeDeg(i, hours) < DARK_DEG)) return hours;
  return null;
}
