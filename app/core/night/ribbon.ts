import type { NightDate, UtcMs } from "~/core/time";
import { clearChanceOn, type Place } from "./place";
import { NIGHT_STEP_MIN, placeSky } from "./place-night";
import { nightSteps, type NightSteps } from "./steps";

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

const DRAWN_STEP_MIN = 15;

/** Darkness and Moon of a night at a place: drawn in quarter hours, counted in the steps of every other screen. */
export function ribbonNight(place: Place, date: NightDate): RibbonNight {
  const sky = placeSky(place, date);
  const statesOf = ({ sunAltitudeDeg, moonAltitudeDeg }: NightSteps) =>
    Array.from(sunAltitudeDeg, (sun, i) => (sun >= -18 ? 0 : moonAltitudeDeg[i]! > 0 ? 2 : 1));
  const drawn = nightSteps(sky, DRAWN_STEP_MIN);
  const counted = statesOf(nightSteps(sky, NIGHT_STEP_MIN));
  return {
    date,
    states: statesOf(drawn),
    startMs: drawn.startMs,
    stepMin: DRAWN_STEP_MIN,
    darkMin: counted.filter((s) => s !== 0).length * NIGHT_STEP_MIN,
    moonlessMin: counted.filter((s) => s === 1).length * NIGHT_STEP_MIN,
    illuminatedFraction: sky.illuminatedFraction,
    clearChance: clearChanceOn(place, date),
  };
}
