import type { Channel } from "~/core/exposure";
import { nightSky, nightWindow, type NightSky } from "~/core/sky";
import type { NightDate } from "~/core/time";
import { channelSky, channelTables, type ChannelSky, type ChannelTables } from "./channel-sky";
import { moonLimitOf, twilightLimitOf, type MoonWishes } from "./moon-school";
import type { Place } from "./place";
import { nightSteps, type NightSteps } from "./steps";

/** The sky over a place from one noon of the Sun to the next. */
export const placeSky = (place: Place, date: NightDate): NightSky => nightSky(place, nightWindow(place, date));

/** A night over a place, cut into steps: what all targets and channels of that night share. */
export interface PlaceNight {
  readonly place: Place;
  readonly date: NightDate;
  readonly sky: NightSky;
  readonly steps: NightSteps;
  /** Whose wishes about the Moon decide. */
  readonly moon: MoonWishes;
}

/**
 * Steps of every night in every list, page, plan and sheet, minutes: one length, so that all of them say the same. A step counts
 * as its middle does, so an edge is known to half of it.
 */
export const NIGHT_STEP_MIN = 3;

/** A night over a place. About 4 ms. */
export function placeNight(place: Place, date: NightDate, moon: MoonWishes): PlaceNight {
  const sky = placeSky(place, date);
  return { place, date, sky, steps: nightSteps(sky, NIGHT_STEP_MIN), moon };
}

const moonKeys = new WeakMap<MoonWishes, string>();
const moonKey = (moon: MoonWishes): string => {
  const known = moonKeys.get(moon) ?? JSON.stringify(moon);
  moonKeys.set(moon, known);
  return known;
};
const underOther = new WeakMap<PlaceNight, Map<string, PlaceNight>>();

/** The same night under other wishes about the Moon: the same object for the same wishes, so that what is known of it stays known. */
export function withMoon(night: PlaceNight, moon: MoonWishes): PlaceNight {
  if (night.moon === moon || moonKey(night.moon) === moonKey(moon)) return night;
  const others = underOther.get(night) ?? new Map<string, PlaceNight>();
  underOther.set(night, others);
  const known = others.get(moonKey(moon)) ?? { ...night, moon };
  others.set(moonKey(moon), known);
  return known;
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

/** What a channel over a place is every night. */
export const tablesOf = (place: Place, channel: Channel): ChannelTables =>
  kept(tables, place, channel, () => channelTables(place, channel));

/** The sky of a night in a channel. */
export const channelSkyOf = (night: PlaceNight, channel: Channel): ChannelSky =>
  kept(skies, night, channel, () =>
    channelSky(
      night.place,
      night.steps,
      channel,
      moonLimitOf(night.moon, channel),
      twilightLimitOf(night.moon),
      tablesOf(night.place, channel),
    ),
  );
