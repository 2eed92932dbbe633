import { horizontalAt, type Horizontal, type NightSky, type Vec3 } from "~/core/sky";
import { HOUR_MS, utcMs, type UtcMs } from "~/core/time";
import type { NightSteps } from "./steps";
import { CAUSES, type Cause, type TargetNight } from "./target-night";

/** Where a target stands on the hour, and whether that hour is usable. */
export interface HourlyStep extends Horizontal {
  readonly atMs: UtcMs;
  readonly cause: Cause;
}

/** A target's place in the sky on every full hour of UTC between sunset and sunrise. */
export function hourlySteps(sky: NightSky, steps: NightSteps, walk: TargetNight, ofDate: Vec3): HourlyStep[] {
  const stepMs = steps.stepMin * 60_000;
  const first = Math.ceil(steps.startMs / HOUR_MS) * HOUR_MS;
  const found: HourlyStep[] = [];
  for (let ms = first; ms < steps.startMs + steps.count * stepMs; ms += HOUR_MS) {
    const atMs = utcMs(ms);
    const cause = CAUSES[walk.cause[Math.floor((ms - steps.startMs) / stepMs)]!]!;
    found.push({ atMs, cause, ...horizontalAt(sky, ofDate, atMs) });
  }
  return found;
}
