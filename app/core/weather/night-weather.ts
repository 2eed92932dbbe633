import { median } from "~/core/numeric";
import { HOUR_MS, type UtcMs } from "~/core/time";
import { clearOdds, type ForecastHour, type Outcome } from "./forecast";
import { brierScore, poolOdds, type Scored, type TrackRecord } from "./scores";

/** One source's word for a night, with its record at this place. */
export interface SourceNight {
  readonly id: string;
  readonly name: string;
  readonly hours: readonly ForecastHour[];
  readonly record: TrackRecord;
  /** What a person typed or brought: for the hours it names it stands instead of all others. */
  readonly isOwn?: boolean;
}

/** All that is known of one hour of a night. */
export interface WeatherHour {
  readonly atMs: UtcMs;
  /** Odds by source, in the order given; null where a source is silent. */
  readonly bySource: readonly (number | null)[];
  /** Odds that the hour is usable: one's own forecast where there is one, else pooled; the place's long-term chance where every source is silent. */
  readonly odds: number;
  /** How much the sources disagree; null with fewer than two. */
  readonly spread: number | null;
  readonly basis: "forecast" | "own" | "longTerm" | "lookedUp";
  /** Medians over the sources; null where none speaks. */
  readonly airC: number | null;
  readonly dewC: number | null;
  readonly humidity: number | null;
  readonly windMs: number | null;
  readonly seeingArcsec: number | null;
  readonly hazeMag: number | null;
  /** Cover by high cloud, [0, 1]. */
  readonly highCloud: number | null;
  /** Mean chance of rain of the sources that speak of it, and the highest that any says. */
  readonly rainOdds: number | null;
  readonly rainChance: number | null;
  /** The highest any source says: what spoils gear is taken from the side of caution. */
  readonly gustMs: number | null;
}

const LOOK_HOLDS_MS = 2.5 * HOUR_MS; // e-folding time of what one sees; a proposal of this project
const [SEEN_CLEAR, SEEN_CLOUDY] = [0.96, 0.04];

function middle(values: readonly (number | null)[]): number | null {
  const known = values.filter((v): v is number => v !== null);
  return known.length === 0 ? null : median(known);
}

function highest(values: readonly (number | null)[]): number | null {
  const known = values.filter((v): v is number => v !== null);
  return known.length === 0 ? null : Math.max(...known);
}

function mean(values: readonly (number | null)[]): number | null {
  const known = values.filter((v): v is number => v !== null);
  return known.length === 0 ? null : known.reduce((a, b) => a + b, 0) / known.length;
}

/** How much of what somebody saw still holds in an hour, [0, 1]. */
const holdOf = (look: Outcome, hourMs: number): number =>
  Math.exp(-Math.max(0, hourMs + HOUR_MS / 2 - look.atMs) / LOOK_HOLDS_MS);

/** Odds of an hour once somebody has looked up: what they saw, falling back to the forecast with an e-folding time of 2.5 h. */
export function oddsSeen(odds: number, look: Outcome, hourMs: number): number {
  const hold = holdOf(look, hourMs);
  return (look.isClear ? SEEN_CLEAR : SEEN_CLOUDY) * hold + odds * (1 - hold);
}

/**
 * Puts the words of several sources together hour by hour. Odds are pooled linearly with weights from each one's record here;
 * a person's own forecast is no vote among others but replaces the pool for its hours.
 * What somebody saw outweighs every forecast: odds start at 96 or 4 % and fall back to the forecast with an e-folding time
 * of 2.5 h, and say nothing of hours before the look.
 */
export function nightWeather(at: {
  readonly hours: readonly UtcMs[];
  readonly sources: readonly SourceNight[];
  readonly climatology: number;
  readonly looks: readonly Outcome[];
}): WeatherHour[] {
  const climatologyBrier = at.climatology * (1 - at.climatology);
  const bySource = at.sources.map((s) => new Map(s.hours.map((h) => [h.atMs as number, h])));
  return at.hours.map((atMs) => {
    const said = bySource.map((m) => m.get(atMs) ?? null);
    const odds = said.map((h) => (h ? clearOdds(h) : null));
    const speaking = odds.flatMap((p, i) => (p === null ? [] : [{ odds: p, record: at.sources[i]!.record }]));
    const own = at.sources.flatMap((s, i) => (s.isOwn && odds[i] != null ? [{ odds: odds[i], record: s.record }] : []));
    const heard = own.length > 0 ? own : speaking;
    const pooled = heard.length > 0 ? poolOdds(heard, climatologyBrier) : null;
    const base = pooled?.linear ?? at.climatology;
    const look = at.looks.filter((l) => l.atMs < atMs + HOUR_MS).sort((a, b) => b.atMs - a.atMs)[0];
    const hold = look ? holdOf(look, atMs) : 0;
    const of = (key: keyof Omit<ForecastHour, "atMs" | "issuedMs">) => said.map((h) => h?.[key] ?? null);
    return {
      atMs,
      bySource: odds,
      odds: look ? oddsSeen(base, look, atMs) : base,
      spread: pooled && heard.length > 1 ? pooled.spread : null,
      basis: hold > 0.5 ? "lookedUp" : own.length > 0 ? "own" : pooled ? "forecast" : "longTerm",
      airC: middle(of("airC")),
      dewC: middle(of("dewC")),
      humidity: middle(of("humidity")),
      windMs: middle(of("windMs")),
      seeingArcsec: middle(of("seeingArcsec")),
      hazeMag: middle(of("hazeMag")),
      highCloud: middle(of("highCloud")),
      gustMs: highest(of("gustMs")),
      rainOdds: mean(of("rainChance")),
      rainChance: highest(of("rainChance")),
    };
  });
}

/** Pairs of what a source said of an hour and what it was; the last outcome of an hour counts. */
export function scoredHours(hours: readonly ForecastHour[], outcomes: readonly Outcome[]): Scored[] {
  const seen = new Map<number, boolean>();
  for (const o of [...outcomes].sort((a, b) => a.atMs - b.atMs))
    seen.set(Math.floor(o.atMs / HOUR_MS) * HOUR_MS, o.isClear);
  return hours.flatMap((h) => {
    const isClear = seen.get(h.atMs);
    const odds = clearOdds(h);
    return isClear === undefined || odds === null ? [] : [{ odds, outcome: isClear ? 1 : 0 }];
  });
}

/** A source's record from all it said of a place and what was seen there. */
export function trackRecord(hours: readonly ForecastHour[], outcomes: readonly Outcome[]): TrackRecord {
  const scored = scoredHours(hours, outcomes);
  return { hours: scored.length, brier: scored.length > 0 ? brierScore(scored) : Number.NaN };
}
