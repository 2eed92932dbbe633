import type { Channel } from "~/core/exposure";
import type { UtcInterval, UtcMs } from "~/core/time";

/** What a night should do: so many subs of one panel in one channel, possible only inside its windows. */
export interface WorkItem {
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  readonly subSec: number;
  /** Subs dealt to it; more are taken only where time is left over. */
  readonly subs: number;
  /** Name of the need it is for: several items may share one, and together take no more than `most` says. */
  readonly need: string;
  /** Which stretch of the evening it belongs to: a later one begins when the one before has nothing left to do, or at its own time. */
  readonly stage: number;
  /** Within its stretch: in the order given, or whichever window closes first. */
  readonly inOrder?: boolean;
  readonly windows: readonly UtcInterval[];
  /** Any upper transit of the panel, before, in or after the night: it tells on which side of the meridian it stands when. */
  readonly transitMs: UtcMs;
  /** Round after round in the order given: which rounds. A round is shot whole or not at all. */
  readonly turn?: string;
}
/** Subs of one panel and channel in a row. */
export interface Block {
  readonly kind: "block";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  readonly subs: number;
  readonly subSec: number;
  /** Which stretch of the evening it belongs to. */
  readonly stage: number;
  /** The rounds that it belongs to. */
  readonly turn?: string;
}
/** A break between blocks, with the time it takes. */
export interface SheetEvent {
  readonly kind: "setUp" | "align" | "centre" | "filter" | "focus" | "flip" | "wait" | "packUp";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** What is centred on, or which filter goes in. */
  readonly detail: string;
  /** Packing up: when everything has to be under a roof, and for what. */
  readonly by?: PackUpBy;
  /** Whose panel it is, where it is one. */
  readonly projectId?: string;
}
/** When everything has to be under a roof. */
export interface PackUpBy {
  readonly ms: UtcMs;
  readonly why: "rain" | "dawn";
}
/** A night in order, and what did not fit. */
export interface RunSheet {
  readonly lines: readonly (Block | SheetEvent)[];
  readonly exposureMin: number;
  readonly leftOver: readonly { readonly panel: string; readonly channel: Channel; readonly exposureMin: number }[];
}
/** How a night is begun, and what the mount does at the meridian. */
export interface SheetOptions {
  /** A mount that must change sides at the meridian. */
  readonly flips: boolean;
  /** Everything but what needs stars is done by sunset. */
  readonly standsBeforeDark: boolean;
  /** The evening's sunset, and when the first stars show (Sun at −8°); null where the Sun does not pass. */
  readonly sunsetMs: UtcMs | null;
  readonly starsMs: UtcMs | null;
  /** Absent = nobody says. */
  readonly packUpBy?: PackUpBy | null;
  /** The kit stands and is aligned already. */
  readonly isSetUp?: boolean;
  /** A rig with one filter, or none, has nothing to change; absent = it has. */
  readonly changesFilters?: boolean;
  /** Each stretch of the evening begins at its own time, or as soon as the one before has nothing left to do. */
  readonly stagesFromMs?: readonly UtcMs[];
}
