import { nightSteps } from "./steps";
import { placeSky } from "./place-night";
import { clearChanceOn, type Place } from "./place";
import type { NightDate, UtcMs } from "~/core/time";

/** One column of the night ribbon. */
export interface RibbonNight {
  readonly date: NightDate;
  /** Per step from sunset to sunrise: 0 twilight, 1 dark, 2 dark with the Moon up. */
  readonly states: readonly number[];
  readonly startMs: UtcMs;
  readonly stepMin: number;
  /** Sun below −18°. */
  readonly darkMin: number;
  readonly moonlessMin: number;
  readonly illuminatedFraction: number;
  /** The place's long-term chance of a clear night. */
  readonly clearChance: number;
}

const STEP_MIN = 15;

/** Darkness and Moon of a night at a place, in quarter hours. */
export function ribbonNight(place: Place, date: NightDate): RibbonNight {
  const sky = placeSky(place, date);
  const steps = nightSteps(sky, STEP_MIN);
  const states = Array.from({ length: steps.count }, (_, i) =>
    steps.sunAltitudeDeg[i]! >= -18 ? 0 : steps.moonAltitudeDeg[i]! > 0 ? 2 : 1,
  );
  const count = (wanted: readonly number[]) => states.filter((s) => wanted.includes(s)).length * STEP_MIN;
  return {
    date,
    states,
    startMs: steps.startMs,
    stepMin: STEP_MIN,
    darkMin: count([1, 2]),
    moonlessMin: count([1]),
    illuminatedFraction: sky.illuminatedFraction,
    clearChance: clearChanceOn(place, date),
  };
}
