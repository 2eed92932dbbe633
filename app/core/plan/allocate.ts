import { efficiencyOf, type Channel, type Overheads } from "~/core/exposure";
import type { NightDate } from "~/core/time";
import { inNightOrder } from "./channel-order";

/** Exposure still wanted of one panel in one channel. */
export interface Need {
  readonly panel: string;
  readonly channel: Channel;
  readonly goalMin: number;
  readonly remainingMin: number;
  readonly subSec: number;
}

/** What one night offers in one channel, in clock minutes; worth without the Moon beside it. */
export interface ChannelOffer {
  readonly usableMin: number;
  readonly worthMin: number;
  readonly moonlessWorthMin: number;
}

/** What one night could give a project, per channel. */
export interface NightOffer {
  readonly date: NightDate;
  readonly channels: Readonly<Partial<Record<Channel, ChannelOffer>>>;
}

/** How nights are handed out. */
export interface PlanRules {
  readonly overheads: Overheads;
  readonly school: "allPanelsEveryNight" | "panelAfterPanel";
  /** A night that offers less is not worth setting up for. */
  readonly leastNightMin: number;
}

/** Exposure of one panel and channel in one night. */
export interface Allocation {
  readonly panel: string;
  readonly channel: Channel;
  /** Tells two sets of one channel apart. */
  readonly subSec: number;
  readonly exposureMin: number;
}

/** A night of the plan. Nights without work stay in the list, so that it can be read as a calendar. */
export interface PlannedNight {
  readonly date: NightDate;
  readonly work: readonly Allocation[];
  /** Best usable clock minutes among the channels still needed. */
  readonly usableMin: number;
}

/** A plan, and when it would be done. */
export interface PlanResult {
  readonly nights: readonly PlannedNight[];
  /** The night in which the last goal is met; null when the offered nights do not suffice. */
  readonly finishedOn: NightDate | null;
  readonly unmetMin: number;
}

const MIN_BLOCK_MIN = 10; // shorter blocks cost more in centring than they bring

interface Open {
  readonly need: Need;
  left: number;
}

/** Channels that still want something, in the order this night should go to them. */
function wantedTonight(open: readonly Open[], offer: NightOffer): Channel[] {
  const channels = [...new Set(open.filter((o) => o.left > 0.5).map((o) => o.need.channel))];
  const chances = channels.map((channel) => {
    const o = offer.channels[channel];
    const lacking = Math.max(
      ...open.filter((x) => x.need.channel === channel).map((x) => x.left / Math.max(1, x.need.goalMin)),
    );
    return { channel, worthMin: o?.worthMin ?? 0, moonlessWorthMin: o?.moonlessWorthMin ?? 0, lacking };
  });
  return inNightOrder(chances).map((c) => c.channel);
}

/** Panels of one channel in the order the school wants them: weakest first, or the first unfinished until it is done. */
function inOrder(open: readonly Open[], school: PlanRules["school"]): Open[] {
  const share = (o: Open) => 1 - o.left / Math.max(1, o.need.goalMin);
  const sorted = open.filter((o) => o.left > 0.5);
  return school === "allPanelsEveryNight"
    ? sorted.sort((a, b) => share(a) - share(b) || a.need.panel.localeCompare(b.need.panel, "en", { numeric: true }))
    : sorted;
}

/** Splits a channel's exposure of one night over its panels: evenly up to the weakest, or all to the first. */
function spread(panels: readonly Open[], exposureMin: number, school: PlanRules["school"]): Allocation[] {
  const work: Allocation[] = [];
  let budget = exposureMin;
  const blocks =
    school === "allPanelsEveryNight"
      ? Math.max(1, Math.min(panels.length, Math.floor(budget / MIN_BLOCK_MIN)))
      : panels.length;
  panels.slice(0, blocks).forEach((p, i) => {
    const share = school === "allPanelsEveryNight" ? budget / (blocks - i) : budget;
    const minutes = Math.min(p.left, share);
    if (minutes < 0.5) return;
    p.left -= minutes;
    budget -= minutes;
    work.push({ panel: p.need.panel, channel: p.need.channel, subSec: p.need.subSec, exposureMin: minutes });
  });
  return work;
}

/**
 * Hands out nights in order of date. Each night goes to the needed channels in the order of `inNightOrder`, each taking
 * what it can of the time that is left; within a channel to panels by the school. A first plan: greedy,
 * deterministic, no proof of being the best.
 */
export function allocate(needs: readonly Need[], offers: readonly NightOffer[], rules: PlanRules): PlanResult {
  const open: Open[] = needs.map((need) => ({ need, left: need.remainingMin }));
  const isDone = () => open.every((o) => o.left <= 0.5);
  let finishedOn: NightDate | null = null;
  const nights = offers.map((offer): PlannedNight => {
    const wanted = wantedTonight(open, offer);
    const usableMin = Math.max(0, ...wanted.map((c) => offer.channels[c]?.usableMin ?? 0));
    if (usableMin < rules.leastNightMin) return { date: offer.date, work: [], usableMin };
    const work: Allocation[] = [];
    let usedMin = 0;
    for (const channel of wanted) {
      const clockMin = Math.min(offer.channels[channel]?.usableMin ?? 0, usableMin - usedMin);
      const panels = inOrder(
        open.filter((o) => o.need.channel === channel),
        rules.school,
      );
      const efficiency = efficiencyOf(panels[0]?.need.subSec ?? 60, rules.overheads);
      const changes = rules.school === "allPanelsEveryNight" ? panels.length : 1;
      const fixedMin =
        (changes * rules.overheads.panelChangeSec) / 60 +
        (usedMin === 0 ? rules.overheads.flipMin : rules.overheads.filterChangeSec / 60);
      if (clockMin - fixedMin < MIN_BLOCK_MIN) continue;
      const done = spread(panels, (clockMin - fixedMin) * efficiency, rules.school);
      work.push(...done);
      const exposed = done.reduce((sum, a) => sum + a.exposureMin, 0);
      if (exposed > 0) usedMin += exposed / efficiency + fixedMin;
    }
    if (finishedOn === null && isDone()) finishedOn = offer.date;
    return { date: offer.date, work, usableMin };
  });
  return {
    nights,
    finishedOn: needs.every((n) => n.remainingMin <= 0.5) ? null : finishedOn,
    unmetMin: open.reduce((sum, o) => sum + o.left, 0),
  };
}

/** Hours there are by the end of each night with work, from the minutes kept on, if every planned night is clear. */
export function plannedHours(
  nights: readonly PlannedNight[],
  keptMin: number,
): { readonly night: NightDate; readonly hours: number }[] {
  let minutes = keptMin;
  return nights.flatMap(({ date, work }) => {
    minutes += work.reduce((sum, w) => sum + w.exposureMin, 0);
    return work.length > 0 ? [{ night: date, hours: minutes / 60 }] : [];
  });
}
