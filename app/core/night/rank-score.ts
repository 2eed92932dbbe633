import { clamp } from "~/core/units";
import type { ComingSeason } from "./season-table";

/** A season that ends within this many weeks is worth a hurry; a proposal of this project. */
export const CLOSING_WEEKS = 6;

/** A subject of so many pixels across, and as many widths of a star, is a good one; both proposals of this project. */
const GOOD_PX = 500;
const GOOD_WIDTHS = 60;
const FULL_FILL = 0.77; // of the short side: there is sky round it
const TOO_FULL = 2;
const [LEAST_FIT, UNKNOWN_FIT] = [0.04, 0.3];

/** How well an object suits the field: small ones by their pixels and by what the seeing leaves of them, large ones by the frame. */
export function framingFit(fill: number | null, acrossPx: number, acrossWidths: number): number {
  if (fill === null) return UNKNOWN_FIT;
  if (fill > FULL_FILL)
    return clamp(1 - (0.8 * Math.log(fill / FULL_FILL)) / Math.log(TOO_FULL / FULL_FILL), LEAST_FIT, 1);
  return clamp(Math.min(acrossPx / GOOD_PX, acrossWidths / GOOD_WIDTHS) ** 0.9, LEAST_FIT, 1);
}

/** Half when the season gives a quarter of the clear nights needed or less, 1 when it gives them all; a little more when it then closes soon. */
export function chanceToFinish(season: ComingSeason, needNights: number | null): number {
  if (needNights === null) return 0.5;
  const enough = season.clearNights / Math.max(1, needNights);
  const isClosing = season.left.kind === "open" && season.left.weeksLeft <= CLOSING_WEEKS;
  return enough >= 1 ? (isClosing ? 1.1 : 1) : Math.max(0.5, Math.sqrt(enough));
}

const HALF_NIGHT_HOURS = 0.75; // of worth: from there on more hours say less and less
/** What the night gives, and whether this is the time of the year for it: long nights in the north are no merit of a target. */
export const timeliness = (worthMin: number, moonlessWorthMin: number, season: ComingSeason): number => {
  const hours = worthMin / 60;
  const best = Math.max(season.bestHoursANight, moonlessWorthMin / 60);
  return (hours / (hours + HALF_NIGHT_HOURS)) * (best > 0 ? 0.4 + (0.6 * (moonlessWorthMin / 60)) / best : 0);
};

const EASY_HOURS = 20; // common practice, no source
/** Weeks of work speak against a target before they rule it out. */
export const effort = (needHours: number): number => Math.min(1, (EASY_HOURS / Math.max(1, needHours)) ** 0.6);

const HUNDREDTH_MAG = 5;
const LOST_PER_MAG = 0.6;
/** Below a hundredth of the sky's light gradients and flats decide, not hours; a proposal of this project. */
export const contrast = (faintMag: number, skyMag: number): number =>
  LOST_PER_MAG ** Math.max(0, faintMag - skyMag - HUNDREDTH_MAG);
