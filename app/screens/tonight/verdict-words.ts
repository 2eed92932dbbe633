import { windSpeed } from "~/components/measures";
import { clockTimeBeside, clockTime } from "~/components/clock";
import { percent } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { Reason, Change } from "~/core/plan";

/** A reason of the verdict, as a friend would say it; times name their zone where the page goes by another clock. */
export function reasonWords(r: Reason, zone: string, pageZone = zone): string {
  const at = (ms: number) => clockTimeBeside(ms, zone, pageZone);
  switch (r.code) {
    case "lookedUp":
      return `You looked up at ${at(r.atMs)}: ${r.isClear ? "clear" : "cloudy"}. That outweighs the forecasts for some hours.`;
    case "odds":
      return `Chance of a usable hour ${percent(r.odds)} from ${at(r.fromMs)} to ${at(r.toMs)}, all sources pooled.`;
    case "longTerm":
      return r.isAssumed
        ? `No forecast speaks of this night, and how many nights are clear here is not known: ${percent(r.odds)} is assumed.`
        : `No forecast speaks of this night; over the years ${percent(r.odds)} of such nights are clear here.`;
    case "cloudUntil":
      return `Cloud until about ${at(r.atMs)}.`;
    case "cloudFrom":
      return `Cloud comes in from about ${at(r.atMs)}.`;
    case "disagree":
      return `The forecasts disagree: ${percent(r.lowest)} says one, ${percent(r.highest)} another.`;
    case "wind":
      return r.gustKmh > r.limitKmh
        ? `Gusts of about ${windSpeed(r.gustKmh)} at the mount from ${at(r.fromMs)}, limit ${windSpeed(r.limitKmh)}.`
        : `Gusts of about ${windSpeed(r.gustKmh)} at the mount, near its limit of ${windSpeed(r.limitKmh)}.`;
    case "rain":
      return `Rain is possible (${percent(r.chance)}): everything under a roof by ${at(r.deadlineMs)}.`;
    case "rainUntil":
      return `Rain until about ${at(r.untilMs)} (${percent(r.chance)}): keep everything covered until then.`;
    case "rainWatch":
      return `One forecast has rain from ${at(r.fromMs)} (${percent(r.chance)}), the others less: watch it from then. Packing up for it would cost about ${formatMinutes(Math.round(r.costMin / 5) * 5)}.`;
    case "haze":
      return `Haze or smoke dims by ${r.mag.toFixed(1)} mag: a minute keeps ${percent(r.left)} of its worth.`;
    case "cirrus":
      return `High cloud over ${percent(r.cover)} of the sky: a minute keeps about ${percent(r.left)} of its worth. ${r.isForLines ? "Bright lines may still come through." : "Bright lines perhaps; stars get halos."}`;
    case "fog":
      return `The air comes to its dew point and stands still: fog is likely from ${at(r.fromMs)} (${percent(r.odds)}), whatever forecasts of cloud say.`;
    case "seeing":
      return `Seeing of about ${r.arcsec.toFixed(1)}″: wide fields and large nebulae still make sense, small galaxies and planetaries do not.`;
    case "wet":
      return `${r.kind === "dew" ? "Dew" : "Frost"} on the glass from ${at(r.fromMs)}: heater on.`;
    case "tooLittle":
      return `About ${formatMinutes(Math.round(r.expectedMin))} can be expected; ${formatMinutes(r.wishMin)} and the set-up take ${formatMinutes(Math.round(r.wishMin + r.setUpMin))}.`;
    case "tooUnlikely":
      return `Only ${percent(r.odds)} chance of ${formatMinutes(r.wishMin)}.`;
    case "short":
      return `Only ${formatMinutes(r.usableMin)} of the night are usable for your projects.`;
    case "long":
      return `${formatMinutes(r.usableMin)} of dark sky with a target over your skyline.`;
    case "moon":
      return r.isUp ? `The Moon is up for ${percent(r.share)} of that time.` : "No Moon in that time.";
  }
}

/** What would turn the verdict. */
export function changeWords(c: Change, zone: string): string {
  switch (c.code) {
    case "lastStart":
      return `Not begun by ${clockTime(c.atMs, zone)}, the night no longer gives the hours you want.`;
    case "oddsNeeded":
      return `A chance of ${percent(c.needed)} would change it; it stands at ${percent(c.now)}. Or look up at dusk, and say what you see.`;
    case "calmer":
      return `Gusts under ${windSpeed(c.limitKmh)} at the mount would change it.`;
    case "smallerWish":
      return `Fewer minimum hours would change it: about ${formatMinutes(Math.round(c.expectedMin))} can be expected.`;
  }
}
