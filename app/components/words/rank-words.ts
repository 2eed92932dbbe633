import { counted, fixed } from "~/components/numbers";
import { addNights, type NightDate } from "~/core/time";
import { CLOSING_WEEKS, seasonSuffices, takesYears, type RankedTarget, type SeasonLeft } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { shortNight } from "~/components/clock";
import { fillWords, missingWords } from "./target-words";
import { isMoonFelt } from "./way-words";
import { CAUSE_WORDS } from "./log-words";

/** "6 weeks left", and what that means as a date. */
export function seasonWords(left: SeasonLeft, from: NightDate): { readonly short: string; readonly date: string } {
  const day = (weeks: number) => shortNight(addNights(from, 7 * weeks)).slice(4);
  switch (left.kind) {
    case "allYear":
      return { short: "all year", date: "every night" };
    case "open":
      return { short: `${counted(left.weeksLeft, "week")} left`, date: `till about ${day(left.weeksLeft)}` };
    case "opens":
      return {
        short: `opens in ${counted(left.inWeeks, "week")}`,
        date: `about ${day(left.inWeeks)}, for ${counted(left.weeks, "week")}`,
      };
    case "short":
      return { short: "under 1 h", date: "on every night" };
  }
}

/** "12 h" and "about 4 clear nights". */
export function needWords(t: RankedTarget): { readonly hours: string; readonly nights: string } {
  const hours = `${t.needHours < 10 ? fixed(t.needHours, 1).replace(".0", "") : Math.round(t.needHours)} h`;
  if (t.isDrowned) return { hours, nights: "without a filter: out of reach here" };
  if (t.isOutOfReach) return { hours: `needs ${t.missing.join(", ")}`, nights: "not in this rig" };
  return {
    hours,
    nights: t.needNights === null ? "no season" : `≈ ${counted(t.needNights, "clear night")}`,
  };
}

/** How far an object's mean is from the sky's own light, in plain words. */
export function brightnessWords(belowSkyMag: number | null): string {
  if (belowSkyMag === null) return "";
  const off = fixed(Math.abs(belowSkyMag), 1);
  if (belowSkyMag < -0.5) return `${off} mag brighter than your sky`;
  if (belowSkyMag < 0.5) return "as bright as your sky";
  return `${off} mag fainter than your sky`;
}

/** Why a line stands where it stands: what speaks for it, then what against. */
export function rankWords(t: RankedTarget): string {
  const words: string[] = [];
  const fill = fillWords(t.fill);
  words.push(t.panels > 1 ? `needs ${t.panels} panels` : fill);
  words.push(brightnessWords(t.belowSkyMag));
  if (t.isStrongestMissing) words.push(missingWords(t.missing));
  if (t.topAltitudeDeg < 30) words.push(`tops out at ${fixed(t.topAltitudeDeg)}°`);
  if (t.mainLossMin >= 15) words.push(`${formatMinutes(t.mainLossMin)} lost: ${CAUSE_WORDS[t.mainLoss]}`);
  const { left, clearNights } = t.season;
  if (left.kind === "open" && left.weeksLeft <= CLOSING_WEEKS && seasonSuffices(t))
    words.push(`start now, it closes in ${counted(left.weeksLeft, "week")}`);
  else if (t.needNights !== null && !seasonSuffices(t))
    words.push(
      left.kind === "open"
        ? `this season gives about ${counted(Math.round(clearNights), "clear night")}: not enough, keep it for two`
        : `about ${counted(Math.round(clearNights), "clear night")} a season: takes more than one`,
    );
  if (takesYears(t) && !t.isOutOfReach) words.push("a project for years or for a crew");
  return words.filter((w) => w !== "").join(" · ");
}

/** "8 h 12 min", usable; where the Moon takes all of it, what is up without it. */
export function usableWords(t: RankedTarget): string {
  if (t.usableMin > 0) return formatMinutes(t.usableMin);
  return t.moonlessMin > 0 ? `${formatMinutes(t.moonlessMin)} up` : "nothing";
}

/** "1.9 h worth: Moon, Ha"; a night that the Moon takes says so. */
export function worthWords(t: RankedTarget): string {
  if (t.usableMin === 0 && t.moonlessMin > 0)
    return `the Moon leaves it worth ${fixed(t.leftWorthMin / 60, 1)} h, ${t.channel}`;
  return `worth ${fixed(t.worthMin / 60, 1)} h${isMoonFelt(t) ? ": Moon" : ""}, ${t.channel}`;
}
