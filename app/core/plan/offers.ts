import type { Channel } from "~/core/exposure";
import {
  COARSE_STEP_MIN,
  moonlessWorthMin,
  placeNight,
  targetNight,
  type Place,
  type PlaceNight,
  type TargetNight,
} from "~/core/night";
import type { Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import type { ChannelOffer, NightOffer } from "./allocate";

/** What a target's night offers, and what it would be worth without the Moon. */
export const channelOffer = (night: PlaceNight, target: TargetNight): ChannelOffer => ({
  usableMin: target.usableMin,
  worthMin: target.worthMin,
  moonlessWorthMin: moonlessWorthMin(night, target),
});

/** What one night offers a target in each channel: clear sky assumed, judged at the target's centre every `stepMin` minutes. */
export function nightOffer(
  place: Place,
  target: Equatorial<"icrs">,
  channels: readonly Channel[],
  date: NightDate,
  stepMin = COARSE_STEP_MIN,
): NightOffer {
  const night = placeNight(place, date, stepMin);
  return {
    date,
    channels: Object.fromEntries(channels.map((c) => [c, channelOffer(night, targetNight(night, target, c))])),
  };
}

/** Offers of `count` nights from `from` on; `onNight` hears of each one done. */
export function nightOffers(
  at: {
    readonly place: Place;
    readonly target: Equatorial<"icrs">;
    readonly channels: readonly Channel[];
    readonly from: NightDate;
    readonly count: number;
  },
  onNight?: (done: number) => void,
): NightOffer[] {
  return Array.from({ length: at.count }, (_, i) => {
    const offer = nightOffer(at.place, at.target, at.channels, addNights(at.from, i));
    onNight?.(i + 1);
    return offer;
  });
}
