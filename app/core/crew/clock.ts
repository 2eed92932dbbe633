import { LAST_INSTANT_MS } from "~/core/time";

/**
 * A hybrid logical clock reading: wall milliseconds, a counter within them, and the node that wrote it, as one text that
 * sorts like the clock. Kulkarni et al. 2014, OPODIS, LNCS 8878.
 */
export interface Rev {
  readonly ms: number;
  readonly count: number;
  readonly node: string;
}

const SHAPE = /^([0-9a-z]{9})\.([0-9a-z]{4})\.([0-9A-Za-z-]{1,80})$/;
/** The counter has four digits to the base 36; the one after the last is the next millisecond. */
const COUNTS = 36 ** 4;

const text = ({ ms, count, node }: Rev) =>
  `${ms.toString(36).padStart(9, "0")}.${count.toString(36).padStart(4, "0")}.${node}`;

/** Reads a clock text; null when it is none, or of a year past 2200. */
export function parseRev(rev: string): Rev | null {
  const match = SHAPE.exec(rev);
  const ms = match ? parseInt(match[1]!, 36) : NaN;
  return match && ms <= LAST_INSTANT_MS ? { ms, count: parseInt(match[2]!, 36), node: match[3]! } : null;
}

/** The node that wrote a revision. */
export const nodeOfRev = (rev: string): string => rev.slice(15);

/** When a revision says that it was written, ms since 1970. */
export const instantOfRev = (rev: string): number => parseInt(rev.slice(0, 9), 36);

/**
 * A reading later than every one in `known` and not before the wall clock, even when that runs backwards or stands before
 * 1970. Null past the year 2200, where no reading can be written that sorts like the others.
 */
export function nextRev(known: readonly string[], nowMs: number, node: string): string | null {
  const latest = known.reduce((a, b) => (b > a ? b : a), "");
  const last = parseRev(latest);
  const wall: Rev = { ms: Math.max(0, Math.floor(nowMs)), count: 0, node };
  const later =
    last && last.ms >= wall.ms
      ? { ms: last.ms + Math.floor((last.count + 1) / COUNTS), count: (last.count + 1) % COUNTS, node }
      : wall;
  return later.ms <= LAST_INSTANT_MS ? text(later) : null;
}

/** Sort order of two revisions: negative when `a` is earlier. */
export const compareRevs = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
