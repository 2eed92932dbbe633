import { clockTime } from "~/components/clock";
import { inUnit, temperature, temperatureGap, windSpeed } from "~/components/measures";
import { fixed } from "~/components/numbers";
import type { Caution } from "~/core/plan";

/** What to mind outside, in words. */
export function cautionWords(c: Caution, zone: string): string {
  switch (c.code) {
    case "rainUntil":
      return `Rain until about ${clockTime(c.untilMs, zone)}: keep everything covered until then.`;
    case "rain":
      return `Rain: everything under a roof by ${clockTime(c.byMs, zone)}.`;
    case "gusts":
      return `Gusts to ${windSpeed(c.gustKmh)} at the mount, limit ${windSpeed(c.limitKmh)}; secure the gear from ${windSpeed(c.secureKmh)}.`;
    case "dew":
      return `Dew from ${clockTime(c.fromMs, zone)}: heater on before.`;
    case "frost":
      return `Frost from ${clockTime(c.fromMs, zone)}: heater on before.`;
    case "air": {
      const air = `Air ${fixed(inUnit(c.warmC, "°C"))} to ${temperature(c.coldC)}`;
      if (!c.camera) return `${air}.`;
      const { workingTempC, isReached } = c.camera;
      return isReached
        ? `${air}: the camera holds ${temperature(workingTempC)}, ${temperatureGap(Math.max(0, c.warmC - workingTempC))} below it.`
        : `${air}: the camera will not reach ${temperature(workingTempC)}.`;
    }
    case "freezing":
      return "Batteries lose a fifth or more below freezing; steps ice over.";
  }
}
