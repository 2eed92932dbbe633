import type { Channel } from "~/core/exposure";
import { targetNight, type PlaceNight } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import type { NightDate } from "~/core/time";
import type { OwnByChannel } from "./project";

/** What one night offers in one channel, in clock minutes; worth without the Moon beside it. */
export interface ChannelOffer {
  readonly usableMin: number;
  readonly worthMin: number;
  readonly moonlessWorthMin: number;
}

/** What one night could give a target, per channel. */
export interface NightOffer {
  readonly date: NightDate;
  readonly channels: Readonly<Partial<Record<Channel, ChannelOffer>>>;
}

/** What one night offers a target in each channel: clear sky assumed, judged at the target's centre. */
export const nightOffer = (
  night: PlaceNight,
  target: Equatorial<"icrs">,
  channels: readonly Channel[],
  own: OwnByChannel = {},
): NightOffer => ({
  date: night.date,
  channels: Object.fromEntries(
    channels.map((c) => {
      const { usableMin, worthMin, moonlessWorthMin } = targetNight(night, target, c, own[c]);
      return [c, { usableMin, worthMin, moonlessWorthMin }];
    }),
  ),
});
