import type { Channel } from "~/core/exposure";
import {
  channelSky,
  nightSteps,
  placeSky,
  usableOf,
  walkTarget,
  type ChannelSky,
  type NightSteps,
  type Place,
} from "~/core/night";
import { apparentVector, type Equatorial, type Vec3 } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import type { ChannelOffer, NightOffer } from "./allocate";

/** What a night offers a direction of date in one channel, and what it would be worth without the Moon. */
export function channelOffer(steps: NightSteps, sky: ChannelSky, ofDate: Vec3): ChannelOffer {
  const offered = usableOf(steps, walkTarget(steps, sky, ofDate));
  if (steps.moonAltitudeDeg.every((alt) => alt <= 0)) return { ...offered, moonlessWorthMin: offered.worthMin };
  const moonless = { ...steps, moonAltitudeDeg: steps.moonAltitudeDeg.map(() => -1) };
  return { ...offered, moonlessWorthMin: usableOf(steps, walkTarget(moonless, sky, ofDate)).worthMin };
}

/** What one night offers a target in each channel: clear sky assumed, judged at the target's centre every `stepMin` minutes. */
export function nightOffer(
  place: Place,
  target: Equatorial<"icrs">,
  channels: readonly Channel[],
  date: NightDate,
  stepMin = 5,
): NightOffer {
  const sky = placeSky(place, date);
  const steps = nightSteps(sky, stepMin);
  const vector = apparentVector(sky, target);
  return {
    date,
    channels: Object.fromEntries(channels.map((c) => [c, channelOffer(steps, channelSky(place, steps, c), vector)])),
  };
}

/** Offers of `count` nights from `from` on; `onNight` hears of each one done. About 3 ms a night. */
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
