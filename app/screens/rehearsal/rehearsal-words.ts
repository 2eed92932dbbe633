import { clockTime } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { temperatureGap } from "~/components/measures";
import { choiceWords, wayWords } from "~/components/words/cloud-words";
import { formatSpan } from "~/core/notation";
import type { Decision, NightBrought, Prepared, Trouble, Way, WayKey } from "~/core/rehearsal";
import { MINUTE_MS } from "~/core/time";

const span = (min: number): string => formatSpan(Math.max(0, min) * MINUTE_MS);

/** The prepared nights: what each is called, how it begins, and what there is to learn. */
export const PREPARED_WORDS: Readonly<
  Record<Prepared, { readonly name: string; readonly begins: string; readonly lesson: string }>
> = {
  firstLight: {
    name: "First light",
    begins: "A clear, calm evening with one target; the air cools quickly.",
    lesson: "Focus goes with the air: a few minutes to focus anew cost less than an hour of soft stars.",
  },
  flip: {
    name: "The flip",
    begins: "The target crosses the meridian in the middle of the evening.",
    lesson: "A flip put off is a flip forgotten: past its limit the mount stands still and stars trail.",
  },
  gap: {
    name: "Gap at ten",
    begins: "Cloud is forecast for an hour at ten, then better odds again.",
    lesson: "A gap is no end: darks while it lasts, and the second half of the night is still there.",
  },
  wind: {
    name: "Gusts",
    begins: "A fast mirror in a long tube, and two windy hours to come.",
    lesson:
      "Subs taken in strong gusts are lost anyway, and the guide star with them: a pause costs nothing, to go on costs the time to find it again.",
  },
  dew: {
    name: "Dew on a battery",
    begins: "Damp air, a heater, and a battery that is not large.",
    lesson: "Wet glass ends a night as surely as an empty battery: the heater first, then save on the cooler.",
  },
  twoRigs: {
    name: "Two rigs",
    begins: "Two telescopes on one target, with the flip at the same minute.",
    lesson: "Two rigs have one pair of hands between them: what needs hands is done one after the other.",
  },
};

/** What has come up, in a sentence. */
export function troubleWords(trouble: Trouble, zone: string): string {
  switch (trouble.about) {
    case "cloud":
      return "The sky has closed.";
    case "focus":
      return `The air is ${temperatureGap(Math.abs(trouble.byC), 1)} ${trouble.byC < 0 ? "colder" : "warmer"} than at the last focus.`;
    case "flip":
      return `The target is at the meridian. The mount goes on until ${clockTime(trouble.stopsMs, zone)}, no further.`;
    case "wind":
      return `Gusts of ${fixed(trouble.gustKmh)} km/h: this rig takes ${fixed(trouble.limitKmh)}.`;
    case "dew":
      return `The air is ${temperatureGap(trouble.spreadC, 1)} above the dew point: the glass is getting wet.`;
    case "battery":
      return `At this draw the battery is empty at ${clockTime(trouble.emptyMs, zone)}, before the sheet is done.`;
  }
}

const DOES: Readonly<Record<WayKey, string>> = {
  wait: "Wait",
  darks: "Darks meanwhile",
  packUp: "Pack up",
  sleep: "Go to bed",
  focusNow: "Focus now",
  flipNow: "Flip now",
  flipLater: "In a quarter of an hour",
  waitForWind: "Pause until it drops",
  heaterOn: "Heater on",
  dry: "Dry it by hand",
  coolerOff: "Cooler off",
  goOn: "Go on",
};

/** What a way is called where it is chosen. */
export const wayName = ({ does, untilMs, cloud }: Way, zone: string): string =>
  cloud ? wayWords(cloud.does, untilMs, zone) : DOES[does];

/** What it is called in a table. */
export const doesWords = (does: WayKey): string => DOES[does];

/** What a way keeps and costs. */
export function wayCosts({ does, cloud, takesMin }: Way): string {
  if (cloud) return choiceWords(cloud);
  switch (does) {
    case "focusNow":
    case "flipNow":
    case "dry":
      return `takes ${span(takesMin)}`;
    case "goOn":
      return "as it stands";
    case "flipLater":
      return "nothing now; past its limit the mount stands still";
    case "waitForWind":
      return "nothing is exposed meanwhile, an hour at most; the guide star is kept";
    case "heaterOn":
      return "draws on the battery, if there is one";
    case "coolerOff":
      return "the sensor warms: darks of the shelf no longer fit";
    case "packUp":
      return `takes ${span(takesMin)}; the rest of the sheet is given up`;
    default:
      return "as it is";
  }
}

/** What a night brought, in a line. */
export function broughtWords({ keptMin, lostMin, darksMin, upMin }: NightBrought): string {
  const parts = [`${span(keptMin)} kept`, lostMin > 0 ? `${span(lostMin)} lost` : "", darksMin > 0 ? `${span(darksMin)} of darks` : "", `${span(upMin)} up`]; // prettier-ignore
  return parts.filter((p) => p !== "").join(", ");
}

/** When and about what, for a list of what was decided. */
export const decisionWords = ({ atMs, trouble }: Pick<Decision, "atMs" | "trouble">, zone: string): string =>
  `${clockTime(atMs, zone)} · ${troubleWords(trouble, zone)}`;
