import { utcMs, type UtcMs } from "~/core/time";
import { degToRad } from "~/core/units";
import { horizontalAt } from "./horizontal";
import type { Vec3 } from "./frames";
import type { NightSky } from "./night-sky";

/** A passage through the meridian at hour angle 0. */
export interface Transit {
  readonly atMs: UtcMs;
  readonly altitudeDeg: number;
}

/** Instants in the window at which the local sidereal angle equals `angleRad`. */
function instantsAtSidereal(sky: NightSky, angleRad: number): UtcMs[] {
  const turn = 2 * Math.PI;
  const ahead = (((angleRad - sky.siderealStartRad) % turn) + turn) % turn;
  const found: UtcMs[] = [];
  for (let a = ahead; ; a += turn) {
    const ms = sky.window.startMs + a / sky.siderealRadPerMs;
    if (ms >= sky.window.endMs) return found;
    found.push(utcMs(ms));
  }
}

/** Upper transits of a direction of date in the window: none, one or two (a sidereal day is 23 h 56 min). Airless. */
export function transits(sky: NightSky, ofDate: Vec3): Transit[] {
  const ra = Math.atan2(ofDate[1], ofDate[0]);
  return instantsAtSidereal(sky, ra).map((atMs) => ({
    atMs,
    altitudeDeg: horizontalAt(sky, ofDate, atMs).altitudeDeg,
  }));
}

/** The first upper transit of a direction of date from the start of the window on, in the window or just after it. */
export function nextTransitMs(sky: NightSky, ofDate: Vec3): UtcMs {
  const turn = 2 * Math.PI;
  const ahead = (((Math.atan2(ofDate[1], ofDate[0]) - sky.siderealStartRad) % turn) + turn) % turn;
  return utcMs(Math.round(sky.window.startMs + ahead / sky.siderealRadPerMs));
}

/**
 * Instants at which a direction of date passes an airless altitude, or the side it stays on.
 * cos H = (sin h − sin φ sin δ)/(cos φ cos δ), exact for a fixed direction.
 */
export function altitudeCrossings(
  sky: NightSky,
  ofDate: Vec3,
  altitudeDeg: number,
):
  | { readonly kind: "always" | "never" }
  | { readonly kind: "crosses"; readonly risesMs: UtcMs[]; readonly setsMs: UtcMs[] } {
  const phi = degToRad(sky.observer.latitudeDeg);
  const ra = Math.atan2(ofDate[1], ofDate[0]);
  const cosDec = Math.hypot(ofDate[0], ofDate[1]);
  const cosH = (Math.sin(degToRad(altitudeDeg)) - Math.sin(phi) * ofDate[2]) / (Math.cos(phi) * cosDec);
  if (cosH >= 1) return { kind: "never" };
  if (cosH <= -1) return { kind: "always" };
  const h = Math.acos(cosH);
  return { kind: "crosses", risesMs: instantsAtSidereal(sky, ra - h), setsMs: instantsAtSidereal(sky, ra + h) };
}
