import { nightsBetween, type NightDate } from "~/core/time";
import type { Evening } from "./evening";
import type { SeasonPlan } from "./plan";

/** A night whose work a new plan has changed. */
export interface MovedNight {
  readonly night: NightDate;
  readonly placeId: string;
  readonly rigIds: readonly string[];
  /** Projects before and after, in the order of the night. */
  readonly before: readonly string[];
  readonly after: readonly string[];
  /** What changed about the night itself; "others" = only what else there is to do. */
  readonly why: "lock" | "weather" | "done" | "others";
}

const FELT = 0.1; // of the chance
const keyOf = (e: Evening) => `${e.night} ${e.placeId} ${e.rigIds.join("+")}`;
const projectsOf = (e: Evening | undefined) => [...new Set(e?.blocks.map((b) => b.projectId) ?? [])];

/** The nights that a new plan gives to others than the one before, at most so many nights ahead, in order. */
export function movedNights(before: SeasonPlan, after: SeasonPlan, most: number): MovedNight[] {
  const known = new Map(before.evenings.map((e) => [keyOf(e), e]));
  const wants = new Set(after.jobs.map((j) => j.projectId));
  return after.evenings.flatMap((now): MovedNight[] => {
    const was = known.get(keyOf(now));
    const ahead = nightsBetween(after.from, now.night);
    const [from, to] = [projectsOf(was), projectsOf(now)];
    if (!was || ahead >= most || from.join() === to.join()) return [];
    const why =
      was.closed !== now.closed || was.isFixed !== now.isFixed
        ? "lock"
        : Math.abs(was.chance - now.chance) > FELT
          ? "weather"
          : from.some((id) => !wants.has(id))
            ? "done"
            : "others";
    return [{ night: now.night, placeId: now.placeId, rigIds: now.rigIds, before: from, after: to, why }];
  });
}
