import { crossings, extremum } from "~/core/numeric";
import { MINUTE_MS, utcMs, type UtcMs } from "~/core/time";
import { moonUpperLimbDeg, sunAltitudeDeg, type NightSky } from "./night-sky";

/** When the Sun passes one altitude going down and coming up, or the side it stays on all window long. */
export type SunLine =
  | { readonly kind: "passes"; readonly downMs: UtcMs | null; readonly upMs: UtcMs | null }
  | { readonly kind: "staysAbove" | "staysBelow" };

/** The events of a night at one place. */
export interface NightEvents {
  readonly sunLowestMs: UtcMs;
  readonly sunLowestDeg: number;
  /** Centre of the Sun at −0.833° airless: the usual sunset and sunrise over a level horizon. */
  readonly horizon: SunLine;
  readonly civil: SunLine;
  readonly nautical: SunLine;
  readonly astronomical: SunLine;
  /** Upper limb on the level refracted horizon (34′). */
  readonly moonrises: readonly UtcMs[];
  readonly moonsets: readonly UtcMs[];
}

const STEP_MS = 15 * MINUTE_MS; // finds pairs of crossings however close, as the search looks at turning points
const TOLERANCE_MS = 5;

function sunLine(sky: NightSky, altitudeDeg: number): SunLine {
  const f = (ms: number) => sunAltitudeDeg(sky, utcMs(ms)) - altitudeDeg;
  const { startMs, endMs } = sky.window;
  const found = crossings(f, { low: startMs, high: endMs, step: STEP_MS, tolerance: TOLERANCE_MS });
  if (found.length === 0) return { kind: f(startMs) > 0 ? "staysAbove" : "staysBelow" };
  const down = found.find((c) => !c.rising);
  const up = found.findLast((c) => c.rising);
  return { kind: "passes", downMs: down ? utcMs(down.at) : null, upMs: up ? utcMs(up.at) : null };
}

/** When the Sun's centre passes an airless altitude, going down and coming up; null when it does not. */
export function sunPassesMs(
  sky: NightSky,
  altitudeDeg: number,
): { readonly downMs: UtcMs | null; readonly upMs: UtcMs | null } | null {
  const line = sunLine(sky, altitudeDeg);
  return line.kind === "passes" ? line : null;
}

/** Sun and Moon events between the two noons of a night, to about 0.3 s where the Sun moves faster than 5″/s in altitude. */
export function nightEvents(sky: NightSky): NightEvents {
  const { startMs, endMs } = sky.window;
  const sun = (ms: number) => sunAltitudeDeg(sky, utcMs(ms));
  const lowest = extremum(sun, { low: startMs, high: endMs, tolerance: 200, kind: "least" });
  const moon = crossings((ms) => moonUpperLimbDeg(sky, utcMs(ms)), {
    low: startMs,
    high: endMs,
    step: STEP_MS,
    tolerance: TOLERANCE_MS,
  });
  return {
    sunLowestMs: utcMs(lowest),
    sunLowestDeg: sun(lowest),
    horizon: sunLine(sky, -0.833),
    civil: sunLine(sky, -6),
    nautical: sunLine(sky, -12),
    astronomical: sunLine(sky, -18),
    moonrises: moon.filter((c) => c.rising).map((c) => utcMs(c.at)),
    moonsets: moon.filter((c) => !c.rising).map((c) => utcMs(c.at)),
  };
}
