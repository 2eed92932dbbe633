import type { ContributionData } from "./contribution";

/** What the log of a rig says of its time; null where too little is written down. */
export interface LearntTime {
  /** Share of subs lost per second of their length, 1/s. */
  readonly spoiltPerSec: number | null;
  /** Subs that it is learnt from. */
  readonly subs: number;
  /** Clock seconds from the end of a sub to the start of the next, median. */
  readonly overheadSec: number | null;
  readonly gaps: number;
}

const LEAST_SUBS = 100; // a share of a few per cent needs that many to be worth anything
const LEAST_GAPS = 20;
const LONGEST_GAP_SEC = 120; // longer ones are focus runs, flips and clouds, counted elsewhere

/**
 * What a rig loses with every sub, and how many subs it loses, from what was taken with it: Σ dropped / Σ taken · length, and the
 * median gap between files of one night, panel, channel and length. Nights that were entered without files have no gaps.
 */
export function learntTime(contributions: readonly ContributionData[]): LearntTime {
  let [taken, dropped, takenSec] = [0, 0, 0];
  const runs = new Map<string, { atMs: number; exposureSec: number }[]>();
  for (const c of contributions) {
    taken += c.taken;
    dropped += c.taken - c.kept;
    takenSec += c.taken * c.exposureSec;
    if (c.startMs === null || c.taken !== 1) continue;
    const key = `${c.rigId} ${c.night} ${c.panel} ${c.channel} ${c.exposureSec}`;
    const run = runs.get(key) ?? [];
    run.push({ atMs: c.startMs, exposureSec: c.exposureSec });
    runs.set(key, run);
  }
  const gaps = [...runs.values()].flatMap((run) => {
    const sorted = run.sort((a, b) => a.atMs - b.atMs);
    return sorted.slice(1).flatMap((s, i) => {
      const gap = (s.atMs - sorted[i]!.atMs) / 1000 - s.exposureSec;
      return gap >= 0 && gap <= LONGEST_GAP_SEC ? [gap] : [];
    });
  });
  gaps.sort((a, b) => a - b);
  return {
    spoiltPerSec: taken >= LEAST_SUBS && takenSec > 0 ? dropped / takenSec : null,
    subs: taken,
    overheadSec: gaps.length >= LEAST_GAPS ? gaps[gaps.length >> 1]! : null,
    gaps: gaps.length,
  };
}
