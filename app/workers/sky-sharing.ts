import type { ChannelGoal, SplitHours, Split, CrewSite, SiteNight } from "~/core/crew";
import type { Channel } from "~/core/exposure";
import { type Place, type OwnLight, type MoonWishes, type YearNight, yearOf, clearChanceOn } from "~/core/night";
import type { SharingWay } from "~/core/plan";
import type { Equatorial } from "~/core/sky";
import { type NightDate, addNights } from "~/core/time";
import { nightsOf } from "./sky-year";

/** A member's site as who-shoots-what is worked out for it. */
export interface SharingSite {
  readonly memberId: string;
  readonly place: Place;
  /** By channel: hours at the reference that an hour of worth 1 is; none where no filter of the rig records it. */
  readonly factors: Readonly<Partial<Record<Channel, number>>>;
  /** By what minutes there are weighed, by channel. */
  readonly own: Readonly<Partial<Record<Channel, OwnLight>>>;
  /** Hours promised; null = what the sky gives. */
  readonly promised: number | null;
}

/** A question of who shoots what. */
export interface SharingTask {
  readonly sites: readonly SharingSite[];
  readonly goals: readonly ChannelGoal[];
  readonly target: Equatorial<"icrs">;
  readonly moon: MoonWishes;
  readonly from: NightDate;
  readonly nights: number;
  readonly floor: number;
  readonly hand: SplitHours | null;
}

/** A way to share the work, what it comes to, and how likely it is done by then. */
export interface SharingOption {
  readonly way: SharingWay;
  readonly split: Split;
  readonly odds: number;
}

/** What the members can give, and the ways to share the work. */
export interface Sharing {
  readonly sites: readonly (CrewSite & {
    /** Hours of clear nights in which the target can be shot, in all. */
    readonly skyHours: number;
  })[];
  readonly goals: readonly ChannelGoal[];
  /** Advantage is left out where a goal is nobody's, or the floor cannot be held. */
  readonly options: readonly SharingOption[];
}

/** Seasons played for the odds of a way: good to a point. */
export const SHARING_RUNS = 2000;
const MOST_YEARS = 60;
const years = new Map<string, readonly YearNight[]>();

/** The nights of a year for a target in a channel; kept, since every change of a promise asks for them again. */
function yearFor(at: {
  readonly place: Place;
  readonly from: NightDate;
  readonly moon: MoonWishes;
  readonly target: Equatorial<"icrs">;
  readonly channel: Channel;
  readonly own?: OwnLight;
}): readonly YearNight[] {
  const key = JSON.stringify(at);
  const known = years.get(key) ?? yearOf(nightsOf(at), at.target, at.channel, at.own);
  years.delete(key);
  years.set(key, known);
  if (years.size > MOST_YEARS) years.delete(years.keys().next().value!);
  return known;
}

/** A site's clear hours, and what each is worth by channel: by the chance of each night to be clear. */
export function siteOf({ memberId, place, factors, own, promised }: SharingSite, task: SharingTask) {
  const channels = Object.keys(factors) as Channel[];
  const all = channels.map((channel) =>
    yearFor({
      place,
      from: task.from,
      moon: task.moon,
      target: task.target,
      channel,
      ...(own[channel] ? { own: own[channel] } : {}),
    }).slice(0, task.nights),
  );
  const nights = Array.from({ length: task.nights }, (_, i): SiteNight => {
    const usable = Math.max(0, ...all.map((year) => year[i]?.usableMin ?? 0));
    return { chance: clearChanceOn(place, addNights(task.from, i)), hours: usable / 60 };
  });
  const skyHours = nights.reduce((sum, n) => sum + n.chance * n.hours, 0);
  const rates = Object.fromEntries(
    channels.map((channel, k) => {
      const worth = all[k]!.reduce((sum, n, i) => sum + nights[i]!.chance * n.worthMin, 0) / 60;
      return [channel, skyHours > 0 ? (worth * factors[channel]!) / skyHours : 0];
    }),
  ) as CrewSite["rates"];
  return { memberId, hours: promised ?? skyHours, skyHours, rates, nights };
}
