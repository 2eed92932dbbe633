import { cubicAt } from "~/core/numeric";
import { addMs, DAY_MS, HOUR_MS, type UtcInterval, type UtcMs } from "~/core/time";
import { degToRad, radToDeg } from "~/core/units";
import { apparentFrame, bodyOfDate, greenwichSiderealDeg, moonPhase } from "./ephemeris";
import type { Observer, Vec3 } from "./frames";

/** Samples of a slowly moving direction of date, evenly spaced from the start of the window. */
interface Track {
  readonly stepMs: number;
  readonly x: readonly number[];
  readonly y: readonly number[];
  readonly z: readonly number[];
  readonly km: readonly number[];
}

/**
 * Everything about the sky over one place in one window that does not depend on the target. Made once, then every
 * altitude is a few multiplications. Directions agree with an independent full computation to 1.5″ (docs/accuracy.md).
 */
export interface NightSky {
  readonly observer: Observer;
  readonly window: UtcInterval;
  /** Row-major rotation ICRS → true equator and equinox of date, and Earth's velocity over c, at mid-window. */
  readonly toOfDate: readonly number[];
  readonly earthBeta: Vec3;
  /** Local apparent sidereal angle at the start of the window, and its rate. */
  readonly siderealStartRad: number;
  readonly siderealRadPerMs: number;
  readonly sun: Track;
  readonly moon: Track;
  /** Geocentric, every 6 h from the start of the window. */
  readonly moonPhaseAngleDeg: readonly number[];
  readonly illuminatedFraction: number;
}

const SUN_STEP_MS = 6 * HOUR_MS; // cubic through four: < 0.05″
const MOON_STEP_MS = HOUR_MS; // parallax turns with the Earth: cubic through four, 0.4″
const PHASE_STEP_MS = 6 * HOUR_MS;
const SIDEREAL_RAD_PER_MS = (2 * Math.PI * 1.00273790935) / DAY_MS; // mean sidereal day, IERS Conventions 2010

function track(body: "sun" | "moon", window: UtcInterval, from: Observer): Track {
  const stepMs = body === "sun" ? SUN_STEP_MS : MOON_STEP_MS;
  const count = Math.max(4, Math.ceil((window.endMs - window.startMs) / stepMs) + 1);
  const samples = Array.from({ length: count }, (_, i) => bodyOfDate(body, addMs(window.startMs, i * stepMs), from));
  const axis = (k: 0 | 1 | 2) => samples.map((s) => s.unit[k]);
  return { stepMs, x: axis(0), y: axis(1), z: axis(2), km: samples.map((s) => s.km) };
}

/** Computes the sky of a window at most 30 h long, by astronomy-engine (about 2 ms of work). */
export function nightSky(observer: Observer, window: UtcInterval): NightSky {
  const mid = addMs(window.startMs, (window.endMs - window.startMs) / 2);
  const phases = Math.max(4, Math.ceil((window.endMs - window.startMs) / PHASE_STEP_MS) + 1);
  return {
    observer,
    window,
    ...apparentFrame(mid),
    siderealStartRad: degToRad(greenwichSiderealDeg(window.startMs) + observer.longitudeDeg),
    siderealRadPerMs: SIDEREAL_RAD_PER_MS,
    sun: track("sun", window, observer),
    moon: track("moon", window, observer),
    moonPhaseAngleDeg: Array.from(
      { length: phases },
      (_, i) => moonPhase(addMs(window.startMs, i * PHASE_STEP_MS)).phaseAngleDeg,
    ),
    illuminatedFraction: moonPhase(mid).illuminatedFraction,
  };
}

function trackAt(t: Track, sky: NightSky, ms: UtcMs): { readonly unit: Vec3; readonly km: number } {
  const i = (ms - sky.window.startMs) / t.stepMs;
  const [x, y, z] = [cubicAt(t.x, i), cubicAt(t.y, i), cubicAt(t.z, i)];
  const r = Math.hypot(x, y, z);
  return { unit: [x / r, y / r, z / r], km: cubicAt(t.km, i) };
}

function sinAltitude(sky: NightSky, [x, y, z]: Vec3, ms: UtcMs): number {
  const last = sky.siderealStartRad + sky.siderealRadPerMs * (ms - sky.window.startMs);
  const phi = degToRad(sky.observer.latitudeDeg);
  return Math.sin(phi) * z + Math.cos(phi) * (x * Math.cos(last) + y * Math.sin(last));
}

/** Airless altitude of the Sun's centre, degrees. */
export const sunAltitudeDeg = (sky: NightSky, ms: UtcMs): number =>
  radToDeg(Math.asin(sinAltitude(sky, trackAt(sky.sun, sky, ms).unit, ms)));

/** The Moon as seen from the place at an instant: airless, topocentric. */
export interface MoonState {
  readonly unitOfDate: Vec3;
  readonly altitudeDeg: number;
  readonly km: number;
  readonly semidiameterDeg: number;
  /** Geocentric: 0 full, 180 new. */
  readonly phaseAngleDeg: number;
}

const MOON_RADIUS_KM = 1737.4; // IAU 2015 working group, mean radius

/** The Moon at an instant within the window. */
export function moonAt(sky: NightSky, ms: UtcMs): MoonState {
  const { unit, km } = trackAt(sky.moon, sky, ms);
  return {
    unitOfDate: unit,
    altitudeDeg: radToDeg(Math.asin(sinAltitude(sky, unit, ms))),
    km,
    semidiameterDeg: radToDeg(Math.asin(MOON_RADIUS_KM / km)),
    phaseAngleDeg: cubicAt(sky.moonPhaseAngleDeg, (ms - sky.window.startMs) / PHASE_STEP_MS),
  };
}

/** How far the Moon's upper limb stands above the refracted horizon (34′), degrees: positive = up. */
export function moonUpperLimbDeg(sky: NightSky, ms: UtcMs): number {
  const moon = moonAt(sky, ms);
  return moon.altitudeDeg + 34 / 60 + moon.semidiameterDeg;
}
