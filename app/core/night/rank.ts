import { surfaceBrightness, type CatalogEntry } from "~/core/catalog";
import { channelAdvice, firstHours, type Channel, type ChannelAdvice, type Rig } from "~/core/exposure";
import { bestEllipseAngle, opticsOf, panelsFor } from "~/core/framing";
import { apparentVector, directionOf } from "~/core/sky";
import { clamp } from "~/core/units";
import { channelSkyOf, tablesOf, type PlaceNight } from "./place-night";
import { comingSeason, seasonTable, seasonWeeks, type ComingSeason, type SeasonTable } from "./season-table";
import { CAUSES, emptyWalk, sumsOf, walkTarget, type Cause } from "./walk";

/** A target of the catalogue on one night from one place with one rig. */
export interface RankedTarget {
  /** Row in the catalogue. */
  readonly row: number;
  readonly usableMin: number;
  readonly worthMin: number;
  /** What the night would be worth without the Moon. */
  readonly moonlessWorthMin: number;
  /** The channel it is judged in. */
  readonly channel: Channel;
  /** What it shines in and the rig has no filter for. */
  readonly missing: readonly Channel[];
  /** Among them is what it shines in most. */
  readonly isStrongestMissing: boolean;
  /** The rig has nothing at all that shows it. */
  readonly isOutOfReach: boolean;
  /** Largest loss in darkness; "none" when nothing is lost. */
  readonly mainLoss: Cause;
  readonly mainLossMin: number;
  /** Airless altitude at upper culmination. */
  readonly topAltitudeDeg: number;
  /** Share of the frame that it fills at its best angle, as on its page; null without a size. */
  readonly fill: number | null;
  /** Panels that hold it, 1 to 4 a side. */
  readonly panels: number;
  /** Mean surface brightness less the sky's: how many magnitudes fainter than the zenith here; null where it is not known. */
  readonly belowSkyMag: number | null;
  readonly season: ComingSeason;
  /** Hours of all channels and panels to begin with: a rule of thumb. */
  readonly needHours: number;
  /** Clear moonless nights that takes; null when the season gives none. */
  readonly needNights: number | null;
  /** Higher first; no unit. */
  readonly score: number;
}

/** Whether the season ahead gives the clear nights a target needs, on average. */
export const seasonSuffices = (t: RankedTarget): boolean =>
  t.needNights !== null && t.season.clearNights >= t.needNights;

/** What a ranking is made for. */
export interface RankOptions {
  readonly night: PlaceNight;
  readonly rig: Rig;
  /** Channels the rig can record. */
  readonly channels: readonly Channel[];
}

/** A ranking, and what the lowest altitude asked for leaves out. */
export interface Ranking<T> {
  readonly ranked: readonly T[];
  /** Objects that culminate above `LOWEST_DEG` but below the altitude asked for. */
  readonly tooLow: number;
}

/** Nothing lower is worth a night: six times the air overhead. */
export const LOWEST_DEG = 10;
const EXPOSED_SHARE = 0.85; // of a usable hour, after dithers, downloads and focus; common practice, no source
const WITHOUT_FILTER = 0.25; // of the score of an object that the rig cannot show; a proposal of this project
/** A season that ends within this many weeks is worth a hurry; a proposal of this project. */
export const CLOSING_WEEKS = 6;

/** 1 while the object fills a quarter to three quarters of the short side, falling to 0.2 when ten times smaller or twice larger. */
function framingFit(fill: number | null): number {
  if (fill === null) return 0.3;
  if (fill <= 0) return 0.2;
  const ratio = 1 / fill;
  if (ratio >= 1.3 && ratio <= 4) return 1;
  const off = ratio < 1.3 ? Math.log(1.3 / ratio) / Math.log(1.3 / 0.5) : Math.log(ratio / 4) / Math.log(10 / 4);
  return clamp(1 - 0.8 * off, 0.2, 1);
}

/** Half when the season gives a quarter of the clear nights needed or less, 1 when it gives them all; a little more when it then closes soon. */
function chanceToFinish(season: ComingSeason, needNights: number | null): number {
  if (needNights === null) return 0.5;
  const enough = season.clearNights / Math.max(1, needNights);
  const isClosing = season.left.kind === "open" && season.left.weeksLeft <= CLOSING_WEEKS;
  return enough >= 1 ? (isClosing ? 1.15 : 1) : Math.max(0.5, Math.sqrt(enough));
}

/** Makes the judge of one object; tables are shared by all objects of a channel. Null for one that has no usable minute, unless it is wanted all the same. */
export function targetJudge(
  options: RankOptions,
): (entry: CatalogEntry, row: number, isWanted: boolean) => RankedTarget | null {
  const { night, channels } = options;
  const { place, sky, steps, date } = night;
  const { focalRatio, planeWidthArcmin, planeHeightArcmin } = opticsOf(options.rig);
  const frame = { width: planeWidthArcmin, height: planeHeightArcmin };
  const sides = { long: Math.max(frame.width, frame.height), short: Math.min(frame.width, frame.height) };
  const seasons = new Map<Channel, SeasonTable>();
  const weeks = seasonWeeks(place, date);
  const seasonsOf = (channel: Channel) => {
    const known = seasons.get(channel) ?? seasonTable(place, tablesOf(place, channel), weeks);
    seasons.set(channel, known);
    return known;
  };
  const kit = { focalRatio, channels, skyMagPerArcsec2: place.skyMagPerArcsec2 };
  const byKind = new Map<CatalogEntry["kind"], ChannelAdvice>();
  /** Of what nobody picked by hand, the kind alone decides. */
  const adviceFor = (entry: CatalogEntry) => {
    if (entry.curated || entry.light) return channelAdvice(entry, channels);
    const known = byKind.get(entry.kind) ?? channelAdvice(entry, channels);
    byKind.set(entry.kind, known);
    return known;
  };
  const buffer = emptyWalk(steps.count);
  const lost = new Int32Array(CAUSES.length);
  return (entry, row, isWanted) => {
    const advice = adviceFor(entry);
    const { lead: channel, use, missing } = advice;
    const vector = apparentVector(sky, entry.at);
    const walk = walkTarget(steps, channelSkyOf(night, channel), vector, buffer);
    lost.fill(0);
    for (let i = 0; i < steps.count; i++) lost[walk.cause[i]!]!++;
    const { usableMin, worthMin, moonlessWorthMin } = sumsOf(steps, walk);
    if (usableMin === 0 && !isWanted) return null;
    let main = 0;
    for (let c = 2; c < lost.length; c++) if (lost[c]! > 0 && (main === 0 || lost[c]! > lost[main]!)) main = c;
    const major = entry.majorArcmin ?? 0;
    const fill = major === 0 ? null : bestEllipseAngle({ major, minor: entry.minorArcmin ?? major }, sides).fill;
    const { columns, rows } = panelsFor({ major, minor: entry.minorArcmin ?? major }, frame);
    const season = comingSeason(seasonsOf(channel), directionOf(vector));
    const first = firstHours(entry, kit, advice);
    const needHours = columns * rows * first.reduce((sum, c) => sum + c.hours, 0);
    const aNight = season.worthHoursANight * EXPOSED_SHARE;
    const needNights = use.length > 0 && aNight > 0 ? Math.ceil(needHours / aNight) : null;
    const surface = surfaceBrightness(entry);
    return {
      row,
      usableMin,
      worthMin,
      moonlessWorthMin,
      channel,
      missing,
      isStrongestMissing: advice.wanted[0] !== undefined && missing.includes(advice.wanted[0]),
      isOutOfReach: use.length === 0,
      mainLoss: CAUSES[main]!,
      mainLossMin: main === 0 ? 0 : lost[main]! * steps.stepMin,
      topAltitudeDeg: 90 - Math.abs(place.latitudeDeg - entry.at.decDeg),
      fill,
      panels: columns * rows,
      belowSkyMag: surface === null ? null : surface - place.skyMagPerArcsec2,
      season,
      needHours,
      needNights,
      score:
        (entry.rank + 5) *
        framingFit(fill) *
        Math.sqrt(worthMin / 60) *
        chanceToFinish(season, needNights) *
        (use.length > 0 ? 1 : WITHOUT_FILTER),
    };
  };
}

const orders = new WeakMap<readonly CatalogEntry[], Int32Array>();

/** Rows by declination: objects that share the season's tables come one after another, and those stay in the processor's cache. */
function byDeclination(entries: readonly CatalogEntry[]): Int32Array {
  let order = orders.get(entries);
  if (order === undefined) {
    order = Int32Array.from(entries.keys()).sort((a, b) => entries[a]!.at.decDeg - entries[b]!.at.decDeg);
    orders.set(entries, order);
  }
  return order;
}

/**
 * Ranks a catalogue: static rank × framing fit × worth of the night × whether the season suffices, a proposal of this
 * project (docs/decisions/0003). Objects that never become usable are left out.
 */
export function rankCatalog(entries: readonly CatalogEntry[], options: RankOptions): Ranking<RankedTarget> {
  const { place } = options.night;
  const judge = targetJudge(options);
  const lowestDec = Math.max(0, Math.min(place.minAltitudeDeg, 90));
  const ranked: RankedTarget[] = [];
  let tooLow = 0;
  for (const row of byDeclination(entries)) {
    const entry = entries[row]!;
    // Upper culmination below the lowest altitude (catalogue declinations are of J2000: precession to date is under 0.2°, the margin 0.5°).
    const topDeg = 90 - Math.abs(place.latitudeDeg - entry.at.decDeg);
    if (topDeg < lowestDec - 0.5) {
      if (topDeg >= LOWEST_DEG) tooLow++;
      continue;
    }
    const target = judge(entry, row, false);
    if (target) ranked.push(target);
  }
  return { ranked: ranked.sort((a, b) => b.score - a.score || a.row - b.row), tooLow };
}
