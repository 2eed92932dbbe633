import { cycleSec } from "./overheads";
import type { Overheads } from "./rig";

/** How two rigs on one mount, or beside each other, dither together: after how many subs of each, and what is waited. */
export interface MatchedDithers {
  readonly subsA: number;
  readonly subsB: number;
  /** Share of the clock that one of them waits for the other, [0, 1). */
  readonly waste: number;
}

const MOST_SUBS = 60;
const MOST_SEC = 1800; // dithers further apart do nothing for the noise; common practice, no source
const NEAR = 0.03; // of the clock: waiting that is worth dithering sooner; a proposal of this project

/**
 * Sub counts of two rigs that end together with the least waiting, so that both dither at once: one moved while the other exposes
 * spoils its sub. The least wasteful within half an hour, the shortest among near equals; null where not even one sub of each fits.
 */
export function matchedDithers(
  a: { readonly subSec: number; readonly overheads: Overheads },
  b: { readonly subSec: number; readonly overheads: Overheads },
): MatchedDithers | null {
  const none = (o: Overheads): Overheads => ({ ...o, ditherSec: 0 });
  const [cycleA, cycleB] = [cycleSec(a.subSec, none(a.overheads)), cycleSec(b.subSec, none(b.overheads))];
  const mostB = Math.min(MOST_SUBS, Math.floor(MOST_SEC / cycleB));
  let best: MatchedDithers | null = null;
  for (let subsA = 1; subsA <= MOST_SUBS && subsA * cycleA <= MOST_SEC; subsA++)
    for (const wanted of [Math.floor((subsA * cycleA) / cycleB), Math.ceil((subsA * cycleA) / cycleB)]) {
      const subsB = Math.min(mostB, Math.max(1, wanted));
      if (subsB < 1) continue;
      const [x, y] = [subsA * cycleA, subsB * cycleB];
      const waste = Math.abs(x - y) / Math.max(x, y);
      if (best === null || waste < best.waste - NEAR) best = { subsA, subsB, waste };
    }
  return best;
}
