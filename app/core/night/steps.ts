import { localSiderealRad, moonAt, sunAltitudeDeg, type NightSky } from "~/core/sky";
import { MINUTE_MS, addMs, utcMs, type UtcMs } from "~/core/time";

/** A night cut into equal steps, each judged at its middle: all that does not depend on target or channel. */
export interface NightSteps {
  readonly startMs: UtcMs;
  readonly stepMin: number;
  readonly count: number;
  readonly sinSidereal: Float64Array;
  readonly cosSidereal: Float64Array;
  readonly sunAltitudeDeg: Float64Array;
  /** Unit vector of date, three numbers a step. */
  readonly moon: Float64Array;
  readonly moonAltitudeDeg: Float64Array;
  /** 0 full, 180 new. */
  readonly moonPhaseAngleDeg: Float64Array;
}

const SUNSET_DEG = -0.833;

/**
 * The part of the window from the first step with the Sun down to the last, in steps of `stepMin`: empty when it never sets, the
 * whole window when it never rises. Steps begin on full multiples of `stepMin` on the clock and belong to the night in which their
 * middle lies, so that the nights of a place share no step and miss none.
 */
export function nightSteps(sky: NightSky, stepMin: number): NightSteps {
  const stepMs = stepMin * MINUTE_MS;
  const { startMs, endMs } = sky.window;
  const grid = utcMs(Math.ceil(startMs / stepMs - 0.5) * stepMs);
  const all = Math.ceil((endMs - grid) / stepMs - 0.5);
  const middle = (i: number) => addMs(grid, (i + 0.5) * stepMs);
  const isNight = (i: number) => sunAltitudeDeg(sky, middle(i)) < SUNSET_DEG;
  let first = 0;
  while (first < all && !isNight(first)) first++;
  let count = all - first;
  while (count > 0 && !isNight(first + count - 1)) count--;
  const steps = {
    startMs: addMs(grid, first * stepMs),
    stepMin,
    count,
    sinSidereal: new Float64Array(count),
    cosSidereal: new Float64Array(count),
    sunAltitudeDeg: new Float64Array(count),
    moon: new Float64Array(3 * count),
    moonAltitudeDeg: new Float64Array(count),
    moonPhaseAngleDeg: new Float64Array(count),
  };
  for (let i = 0; i < count; i++) {
    const ms = middle(first + i);
    const last = localSiderealRad(sky, ms);
    const moon = moonAt(sky, ms);
    steps.sinSidereal[i] = Math.sin(last);
    steps.cosSidereal[i] = Math.cos(last);
    steps.sunAltitudeDeg[i] = sunAltitudeDeg(sky, ms);
    steps.moon.set(moon.unitOfDate, 3 * i);
    steps.moonAltitudeDeg[i] = moon.altitudeDeg;
    steps.moonPhaseAngleDeg[i] = moon.phaseAngleDeg;
  }
  return steps;
}
