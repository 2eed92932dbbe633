import type { Channel } from "~/core/exposure";
import type { Equatorial } from "~/core/sky";
import { degToRad } from "~/core/units";
import { azimuthBin, sinBin } from "./channel-sky";
import type { Place } from "./place";
import { tablesOf } from "./place-night";
import { minuteWorth, type OwnLight } from "./walk";

/**
 * Worth of a minute of a target at its best over a place: where it culminates, no Moon, over the place's moonless zenith. What a
 * project's hours are counted by: a goal of four hours is four hours like that. Nearness of a few thousandths: the declination is
 * that of the catalogue. A target that never rises has the rate of the horizon, so that nothing is divided by 0.
 */
export function bestRate(place: Place, target: Equatorial<"icrs">, channel: Channel, own?: OwnLight): number {
  const tables = tablesOf(place, channel);
  const up = Math.max(0, Math.cos(degToRad(place.latitudeDeg - target.decDeg)));
  const bin = sinBin(up);
  const towards = target.decDeg > place.latitudeDeg ? azimuthBin(1, 0) : azimuthBin(-1, 0);
  const glow = tables.domeFoot === null ? 0 : tables.domeFoot[towards]! * tables.domeFade[bin]!;
  return minuteWorth(tables.extinction2[bin]!, tables.darkOverZenith[bin]! + glow, own ?? { object: 0, rest: 0 });
}
