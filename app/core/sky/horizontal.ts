import type { UtcMs } from "~/core/time";
import { degToRad, radToDeg, wrap360 } from "~/core/units";
import { positionAngleDeg } from "./separation";
import { directionOf, unitVector, type Equatorial, type Horizontal, type Vec3 } from "./frames";
import type { NightSky } from "./night-sky";

/** Apparent unit vector on the equator of date of a catalogue direction: annual aberration, then precession-nutation. No proper motion or parallax. */
export function apparentVector(sky: Pick<NightSky, "toOfDate" | "earthBeta">, target: Equatorial<"icrs">): Vec3 {
  const u = unitVector(target);
  const x = u[0] + sky.earthBeta[0];
  const y = u[1] + sky.earthBeta[1];
  const z = u[2] + sky.earthBeta[2];
  const r = Math.sqrt(x * x + y * y + z * z); // hypot takes twenty times as long
  const m = sky.toOfDate as readonly [number, number, number, number, number, number, number, number, number];
  return [
    (m[0] * x + m[1] * y + m[2] * z) / r,
    (m[3] * x + m[4] * y + m[5] * z) / r,
    (m[6] * x + m[7] * y + m[8] * z) / r,
  ];
}

/** Local apparent sidereal angle at an instant, radians, not wrapped. */
export const localSiderealRad = (sky: NightSky, ms: UtcMs): number =>
  sky.siderealStartRad + sky.siderealRadPerMs * (ms - sky.window.startMs);

/** Airless altitude and azimuth of a direction of date. */
export function horizontalAt(sky: NightSky, [x, y, z]: Vec3, ms: UtcMs): Horizontal {
  const last = localSiderealRad(sky, ms);
  const phi = degToRad(sky.observer.latitudeDeg);
  const toMeridian = x * Math.cos(last) + y * Math.sin(last);
  const east = y * Math.cos(last) - x * Math.sin(last);
  const north = Math.cos(phi) * z - Math.sin(phi) * toMeridian;
  const up = Math.sin(phi) * z + Math.cos(phi) * toMeridian;
  return {
    altitudeDeg: radToDeg(Math.atan2(up, Math.hypot(east, north))),
    azimuthDeg: wrap360(radToDeg(Math.atan2(east, north))),
  };
}

/**
 * Parallactic angle: position angle of the zenith from the pole of date, seen from a direction of date; [−180, 180],
 * positive west of the meridian.
 */
export function zenithPositionAngleDeg(sky: NightSky, ofDate: Vec3, ms: UtcMs): number {
  const zenith = {
    frame: "ofDate",
    raDeg: wrap360(radToDeg(localSiderealRad(sky, ms))),
    decDeg: sky.observer.latitudeDeg,
  } as const;
  const angle = positionAngleDeg({ frame: "ofDate", ...directionOf(ofDate) }, zenith);
  return angle > 180 ? angle - 360 : angle;
}
