import { clockTime, shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { LockConflict, MovedNight, Phase, ProjectShare, SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";

const SMALL = new Set(["the", "a", "an", "of", "in", "at", "on", "and", "whole", "by"]);

/** A letter for each project, all different: of its own words where that goes, else the first letter that is free. */
export function initialsOf(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const words = name.split(/[^\p{L}\p{N}]+/u).filter((w) => w !== "");
    const ordered = [...words.filter((w) => !SMALL.has(w.toLowerCase())), ...words];
    const letters = [...ordered.map((w) => w[0]!), ..."ABCDEFGHIJKLMNOPQRSTUVWXYZ", ..."123456789"];
    const letter = letters.map((l) => l.toUpperCase()).find((l) => !taken.has(l)) ?? "?";
    taken.add(letter);
    return letter;
  });
}

/** How a project stands, in a sentence. */
export function standingWords(share: ProjectShare, last: NightDate): string {
  const { odds, jobs, deciding, nights } = share;
  if (jobs.length === 0) return "Every goal of yours is met.";
  if (nights.length === 0) return "No night for it: never up long enough, or others need the nights more.";
  if (!odds) return "Reckoning the odds …";
  const clock =
    share.clockMin === null ? "" : `, about ${formatMinutes(Math.round(share.clockMin / 10) * 10)} by the clock`;
  const toGo = `${formatMinutes(jobs.reduce((s, j) => s + j.needMin, 0))} to go${clock}`;
  const decides = jobs.length > 1 && deciding ? `, ${deciding.channel} decides` : "";
  if (odds.ninetieth)
    return `${toGo}${decides}. Nine in ten by ${shortNight(odds.ninetieth)}, even odds by ${shortNight(odds.half!)}.`;
  if (odds.half)
    return `${toGo}${decides}. Even odds by ${shortNight(odds.half)}; ${percent(odds.doneShare)} by ${shortNight(last)}.`;
  const expected = jobs.reduce((s, j) => s + Math.min(j.needMin, j.expectedMin), 0);
  if (odds.doneShare >= 0.1) return `${toGo}${decides}. Only ${percent(odds.doneShare)} odds by ${shortNight(last)}.`;
  return `${toGo}${decides}, of which about ${formatMinutes(Math.round(expected / 5) * 5)} are to be expected: it cannot be finished this season.`;
}

/** What cannot be kept, and why. */
export function conflictWords(c: LockConflict, nameOf: (lockId: string) => string): string {
  const [first, second] = c.locks.map(nameOf);
  const night = shortNight(c.night);
  switch (c.why) {
    case "fixedAndForbidden":
      return `${night}: ${first} and ${second} contradict each other.`;
    case "twoPlaces":
      return `${night}: ${first} and ${second} are at different places; nobody is at both.`;
    case "otherPlace":
      return `${night}: ${first}, but ${second} is shot elsewhere.`;
    case "tooManyTargets":
      return `${night}: ${c.locks.map(nameOf).join(", ")} are more targets than you allow a night.`;
    case "notUsable":
      return `${night}: ${first} cannot be kept, as it is never usable long enough that night.`;
    case "nothingLeft":
      return `${night}: ${first} cannot be kept, as nothing of it is left to do.`;
  }
}

/** What a new plan has moved, and why. */
export function movedWords(m: MovedNight, nameOf: (projectId: string) => string, zone: string): string {
  const list = (all: MovedNight["after"]) =>
    all.length === 0
      ? "nothing"
      : all
          .map(
            (s) => `${nameOf(s.projectId)} in ${s.channels} ${clockTime(s.startMs, zone)}–${clockTime(s.endMs, zone)}`,
          )
          .join(", then ");
  const why = {
    lock: "by what you fixed",
    weather: "its weather has changed",
    done: "what was there is done",
    others: "as other nights changed",
  }[m.why];
  return `${shortNight(m.night)}: ${list(m.after)} instead of ${list(m.before)}, ${why}`;
}

const FELT_POINTS = 8; // less is chance: shares of 500 and 2,000 seasons, two standard errors

/** Whether a project can wait four weeks, in a sentence; "" where it is not known, or makes no difference. */
export function waitWords(now: number | undefined, waited: number | undefined): string {
  if (now === undefined || waited === undefined || now < 0.1) return "";
  const points = Math.round(100 * (now - waited));
  return points < FELT_POINTS
    ? " It can wait four weeks."
    : ` Go on with it: waiting four weeks would cost ${counted(points, "point")} of its odds.`;
}

/** The phases of a rig: "narrowband until 30 Sep, broadband from 1 Oct". */
export function phaseWords(phases: readonly Phase[]): string {
  const word = { narrow: "narrowband", broad: "broadband" };
  return phases
    .map((p, i) =>
      i === phases.length - 1
        ? `${word[p.kind]} from ${shortNight(p.from)}`
        : `${word[p.kind]} ${i === 0 ? "until" : `from ${shortNight(p.from)} until`} ${shortNight(p.to)}`,
    )
    .join(", ");
}

const DARK = 0.35; // lit share: below it a channel's nights are told as dark ones
const LIT = 0.65;
const LEAST_NIGHTS = 3; // fewer are no habit
const AHEAD = 60;

/** How the channels share the Moon: "L on the nights 3 to 12 Jan, Ha round full Moon"; "" where the plan makes no difference. */
export function moonSentence(
  plan: SeasonPlan,
  sky: readonly { readonly date: NightDate; readonly illuminatedFraction: number }[],
): string {
  const lit = new Map(sky.map((n) => [n.date, n.illuminatedFraction]));
  const byChannel = new Map<string, { readonly nights: NightDate[]; sum: number }>();
  for (const e of plan.evenings)
    for (const channel of new Set(e.blocks.map((b) => b.channel))) {
      const of = byChannel.get(channel) ?? { nights: [], sum: 0 };
      if (of.nights.length >= AHEAD) continue;
      of.nights.push(e.night);
      of.sum += lit.get(e.night) ?? 0.5;
      byChannel.set(channel, of);
    }
  const often = [...byChannel].filter(([, { nights }]) => nights.length >= LEAST_NIGHTS);
  const mean = ([, { nights, sum }]: (typeof often)[number]) => sum / nights.length;
  const dark = often.filter((c) => mean(c) < DARK);
  const bright = often.filter((c) => mean(c) > LIT);
  if (often.length < 2 || (dark.length === 0 && bright.length === 0)) return "";
  const list = (some: typeof often) => some.map(([channel]) => channel).join(" and ");
  const first = dark[0]?.[1].nights;
  const darkWords = first ? `${list(dark)} on dark nights, the next of them ${shortNight(first[0]!)}` : "";
  const brightWords = bright.length > 0 ? `${list(bright)} round full Moon` : "";
  return `${[darkWords, brightWords].filter((w) => w !== "").join("; ")}.`;
}
