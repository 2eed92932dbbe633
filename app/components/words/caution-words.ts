import { clockTime } from "~/components/clock";
import type { Caution } from "~/core/plan";

const degrees = (v: number) => `${Math.round(v)}`.replace("-", "−");

/** What to mind outside, in words. */
export function cautionWords(c: Caution, zone: string): string {
  switch (c.code) {
    case "rainUntil":
      return `Rain until about ${clockTime(c.untilMs, zone)}: keep everything covered until then.`;
    case "rain":
      return `Rain: everything under a roof by ${clockTime(c.byMs, zone)}.`;
    case "gusts":
      return `Gusts to ${Math.round(c.gustKmh)} km/h at the mount, limit ${Math.round(c.limitKmh)} km/h; secure the gear from ${c.secureKmh} km/h.`;
    case "dew":
      return `Dew from ${clockTime(c.fromMs, zone)}: heater on before.`;
    case "frost":
      return `Frost from ${clockTime(c.fromMs, zone)}: heater on before.`;
    case "air": {
      const air = `Air ${degrees(c.warmC)} to ${degrees(c.coldC)} °C`;
      if (!c.camera) return `${air}.`;
      const { workingTempC, isReached } = c.camera;
      return isReached
        ? `${air}: the camera holds ${degrees(workingTempC)} °C, ${degrees(Math.max(0, c.warmC - workingTempC))} °C below it.`
        : `${air}: the camera will not reach ${degrees(workingTempC)} °C.`;
    }
    case "freezing":
      return "Batteries lose a fifth or more below freezing; steps ice over.";
  }
}
