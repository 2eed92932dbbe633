import { CHANNELS, type Channel } from "~/core/exposure";
import type { ContributionData } from "./contribution";

/** What a card needs to know beside the log: names, and skies. */
export interface CardNames {
  readonly memberOf: (id: string) => string;
  readonly rigOf: (id: string) => string;
  readonly placeOf: (id: string) => { readonly name: string; readonly skyMagPerArcsec2: number | null };
  /** Lit share of the Moon on a night. */
  readonly moonOn: (night: string) => number;
}

/** One channel of a finished picture: its sub lengths, and what each came to. */
export interface CardChannel {
  readonly channel: Channel;
  readonly hours: number;
  readonly sets: readonly { readonly subs: number; readonly exposureSec: number }[];
}

/** What one member gave, from where and with what. */
export interface CardMember {
  readonly name: string;
  readonly hours: number;
  readonly channels: readonly { readonly channel: Channel; readonly hours: number }[];
  readonly kit: readonly string[];
  readonly places: readonly { readonly name: string; readonly skyMagPerArcsec2: number | null }[];
}

/** A season of a picture: July to June in the north's counting, so that a winter is one. */
export interface CardSeason {
  readonly from: string;
  readonly nights: number;
  readonly hours: number;
  readonly channels: readonly { readonly channel: Channel; readonly hours: number }[];
}

/** What a picture was made from: everything that is told beside it. */
export interface AcquisitionCard {
  readonly hours: number;
  readonly subs: number;
  readonly nights: number;
  readonly first: string | null;
  readonly last: string | null;
  readonly panels: number;
  readonly channels: readonly CardChannel[];
  readonly members: readonly CardMember[];
  readonly seasons: readonly CardSeason[];
  /** Lit share of the Moon over the subs, by exposure; null without any. */
  readonly moon: number | null;
}

const hoursOf = (list: readonly ContributionData[]): number =>
  list.reduce((sum, c) => sum + (c.kept * c.exposureSec) / 3600, 0);

const byChannel = (list: readonly ContributionData[]) =>
  CHANNELS.flatMap((channel) => {
    const mine = list.filter((c) => c.channel === channel);
    return mine.length === 0 ? [] : [{ channel, hours: hoursOf(mine) }];
  });

/** "2026" of a night from July 2026 to June 2027. */
const seasonOfNight = (night: string): string => {
  const year = Number(night.slice(0, 4));
  return String(Number(night.slice(5, 7)) >= 7 ? year : year - 1);
};

/** The card of a picture from what was kept for it. */
export function acquisitionCard(entries: readonly ContributionData[], names: CardNames): AcquisitionCard {
  const kept = entries.filter((c) => c.kept > 0);
  const nights = [...new Set(kept.map((c) => c.night))].sort();
  const exposure = hoursOf(kept);
  const ids = (of: (c: ContributionData) => string, list = kept) => [...new Set(list.map(of))];
  return {
    hours: exposure,
    subs: kept.reduce((sum, c) => sum + c.kept, 0),
    nights: nights.length,
    first: nights[0] ?? null,
    last: nights.at(-1) ?? null,
    panels: ids((c) => c.panel).length,
    channels: byChannel(kept).map(({ channel, hours }): CardChannel => {
      const sets = new Map<number, number>();
      for (const c of kept) if (c.channel === channel) sets.set(c.exposureSec, (sets.get(c.exposureSec) ?? 0) + c.kept);
      return {
        channel,
        hours,
        sets: [...sets].sort((a, b) => b[0] - a[0]).map(([exposureSec, subs]) => ({ subs, exposureSec })),
      };
    }),
    members: ids((c) => c.memberId)
      .map((id): CardMember => {
        const mine = kept.filter((c) => c.memberId === id);
        return {
          name: names.memberOf(id),
          hours: hoursOf(mine),
          channels: byChannel(mine),
          kit: ids((c) => c.rigId, mine).map(names.rigOf),
          places: ids((c) => c.placeId, mine).map(names.placeOf),
        };
      })
      .sort((a, b) => b.hours - a.hours || a.name.localeCompare(b.name)),
    seasons: [...new Set(nights.map(seasonOfNight))].sort().map((from): CardSeason => {
      const mine = kept.filter((c) => seasonOfNight(c.night) === from);
      return { from, nights: ids((c) => c.night, mine).length, hours: hoursOf(mine), channels: byChannel(mine) };
    }),
    moon:
      exposure > 0
        ? kept.reduce((sum, c) => sum + names.moonOn(c.night) * c.kept * c.exposureSec, 0) / (exposure * 3600)
        : null,
  };
}
