import type { BesideSky } from "~/core/exposure";
import type { Vec3 } from "~/core/sky";
import { addMs, MINUTE_MS, type UtcMs } from "~/core/time";
import { azimuthBin, cosBin, sinBin, type ChannelSky } from "./channel-sky";
import type { NightSteps } from "./steps";

/** Why a minute is lost, in the order in which it is asked; "none" = usable. */
export const CAUSES = ["none", "lightSky", "set", "skyline", "low", "moon", "lamp"] as const;
export type Cause = (typeof CAUSES)[number];
const USABLE = 0;
const LIGHT_SKY = 1;
const SET = 2;
const SKYLINE = 3;
const LOW = 4;
const MOON = 5;
const LAMP = 6;

/** A target through a night in one channel: per step the cause of loss (index into CAUSES) and the worth of a minute. */
export interface Walk {
  readonly cause: Uint8Array;
  /** Relative to the place's moonless zenith; 0 where lost. */
  readonly worth: Float32Array;
  /** The same as if there were no Moon; 0 where lost to something else. */
  readonly moonless: Float32Array;
  /** What the Moon leaves, whether or not that is enough for whoever asks; 0 where lost to something else. */
  readonly left: Float32Array;
}

/**
 * What a rig sees beside the sky, over the zenith sky of its channel: the object's own light, and dark current and reading of a sub.
 * With it a minute is weighed by the whole SNR² rate (MATHS 6.2), without it by the sky alone: narrow bands keep more of their worth
 * under the Moon, because reading and their own light are there anyway.
 */
export type OwnLight = BesideSky;

const SKY_ONLY: OwnLight = { object: 0, rest: 0 };

/** SNR² rate over that at the place's moonless zenith: by the air twice over, and the sky over the zenith sky. */
export function minuteWorth(extinction2: number, skyOverZenith: number, own: OwnLight): number {
  const object = own.object > 0 ? own.object * Math.sqrt(extinction2) : 0;
  return (extinction2 * (1 + own.object + own.rest)) / (object + skyOverZenith + own.rest);
}

/** Room for a walk through `count` steps. */
export const emptyWalk = (count: number): Walk => ({
  cause: new Uint8Array(count),
  worth: new Float32Array(count),
  moonless: new Float32Array(count),
  left: new Float32Array(count),
});

/** Whether a lamp shines into a direction. A function of its own: a closure in the loop below would cost more than all the rest. */
function isBlinded(lamps: ChannelSky["lamps"], north: number, east: number, up: number): boolean {
  for (const l of lamps) if (north * l.north + east * l.east + up * l.up > l.cosRadius) return true;
  return false;
}

/**
 * Judges every step of a night for a direction of date. The arrays of `into` are overwritten and returned, so that a whole
 * catalogue needs one pair. Airless altitudes: refraction lifts a target 0.1° at 10°, less higher up.
 */
export function walkTarget(
  steps: NightSteps,
  sky: ChannelSky,
  ofDate: Vec3,
  into?: Walk,
  own: OwnLight = SKY_ONLY,
): Walk {
  const out = into ?? emptyWalk(steps.count);
  const { cause, worth, moonless, left } = out;
  // By index: numbers taken out of an array by destructuring stay boxed in the loop, which makes it three times slower.
  const x = ofDate[0];
  const y = ofDate[1];
  const z = ofDate[2];
  const { sinSkylineMax, sinSkylineMin, sinSkyline, isDark, cosAvoidance, leastShare, sinMinAltitude } = sky;
  const { extinction2, darkOverZenith, scatter, moonStrength, scattering, sinLatitude, cosLatitude } = sky;
  const { sinSidereal, cosSidereal, moon, moonAltitudeDeg } = steps;
  const { domeFoot, domeFade, lamps, twilight, leastTwilightShare } = sky;
  const sinClear = Math.max(sinSkylineMax, sky.sinLampsMax); // above it nothing is in the way, whatever the azimuth
  const ownObject = own.object;
  const ownRest = own.rest;
  const atZenith = 1 + ownObject + ownRest;
  cause.fill(LIGHT_SKY);
  worth.fill(0);
  moonless.fill(0);
  left.fill(0);
  for (let i = sky.darkFrom; i < sky.darkTo; i++) {
    let lost: number = USABLE;
    let value = 0;
    let withoutMoon = 0;
    let underMoon = 0;
    const toMeridian = x * cosSidereal[i]! + y * sinSidereal[i]!;
    const up = sinLatitude * z + cosLatitude * toMeridian;
    if (isDark[i] === 0) lost = LIGHT_SKY;
    else if (up < 0) lost = SET;
    else if (up < sinSkylineMin) lost = SKYLINE;
    else {
      if (up < sinClear) {
        const east = y * cosSidereal[i]! - x * sinSidereal[i]!;
        const north = cosLatitude * z - sinLatitude * toMeridian;
        if (up < sinSkylineMax && up < sinSkyline[azimuthBin(north, east)]!) lost = SKYLINE;
        else if (lamps.length > 0 && isBlinded(lamps, north, east, up)) lost = LAMP;
      }
      if (lost === USABLE) {
        const bin = sinBin(up);
        if (up < sinMinAltitude) lost = LOW;
        else {
          let background = darkOverZenith[bin]!;
          if (domeFoot !== null) {
            const east = y * cosSidereal[i]! - x * sinSidereal[i]!;
            const north = cosLatitude * z - sinLatitude * toMeridian;
            background += domeFoot[azimuthBin(north, east)]! * domeFade[bin]!;
          }
          // As `minuteWorth`, with what both shares ask for kept at hand.
          const air2 = extinction2[bin]!;
          const object = ownObject > 0 ? ownObject * Math.sqrt(air2) : 0;
          const signal = air2 * atZenith;
          const dark = object + background + ownRest;
          const lit = dark + twilight[i]!;
          if (dark < leastTwilightShare * lit) lost = LIGHT_SKY;
          else {
            withoutMoon = underMoon = value = signal / lit;
            if (moonAltitudeDeg[i]! > 0) {
              const cosSeparation = x * moon[3 * i]! + y * moon[3 * i + 1]! + z * moon[3 * i + 2]!;
              const all = lit + scatter[bin]! * moonStrength[i]! * scattering[cosBin(cosSeparation)]!;
              underMoon = signal / all;
              value = underMoon;
              if (cosSeparation > cosAvoidance[i]! || dark < leastShare * all) {
                lost = MOON;
                value = 0;
              }
            }
          }
        }
      }
    }
    cause[i] = lost;
    worth[i] = value;
    moonless[i] = withoutMoon;
    left[i] = underMoon;
  }
  return out;
}

/** What a walk adds up to, in minutes, worth in minutes at the place's moonless zenith. */
export interface NightSums {
  readonly usableMin: number;
  readonly worthMin: number;
  /** What would be usable if there were no Moon, and its worth. */
  readonly moonlessMin: number;
  readonly moonlessWorthMin: number;
  /** Worth of the same minutes under the Moon, whether or not it is enough for whoever asks: what the Moon leaves. */
  readonly leftWorthMin: number;
}

/** Adds up a walk. */
export function sumsOf(steps: NightSteps, { cause, worth, moonless, left }: Walk): NightSums {
  let [usable, value, usableMoonless, valueMoonless, valueLeft] = [0, 0, 0, 0, 0];
  for (let i = 0; i < steps.count; i++) {
    if (moonless[i]! === 0) continue;
    usableMoonless++;
    valueMoonless += moonless[i]!;
    valueLeft += left[i]!;
    if (cause[i] !== 0) continue;
    usable++;
    value += worth[i]!;
  }
  const { stepMin } = steps;
  return {
    usableMin: usable * stepMin,
    worthMin: value * stepMin,
    moonlessMin: usableMoonless * stepMin,
    moonlessWorthMin: valueMoonless * stepMin,
    leftWorthMin: valueLeft * stepMin,
  };
}

/** Minutes from sunset to sunrise, what each cause takes, and what is left. The parts add up to the whole. */
export interface NightAccount {
  readonly nightMin: number;
  readonly lost: Readonly<Record<Exclude<Cause, "none">, number>>;
  readonly usableMin: number;
}

/** Where a night goes for one target in one channel. */
export function accountOf(steps: NightSteps, walk: Walk): NightAccount {
  const lost = { lightSky: 0, set: 0, skyline: 0, low: 0, moon: 0, lamp: 0 };
  let usableMin = 0;
  for (let i = 0; i < steps.count; i++) {
    const cause = CAUSES[walk.cause[i]!]!;
    if (cause === "none") usableMin += steps.stepMin;
    else lost[cause] += steps.stepMin;
  }
  return { nightMin: steps.count * steps.stepMin, lost, usableMin };
}

/** A run of steps with one cause. */
export interface Stretch {
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  readonly cause: Cause;
}

/** A walk as runs of like steps, in order. */
export function stretches(steps: NightSteps, walk: Walk): Stretch[] {
  const found: Stretch[] = [];
  const at = (i: number) => addMs(steps.startMs, i * steps.stepMin * MINUTE_MS);
  for (let i = 0, from = 0; i < steps.count; i++) {
    if (i + 1 < steps.count && walk.cause[i + 1] === walk.cause[i]) continue;
    found.push({ startMs: at(from), endMs: at(i + 1), cause: CAUSES[walk.cause[i]!]! });
    from = i + 1;
  }
  return found;
}
