import { lightOf, surfaceBrightness, type CatalogEntry } from "~/core/catalog";
import { firstHours, type Channel, type Rig } from "~/core/exposure";
import { opticsOf, panelsFor } from "~/core/framing";
import { apparentVector, type NightSky } from "~/core/sky";
import type { NightDate } from "~/core/time";
import { clamp } from "~/core/units";
import { channelSky, type ChannelSky } from "./channel-sky";
import type { Place } from "./place";
import { comingSeason, seasonTable, seasonWeeks, type ComingSeason, type SeasonTable } from "./season-table";
import type { NightSteps } from "./steps";
import { CAUSES, walkTarget, type Cause } from "./walk";

/** A target of the catalogue on one night from one place with one rig. */
export interface RankedTarget {
  /** Row in the catalogue. */
  readonly row: number;
  readonly usableMin: number;
  readonly worthMin: number;
  readonly channel: Channel;
  /** Largest loss in darkness; "none" when nothing is lost. */
  readonly mainLoss: Cause;
  readonly mainLossMin: number;
  /** Airless altitude at upper culmination. */
  readonly topAltitudeDeg: number;
  /** Major axis over the frame's short side; null without a size. */
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

/** What a ranking is made for. */
export interface RankOptions {
  readonly place: Place;
  readonly sky: NightSky;
  readonly steps: NightSteps;
  readonly date: NightDate;
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
/** A season that ends within this many weeks is worth a hurry; a proposal of this project. */
export const CLOSING_WEEKS = 6;

/** The channel that suits an object best among those a rig has: lines for what shines in lines, the widest else. */
export function channelFor(entry: CatalogEntry, channels: readonly Channel[]): Channel {
  const light = lightOf(entry);
  const wish: readonly Channel[] =
    light === "continuum"
      ? ["L", "Colour"]
      : light === "OIII"
        ? ["OIII", "Dual", "Colour"]
        : light === "mixed"
          ? ["OIII", "Ha", "Dual", "Colour"]
          : ["Ha", "Dual", "Colour"];
  return wish.find((c) => channels.includes(c)) ?? channels[0] ?? "L";
}

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
  const { place, sky, steps, date, channels } = options;
  const { focalRatio, planeWidthArcmin, planeHeightArcmin } = opticsOf(options.rig);
  const frame = { width: planeWidthArcmin, height: planeHeightArcmin };
  const frameShortArcmin = Math.min(frame.width, frame.height);
  const ofChannel = new Map<Channel, { readonly sky: ChannelSky; readonly seasons: SeasonTable }>();
  const weeks = seasonWeeks(place, date);
  const tablesOf = (channel: Channel) => {
    let known = ofChannel.get(channel);
    if (!known) {
      const now = channelSky(place, steps, channel);
      ofChannel.set(channel, (known = { sky: now, seasons: seasonTable(place, now, weeks) }));
    }
    return known;
  };
  const buffer = { cause: new Uint8Array(steps.count), worth: new Float32Array(steps.count) };
  const lost = new Int32Array(CAUSES.length);
  return (entry, row, isWanted) => {
    const channel = channelFor(entry, channels);
    const tables = tablesOf(channel);
    const vector = apparentVector(sky, entry.at);
    const walk = walkTarget(steps, tables.sky, vector, buffer);
    lost.fill(0);
    let worth = 0;
    for (let i = 0; i < steps.count; i++) {
      lost[walk.cause[i]!]!++;
      worth += walk.worth[i]!;
    }
    const usableMin = lost[0]! * steps.stepMin;
    const worthMin = worth * steps.stepMin;
    if (usableMin === 0 && !isWanted) return null;
    let main = 0;
    for (let c = 2; c < lost.length; c++) if (lost[c]! > 0 && (main === 0 || lost[c]! > lost[main]!)) main = c;
    const fill = entry.majorArcmin === null ? null : entry.majorArcmin / frameShortArcmin;
    const major = entry.majorArcmin ?? 0;
    const { columns, rows } = panelsFor({ major, minor: entry.minorArcmin ?? major }, frame);
    const season = comingSeason(tables.seasons, entry.at);
    const first = firstHours(entry, { focalRatio, channels, skyMagPerArcsec2: place.skyMagPerArcsec2 });
    const needHours = columns * rows * first.reduce((sum, c) => sum + c.hours, 0);
    const aNight = season.worthHoursANight * EXPOSED_SHARE;
    const needNights = aNight > 0 ? Math.ceil(needHours / aNight) : null;
    const surface = surfaceBrightness(entry);
    return {
      row,
      usableMin,
      worthMin,
      channel,
      mainLoss: CAUSES[main]!,
      mainLossMin: main === 0 ? 0 : lost[main]! * steps.stepMin,
      topAltitudeDeg: 90 - Math.abs(place.latitudeDeg - entry.at.decDeg),
      fill,
      panels: columns * rows,
      belowSkyMag: surface === null ? null : surface - place.skyMagPerArcsec2,
      season,
      needHours,
      needNights,
      score: (entry.rank + 5) * framingFit(fill) * Math.sqrt(worthMin / 60) * chanceToFinish(season, needNights),
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
  const { place } = options;
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
