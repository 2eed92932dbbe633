import { isNarrow } from "~/core/exposure";
import { type NightSteps } from "~/core/night";
import { wetnessOf } from "~/core/weather";
import { HOUR_MS, MINUTE_MS, utcMs, type UtcMs } from "~/core/time";
import type { TonightChoice } from "./tonight";
import type { GoingRules, WeighedHour, WeighedNight } from "./weigh";

/** One thing that decides, worst or weightiest first. */
export type Reason =
  | { readonly code: "lookedUp"; readonly isClear: boolean; readonly atMs: UtcMs }
  | { readonly code: "odds"; readonly odds: number; readonly fromMs: UtcMs; readonly toMs: UtcMs }
  | { readonly code: "longTerm"; readonly odds: number; readonly isAssumed: boolean }
  | { readonly code: "cloudUntil" | "cloudFrom"; readonly atMs: UtcMs }
  | { readonly code: "disagree"; readonly lowest: number; readonly highest: number }
  | { readonly code: "wind"; readonly gustKmh: number; readonly limitKmh: number; readonly fromMs: UtcMs }
  | { readonly code: "rain"; readonly deadlineMs: UtcMs; readonly chance: number }
  /** It rains first: all stays covered until then. */
  | { readonly code: "rainUntil"; readonly untilMs: UtcMs; readonly chance: number }
  /** Some sources have rain that the others do not: what packing up for it would cost. */
  | { readonly code: "rainWatch"; readonly fromMs: UtcMs; readonly chance: number; readonly costMin: number }
  /** What dims the sky, and what it leaves of a minute's worth. */
  | { readonly code: "haze"; readonly mag: number; readonly left: number }
  | { readonly code: "cirrus"; readonly cover: number; readonly left: number; readonly isForLines: boolean }
  | { readonly code: "fog"; readonly fromMs: UtcMs; readonly odds: number }
  | { readonly code: "seeing"; readonly arcsec: number }
  | { readonly code: "wet"; readonly kind: "dew" | "frost"; readonly fromMs: UtcMs }
  /** Why a night does not pass: too little on average, or too unlikely. */
  | {
      readonly code: "tooLittle";
      readonly expectedMin: number;
      readonly wishMin: number;
      readonly setUpMin: number;
    }
  | { readonly code: "tooUnlikely"; readonly odds: number; readonly wishMin: number }
  | { readonly code: "short"; readonly usableMin: number }
  | { readonly code: "long"; readonly usableMin: number }
  | { readonly code: "moon"; readonly share: number; readonly isUp: boolean };

/** What would turn the verdict. */
export type Change =
  | { readonly code: "lastStart"; readonly atMs: UtcMs }
  | { readonly code: "oddsNeeded"; readonly now: number; readonly needed: number }
  | { readonly code: "calmer"; readonly limitKmh: number }
  | { readonly code: "smallerWish"; readonly expectedMin: number };

/** A place one could drive to, weighed with what is left of the night after the drive. */
export interface AwayNight {
  readonly placeId: string;
  readonly name: string;
  /** By whose clock one lives there. */
  readonly timeZone: string;
  readonly travelMin: number;
  /** Hours there in hours of the place at home: darkness of the zenith. */
  readonly lightFactor: number;
  readonly weighed: WeighedNight;
  /** What decides there, weightiest first. */
  readonly reasons: readonly Reason[];
}

/** A stretch worth being out for. */
type Window = NonNullable<WeighedNight["window"]>;

/** Go, go later, stay in, or drive: with what decides it. Whoever goes, has a stretch to go for. */
export type Verdict = {
  readonly weighed: WeighedNight;
  readonly reasons: readonly Reason[];
  readonly change: Change | null;
} & (
  | { readonly kind: "go" | "goLate"; readonly window: Window; readonly away: null }
  | { readonly kind: "stayIn"; readonly away: null }
  /** Elsewhere: where, and the stretch there. */
  | { readonly kind: "borrow"; readonly window: Window; readonly away: AwayNight }
);

/**
 * What a reason weighs against the others, and why; three are told. A proposal of this project, no source: what endangers
 * gear before what spoils subs, what ends the night before what dims it, what is usual last.
 */
const WEIGHTS = {
  windSpoils: 95, // no sub survives gusts over the limit, whatever the sky does
  rain: 90, // gear at risk
  rainUntil: 89, // decides when to go, and keeps gear dry
  skySpoils: 93, // haze or cirrus that leaves too little to go for
  rainWatch: 58, // one source against others
  fog: 78, // no forecast of cloud sees it
  seeing: 54, // chooses among targets
  skyDims: 51, // told, decides little
  fails: 88, // the very rule that keeps one in, unless wind or rain explain it
  short: 85, // the night cannot give what is wanted
  odds: 80, // the forecast itself, and up to 10 more the surer it is
  cloudUntil: 75, // decides when to go
  cloudFrom: 60, // decides when to come back
  disagree: 55, // how far the odds can be trusted
  windNear: 52, // worth a look, spoils a few subs
  longTerm: 50, // nothing better is known
  moonUp: 48, // chooses the channel
  long: 45, // good news, needs no act
  wet: 40, // a heater cures it
  noMoon: 30, // said where nothing else is
} as const;

const LATE_MS = HOUR_MS; // later than this after the first usable minute, one stays at home first
const RAIN_WATCHED = 0.25; // of any source
const FOG_TOLD = 0.2;
const HAZE_TOLD = 0.25; // mag
const CIRRUS_TOLD = 0.4; // of the sky
const SKY_SPOILS = 0.6; // of the minutes that count
const POOR_SEEING_ARCSEC = 4.5; // common practice, no source
const SPREAD_TOLD = 0.15;
const POOR = 0.4;

/** Start of the first hour, from `fromMs` on, that `is`; null without one. */
const firstHour = (hours: readonly WeighedHour[], is: (h: WeighedHour) => boolean): WeighedHour | null =>
  hours.find(is) ?? null;

/** What decides a night, weightiest first. */
export function reasonsOf(
  weighed: WeighedNight,
  at: { readonly steps: NightSteps; readonly choice: TonightChoice; readonly rules: GoingRules },
): Reason[] {
  const { rules } = at;
  const useful = weighed.hours.filter((h) => h.usableMin > 0);
  if (useful.length === 0) return [];
  const { window, rainUntilMs, rainDeadlineMs } = weighed;
  const out = window ? useful.filter((h) => h.atMs + HOUR_MS > window.startMs && h.atMs < window.endMs) : useful;
  const mean = (of: (h: WeighedHour) => number) =>
    out.reduce((sum, h) => sum + of(h) * h.usableMin, 0) / out.reduce((sum, h) => sum + h.usableMin, 0);
  const found: { readonly weight: number; readonly reason: Reason }[] = [];
  const tell = (weight: number, reason: Reason) => found.push({ weight, reason });

  for (const reason of whyNot(weighed, rules)) tell(WEIGHTS.fails, reason);
  const odds = mean((h) => h.goOdds);
  const isPlain = out.every((h) => h.basis === "longTerm");
  tell(
    isPlain ? WEIGHTS.longTerm : WEIGHTS.odds + 20 * Math.abs(odds - 0.5),
    isPlain
      ? { code: "longTerm", odds, isAssumed: rules.isChanceAssumed ?? false }
      : { code: "odds", odds, fromMs: out[0]!.atMs, toMs: utcMs(out.at(-1)!.atMs + HOUR_MS) },
  );
  if (window) {
    const before = useful.filter((h) => h.atMs + HOUR_MS <= window.startMs);
    // What comes after the rain decides nothing any more.
    const dryUntil = rainDeadlineMs ?? Number.POSITIVE_INFINITY;
    const after = useful.filter((h) => h.atMs >= window.endMs && h.odds < POOR && h.atMs < dryUntil);
    if (before.length > 0 && rainUntilMs === null && before.every((h) => h.odds < POOR))
      tell(WEIGHTS.cloudUntil, { code: "cloudUntil", atMs: window.startMs });
    if (after.length > 0) tell(WEIGHTS.cloudFrom, { code: "cloudFrom", atMs: after[0]!.atMs });
  }
  const split = out.filter((h) => (h.spread ?? 0) > SPREAD_TOLD);
  if (split.length > out.length / 3) {
    const all = split.flatMap((h) => h.bySource.filter((p): p is number => p !== null));
    tell(WEIGHTS.disagree, { code: "disagree", lowest: Math.min(...all), highest: Math.max(...all) });
  }
  const windy = firstHour(useful, (h) => (h.feltGustKmh ?? 0) > 0.8 * rules.gustLimitKmh);
  if (windy) {
    const gustKmh = Math.max(...useful.map((h) => h.feltGustKmh ?? 0));
    tell(gustKmh > rules.gustLimitKmh ? WEIGHTS.windSpoils : WEIGHTS.windNear, {
      code: "wind",
      gustKmh,
      limitKmh: rules.gustLimitKmh,
      fromMs: windy.atMs,
    });
  }
  for (const [weight, reason] of wetSky(weighed, out)) tell(WEIGHTS[weight], reason);
  for (const [weight, reason] of dimSky(out, at.choice, mean)) tell(WEIGHTS[weight], reason);
  const usableMin = useful.reduce((sum, h) => sum + h.usableMin, 0);
  if (usableMin < rules.wishMin + rules.setUpMin) tell(WEIGHTS.short, { code: "short", usableMin });
  else tell(WEIGHTS.long, { code: "long", usableMin });
  const wet = firstHour(out, (h) => h.airC !== null && h.dewC !== null && wetnessOf(h.airC, h.dewC) !== "dry");
  if (wet)
    tell(WEIGHTS.wet, { code: "wet", kind: wetnessOf(wet.airC!, wet.dewC!) as "dew" | "frost", fromMs: wet.atMs });
  const moonlit = moonShare(at.steps, out);
  tell(moonlit > 0.25 ? WEIGHTS.moonUp : WEIGHTS.noMoon, { code: "moon", share: moonlit, isUp: moonlit > 0.05 });
  return found.sort((a, b) => b.weight - a.weight).map((f) => f.reason);
}

type Told = readonly [keyof typeof WEIGHTS, Reason];

/** What rain and fog mean for a night. */
function wetSky({ hours, rainUntilMs, rainDeadlineMs }: WeighedNight, out: readonly WeighedHour[]): Told[] {
  const told: Told[] = [];
  const most = (some: readonly WeighedHour[]) => Math.max(0, ...some.map((h) => h.rainOdds ?? h.rainChance ?? 0));
  if (rainUntilMs !== null)
    told.push([
      "rainUntil",
      { code: "rainUntil", untilMs: rainUntilMs, chance: most(hours.filter((h) => h.atMs < rainUntilMs)) },
    ]);
  const lastMs = hours.findLast((h) => h.usableMin > 0)?.atMs ?? 0;
  if (rainDeadlineMs !== null && rainDeadlineMs < lastMs + HOUR_MS)
    told.push([
      "rain",
      { code: "rain", deadlineMs: rainDeadlineMs, chance: most(hours.filter((h) => h.atMs >= rainDeadlineMs)) },
    ]);
  const watch = out.find((h) => (h.rainChance ?? 0) >= RAIN_WATCHED && (h.rainChance ?? 0) > (h.rainOdds ?? 0) + 0.01);
  if (watch) {
    const costMin = out.reduce((sum, h) => sum + (h.atMs >= watch.atMs ? h.goOdds * h.dryMin * h.counts : 0), 0);
    told.push(["rainWatch", { code: "rainWatch", fromMs: watch.atMs, chance: watch.rainChance!, costMin }]);
  }
  const foggy = hours.find((h) => h.usableMin > 0 && h.fogOdds > FOG_TOLD);
  if (foggy) told.push(["fog", { code: "fog", fromMs: foggy.atMs, odds: Math.max(...hours.map((h) => h.fogOdds)) }]);
  return told;
}

/** What haze, high cloud and seeing mean for what is to be shot. */
function dimSky(
  out: readonly WeighedHour[],
  choice: TonightChoice,
  mean: (of: (h: WeighedHour) => number) => number,
): Told[] {
  const told: Told[] = [];
  const weight = mean((h) => h.counts) < SKY_SPOILS ? "skySpoils" : "skyDims";
  const mag = mean((h) => h.hazeMag ?? 0);
  if (mag > HAZE_TOLD) told.push([weight, { code: "haze", mag, left: mean((h) => h.quality) }]);
  const cover = mean((h) => h.highCloud ?? 0);
  const isForLines = choice.kind === "go" && choice.blocks.every((b) => isNarrow(b.channel));
  if (cover > CIRRUS_TOLD) told.push([weight, { code: "cirrus", cover, left: mean((h) => h.quality), isForLines }]);
  const seen = out.flatMap((h) => h.seeingArcsec ?? []).sort((a, b) => a - b);
  const arcsec = seen[seen.length >> 1];
  if (arcsec !== undefined && arcsec >= POOR_SEEING_ARCSEC) told.push(["seeing", { code: "seeing", arcsec }]);
  return told;
}

/** Share of the hours with the Moon above the horizon. */
function moonShare(steps: NightSteps, hours: readonly WeighedHour[]): number {
  const [fromMs, toMs] = [hours[0]!.atMs, hours.at(-1)!.atMs + HOUR_MS];
  let [up, all] = [0, 0];
  for (let i = 0; i < steps.count; i++) {
    const ms = steps.startMs + (i + 0.5) * steps.stepMin * MINUTE_MS;
    if (ms < fromMs || ms > toMs) continue;
    all++;
    if (steps.moonAltitudeDeg[i]! > 0) up++;
  }
  return all === 0 ? 0 : up / all;
}

/** When it is too late to begin. */
function lastStart(window: Window, rules: GoingRules): Change | null {
  const atMs = window.endMs - (rules.wishMin + rules.setUpMin) * MINUTE_MS;
  return atMs > window.startMs ? { code: "lastStart", atMs: utcMs(atMs) } : null;
}

/** What of the rule a night fails; nothing where it passes or nothing is usable anyhow. */
function whyNot(weighed: WeighedNight, rules: GoingRules): Reason[] {
  const { odds, passes, hours } = weighed;
  if (passes || hours.every((h) => h.usableMin === 0 || h.basis === "longTerm")) return [];
  if (odds.atLeastWish < 0.5) return [{ code: "tooUnlikely", odds: odds.atLeastWish, wishMin: rules.wishMin }];
  return [{ code: "tooLittle", expectedMin: odds.expectedMin, wishMin: rules.wishMin, setUpMin: rules.setUpMin }];
}

/** What would make one go after all. */
function changeToGo(weighed: WeighedNight, rules: GoingRules): Change | null {
  const useful = weighed.hours.filter((h) => h.usableMin > 0);
  const usableMin = useful.reduce((sum, h) => sum + h.usableMin, 0);
  if (useful.length === 0) return null;
  const gust = Math.max(...useful.map((h) => h.feltGustKmh ?? 0));
  if (gust > rules.gustLimitKmh) return { code: "calmer", limitKmh: rules.gustLimitKmh };
  const now = useful.reduce((sum, h) => sum + h.goOdds * h.usableMin, 0) / usableMin;
  const needed = (rules.wishMin + rules.setUpMin) / usableMin;
  if (needed <= 1 && now < Math.max(0.5, needed)) return { code: "oddsNeeded", now, needed: Math.max(0.5, needed) };
  return { code: "smallerWish", expectedMin: weighed.odds.expectedMin };
}

/**
 * The verdict on a night at home and at the places one could drive to. Driving pays when it is likely enough there, and when
 * every hour on the road, both ways, brings at least one hour's worth more than staying; a proposal of this project.
 */
export function judgeNight(at: {
  readonly steps: NightSteps;
  readonly choice: TonightChoice;
  readonly weighed: WeighedNight;
  readonly rules: GoingRules;
  readonly away: readonly AwayNight[];
  readonly look: { readonly isClear: boolean; readonly atMs: UtcMs } | null;
  /** Places that the plan itself drives to, and which of them it spends this night at: there the plan decides. */
  readonly planned?: { readonly drives: readonly string[]; readonly placeId: string | null };
}): Verdict {
  const { weighed, rules, choice } = at;
  const homeMin = weighed.passes ? weighed.expectedWorthMin : 0;
  const gain = (a: AwayNight) => a.weighed.expectedWorthMin * a.lightFactor - homeMin - 2 * a.travelMin;
  const isPlanned = (a: AwayNight) => a.placeId === at.planned?.placeId;
  const pays = (a: AwayNight) => isPlanned(a) || (!at.planned?.drives.includes(a.placeId) && gain(a) >= 0);
  const away =
    [...at.away]
      .filter((a) => a.weighed.passes && pays(a))
      .sort((a, b) => Number(isPlanned(b)) - Number(isPlanned(a)) || gain(b) - gain(a))[0] ?? null;
  const looked: Reason[] =
    at.look && weighed.hours.some((h) => h.basis === "lookedUp") ? [{ code: "lookedUp", ...at.look }] : [];
  const told = { weighed, reasons: [...looked, ...reasonsOf(weighed, at)].slice(0, 3) };
  const { window } = weighed;
  if (away?.weighed.window)
    return { ...told, kind: "borrow", away, window: away.weighed.window, change: changeToGo(weighed, rules) };
  if (!weighed.passes || choice.kind !== "go" || !window)
    return { ...told, kind: "stayIn", away: null, change: changeToGo(weighed, rules) };
  const isLate = window.startMs - Math.max(choice.startMs, rules.fromMs) > LATE_MS;
  return { ...told, kind: isLate ? "goLate" : "go", window, away: null, change: lastStart(window, rules) };
}
