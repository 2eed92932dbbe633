import { temperature } from "~/components/measures";
import { fixed } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { CullReason, Impossible, Mismatch } from "~/core/ledger";
import type { Cause } from "~/core/night";
import { compass } from "./compass";

/** Causes of loss in words. */
export const CAUSE_WORDS: Readonly<Record<Cause, string>> = {
  none: "usable",
  lightSky: "light sky",
  set: "below the horizon",
  skyline: "skyline",
  low: "too low",
  moon: "Moon",
  lamp: "lamp",
};

/** Reasons for dropping subs, in words. */
export const CULL_WORDS: Readonly<Record<CullReason, string>> = {
  cloud: "cloud",
  wind: "wind",
  trail: "trails",
  seeing: "bad seeing",
  guiding: "guiding",
  focus: "focus",
  light: "stray light",
  other: "other",
};

/** "10 of 12 × 300 s Ha on P1": subs kept of those taken. */
export const subsWords = (s: {
  readonly kept: number;
  readonly taken: number;
  readonly sec: number;
  readonly channel: string;
  readonly panel: string;
}): string => `${s.kept === s.taken ? s.kept : `${s.kept} of ${s.taken}`} × ${s.sec} s ${s.channel} on ${s.panel}`;

/** What does not agree between an exposure and the plan. */
export function mismatchWords(m: Mismatch): string {
  const number = (v: number | string, digits = 0) => (typeof v === "number" ? fixed(v, digits) : v);
  const [found, wanted] = [m.found, m.wanted];
  switch (m.code) {
    case "rotation":
      return `camera angle ${number(found, 1)}°, planned ${number(wanted, 1)}° (or 180° from it)`;
    case "pointing":
      return `points ${number(found, 1)}′ ${compass(Number(wanted))} of the panel's centre`;
    case "focalLength":
      return `header says ${number(found)} mm, your rig says ${number(wanted)} mm`;
    case "pixels":
      return `pixels of ${number(found, 2)} µm, your rig's are of ${number(wanted, 2)} µm`;
    case "exposure":
      return `${found} s a sub, planned ${wanted} s`;
    case "temperature":
      return `sensor at ${temperature(Number(found), 1)}, planned ${temperature(Number(wanted))}`;
    case "notPlanned":
      return "a channel the project has no goal for";
    case "camera":
      return `taken with the camera “${found}”, your rig has “${wanted}”`;
    case "binning":
      return `binned ${found} × ${found}, your rig says ${wanted} × ${wanted}`;
    case "gain":
      return `gain ${found}, the others of this rig have ${wanted}: darks of its own`;
    case "solution":
      return `its solution is not used (${found}); placed by where the mount pointed`;
    case "noPointing":
      return "the file does not say where it points: taken for a project of this rig";
  }
}

/** Why an entry of the log cannot be as it stands. */
export function impossibleWords(why: Impossible): string {
  switch (why.code) {
    case "beforeBegun":
      return `the project began on ${why.startedOn}.`;
    case "twiceAtOnce":
      return "this rig exposed something else at the same time, by the log or by these files.";
    case "longerThanNight":
      return `with all else of that night the rig would have exposed for ${formatMinutes(why.minutes)}; from sunset to sunrise it lasted ${formatMinutes(why.nightMin)}.`;
    case "stranger":
      return `they do not say where they point, and they are not as this rig's files are: ${why.mismatches.map(mismatchWords).join("; ")}.`;
  }
}
