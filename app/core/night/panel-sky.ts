import type { Channel } from "~/core/exposure";
import { apparentVector, type Equatorial } from "~/core/sky";
import type { UtcMs } from "~/core/time";
import { azimuthBin, cosBin, sinBin } from "./channel-sky";
import { channelSkyOf, type PlaceNight } from "./place-night";

/** The clear sky over a direction in a channel through a night, by steps. */
export interface PanelSky {
  readonly startMs: UtcMs;
  readonly stepMin: number;
  /** Share of light that air lets through, over the zenith's; 0 where it has set. */
  readonly passes: readonly number[];
  /** Sky there over the moonless zenith sky, whatever lights it: towns, twilight, Moon. */
  readonly skyOver: readonly number[];
}

/** What lights the sky over a direction, step by step: the background by which `walkTarget` weighs minutes. */
export function panelSky(night: PlaceNight, target: Equatorial<"icrs">, channel: Channel): PanelSky {
  const { steps } = night;
  const sky = channelSkyOf(night, channel);
  const [x, y, z] = apparentVector(night.sky, target);
  const [passes, skyOver]: [number[], number[]] = [[], []];
  for (let i = 0; i < steps.count; i++) {
    const [cos, sin] = [steps.cosSidereal[i]!, steps.sinSidereal[i]!];
    const toMeridian = x * cos + y * sin;
    const up = Math.max(0, sky.sinLatitude * z + sky.cosLatitude * toMeridian);
    const bin = sinBin(up);
    const dome = sky.domeFoot
      ? sky.domeFoot[azimuthBin(sky.cosLatitude * z - sky.sinLatitude * toMeridian, y * cos - x * sin)]! * sky.domeFade[bin]! // prettier-ignore
      : 0;
    const cosSeparation = x * steps.moon[3 * i]! + y * steps.moon[3 * i + 1]! + z * steps.moon[3 * i + 2]!;
    const moon =
      steps.moonAltitudeDeg[i]! > 0 ? sky.scatter[bin]! * sky.moonStrength[i]! * sky.scattering[cosBin(cosSeparation)]! : 0; // prettier-ignore
    passes.push(up === 0 ? 0 : Math.sqrt(sky.extinction2[bin]!));
    skyOver.push(sky.darkOverZenith[bin]! + dome + sky.twilight[i]! + moon);
  }
  return { startMs: steps.startMs, stepMin: steps.stepMin, passes, skyOver };
}
