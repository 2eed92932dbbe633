import { percent } from "~/components/numbers";
import { isChanceAssumed, type Place } from "~/core/night";
import { nightDate } from "~/core/time";

/** "57 % clear", or that it is not known there and what stands in its place. Of a night no forecast speaks of. */
export const clearWords = (chance: number, isAssumed: boolean): string =>
  isAssumed ? `not known here, ${percent(chance)} clear assumed` : `${percent(chance)} clear`;

/** Whether a chance told of a night at a place is assumed: no forecast speaks of it, and nobody knows the place. */
export const isAssumedOn = (
  at:
    | { readonly place: Pick<Place, "clearChance" | "typical">; readonly hours: Readonly<Record<string, unknown>> }
    | undefined,
  night: string,
): boolean => at !== undefined && at.hours[night] === undefined && isChanceAssumed(at.place, nightDate(night));
