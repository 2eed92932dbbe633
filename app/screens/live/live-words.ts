import type { CloudChoice, Due, LiveLine, LiveState } from "~/core/live";
import { formatMinutes } from "~/core/notation";
import { clockTime } from "~/components/clock";
import { counted } from "~/components/numbers";
import { temperatureGap } from "~/components/measures";

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
export function dueWords({ what, atMs, isOverdue, byC }: Due, zone: string): string {
  const at = clockTime(atMs, zone);
  switch (what) {
    case "flip":
      return isOverdue ? `Flip now: it was due at ${at}` : `Flip at ${at}`;
    case "focusByTime":
      return `Focus: the last was too long ago, since ${at}`;
    case "focusByAir":
      return `Focus: the air is ${temperatureGap(Math.abs(byC ?? 0), 1)} ${(byC ?? 0) < 0 ? "colder" : "warmer"} since the last`;
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

const WAYS = { wait: "Wait", darks: "Darks meanwhile", packUp: "Pack up", sleep: "Go to bed" } as const;

/** A way to go on under cloud: what it is, and what it keeps and costs. */
export function choiceWords(c: CloudChoice, zone: string): { readonly act: string; readonly says: string } {
  const until = c.untilMs === null ? "" : ` until ${clockTime(c.untilMs, zone)}`;
  const keeps = c.keepsMin >= 1 ? `about ${formatMinutes(c.keepsMin)} still to be had` : "nothing more tonight";
  const costs = c.givesUpMin >= 1 ? `, gives up ${formatMinutes(c.givesUpMin)}` : "";
  const darks = c.darksMin >= 1 ? `, ${formatMinutes(c.darksMin)} of darks` : "";
  return { act: `${WAYS[c.does]}${until}`, says: `${keeps}${costs}${darks}` };
}
