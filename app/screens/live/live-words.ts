import type { CarePart } from "~/core/exposure";
import type { Due, FocusSlope, Happening, LiveLine, LiveState, ToldSubs } from "~/core/live";
import { clockTime } from "~/components/clock";
import { counted, signed } from "~/components/numbers";
import { CULL_WORDS, subsWords } from "~/components/words/log-words";
import { wayWords } from "~/components/words/cloud-words";
import { temperature, temperatureGap } from "~/components/measures";

/** What a line of the sheet is, in as few words as are read at arm's length. */
export function lineWords({ line }: LiveLine, names: Readonly<Record<string, string>>): string {
  switch (line.kind) {
    case "block":
      return `${line.channel} on ${line.panel}${Object.keys(names).length > 1 ? ` of ${names[line.projectId] ?? "another project"}` : ""}`;
    case "setUp":
      return "Set up";
    case "align":
      return "Polar align, first focus";
    case "centre":
      return `Centre ${line.detail}`;
    case "filter":
      return `Filter: ${line.detail}`;
    case "focus":
      return "Focus";
    case "flip":
      return "Meridian flip";
    case "wait":
      return line.detail === "meridian" ? "Wait for the meridian" : "Wait";
    case "packUp":
      return "Pack up";
  }
}

/** "3 of 6 subs, to 19:04". */
export function throughWords(state: LiveState, zone: string): string {
  const { now } = state;
  if (!now) return "";
  const until = `to ${clockTime(now.endMs, zone)}`;
  return now.line.kind === "block" ? `${state.subsThrough} of ${counted(now.line.subs, "sub")}, ${until}` : until;
}

/** "14 min behind the sheet"; "" within a minute of it. */
export function behindWords({ behindMin }: LiveState): string {
  const min = Math.round(Math.abs(behindMin));
  return min < 1 ? "" : `${min} min ${behindMin > 0 ? "behind" : "ahead of"} the sheet`;
}

/** What is due, as one says it at the mount. */
export function dueWords({ what, atMs, isOverdue, byC }: Due, zone: string, slope: FocusSlope | null = null): string {
  const at = clockTime(atMs, zone);
  switch (what) {
    case "flip":
      return isOverdue ? `Flip now: it was due at ${at}` : `Flip at ${at}`;
    case "dither":
      return "Dither: move the frame a little by hand, before the next sub";
    case "focusByTime":
      return `Focus: the last was too long ago, since ${at}`;
    case "focusByAir":
      return `Focus: the air is ${temperatureGap(Math.abs(byC ?? 0), 1)} ${(byC ?? 0) < 0 ? "colder" : "warmer"} since the last${slope ? `, about ${signed((byC ?? 0) * slope.stepsPerC)} steps` : ""}`;
    case "lookUp":
      return `Look up: you wait until ${at}`;
    case "rain":
      return isOverdue ? "Rain is due: everything under a roof" : `Rain from ${at}: everything under a roof by then`;
    case "dew":
      return `Dew: the air is ${temperatureGap(byC ?? 0, 1)} above the dew point, heater up`;
    case "battery":
      return isOverdue ? `The battery should be empty since ${at}` : `The battery lasts to about ${at}`;
    case "dawn":
      return isOverdue ? "The Sun is up: the tube capped" : `Sunrise ${at}: flats, then the cap on before it`;
  }
}

/** "10 of 12 × 300 s Ha on P1". */
export const toldWords = ({ of, taken, kept }: Pick<ToldSubs, "of" | "taken" | "kept">): string =>
  subsWords({ ...of, taken, kept, sec: of.subSec });

/** Which parts of the checklist are about what goes on: before the first sub, while subs are taken, or after the last. */
export function partsNow({ phase, now, lines }: Pick<LiveState, "phase" | "now" | "lines">): readonly CarePart[] {
  if (phase === "over" || now?.line.kind === "packUp") return ["packUp"];
  const hasSubs = lines.some((l) => l.line.kind === "block" && l.state !== "toCome");
  return hasSubs ? ["night"] : ["daylight", "setUp", "firstSub"];
}

/** What was pressed, for the record of the night. */
export function happeningWords(is: Happening, zone: string): string {
  switch (is.what) {
    case "begun":
      return "Begun";
    case "dithered":
      return "Dithered by hand";
    case "flipped":
      return "Flipped";
    case "packedUp":
      return "Packed up";
    case "done":
      return `${toldWords({ of: is.of, taken: is.kept + is.lost, kept: is.kept })}${is.reason === "" ? "" : `, ${CULL_WORDS[is.reason]}`}`;
    case "cloud":
      return is.isClear ? "It cleared" : "Cloud came";
    case "focused": {
      const facts = [is.airC === null ? "" : temperature(is.airC), is.steps === null ? "" : `at ${is.steps} steps`];
      return ["Focused", ...facts.filter((w) => w !== "")].join(", ");
    }
    case "swapped":
      return `Swapped to ${is.to.channel} on ${is.to.panel}`;
    case "trouble":
      return `Trouble: ${is.words}`;
    case "checked":
      return is.isDone ? "Checked" : "Not checked after all";
    case "decided":
      return wayWords(is.choice, is.untilMs, zone);
  }
}
