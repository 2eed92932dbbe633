import solver, { type Model } from "javascript-lp-solver";
import type { Channel } from "~/core/exposure";
import { randomFrom } from "~/core/numeric";

/** One member as work is shared out: the hours they can give, and what an hour of theirs is in each channel they have a filter for. */
export interface CrewSite {
  readonly memberId: string;
  readonly hours: number;
  /** Hours at the reference an hour is, by channel; absent = they cannot shoot it. */
  readonly rates: Readonly<Partial<Record<Channel, number>>>;
}

/** Hours at the reference that a channel still wants. */
export interface ChannelGoal {
  readonly channel: Channel;
  readonly hours: number;
}

/** Hours of their own that each member gives to each channel. */
export type SplitHours = Readonly<Record<string, Readonly<Partial<Record<Channel, number>>>>>;

/** A way to share the work, and what it comes to. */
export interface Split {
  readonly hours: SplitHours;
  /** What every goal is met by at least: 1 = all are met, 1.2308 = each by so much more. */
  readonly fullness: number;
  /** Each one's part of the hours at the reference. */
  readonly shares: Readonly<Record<string, number>>;
}

const variable = (site: number, channel: Channel) => `${site} ${channel}`;

/** What a split comes to: the worst-met goal, and whose the hours are. Goals of no hours are met. */
export function splitOf(sites: readonly CrewSite[], goals: readonly ChannelGoal[], hours: SplitHours): Split {
  const given = (site: CrewSite, channel: Channel) =>
    (hours[site.memberId]?.[channel] ?? 0) * (site.rates[channel] ?? 0);
  const open = goals.filter((g) => g.hours > 0);
  const met = open.map((g) => sites.reduce((sum, s) => sum + given(s, g.channel), 0) / g.hours);
  const weights = sites.map((s) => goals.reduce((sum, g) => sum + given(s, g.channel), 0));
  const all = weights.reduce((a, b) => a + b, 0);
  return {
    hours,
    fullness: met.length === 0 ? 1 : Math.min(...met),
    shares: Object.fromEntries(sites.map((s, i) => [s.memberId, all > 0 ? weights[i]! / all : 0])),
  };
}

/**
 * Who shoots what by comparative advantage: the split that fills the worst-filled goal most, within everyone's hours. Max t with
 * Σ rate x ≥ t goal and Σ x ≤ hours, a linear program (MATHS 7.5); with a floor, everyone who can shoot anything gives at least that
 * share of all hours at the reference. Null where a goal is nobody's, or the floor cannot be held.
 */
export function bestSplit(sites: readonly CrewSite[], goals: readonly ChannelGoal[], floor = 0): Split | null {
  const open = goals.filter((g) => g.hours > 0);
  const can = (s: CrewSite) => s.hours > 0 && open.some((g) => (s.rates[g.channel] ?? 0) > 0);
  if (open.some((g) => !sites.some((s) => s.hours > 0 && (s.rates[g.channel] ?? 0) > 0))) return null;
  const constraints: Record<string, { min?: number; max?: number }> = {};
  const variables: Record<string, Record<string, number>> = { t: { t: 1 } };
  open.forEach((g) => {
    constraints[`goal ${g.channel}`] = { min: 0 };
    variables["t"]![`goal ${g.channel}`] = -g.hours;
  });
  sites.forEach((s, i) => {
    constraints[`hours ${i}`] = { max: s.hours };
    if (floor > 0 && can(s)) constraints[`floor ${i}`] = { min: 0 };
  });
  sites.forEach((s, i) => {
    for (const { channel } of open) {
      const rate = s.rates[channel] ?? 0;
      if (!(rate > 0)) continue;
      const x: Record<string, number> = { [`hours ${i}`]: 1, [`goal ${channel}`]: rate };
      if (floor > 0)
        sites.forEach((other, k) => {
          if (can(other)) x[`floor ${k}`] = (k === i ? rate : 0) - floor * rate;
        });
      variables[variable(i, channel)] = x;
    }
  });
  if (open.length === 0) return splitOf(sites, goals, {});
  const model: Model = { optimize: "t", opType: "max", constraints, variables };
  const found = solver.Solve(model) as Readonly<Record<string, number | boolean | undefined>>;
  if (found["feasible"] !== true || found["bounded"] === false) return null;
  const hours = Object.fromEntries(
    sites.map((s, i) => [
      s.memberId,
      Object.fromEntries(
        open.flatMap(({ channel }) => {
          const x = found[variable(i, channel)];
          return typeof x === "number" && x > 1e-9 ? [[channel, x]] : [];
        }),
      ),
    ]),
  );
  return splitOf(sites, goals, hours);
}

/** Everyone shoots everything they have a filter for: their hours by the weights of the channels. */
export function allShootAll(
  sites: readonly CrewSite[],
  goals: readonly ChannelGoal[],
  weightOf: (goal: ChannelGoal) => number = (g) => g.hours,
): Split {
  const hours = Object.fromEntries(
    sites.map((s) => {
      const mine = goals.filter((g) => (s.rates[g.channel] ?? 0) > 0);
      const all = mine.reduce((sum, g) => sum + weightOf(g), 0);
      return [
        s.memberId,
        Object.fromEntries(mine.map((g) => [g.channel, all > 0 ? (s.hours * weightOf(g)) / all : 0])),
      ];
    }),
  );
  return splitOf(sites, goals, hours);
}

/** Goals in a ratio of channels, their sum kept. */
export function inRatio(goals: readonly ChannelGoal[], ratio: readonly number[]): ChannelGoal[] {
  const [sum, parts] = [goals.reduce((s, g) => s + g.hours, 0), ratio.reduce((a, b) => a + b, 0)];
  return goals.map((g, i) => ({ ...g, hours: parts > 0 ? (sum * (ratio[i] ?? 0)) / parts : g.hours }));
}

/** A night at a site: its chance to be clear, and the usable hours if it is. */
export interface SiteNight {
  readonly chance: number;
  readonly hours: number;
}

/** How like its night before a night's sky is, 0 to 1. */
interface Weather {
  readonly persistence: number;
  readonly runs: number;
  readonly seed: number;
}

/**
 * The odds that a split meets every goal by the end of some nights: seasons drawn night by night, each site's sky its own, a night as
 * the one before with the given persistence. Each gives of what a season brings the same parts as the split says, and no more hours
 * than it says they have.
 */
export function splitOdds(
  split: SplitHours,
  sites: readonly (CrewSite & { readonly nights: readonly SiteNight[] })[],
  goals: readonly ChannelGoal[],
  { persistence, runs, seed }: Weather,
): number {
  const open = goals.filter((g) => g.hours > 0);
  if (open.length === 0) return 1;
  const expected = sites.map((s) => s.nights.reduce((sum, n) => sum + n.chance * n.hours, 0));
  const random = randomFrom(seed);
  let done = 0;
  for (let run = 0; run < runs; run++) {
    const got = new Map<Channel, number>();
    sites.forEach((s, i) => {
      let clear = 0;
      let before: boolean | null = null;
      for (const { chance, hours } of s.nights) {
        const is: boolean = before !== null && random() < persistence ? before : random() < chance;
        if (is) clear += hours;
        before = is;
      }
      // Hours promised are of an average season: a better one gives more, a worse one less.
      const season = expected[i]! > 0 ? clear / expected[i]! : 0;
      for (const [channel, x] of Object.entries(split[s.memberId] ?? {}) as [Channel, number][])
        got.set(channel, (got.get(channel) ?? 0) + x * season * (s.rates[channel] ?? 0));
    });
    if (open.every((g) => (got.get(g.channel) ?? 0) >= g.hours * 0.9999)) done++;
  }
  return done / runs;
}
