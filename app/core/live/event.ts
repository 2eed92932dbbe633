import type { Channel } from "~/core/exposure";
import type { CullReason } from "~/core/ledger";
import type { NightDate } from "~/core/time";

/** A block of the sheet, as it stood when something was pressed. */
export interface BlockKey {
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly subSec: number;
  /** When the sheet had it begin. */
  readonly startMs: number;
}

/** What is decided when the sky closes. */
export const CLOUD_DECISIONS = ["wait", "darks", "packUp", "sleep"] as const;
export type CloudDecision = (typeof CLOUD_DECISIONS)[number];

/** What happened. */
export type Happening =
  | { readonly what: "begun" | "flipped" | "dithered" | "packedUp" }
  /** A block is finished: subs kept and lost, and to what. */
  | { readonly what: "done"; readonly of: BlockKey; readonly kept: number; readonly lost: number; readonly reason: CullReason | "" } // prettier-ignore
  | { readonly what: "cloud"; readonly isClear: boolean }
  /** Focused anew: air at the telescope, °C, and where the focuser stands, steps; null = not known. */
  | { readonly what: "focused"; readonly airC: number | null; readonly steps: number | null }
  /** Another block was begun than the sheet has. */
  | { readonly what: "swapped"; readonly to: BlockKey }
  | { readonly what: "trouble"; readonly words: string }
  /** A line of the checklist done, or not after all. */
  | { readonly what: "checked"; readonly check: string; readonly isDone: boolean }
  | { readonly what: "decided"; readonly choice: CloudDecision; readonly untilMs: number | null };

/** One press in a night: written once, never changed; taken back as a whole. */
export interface NightEventData {
  readonly memberId: string;
  readonly night: NightDate;
  readonly rigId: string;
  readonly atMs: number;
  readonly is: Happening;
}

/** The same with what it is known by. */
export interface NightEvent extends NightEventData {
  readonly id: string;
}

const isBefore = (a: NightEvent, b: NightEvent): boolean => (a.atMs === b.atMs ? a.id < b.id : a.atMs < b.atMs);

/** Events in the order in which they happened, each once, whatever the order in which they came and however often. */
export function inOrder(events: readonly NightEvent[]): readonly NightEvent[] {
  const known = new Map(events.map((e) => [e.id, e]));
  const list = [...known.values()];
  // They mostly come in order, and a list of thousands is looked at every few seconds.
  return list.every((e, i) => i === 0 || isBefore(list[i - 1]!, e))
    ? list
    : list.sort((a, b) => (isBefore(a, b) ? -1 : 1));
}

/** When all was packed up, if nobody has begun again since; null = it is not. Of events in their order. */
export function packedUpMs(ordered: readonly NightEvent[]): number | null {
  const last = ordered.findLast((e) => e.is.what === "packedUp" || e.is.what === "begun");
  return last?.is.what === "packedUp" ? last.atMs : null;
}

/** Whether two keys name the same block. */
export const isSameBlock = (a: BlockKey, b: BlockKey): boolean =>
  a.startMs === b.startMs &&
  a.projectId === b.projectId &&
  a.panel === b.panel &&
  a.channel === b.channel &&
  a.subSec === b.subSec;
