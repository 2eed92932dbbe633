/**
 * A hybrid logical clock reading: wall milliseconds, a counter within them, and the node that wrote it, as one text that
 * sorts like the clock. Kulkarni et al. 2014, OPODIS, LNCS 8878.
 */
export interface Rev {
  readonly ms: number;
  readonly count: number;
  readonly node: string;
}

const SHAPE = /^([0-9a-z]{9})\.([0-9a-z]{4})\.([0-9A-Za-z-]+)$/;
const text = ({ ms, count, node }: Rev) =>
  `${ms.toString(36).padStart(9, "0")}.${count.toString(36).padStart(4, "0")}.${node}`;

/** Reads a clock text; null when it is none. */
export function parseRev(rev: string): Rev | null {
  const match = SHAPE.exec(rev);
  return match ? { ms: parseInt(match[1]!, 36), count: parseInt(match[2]!, 36), node: match[3]! } : null;
}

/** The node that wrote a revision. */
export const nodeOfRev = (rev: string): string => rev.slice(15);

/** A reading later than every one in `known` and not before the wall clock, even when that runs backwards. */
export function nextRev(known: readonly string[], nowMs: number, node: string): string {
  const latest = known.reduce((a, b) => (b > a ? b : a), "");
  const last = parseRev(latest);
  if (!last || last.ms < nowMs) return text({ ms: nowMs, count: 0, node });
  return text({ ms: last.ms, count: last.count + 1, node });
}

/** Sort order of two revisions: negative when `a` is earlier. */
export const compareRevs = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
