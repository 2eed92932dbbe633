import { horizontalAt, type Horizontal, type NightSky, type Vec3 } from "~/core/sky";
import { fullHours, MINUTE_MS, type UtcMs } from "~/core/time";
import type { NightSteps } from "./steps";
import { CAUSES, type Cause, type Walk } from "./walk";

/** Where a target stands on the hour, and whether that hour is usable. */
export interface HourlyStep extends Horizontal {
  readonly atMs: UtcMs;
  readonly cause: Cause;
}

/** A target's place in the sky on every full hour of the clocks in `zone` between sunset and sunrise. */
export function hourlySteps(sky: NightSky, steps: NightSteps, walk: Walk, ofDate: Vec3, zone: string): HourlyStep[] {
  const stepMs = steps.stepMin * MINUTE_MS;
  return fullHours(steps.startMs, steps.startMs + steps.count * stepMs, zone).map((atMs) => {
    const cause = CAUSES[walk.cause[Math.floor((atMs - steps.startMs) / stepMs)]!]!;
    return { atMs, cause, ...horizontalAt(sky, ofDate, atMs) };
  });
}
