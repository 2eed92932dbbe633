import type { CullReason } from "~/core/ledger";
import { inOrder, type BlockKey, type NightEvent } from "./event";

/** Subs of one block, as the presses of a night tell them: what an entry of the log is made from where no files are. */
export interface ToldSubs {
  readonly of: BlockKey;
  readonly taken: number;
  readonly kept: number;
  readonly reason: CullReason | "";
  /** When it was said to be done. */
  readonly atMs: number;
}

/** What a night's presses say was taken, block by block: of a block said to be done more than once, the last word. */
export function toldSubs(events: readonly NightEvent[]): readonly ToldSubs[] {
  const told = new Map<string, ToldSubs>();
  for (const { atMs, is } of inOrder(events)) {
    if (is.what !== "done") continue;
    const { of, kept, lost, reason } = is;
    const key = [of.projectId, of.panel, of.channel, of.subSec, of.startMs].join(" ");
    told.delete(key); // in the order of the last words
    if (kept + lost > 0) told.set(key, { of, taken: kept + lost, kept, reason: lost > 0 ? reason : "", atMs });
  }
  return [...told.values()];
}
