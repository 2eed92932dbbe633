import {
  AstroTime,
  BaryState,
  Body,
  C_AUDAY,
  Constellation,
  Equator,
  Illumination,
  Observer as AstroObserver,
  Rotation_EQJ_EQD,
  SetDeltaTFunction,
  SiderealTime,
} from "astronomy-engine";
import { deltaTSeconds, utcMs, type UtcMs } from "~/core/time";
import { degToRad, wrap360 } from "~/core/units";
import { unitVector, type Observer, type Vec3 } from "./frames";

// The library's own extrapolation of TT − UT is 6–8 s too large for 2026–2028. This is the only module that
// imports the library, so no caller can meet it unset.
const J2000_MS = Date.UTC(2000, 0, 1, 12);
SetDeltaTFunction((utDays) => deltaTSeconds(utcMs(J2000_MS + utDays * 86_400_000)));

const time = (ms: UtcMs) => new AstroTime(new Date(ms));
const observer = (o: Observer) => new AstroObserver(o.latitudeDeg, o.longitudeDeg, o.elevationM);

/** What turns catalogue directions into apparent ones: row-major rotation ICRS → of date, and the Earth's velocity over c. */
export interface ApparentFrame {
  readonly toOfDate: readonly number[];
  readonly earthBeta: Vec3;
}

/**
 * Precession (IAU 2006), nutation (truncated IAU 2000B) and annual aberration at an instant, by astronomy-engine.
 * Held for 12 h either way it costs 0.2″.
 */
export function apparentFrame(ms: UtcMs): ApparentFrame {
  const t = time(ms);
  const { rot } = Rotation_EQJ_EQD(t); // rot[i][j] takes source axis i to target axis j
  const v = BaryState(Body.Earth, t);
  return {
    toOfDate: [0, 1, 2].flatMap((j) => [0, 1, 2].map((i) => rot[i]![j]!)),
    earthBeta: [v.vx / C_AUDAY, v.vy / C_AUDAY, v.vz / C_AUDAY],
  };
}

/** Apparent sidereal angle of Greenwich, degrees [0, 360). */
export const greenwichSiderealDeg = (ms: UtcMs): number => wrap360(SiderealTime(time(ms)) * 15);

/** Topocentric apparent direction of Sun or Moon on the true equator of date, and its distance in km. */
export function bodyOfDate(
  body: "sun" | "moon",
  ms: UtcMs,
  from: Observer,
): { readonly unit: Vec3; readonly km: number } {
  const e = Equator(body === "sun" ? Body.Sun : Body.Moon, time(ms), observer(from), true, true);
  return { unit: unitVector({ raDeg: e.ra * 15, decDeg: e.dec }), km: e.dist * 149_597_870.7 };
}

/** Geocentric phase angle of the Moon (0 full, 180 new, degrees) and its lit share [0, 1]. */
export function moonPhase(ms: UtcMs): { readonly phaseAngleDeg: number; readonly illuminatedFraction: number } {
  const { phase_angle: phaseAngleDeg } = Illumination(Body.Moon, time(ms));
  return { phaseAngleDeg, illuminatedFraction: (1 + Math.cos(degToRad(phaseAngleDeg))) / 2 };
}

/** IAU code of the constellation a J2000 direction lies in, by the borders of 1875 (astronomy-engine). */
export const constellationOf = (at: { readonly raDeg: number; readonly decDeg: number }): string =>
  Constellation(at.raDeg / 15, at.decDeg).symbol;
