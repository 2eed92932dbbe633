import { formatMinutes } from "~/core/notation";
import type { TonightChoice, TonightProject } from "~/core/plan";
import { stretches, type NightSteps } from "~/core/night";
import { clockTime } from "./clock";
import { Why } from "./ui/Why";

/** What ends a target's night, in words: the cause that follows its last usable minute. */
function endWords(p: TonightProject, steps: NightSteps): string {
  const runs = stretches(steps, p.walk);
  const last = runs.findLastIndex((r) => r.cause === "none");
  const after = runs[last + 1]?.cause ?? "lightSky";
  switch (after) {
    case "lightSky":
      return "dawn comes";
    case "skyline":
      return "the skyline takes it";
    case "moon":
      return "the Moon is too near";
    default:
      return "it stands too low";
  }
}

/** "OIII", or "L, then OIII" when the first goal ends within the night. */
const channelWords = (p: TonightProject): string => p.channels.join(", then ");

/** The verdict: one sentence a friend would say, then what decided it. */
export function TonightVerdict({
  verdict,
  names,
  steps,
  zone,
  hasProjects,
  clearChance,
}: {
  readonly verdict: TonightChoice;
  readonly names: ReadonlyMap<string, string>;
  readonly steps: NightSteps;
  readonly zone: string;
  readonly hasProjects: boolean;
  readonly clearChance: number;
}) {
  if (verdict.kind === "stayIn") {
    const words = !hasProjects
      ? "No project yet: choose a target and start one."
      : verdict.reason === "noDarkness"
        ? "Stay in: the Sun does not set."
        : verdict.reason === "allDone"
          ? "Nothing left to do: every goal is met."
          : "Stay in: none of your projects has three quarters of an hour.";
    return <h1 className="text-headline mt-1 leading-tight">{words}</h1>;
  }
  const { first, then } = verdict;
  const name = (p: TonightProject) => names.get(p.id) ?? p.id;
  const total =
    first.usableMin +
    (then
      ? Math.max(
          0,
          Math.min(then.usableMin, (then.span!.endMs - Math.max(then.span!.startMs, first.span!.endMs)) / 60_000),
        )
      : 0);
  return (
    <>
      <h1 className="text-headline mt-1 leading-tight">
        If it clears, go from {clockTime(first.span!.startMs, zone)}: {name(first)}, in {channelWords(first)}, until{" "}
        {endWords(first, steps)} at {clockTime(first.span!.endMs, zone)}
        {then ? `, then ${name(then)}, in ${channelWords(then)}, to ${clockTime(then.span!.endMs, zone)}` : ""}.
      </h1>
      <p className="text-soft mt-2 max-w-[70ch]">
        <Why title={`About ${formatMinutes(total)} usable`}>
          <p>
            Minutes with the Sun low enough for the channel, the target over your skyline and your lowest altitude, and
            far enough from the Moon. Judged every five minutes, good to about five.
          </p>
          <p className="mt-2">
            Clear sky assumed. Worth compares a minute with one at this place&apos;s moonless zenith: altitude,
            moonlight and extinction count, haze does not.
          </p>
        </Why>{" "}
        of {formatMinutes(steps.count * steps.stepMin)} between sunset and sunrise. No forecast has been read: over the
        years about {Math.round(clearChance * 100)} of 100 such nights are clear here.
        {then ? " Two targets are enough for one night." : ""}
      </p>
    </>
  );
}
