import { linearAt } from "~/core/numeric";
import type { UtcMs } from "./instant";

const JD_UNIX_EPOCH = 2_440_587.5;
const DAY_MS = 86_400_000;

/** Julian Date of an instant, in days of UTC. */
export const jdUtcOf = (ms: UtcMs): number => JD_UNIX_EPOCH + ms / DAY_MS;

const DELTA_T = ([
    [1961, 33.6], [1965, 35.7], [1970, 40.2], [1975, 45.5], [1980, 50.5], [1985, 54.3], [1990, 56.9], [1995, 60.8],
    [2000, 63.8], [2005, 64.7], [2010, 66.1], [2015, 67.6], [2017, 68.6], [2019, 69.2],
  ] as const).map(([x, y]) => ({ x, y })); // prettier-ignore

/**
 * TT − UT1 in seconds at an instant.
 *
 * From 2017 on the measured plateau: 32.184 s + 37 leap seconds − (UT1 − UTC ≈ 0) = 69.2 s, held constant; good to
 * about 0.3 s until 2030 and unknown beyond, as the Earth decides. 1961–2017: straight lines between yearly-table
 * values in the Astronomical Almanac (from memory, ± 0.2 s).
 */
export function deltaTSeconds(ms: UtcMs): number {
  const year = 1970 + ms / (365.2425 * DAY_MS);
  return linearAt(DELTA_T, year);
}
