import { localSiderealRad, moonAt, sunAltitudeDeg, type NightSky } from "~/core/sky";
import { MINUTE_MS, addMs, type UtcMs } from "~/core/time";

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
  readonly moonPhaseAngleDeg: number;
}

const SUNSET_DEG = -0.833;

/** The part of the window in which the Sun is down, in steps of `stepMin`: empty when it never sets, the whole window when it never rises. */
export function nightSteps(sky: NightSky, stepMin: number): NightSteps {
  const stepMs = stepMin * MINUTE_MS;
  const all = Math.floor((sky.window.endMs - sky.window.startMs) / stepMs);
  const middle = (i: number) => addMs(sky.window.startMs, (i + 0.5) * stepMs);
  const isNight = (i: number) => sunAltitudeDeg(sky, middle(i)) < SUNSET_DEG;
  let first = 0;
  while (first < all && !isNight(first)) first++;
  let count = 0;
  while (first + count < all && isNight(first + count)) count++;
  const steps = {
    startMs: addMs(sky.window.startMs, first * stepMs),
    stepMin,
    count,
    sinSidereal: new Float64Array(count),
    cosSidereal: new Float64Array(count),
    sunAltitudeDeg: new Float64Array(count),
    moon: new Float64Array(3 * count),
    moonAltitudeDeg: new Float64Array(count),
    moonPhaseAngleDeg: moonAt(sky, middle(first + (count >> 1))).phaseAngleDeg,
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
  }
  return steps;
}
