import type { NightSteps, Walk } from "~/core/night";
import {
  SECURE_GUST_KMH,
  USUAL_WIND_SHARE,
  hazeWorth,
  playNight,
  type NightOdds,
  type WeatherHour,
} from "~/core/weather";
import { HOUR_MS, MINUTE_MS, addMs, utcMs, type UtcInterval, type UtcMs } from "~/core/time";
import type { TonightChoice, TonightProject } from "./tonight";

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
}

/** One hour of a night as going out sees it. */
export interface WeighedHour extends WeatherHour {
  /** Odds with wind and rain taken in: hours over the gust limit or past the rain deadline have none. */
  readonly goOdds: number;
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
  readonly passes: boolean;
}

const WORTH_BEING_OUT = 0.35; // odds below which an hour outside is not worth it; a proposal of this project
const RAIN_CHANCE = 0.3; // of any source: from here on gear is at risk; a proposal of this project
const RAIN_MARGIN_MS = 30 * MINUTE_MS;

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

/** When everything has to be under a roof: half an hour before the first hour from `fromMs` on in which rain is likely enough; null = no rain in sight. */
export function rainDeadline(weather: readonly WeatherHour[], fromMs: UtcMs): UtcMs | null {
  const rainAt = weather.find((h) => h.atMs + HOUR_MS > fromMs && (h.rainChance ?? 0) >= RAIN_CHANCE)?.atMs;
  return rainAt === undefined ? null : addMs(rainAt, -RAIN_MARGIN_MS);
}

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

/** The run of hours with the largest Σ (odds − 0.35) · minutes: where being out pays; all of them beyond the forecasts. */
function bestRun(hours: readonly WeighedHour[]): { from: number; to: number } | null {
  // With nothing but the place's chance the whole night stands or falls together.
  const isPlain = hours.every((h) => h.basis === "longTerm");
  let best = { from: 0, to: -1, gain: 0 };
  let [from, gain] = [0, 0];
  hours.forEach((h, i) => {
    if (gain <= 0) [from, gain] = [i, 0];
    gain += (h.goOdds - (isPlain ? 0 : WORTH_BEING_OUT)) * h.dryMin;
    if (gain > best.gain) best = { from, to: i, gain };
  });
  while (best.to >= best.from && hours[best.from]!.dryMin === 0) best.from++;
  return best.to >= best.from ? best : null;
}

/**
 * Weighs a night: expected usable time Σ odds · minutes over the best run of hours, the odds of at least the wish with
 * neighbouring hours going together, and whether both pass (expected ≥ wish + set-up, odds of the wish ≥ ½). Lead times up
 * to about three days. The wish is a setting; the rule is common practice, its limits a proposal of this project.
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
  const rainDeadlineMs = rainDeadline(weather, rules.fromMs);
  const counted = { fromMs: rules.fromMs, toMs: rainDeadlineMs };
  const { usable } = byHour(steps, weather, chosen, { fromMs: rules.fromMs, toMs: null });
  const { usable: dry, worth } = byHour(steps, weather, chosen, counted);
  const hours = weather.map((h, i): WeighedHour => ({
    ...h,
    ...goOdds(h, rules, rainDeadlineMs),
    usableMin: usable[i]!,
    dryMin: dry[i]!,
  }));
  const run = bestRun(hours);
  const inRun = run ? hours.slice(run.from, run.to + 1) : [];
  const odds = playNight(
    inRun.map((h) => ({ odds: h.goOdds, minutes: h.dryMin })),
    rules.wishMin,
  );
  const expectedWorthMin = run
    ? inRun.reduce((sum, h, i) => sum + h.goOdds * worth[run.from + i]! * hazeWorth(h.hazeMag ?? 0), 0)
    : 0;
  return {
    hours,
    window: run ? windowOf(inRun, steps, chosen, rules, rainDeadlineMs) : null,
    odds,
    expectedWorthMin,
    projects: at.projects.map((p) => {
      const mine = byHour(steps, weather, [{ walk: p.walk, rig: "" }], counted);
      const sum = (of: (i: number) => number) => hours.reduce((total, h, i) => total + h.goOdds * of(i), 0);
      return {
        id: p.id,
        expectedMin: sum((i) => mine.usable[i]!),
        expectedWorthMin: sum((i) => mine.worth[i]! * hazeWorth(hours[i]!.hazeMag ?? 0)),
      };
    }),
    rainDeadlineMs,
    passes: run !== null && odds.expectedMin >= rules.wishMin + rules.setUpMin && odds.atLeastWish >= 0.5,
  };
}

/** An hour of weather as going out sees it: odds of nothing past the rain deadline or over the gust limit. */
function goOdds(
  h: WeatherHour,
  rules: Pick<GoingRules, "gustLimitKmh" | "windShare">,
  rainDeadlineMs: UtcMs | null,
): { readonly feltGustKmh: number | null; readonly goOdds: number } {
  const feltGustKmh = h.gustMs === null ? null : feltKmh(h.gustMs, rules.windShare);
  const isOver =
    (rainDeadlineMs !== null && h.atMs >= rainDeadlineMs) ||
    (feltGustKmh !== null && feltGustKmh > Math.min(rules.gustLimitKmh, SECURE_GUST_KMH));
  return { feltGustKmh, goOdds: isOver ? 0 : h.odds };
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
  const rainDeadlineMs = rainDeadline(weather, utcMs(0));
  const hours = weather.map((h) => ({ ...h, ...goOdds(h, rules, rainDeadlineMs), usableMin: 60, dryMin: 60 }));
  const run = bestRun(hours);
  if (!run) return null;
  const endMs = hours[run.to]!.atMs + HOUR_MS;
  return { startMs: hours[run.from]!.atMs, endMs: utcMs(Math.min(endMs, rainDeadlineMs ?? endMs)) };
}

/** Start and stop to the step: the usable part of the run, within now and the rain deadline. */
function windowOf(
  run: readonly WeighedHour[],
  steps: NightSteps,
  chosen: readonly Stretch[],
  rules: GoingRules,
  rainDeadlineMs: UtcMs | null,
): { startMs: UtcMs; endMs: UtcMs } {
  const [fromMs, toMs] = [Math.max(run[0]!.atMs, rules.fromMs), run.at(-1)!.atMs + HOUR_MS];
  const edges: number[] = [];
  for (let i = 0; i < steps.count; i++) {
    const startMs = steps.startMs + i * steps.stepMin * MINUTE_MS;
    const isInside = startMs + (steps.stepMin * MINUTE_MS) / 2 >= fromMs && startMs < toMs;
    if (isInside && worthAt(chosen, i, startMs + (steps.stepMin * MINUTE_MS) / 2) > 0) edges.push(startMs);
  }
  const start = edges[0] ?? fromMs;
  const end = (edges.at(-1) ?? fromMs) + steps.stepMin * MINUTE_MS;
  return { startMs: utcMs(start), endMs: utcMs(Math.min(end, rainDeadlineMs ?? end)) };
}
