import { moonIlluminance } from "~/core/sky";
import type { Channel } from "~/core/exposure";
import { cosBin, sinBin } from "./channel-sky";
import type { Place } from "./place";
import { tablesOf } from "./place-night";
import { minuteWorth, type OwnLight } from "./walk";

const [MOON_DEG, APART_DEG] = [45, 60];

/**
 * What a full Moon 45° high and 60° away leaves of a minute overhead, as a share of its worth without it: one figure for how a target
 * bears moonlight with a rig at a place.
 */
export function fullMoonShare(place: Place, channel: Channel, own: OwnLight): number {
  const { scatter, scattering, moonByAltitude, extinction2, darkOverZenith } = tablesOf(place, channel);
  const top = sinBin(1);
  const perDeg = (moonByAltitude.length - 1) / 90;
  const strength = moonByAltitude[Math.round(MOON_DEG * perDeg)]! * moonIlluminance(0);
  const moonlight = scatter[top]! * strength * scattering[cosBin(Math.cos((APART_DEG * Math.PI) / 180))]!;
  const worth = (background: number) => minuteWorth(extinction2[top]!, background, own);
  return worth(darkOverZenith[top]! + moonlight) / worth(darkOverZenith[top]!);
}
