import type { Channel } from "~/core/exposure";
import { placeNight, targetNight, type MoonWishes, type Place, type PlaceNight } from "~/core/night";
import type { Equatorial } from "~/core/sky";
import { addNights, type NightDate } from "~/core/time";
import type { NightOffer } from "./allocate";

/** What one night offers a target in each channel: clear sky assumed, judged at the target's centre. */
export const nightOffer = (
  night: PlaceNight,
  target: Equatorial<"icrs">,
  channels: readonly Channel[],
): NightOffer => ({
  date: night.date,
  channels: Object.fromEntries(
    channels.map((c) => {
      const { usableMin, worthMin, moonlessWorthMin } = targetNight(night, target, c);
      return [c, { usableMin, worthMin, moonlessWorthMin }];
    }),
  ),
});

/** Offers of `count` nights from `from` on; `onNight` hears of each one done. */
export function nightOffers(
  at: {
    readonly place: Place;
    readonly moon: MoonWishes;
    readonly target: Equatorial<"icrs">;
    readonly channels: readonly Channel[];
    readonly from: NightDate;
    readonly count: number;
  },
  onNight?: (done: number) => void,
): NightOffer[] {
  return Array.from({ length: at.count }, (_, i) => {
    const offer = nightOffer(placeNight(at.place, addNights(at.from, i), at.moon), at.target, at.channels);
    onNight?.(i + 1);
    return offer;
  });
}
