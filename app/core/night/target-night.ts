import type { Channel } from "~/core/exposure";
import { apparentVector, type Equatorial, type Vec3 } from "~/core/sky";
import { channelSkyOf, type PlaceNight } from "./place-night";
import { sumsOf, stretches, walkTarget, type NightSums, type OwnLight, type Stretch, type Walk } from "./walk";

/** One target on one night in one channel, clear sky assumed. */
export interface TargetNight extends NightSums {
  readonly channel: Channel;
  /** Its direction of date. */
  readonly ofDate: Vec3;
  readonly walk: Walk;
  /** Runs of usable steps. */
  readonly windows: readonly Stretch[];
}

/** What a night gives a target in a channel: the one way every screen comes to it. `own` = weighed for a rig. Judged at the middle of each step. */
export function targetNight(
  night: PlaceNight,
  target: Equatorial<"icrs">,
  channel: Channel,
  own?: OwnLight,
): TargetNight {
  const { steps } = night;
  const ofDate = apparentVector(night.sky, target);
  const walk = walkTarget(steps, channelSkyOf(night, channel), ofDate, undefined, own);
  const windows = stretches(steps, walk).filter((s) => s.cause === "none");
  return { channel, ofDate, walk, windows, ...sumsOf(steps, walk) };
}
