import { bodyOfDate, directionOf, nightWindow, twilightFlux } from "~/core/sky";
import { addMs, addNights, monthOf, type NightDate } from "~/core/time";
import { degToRad, radToDeg, wrap360 } from "~/core/units";
import { CHANNEL_FACTS } from "~/core/exposure";
import { twilightLimitOf, type MoonWishes } from "./moon-school";
import { minuteWorth, type OwnLight } from "./walk";
import { azimuthBin, sinBin, type ChannelTables } from "./channel-sky";
import type { Place } from "./place";

/** Where a target is in its year: open = useful now, until an hour a night is no longer to be had, the Moon set aside. */
export type SeasonLeft =
  | { readonly kind: "allYear" }
  | { readonly kind: "open"; readonly weeksLeft: number }
  | { readonly kind: "opens"; readonly inWeeks: number; readonly weeks: number }
  /** Never an hour a night. */
  | { readonly kind: "short" };

/** The coming season of a target: when it ends, and what a clear night in it is worth. */
export interface ComingSeason {
  readonly left: SeasonLeft;
  /** Mean of the useful nights ahead, hours at the place's moonless zenith, no Moon; 0 when there are none. */
  readonly worthHoursANight: number;
  /** Useful nights ahead × chance of a clear one. */
  readonly clearNights: number;
  /** The best week of the year, in the same hours; 0 when there is none. */
  readonly bestHoursANight: number;
}

/** The dark part of a night by week: sidereal angle at dusk and length, in half degrees; length 0 where it does not get dark. */
interface DarkWeeks {
  readonly duskHalfDeg: Int32Array;
  readonly darkHalfDeg: Int32Array;
}

/** Darkness week by week, the same for every target of one channel. */
export interface SeasonTable {
  /** While a minute is used at all, and while half of its worth is left: what twilight takes outside is what it leaves inside. */
  readonly usable: DarkWeeks;
  readonly worth: DarkWeeks;
  readonly clearChance: readonly number[];
  /** Summed usable and worth degrees over two turns of hour angle from −180°, by half degrees of both; declination bin 0 is −90°. Made when asked for. */
  readonly byBin: (bin: number) => { readonly usable: Float32Array; readonly worth: Float32Array };
}

const WEEKS = 53;
const USEFUL_DEG = 15; // an hour of sidereal time
const HA_PER_DEG = 2; // 2 minutes
const HA_BINS = 360 * HA_PER_DEG;
const DEC_PER_DEG = 2; // interpolated between
const BEST_EVERY = 4; // weeks: the top of a year is flat
const USEFUL_WEEKS_AHEAD = 26; // what is planned for now; later weeks are another season

/** The middle of a night once a week for a year: what all channels of a place share. */
export interface SeasonWeeks {
  readonly months: readonly number[];
  /** The Sun's apparent place. */
  readonly suns: readonly { readonly raDeg: number; readonly decDeg: number }[];
}

/** The weeks of a place from a night on. */
export function seasonWeeks(place: Place, from: NightDate): SeasonWeeks {
  const dates = Array.from({ length: WEEKS }, (_, i) => addNights(from, 7 * i));
  const middle = (date: NightDate) => {
    const { startMs, endMs } = nightWindow(place, date);
    return addMs(startMs, (endMs - startMs) / 2);
  };
  return {
    months: dates.map(monthOf),
    suns: dates.map((date) => directionOf(bodyOfDate("sun", middle(date), place).unit)),
  };
}

/** How a season is asked for: what is asked of twilight, and by what a minute is weighed. */
export interface SeasonOptions {
  readonly moon: MoonWishes;
  readonly own?: OwnLight;
}

const SKY_ONLY: OwnLight = { object: 0, rest: 0 };

/** The Sun's altitude at which twilight at the zenith leaves a share of a minute's worth, degrees. */
function sunAtShare(tables: ChannelTables, own: OwnLight, share: number): number {
  const dark = 1 + own.object + own.rest;
  const { centreNm } = CHANNEL_FACTS[tables.channel];
  const left = (depressionDeg: number) => dark / (dark + twilightFlux(centreNm, depressionDeg) / tables.zenithFlux);
  let [low, high] = [0, 30];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (left(middle) < share) low = middle;
    else high = middle;
  }
  return -high;
}

const HALF_LEFT = 0.5;

/** Tabulates a year of weeks for one channel: below 1 ms, and 15 µs for every new declination. */
export function seasonTable(
  place: Place,
  tables: ChannelTables,
  weeks: SeasonWeeks,
  { moon, own = SKY_ONLY }: SeasonOptions,
): SeasonTable {
  const { sunBelowDeg, leastShare } = twilightLimitOf(moon);
  const known: ReturnType<SeasonTable["byBin"]>[] = [];
  const weeksBelow = (deg: number): DarkWeeks => {
    const dark = weeks.suns.map((sun) => darkOf(place, deg, sun));
    return {
      duskHalfDeg: Int32Array.from(dark, (d) => Math.round(wrap360(d.fromDeg) * HA_PER_DEG)),
      darkHalfDeg: Int32Array.from(dark, (d) => Math.round(d.lengthDeg * HA_PER_DEG)),
    };
  };
  const atShare = (share: number) => Math.min(sunBelowDeg, sunAtShare(tables, own, share));
  return {
    clearChance: weeks.months.map((month) => place.clearChance[month - 1] ?? 0),
    usable: weeksBelow(leastShare > 0 ? atShare(leastShare) : sunBelowDeg),
    worth: weeksBelow(atShare(HALF_LEFT)),
    byBin: (bin) => (known[bin] ??= sumsOverHourAngle(tables, bin / DEC_PER_DEG - 90, own)),
  };
}

/** The dark part of a night in sidereal angle, from the Sun's place at its middle. */
function darkOf(
  place: Place,
  sunBelowDeg: number,
  sun: { readonly raDeg: number; readonly decDeg: number },
): { fromDeg: number; lengthDeg: number } {
  const [phi, dec] = [degToRad(place.latitudeDeg), degToRad(sun.decDeg)];
  const cosH = (Math.sin(degToRad(sunBelowDeg)) - Math.sin(phi) * Math.sin(dec)) / (Math.cos(phi) * Math.cos(dec));
  const duskDeg = radToDeg(Math.acos(Math.min(1, Math.max(-1, cosH))));
  return { fromDeg: sun.raDeg + duskDeg, lengthDeg: 360 - 2 * duskDeg };
}

const HOUR_ANGLES = Array.from({ length: HA_BINS }, (_, i) => degToRad(-180 + (i + 0.5) / HA_PER_DEG));
const SIN_HA = Float64Array.from(HOUR_ANGLES, Math.sin);
const COS_HA = Float64Array.from(HOUR_ANGLES, Math.cos);

/** Usable and worth degrees of hour angle of a declination, summed up from −180° over two turns. Moonless; refraction ignored. */
function sumsOverHourAngle(t: ChannelTables, decDeg: number, own: OwnLight): ReturnType<SeasonTable["byBin"]> {
  const usable = new Float32Array(2 * HA_BINS + 1);
  const worth = new Float32Array(2 * HA_BINS + 1);
  const sinDec = Math.sin(degToRad(decDeg));
  const cosDec = Math.cos(degToRad(decDeg));
  const { sinLatitude, cosLatitude, sinSkyline, domeFoot, domeFade, extinction2, darkOverZenith } = t;
  const lowest = Math.max(0, t.sinMinAltitude);
  const step = 1 / HA_PER_DEG;
  // Outside of these half degrees it is too low, on either side of the meridian.
  const cosRise = (lowest - sinLatitude * sinDec) / (cosLatitude * cosDec || Number.EPSILON);
  const reach = Math.ceil((radToDeg(Math.acos(Math.min(1, Math.max(-1, cosRise)))) + 0.01) * HA_PER_DEG);
  const [from, to] = [Math.max(0, HA_BINS / 2 - reach), Math.min(HA_BINS, HA_BINS / 2 + reach)];
  for (let i = from; i < to; i++) {
    const towardsMeridian = cosDec * COS_HA[i]!;
    const up = sinLatitude * sinDec + cosLatitude * towardsMeridian;
    let value = 0;
    if (up >= lowest) {
      const facing = azimuthBin(cosLatitude * sinDec - sinLatitude * towardsMeridian, -cosDec * SIN_HA[i]!);
      const bin = sinBin(up);
      const glow = domeFoot === null ? 0 : domeFoot[facing]! * domeFade[bin]!;
      if (up >= sinSkyline[facing]!) value = minuteWorth(extinction2[bin]!, darkOverZenith[bin]! + glow, own);
    }
    usable[i + 1] = usable[i]! + (value > 0 ? step : 0);
    worth[i + 1] = worth[i]! + value * step;
  }
  usable.fill(usable[to]!, to + 1, HA_BINS + 1);
  worth.fill(worth[to]!, to + 1, HA_BINS + 1);
  for (let i = 1; i <= HA_BINS; i++) {
    usable[HA_BINS + i] = usable[HA_BINS]! + usable[i]!;
    worth[HA_BINS + i] = worth[HA_BINS]! + worth[i]!;
  }
  return { usable, worth };
}

/** Running sums of a declination's two neighbours in the table, and the share of the upper one. */
interface Sums {
  readonly dark: DarkWeeks;
  readonly below: Float32Array;
  readonly above: Float32Array;
  readonly share: number;
}

function sumsAt(table: SeasonTable, decDeg: number, of: "usable" | "worth"): Sums {
  const bin = Math.min(Math.max((decDeg + 90) * DEC_PER_DEG, 0), 180 * DEC_PER_DEG);
  const low = Math.min(Math.floor(bin), 180 * DEC_PER_DEG - 1);
  return { dark: table[of], below: table.byBin(low)[of], above: table.byBin(low + 1)[of], share: bin - low };
}

/** What a target's dark hours of a week hold: the difference of two running sums. */
function overWeek({ dark, below, above, share }: Sums, raHalfDeg: number, week: number): number {
  // Hour angle counted from −180°.
  const start = (dark.duskHalfDeg[week]! - raHalfDeg + HA_BINS + HA_BINS / 2) % HA_BINS;
  const end = start + dark.darkHalfDeg[week]!;
  const low = below[end]! - below[start]!;
  return low + share * (above[end]! - above[start]! - low);
}

/** Usable minutes and worth of the first night of a week, ignoring the Moon and lamps. Direction of date. */
export function weekNight(
  table: SeasonTable,
  target: { readonly raDeg: number; readonly decDeg: number },
  week: number,
): { readonly usableMin: number; readonly worthMin: number } {
  const raHalfDeg = Math.round(target.raDeg * HA_PER_DEG);
  const min = (of: "usable" | "worth") => overWeek(sumsAt(table, target.decDeg, of), raHalfDeg, week) * 4;
  return { usableMin: min("usable"), worthMin: min("worth") };
}

/**
 * The season of a target, given by its direction of date, from the table's first week on. A night agrees with the night by night
 * computation to 6 minutes (hour angle to 2 minutes, interpolated between half degrees of declination), or to what half a degree
 * means where the target only grazes a limit. Ignores the Moon and lamps.
 */
export function comingSeason(
  table: SeasonTable,
  target: { readonly raDeg: number; readonly decDeg: number },
): ComingSeason {
  const [usable, worth] = [sumsAt(table, target.decDeg, "usable"), sumsAt(table, target.decDeg, "worth")];
  const raHalfDeg = Math.round(target.raDeg * HA_PER_DEG);
  let opens = 0;
  while (opens < WEEKS && overWeek(usable, raHalfDeg, opens) < USEFUL_DEG) opens++;
  if (opens === WEEKS) return { left: { kind: "short" }, worthHoursANight: 0, clearNights: 0, bestHoursANight: 0 };
  let closes = opens;
  let counted = 0;
  let worthHours = 0;
  let clearNights = 0;
  while (closes < WEEKS && (closes === opens || overWeek(usable, raHalfDeg, closes) >= USEFUL_DEG)) {
    if (counted < USEFUL_WEEKS_AHEAD) {
      counted++;
      worthHours += overWeek(worth, raHalfDeg, closes) / 15;
      clearNights += 7 * table.clearChance[closes]!;
    }
    closes++;
  }
  const left: SeasonLeft =
    opens > 0
      ? { kind: "opens", inWeeks: opens, weeks: closes - opens }
      : closes === WEEKS
        ? { kind: "allYear" }
        : { kind: "open", weeksLeft: closes };
  let best = 0;
  for (let week = 0; week < WEEKS; week += BEST_EVERY) best = Math.max(best, overWeek(worth, raHalfDeg, week) / 15);
  return { left, worthHoursANight: worthHours / counted, clearNights, bestHoursANight: best };
}
