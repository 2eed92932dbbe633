import type { Channel } from "~/core/exposure";
import { nightSky, type NightSky } from "~/core/sky";
import { nightWindow, type NightDate } from "~/core/time";
import { channelSky, channelTables, type ChannelSky, type ChannelTables } from "./channel-sky";
import type { Place } from "./place";
import { nightSteps, type NightSteps } from "./steps";

/** The sky over a place from noon to noon of a night. */
export const placeSky = (place: Place, date: NightDate): NightSky => nightSky(place, nightWindow(date, place.timeZone));

/** A night over a place, cut into steps: what all targets and channels of that night share. */
export interface PlaceNight {
  readonly place: Place;
  readonly date: NightDate;
  readonly sky: NightSky;
  readonly steps: NightSteps;
}

/** Steps of a list or a plan, minutes: a window is known to 5 minutes. */
export const COARSE_STEP_MIN = 5;
/** Steps of one target looked at closely and of a run sheet, minutes. */
export const FINE_STEP_MIN = 2;

/** A night over a place in steps of `stepMin` minutes. About 3 ms. */
export function placeNight(place: Place, date: NightDate, stepMin: number): PlaceNight {
  const sky = placeSky(place, date);
  return { place, date, sky, steps: nightSteps(sky, stepMin) };
}

/** Tables cost a millisecond a channel and depend on the place alone: kept as long as the place is the same object. */
const tables = new WeakMap<Place, Map<Channel, ChannelTables>>();
const skies = new WeakMap<PlaceNight, Map<Channel, ChannelSky>>();

function kept<K extends object, V>(known: WeakMap<K, Map<Channel, V>>, key: K, channel: Channel, make: () => V): V {
  const byChannel = known.get(key) ?? new Map<Channel, V>();
  known.set(key, byChannel);
  const value = byChannel.get(channel) ?? make();
  byChannel.set(channel, value);
  return value;
}

/** The sky of a night in a channel. */
export const channelSkyOf = (night: PlaceNight, channel: Channel): ChannelSky =>
  kept(skies, night, channel, () =>
    channelSky(
      night.place,
      night.steps,
      channel,
      kept(tables, night.place, channel, () => channelTables(night.place, channel)),
    ),
  );
