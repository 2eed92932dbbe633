import { isNarrow } from "~/core/exposure";
import type { NightSteps, Walk } from "~/core/night";
import {
  SECURE_GUST_KMH,
  USUAL_WIND_SHARE,
  fogOdds,
  playNight,
  skyQuality,
  type NightOdds,
  type WeatherHour,
} from "~/core/weather";
import { HOUR_MS, MINUTE_MS, utcMs, type UtcInterval, type UtcMs } from "~/core/time";
import type { TonightChoice, TonightProject } from "./tonight";
import { bestDryRun, isWet, rainDeadline } from "./dry-runs";

/** What decides whether a night is worth going out for. */
export interface GoingRules {
  /** Usable minutes that make it worth while. */
  readonly wishMin: number;
  readonly setUpMin: number;
  /** Felt gusts that spoil subs. */
  readonly gustLimitKmh: number;
  /** Felt wind over the forecast one at 10 m. */
  readonly windShare?: number;
  /** Nothing before this instant counts: now, or the arrival at a place away. */
  readonly fromMs: UtcMs;
  /** Nobody has said how many nights are clear there: what stands in its place is assumed. */
  readonly isChanceAssumed?: boolean;
}

/** One hour of a night as going out sees it. */
export interface WeighedHour extends WeatherHour {
  /** Odds with wind, rain and fog taken in: hours over the gust limit and rainy ones have none. */
  readonly goOdds: number;
  /** Odds of fog, which forecasts of cloud do not see. */
  readonly fogOdds: number;
  /** What haze and high cloud leave of a minute's worth, and how much of a usable minute that makes it. */
  readonly quality: number;
  readonly counts: number;
  /** Gusts as felt at the mount; null = not forecast. */
  readonly feltGustKmh: number | null;
  /** Minutes that the targets of the night could use, were it dry. */
  readonly usableMin: number;
  /** Those before the rain deadline. */
  readonly dryMin: number;
}

/** A project with the weather taken in. */
export interface ExpectedProject {
  readonly id: string;
  readonly expectedMin: number;
  /** In minutes at the place's moonless zenith, haze taken in. */
  readonly expectedWorthMin: number;
}

/** A night weighed: the stretch worth being out for, if there is one, and what it may bring. */
export interface WeighedNight {
  readonly hours: readonly WeighedHour[];
  readonly window: { readonly startMs: UtcMs; readonly endMs: UtcMs } | null;
  readonly odds: NightOdds;
  readonly expectedWorthMin: number;
  readonly projects: readonly ExpectedProject[];
  /** Everything under a roof by then; null = no rain in sight. */
  readonly rainDeadlineMs: UtcMs | null;
  /** Rain before the stretch that counts: everything stays covered until then; null = none. */
  readonly rainUntilMs: UtcMs | null;
  readonly passes: boolean;
}

const WORTH_BEING_OUT = 0.35; // odds below which an hour outside is not worth it; a proposal of this project
const OF_BEST = 0.7; // and never more than that of the night's best hour: a poor night is poor all through
/** What haze and cirrus must leave of a minute for it to count whole: broad bands, and lines, which bear more. A proposal of this project. */
const WHOLE_QUALITY = { broad: 0.7, lines: 0.35 } as const;

/** The full hours that a night's steps touch. */
export function hoursOf(steps: NightSteps): UtcMs[] {
  if (steps.count === 0) return [];
  const first = Math.floor(steps.startMs / HOUR_MS);
  const last = Math.floor((steps.startMs + steps.count * steps.stepMin * MINUTE_MS - 1) / HOUR_MS);
  return Array.from({ length: last - first + 1 }, (_, i) => utcMs((first + i) * HOUR_MS));
}

/** Wind speed at 10 m as felt at the mount, km/h. */
export const feltKmh = (metrePerSec: number, windShare: number = USUAL_WIND_SHARE): number =>
  metrePerSec * 3.6 * windShare;

/** A stretch of time for a target: between two instants of its walk; null = the whole night. */
interface Stretch {
  readonly walk: Walk;
  readonly startMs?: UtcMs;
  readonly endMs?: UtcMs;
  /** Stretches of one rig never add up. */
  readonly rig: string;
}

/** Worth of a step to the stretches that it belongs to: the best for each rig, rigs together. */
function worthAt(stretches: readonly Stretch[], i: number, ms: number): number {
  const byRig = new Map<string, number>();
  for (const { walk, startMs, endMs, rig } of stretches) {
    if (walk.cause[i] !== 0 || ms < (startMs ?? 0) || ms >= (endMs ?? Number.MAX_SAFE_INTEGER)) continue;
    byRig.set(rig, Math.max(byRig.get(rig) ?? 0, walk.worth[i]!));
  }
  return [...byRig.values()].reduce((a, b) => a + b, 0);
}

const stretchesOf = (choice: TonightChoice): Stretch[] =>
  choice.kind === "go" ? choice.blocks.map((b) => ({ ...b, rig: b.rigIds.join() })) : [];

/** Usable minutes by hour, and their worth. */
function byHour(
  steps: NightSteps,
  hours: readonly WeatherHour[],
  stretches: readonly Stretch[],
  { fromMs, toMs }: { readonly fromMs: UtcMs; readonly toMs: UtcMs | null },
) {
  const usable = new Float64Array(hours.length);
  const worth = new Float64Array(hours.length);
  const first = hours[0]?.atMs ?? 0;
  for (let i = 0; i < steps.count; i++) {
    const ms = steps.startMs + (i + 0.5) * steps.stepMin * MINUTE_MS;
    if (ms < fromMs || (toMs !== null && ms > toMs)) continue;
    const hour = Math.floor((ms - first) / HOUR_MS);
    const best = worthAt(stretches, i, ms);
    if (best <= 0 || hour < 0 || hour >= hours.length) continue;
    usable[hour]! += steps.stepMin;
    worth[hour]! += steps.stepMin * best;
  }
  return { usable, worth };
}

/** The run of hours with the largest Σ (odds − 0.35) · minutes: where being out pays; a poor night is judged by its own best hour. */
function bestRun(hours: readonly WeighedHour[]): { from: number; to: number } | null {
  const top = Math.max(0, ...hours.map((h) => (h.dryMin > 0 ? h.goOdds : 0)));
  const least = Math.min(WORTH_BEING_OUT, OF_BEST * top);
  let best = { from: 0, to: -1, gain: 0 };
  let [from, gain] = [0, 0];
  hours.forEach((h, i) => {
    if (gain <= 0) [from, gain] = [i, 0];
    gain += (h.goOdds - least) * h.dryMin;
    if (gain > best.gain) best = { from, to: i, gain };
  });
  while (best.to >= best.from && hours[best.from]!.dryMin === 0) best.from++;
  return best.to >= best.from ? best : null;
}

/**
 * Weighs a night by one sum over the best hours between rains: expected usable time Σ odds · minutes · what haze and cirrus let count,
 * the odds of at least the wish with neighbouring hours going together, and whether both pass (expected ≥ wish + set-up, odds of the
 * wish ≥ ½). The window is the stretch of them worth being out for. Lead times up to about three days. The wish is a setting; the rule
 * is common practice, its limits a proposal of this project.
 */
export function weighNight(at: {
  readonly steps: NightSteps;
  readonly choice: TonightChoice;
  readonly projects: readonly TonightProject[];
  readonly weather: readonly WeatherHour[];
  readonly rules: GoingRules;
}): WeighedNight {
  const { steps, choice, weather, rules } = at;
  const chosen = stretchesOf(choice);
  const lines = choice.kind === "go" && choice.blocks.every((b) => isNarrow(b.channel));
  const { usable } = byHour(steps, weather, chosen, { fromMs: rules.fromMs, toMs: null });
  const judged = weather.map((h) => ({ ...h, ...goOdds(h, rules, lines) }));
  const dry = bestDryRun(weather, rules.fromMs, (i) => judged[i]!.goOdds * usable[i]! * judged[i]!.counts);
  const counted = { fromMs: utcMs(Math.max(rules.fromMs, dry?.untilMs ?? 0)), toMs: dry?.deadlineMs ?? null };
  const { usable: dryMin, worth } = byHour(steps, weather, chosen, counted);
  const isDry = (i: number) => dry !== null && i >= dry.from && i <= dry.to;
  const hours = judged.map((h, i): WeighedHour => ({ ...h, usableMin: usable[i]!, dryMin: isDry(i) ? dryMin[i]! : 0 }));
  const odds = playNight(
    hours.map((h) => ({ odds: h.goOdds, minutes: h.dryMin * h.counts })),
    rules.wishMin,
  );
  const expectedWorthMin = hours.reduce((sum, h, i) => sum + (isDry(i) ? h.goOdds * worth[i]! * h.quality : 0), 0);
  const run = bestRun(hours);
  return {
    hours,
    window: run ? windowOf(hours.slice(run.from, run.to + 1), steps, chosen, counted) : null,
    odds,
    expectedWorthMin,
    projects: at.projects.map((p) => {
      const mine = byHour(steps, weather, [{ walk: p.walk, rig: "" }], counted);
      const sum = (of: (i: number) => number) =>
        hours.reduce((total, h, i) => total + (isDry(i) ? h.goOdds * of(i) : 0), 0);
      return {
        id: p.id,
        expectedMin: sum((i) => mine.usable[i]!),
        expectedWorthMin: sum((i) => mine.worth[i]! * hours[i]!.quality),
      };
    }),
    rainDeadlineMs: dry ? dry.deadlineMs : rainDeadline(weather, rules.fromMs),
    rainUntilMs: dry?.untilMs ?? null,
    passes: run !== null && odds.expectedMin >= rules.wishMin + rules.setUpMin && odds.atLeastWish >= 0.5,
  };
}

/** An hour of weather as going out sees it. */
function goOdds(
  h: WeatherHour,
  rules: Pick<GoingRules, "gustLimitKmh" | "windShare">,
  lines: boolean,
): Pick<WeighedHour, "feltGustKmh" | "goOdds" | "fogOdds" | "quality" | "counts"> {
  const feltGustKmh = h.gustMs === null ? null : feltKmh(h.gustMs, rules.windShare);
  const isOver = isWet(h) || (feltGustKmh !== null && feltGustKmh > Math.min(rules.gustLimitKmh, SECURE_GUST_KMH));
  // Whoever has just looked up knows whether there is fog.
  const fog = h.basis === "lookedUp" ? 0 : fogOdds(h.airC, h.dewC, h.windMs);
  const quality = skyQuality(h.hazeMag, h.highCloud);
  const counts = Math.min(1, quality / (lines ? WHOLE_QUALITY.lines : WHOLE_QUALITY.broad));
  return { feltGustKmh, goOdds: isOver ? 0 : h.odds * (1 - fog), fogOdds: fog, quality, counts };
}

/**
 * The stretch of a night worth being out for by its forecasts, whatever is shot: what is planned lies within it. Null where nobody
 * has said anything about the night, or no hour is worth it: then the plan is for the case that it clears.
 */
export function outWindow(
  weather: readonly WeatherHour[],
  rules: Pick<GoingRules, "gustLimitKmh" | "windShare">,
): UtcInterval | null {
  if (weather.every((h) => h.basis === "longTerm")) return null;
  const judged = weather.map((h) => ({ ...h, ...goOdds(h, rules, true), usableMin: 60 }));
  const dry = bestDryRun(weather, utcMs(0), (i) => judged[i]!.goOdds);
  const hours = judged.map((h, i) => ({ ...h, dryMin: dry && i >= dry.from && i <= dry.to ? 60 : 0 }));
  const run = bestRun(hours);
  if (!run) return null;
  const endMs = hours[run.to]!.atMs + HOUR_MS;
  return { startMs: hours[run.from]!.atMs, endMs: utcMs(Math.min(endMs, dry?.deadlineMs ?? endMs)) };
}

/** Start and stop to the step: the usable part of the run, within now and the rain. */
function windowOf(
  run: readonly WeighedHour[],
  steps: NightSteps,
  chosen: readonly Stretch[],
  counted: { readonly fromMs: UtcMs; readonly toMs: UtcMs | null },
): { startMs: UtcMs; endMs: UtcMs } {
  const [fromMs, toMs] = [Math.max(run[0]!.atMs, counted.fromMs), run.at(-1)!.atMs + HOUR_MS];
  const edges: number[] = [];
  for (let i = 0; i < steps.count; i++) {
    const startMs = steps.startMs + i * steps.stepMin * MINUTE_MS;
    const isInside = startMs + (steps.stepMin * MINUTE_MS) / 2 >= fromMs && startMs < toMs;
    if (isInside && worthAt(chosen, i, startMs + (steps.stepMin * MINUTE_MS) / 2) > 0) edges.push(startMs);
  }
  const start = edges[0] ?? fromMs;
  const end = (edges.at(-1) ?? fromMs) + steps.stepMin * MINUTE_MS;
  return { startMs: utcMs(start), endMs: utcMs(Math.min(end, counted.toMs ?? end)) };
}
