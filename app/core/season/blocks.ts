import type { NightDate, UtcInterval, UtcMs } from "~/core/time";
import type { JobKey } from "./request";

/** A stretch of an evening for one project in one channel. */
export interface PlannedBlock extends JobKey {
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** The slots that are kept for it, of which it takes what it needs; absent = all of it. */
  readonly slots?: UtcInterval;
  /** What it counts towards the goal if it is clear, minutes at the target's best. */
  readonly countsMin: number;
  /** Exposure in it by the clock, minutes. */
  readonly exposureMin: number;
  /** What a minute of exposure counts towards the goal; absent = what it counts over its exposure. */
  readonly rate?: number;
  /** Whole subs of it; absent = it is not laid out by the clock yet. */
  readonly subs?: number;
}

/** What a rig does on a night: what Tonight, the sheet, the calendars and a project's share all show. */
export interface Evening {
  readonly night: NightDate;
  readonly placeId: string;
  readonly rigIds: readonly string[];
  readonly chance: number;
  /** Usable minutes for whatever is wanted. */
  readonly usableMin: number;
  readonly blocks: readonly PlannedBlock[];
  /** When its sheet begins with setting up; absent = it is not laid out by the clock yet. */
  readonly setUpMs?: UtcMs;
  /** Kept by hand. */
  readonly isFixed: boolean;
  /** Why nothing of it can be used, whatever its sky. */
  readonly closed: "busy" | "forbidden" | "elsewhere" | null;
}
