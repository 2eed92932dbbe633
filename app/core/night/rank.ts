import { surfaceBrightness, type CatalogEntry } from "~/core/catalog";
import {
  besideSky,
  channelAdvice,
  isNarrow,
  lightModel,
  pictureJudge,
  subAdvice,
  USUAL_LIGHT,
  type BesideSky,
  type Channel,
  type ChannelAdvice,
  type Filter,
  type Picture,
  type PictureKit,
  type Rig,
} from "~/core/exposure";
import { bestEllipseAngle, opticsOf, panelsFor } from "~/core/framing";
import { apparentVector, directionOf, type Equatorial } from "~/core/sky";
import { channelSkyOf, tablesOf, type PlaceNight } from "./place-night";
import { comingSeason, seasonTable, seasonWeeks, type ComingSeason, type SeasonTable } from "./season-table";
import { appealOf } from "./appeal";
import { chanceToFinish, contrast, effort, framingFit, timeliness } from "./rank-score";
import { standingFor } from "./standing-for";
import { nightSteps, type NightSteps } from "./steps";
import { targetNight } from "./target-night";
import { CAUSES, emptyWalk, sumsOf, walkTarget, type Cause, type Walk } from "./walk";

/** A target of the catalogue on one night from one place with one rig. */
export interface RankedTarget {
  /** Row in the catalogue. */
  readonly row: number;
  readonly usableMin: number;
  readonly worthMin: number;
  /** What the night would be without the Moon, and worth then. */
  readonly moonlessMin: number;
  readonly moonlessWorthMin: number;
  /** What the Moon leaves of that worth, whether or not its owner would use it. */
  readonly leftWorthMin: number;
  /** The channel it is judged in, and by what its minutes are weighed. */
  readonly channel: Channel;
  readonly own: BesideSky;
  /** What it shines in and the rig has no filter for. */
  readonly missing: readonly Channel[];
  /** Among them is what it shines in most. */
  readonly isStrongestMissing: boolean;
  /** The rig has nothing at all that shows it, or drowns its lines in the sky of a whole band. */
  readonly isOutOfReach: boolean;
  readonly isDrowned: boolean;
  /** Largest loss in darkness; "none" when nothing is lost. */
  readonly mainLoss: Cause;
  readonly mainLossMin: number;
  /** Airless altitude at upper culmination. */
  readonly topAltitudeDeg: number;
  /** Share of the frame that it fills at its best angle, as on its page; null without a size. */
  readonly fill: number | null;
  /** Lead designation of the line that stands for it: the group that it is a member of, the nebula that it is a knot of; null = it stands for itself. */
  readonly within: string | null;
  /** Panels that hold it, 1 to 4 a side. */
  readonly panels: number;
  /** Mean surface brightness less the sky's: how many magnitudes fainter than the zenith here; null where it is not known. */
  readonly belowSkyMag: number | null;
  readonly season: ComingSeason;
  /** Hours of all channels and panels to begin with. */
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
  readonly filters: readonly Filter[];
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
const WITHOUT_FILTER = 0.2; // of the score of an object that the rig cannot show; a proposal of this project
const UNUSED = 0.5; // of the score of one whose whole night the Moon takes, by its owner's own rules; likewise
/** Beyond either, a picture is a project for years or for a crew. MATHS 3.15. */
const MANY_HOURS = 60;
const MANY_NIGHTS = 15;

/** Whether a picture takes years, or a crew. */
export const takesYears = (t: Pick<RankedTarget, "needHours" | "needNights">): boolean =>
  t.needHours > MANY_HOURS || (t.needNights !== null && t.needNights > MANY_NIGHTS);

/** What judges of one place, night and rig share: pictures and seasons, whatever steps the night is cut into. */
interface Bench {
  readonly pictureOf: (entry: CatalogEntry) => Picture;
  readonly seasonsOf: (channel: Channel) => SeasonTable;
}

function benchOf({ night, filters, rig }: RankOptions): Bench {
  const { place, date, moon } = night;
  const { skyMagPerArcsec2, seeingArcsec } = place;
  const kit = { rig, filters, skyMagPerArcsec2, seeingArcsec };
  const judge = pictureJudge(kit);
  const seasons = new Map<Channel, SeasonTable>();
  const weeks = seasonWeeks(place, date);
  const atHand = filters.map((f) => f.channel);
  const byKind = new Map<CatalogEntry["kind"], ChannelAdvice>();
  /** Of what nobody picked by hand, the kind alone decides. */
  const adviceFor = (entry: CatalogEntry) => {
    if (entry.curated || entry.light) return channelAdvice(entry, atHand);
    const known = byKind.get(entry.kind) ?? channelAdvice(entry, atHand);
    byKind.set(entry.kind, known);
    return known;
  };
  return {
    pictureOf: (entry) => judge(entry, adviceFor(entry)),
    seasonsOf: (channel) => {
      const known =
        seasons.get(channel) ??
        seasonTable(place, tablesOf(place, channel), weeks, { moon, own: usualOwn(kit, channel) });
      seasons.set(channel, known);
      return known;
    },
  };
}

/** Makes the judge of one object; tables are shared by all objects of a channel. Null for one that has no minute even without the Moon, unless it is wanted all the same. */
export function targetJudge(
  options: RankOptions,
  bench: Bench = benchOf(options),
): (entry: CatalogEntry, row: number, isWanted: boolean) => RankedTarget | null {
  const { night, rig } = options;
  const { place, sky, steps } = night;
  const optics = opticsOf(rig);
  const frame = { width: optics.planeWidthArcmin, height: optics.planeHeightArcmin };
  const sides = { long: Math.max(frame.width, frame.height), short: Math.min(frame.width, frame.height) };
  const { skyMagPerArcsec2, seeingArcsec } = place;
  const widthArcsec = Math.hypot(seeingArcsec, optics.diffractionArcsec);
  const buffer = emptyWalk(steps.count);
  return (entry, row, isWanted) => {
    const picture = bench.pictureOf(entry);
    const { lead: channel, use, missing, wanted } = picture.advice;
    const { own } = picture.jobs[0]!;
    const vector = apparentVector(sky, entry.at);
    const walk = walkTarget(steps, channelSkyOf(night, channel), vector, buffer, own);
    const { usableMin, worthMin, moonlessMin, moonlessWorthMin, leftWorthMin } = sumsOf(steps, walk);
    if (moonlessMin === 0 && !isWanted) return null;
    const { mainLoss, mainLossMin } = mainLossOf(walk, steps);
    const major = entry.majorArcmin ?? 0;
    const fill = major === 0 ? null : bestEllipseAngle({ major, minor: entry.minorArcmin ?? major }, sides).fill;
    const { columns, rows } = panelsFor({ major, minor: entry.minorArcmin ?? major }, frame);
    const season = comingSeason(bench.seasonsOf(channel), directionOf(vector));
    const needHours = columns * rows * picture.hours;
    const aNight = season.worthHoursANight * EXPOSED_SHARE;
    const needNights = use.length > 0 && aNight > 0 ? Math.ceil(needHours / aNight) : null;
    const surface = surfaceBrightness(entry);
    const faint = picture.light.magPerArcsec2;
    const isOutOfReach = use.length === 0 || picture.isDrowned;
    return {
      row,
      usableMin,
      worthMin,
      moonlessMin,
      moonlessWorthMin,
      leftWorthMin,
      channel,
      own,
      missing,
      isStrongestMissing: wanted[0] !== undefined && missing.includes(wanted[0]),
      isOutOfReach,
      isDrowned: picture.isDrowned,
      mainLoss,
      mainLossMin,
      topAltitudeDeg: 90 - Math.abs(place.latitudeDeg - entry.at.decDeg),
      fill,
      within: null,
      panels: columns * rows,
      belowSkyMag: surface === null ? null : surface - skyMagPerArcsec2,
      season,
      needHours,
      needNights,
      score:
        appealOf(entry) *
        framingFit(fill, (major * 60) / optics.pixelScaleArcsecPerPx, (major * 60) / widthArcsec) *
        timeliness(leftWorthMin, moonlessWorthMin, season) *
        chanceToFinish(season, needNights) *
        effort(needHours) *
        (faint === null || isNarrow(channel) ? 1 : contrast(faint, skyMagPerArcsec2)) *
        (takesYears({ needHours, needNights }) ? 0.5 : 1) *
        (usableMin === 0 ? UNUSED : 1) *
        (isOutOfReach ? WITHOUT_FILTER : 1),
    };
  };
}

const lost = new Int32Array(CAUSES.length);

/** What takes most of the dark part of a night from a target. */
function mainLossOf(walk: Walk, steps: NightSteps): Pick<RankedTarget, "mainLoss" | "mainLossMin"> {
  lost.fill(0);
  for (let i = 0; i < steps.count; i++) lost[walk.cause[i]!]!++;
  let main = 0;
  for (let c = 2; c < lost.length; c++) if (lost[c]! > 0 && (main === 0 || lost[c]! > lost[main]!)) main = c;
  return { mainLoss: CAUSES[main]!, mainLossMin: main === 0 ? 0 : lost[main]! * steps.stepMin };
}

/** By what the weeks of a channel are weighed where no object is meant: a usual faint one. */
function usualOwn(kit: PictureKit, channel: Channel): BesideSky | undefined {
  const filter = kit.filters.find((f) => f.channel === channel);
  if (!filter) return undefined;
  const { subSec } = subAdvice({ ...kit, filter, protectedMag: null });
  return besideSky(lightModel({ ...kit, filter }, subSec), USUAL_LIGHT);
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

/** Lines that are judged in the night's own steps; those after them every half hour. */
const EXACT_LINES = 400;
const COARSE_MIN = 30;

/**
 * Ranks a catalogue: static rank × framing fit × what the night and the time of the year give × whether the season suffices, a
 * proposal of this project (docs/decisions/0003). Objects that no minute is left of even without the Moon are left out. All are judged
 * every half hour, the first `EXACT_LINES` again in the steps of every other screen; whoever shows a line after those asks
 * `exactLine`.
 */
export function rankCatalog(entries: readonly CatalogEntry[], options: RankOptions): Ranking<RankedTarget> {
  const { place, sky } = options.night;
  const bench = benchOf(options);
  const judge = targetJudge({ ...options, night: { ...options.night, steps: nightSteps(sky, COARSE_MIN) } }, bench);
  const lowestDec = Math.max(0, Math.min(place.minAltitudeDeg, 90));
  const coarse: RankedTarget[] = [];
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
    if (target) coarse.push(target);
  }
  const ordered = coarse.sort(byScore);
  const exact = targetJudge(options, bench);
  const first = ordered.slice(0, EXACT_LINES).flatMap((t) => exact(entries[t.row]!, t.row, false) ?? []);
  const ranked = [...first.sort(byScore), ...ordered.slice(EXACT_LINES)];
  return { ranked: standingFor(ranked, entries), tooLow };
}

const byScore = (a: RankedTarget, b: RankedTarget) => b.score - a.score || a.row - b.row;

/** A line in the steps of every other screen, with its walk: what is shown of it. */
export function exactLine<T extends RankedTarget>(
  line: T,
  night: PlaceNight,
  at: Equatorial<"icrs">,
): { readonly line: T; readonly walk: Walk } {
  const { walk, usableMin, worthMin, moonlessMin, moonlessWorthMin, leftWorthMin } = targetNight(
    night,
    at,
    line.channel,
    line.own,
  );
  const main = mainLossOf(walk, night.steps);
  return { line: { ...line, usableMin, worthMin, moonlessMin, moonlessWorthMin, leftWorthMin, ...main }, walk };
}
