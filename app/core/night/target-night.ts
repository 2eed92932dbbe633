import type { Channel } from "~/core/exposure";
import { apparentVector, type Equatorial, type Vec3 } from "~/core/sky";
import { channelSkyOf, type PlaceNight } from "./place-night";
import { stretches, usableOf, walkTarget, type Stretch, type Walk } from "./walk";

/** One target on one night in one channel, clear sky assumed. */
export interface TargetNight {
  readonly channel: Channel;
  /** Its direction of date. */
  readonly ofDate: Vec3;
  readonly walk: Walk;
  /** Runs of usable steps. */
  readonly windows: readonly Stretch[];
  readonly usableMin: number;
  /** In minutes at the place's moonless zenith. */
  readonly worthMin: number;
}

/** What a night gives a target in a channel: the one way every screen comes to it. Judged at the middle of each step. */
export function targetNight(night: PlaceNight, target: Equatorial<"icrs">, channel: Channel): TargetNight {
  const { steps } = night;
  const ofDate = apparentVector(night.sky, target);
  const walk = walkTarget(steps, channelSkyOf(night, channel), ofDate);
  const windows = stretches(steps, walk).filter((s) => s.cause === "none");
  return { channel, ofDate, walk, windows, ...usableOf(steps, walk) };
}

/** What the same night would be worth without the Moon, in minutes at the place's moonless zenith. */
export function moonlessWorthMin(night: PlaceNight, { ofDate, channel, worthMin }: TargetNight): number {
  const { steps } = night;
  if (steps.moonAltitudeDeg.every((alt) => alt <= 0)) return worthMin;
  const moonless = { ...steps, moonAltitudeDeg: steps.moonAltitudeDeg.map(() => -1) };
  return usableOf(steps, walkTarget(moonless, channelSkyOf(night, channel), ofDate)).worthMin;
}
