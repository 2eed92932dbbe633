import { channelsText } from "./rules";
import { MINUTE_MS, nightsBetween, type NightDate, type UtcMs } from "~/core/time";
import { keyOfLane } from "./evening";
import type { Evening } from "./blocks";
import type { SeasonPlan } from "./season-plan";

/** A stretch as people name it. */
export interface MovedStretch {
  readonly projectId: string;
  readonly channels: string;
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
}

/** A night whose work a new plan has changed. */
export interface MovedNight {
  readonly night: NightDate;
  readonly placeId: string;
  readonly rigIds: readonly string[];
  /** What was planned before and is now, in the order of the night. */
  readonly before: readonly MovedStretch[];
  readonly after: readonly MovedStretch[];
  /** What changed about the night itself; "others" = only what else there is to do. */
  readonly why: "lock" | "weather" | "done" | "others";
}

const FELT = 0.1; // of the chance
const FELT_MS = 30 * MINUTE_MS; // later or earlier; less is no other evening

const stretchesOf = (e: Evening | undefined): MovedStretch[] =>
  (e?.blocks ?? []).map((b) => ({
    projectId: b.projectId,
    channels: channelsText(b),
    startMs: b.startMs,
    endMs: b.endMs,
  }));

/** Whether two evenings are the same for whoever shoots them: targets and channels in one order, at much the same time. */
const isAlike = (a: readonly MovedStretch[], b: readonly MovedStretch[]): boolean =>
  a.length === b.length &&
  a.every((x, i) => {
    const y = b[i]!;
    const isNear = Math.abs(x.startMs - y.startMs) < FELT_MS && Math.abs(x.endMs - y.endMs) < FELT_MS;
    return x.projectId === y.projectId && x.channels === y.channels && isNear;
  });

/** The nights that a new plan spends otherwise than the one before, at most so many nights ahead, in order. */
export function movedNights(before: SeasonPlan, after: SeasonPlan, most: number): MovedNight[] {
  const known = new Map(before.evenings.map((e) => [keyOfLane(e), e]));
  const wants = new Set(after.jobs.map((j) => j.projectId));
  return after.evenings.flatMap((now): MovedNight[] => {
    const was = known.get(keyOfLane(now));
    const ahead = nightsBetween(after.from, now.night);
    const [from, to] = [stretchesOf(was), stretchesOf(now)];
    if (!was || ahead >= most || isAlike(from, to)) return [];
    const why =
      was.closed !== now.closed || was.isFixed !== now.isFixed
        ? "lock"
        : Math.abs(was.chance - now.chance) > FELT
          ? "weather"
          : from.some((s) => !wants.has(s.projectId))
            ? "done"
            : "others";
    return [{ night: now.night, placeId: now.placeId, rigIds: now.rigIds, before: from, after: to, why }];
  });
}
