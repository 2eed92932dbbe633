import { formatMinutes } from "~/core/notation";
import type { TonightChoice, TonightProject, Verdict, UsableProject } from "~/core/plan";
import { stretches, type NightSteps } from "~/core/night";
import { clockTime, clockTimeBeside, longNight } from "~/components/clock";
import { Unbroken } from "~/components/ui/Unbroken";
import { Why } from "~/components/ui/Why";
import { changeWords, reasonWords } from "./weather-words";

/** What ends a target's night, in words: the cause that follows its last usable minute. */
function endWords(p: UsableProject, steps: NightSteps): string {
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
    case "lamp":
      return "a lamp spoils it";
    default:
      return "it stands too low";
  }
}

/** "OIII", or "L, then OIII" when the first goal ends within the night. */
const channelWords = (p: TonightProject): string => p.channels.join(", then ");

const LEAST_MS = 20 * 60_000; // less of a target is not worth naming

/** The targets of the night within the stretch worth being out for: "Veil, in OIII, until … at 22:40, then …". */
function workWords(
  choice: Extract<TonightChoice, { kind: "go" }>,
  window: { readonly startMs: number; readonly endMs: number },
  at: { readonly steps: NightSteps; readonly zone: string; readonly names: ReadonlyMap<string, string> },
): string {
  const { first, then } = choice;
  const handoverMs = then ? first.span.endMs : window.endMs;
  const parts = [
    { p: first, fromMs: window.startMs, toMs: Math.min(window.endMs, handoverMs, first.span.endMs) },
    ...(then ? [{ p: then, fromMs: Math.max(window.startMs, handoverMs, then.span.startMs), toMs: window.endMs }] : []),
  ].filter((x) => x.toMs - x.fromMs >= LEAST_MS);
  return parts
    .map(({ p, toMs }, i) => {
      const why = toMs >= p.span.endMs - 60_000 ? `until ${endWords(p, at.steps)} at` : "until";
      return `${i > 0 ? "then " : ""}${at.names.get(p.id) ?? p.id}, in ${channelWords(p)}, ${why} ${clockTime(toMs, at.zone)}`;
    })
    .join(", ");
}

function stayWords(choice: TonightChoice, hasProjects: boolean, darkAgain: string | null, others: string): string {
  if (!hasProjects) return "No project yet: choose a target and start one.";
  if (choice.kind === "go") return "Stay in tonight.";
  switch (choice.reason) {
    case "noDarkness":
      return `Stay in: the Sun does not set.${darkAgain ? ` It is dark again from ${longNight(darkAgain)}.` : ""}`;
    case "tooLight":
      return `Stay in: the sky does not get dark.${darkAgain ? ` The first dark night is ${longNight(darkAgain)}.` : ""}`;
    case "allDone":
      return others ? `Nothing left for you to do: ${others}.` : "Nothing left to do: every goal is met.";
    case "nothingUp":
      return "Stay in: none of your projects has three quarters of an hour.";
  }
}

/** The verdict: one sentence a friend would say, the reasons that decide it, and what would change it. */
export function TonightVerdict({
  verdict,
  choice,
  names,
  steps,
  zone,
  hasProjects,
  darkAgain,
  others,
  wishHours,
  nowMs,
  isSimulated,
}: {
  readonly verdict: Verdict;
  readonly choice: TonightChoice;
  readonly names: ReadonlyMap<string, string>;
  readonly steps: NightSteps;
  readonly zone: string;
  readonly hasProjects: boolean;
  readonly darkAgain: string | null;
  /** What is left for others, in words. */
  readonly others: string;
  readonly wishHours: number;
  readonly nowMs: number;
  readonly isSimulated: boolean;
}) {
  const { weighed, away } = verdict;
  const night = away ? away.weighed : weighed;
  const isPlain = weighed.hours.every((h) => h.basis === "longTerm");
  const headline = () => {
    if (choice.kind !== "go" || !hasProjects) return stayWords(choice, hasProjects, darkAgain, others);
    const at = { steps, zone, names };
    const whole = { startMs: choice.startMs, endMs: choice.endMs };
    if (isPlain) return `If it clears, go from ${clockTime(whole.startMs, zone)}: ${workWords(choice, whole, at)}.`;
    if (verdict.kind === "stayIn") return "Stay in tonight.";
    const { window } = verdict;
    if (verdict.kind === "borrow") {
      const leaveMs = Math.max(nowMs, window.startMs - (verdict.away.travelMin + 30) * 60_000);
      const there = (ms: number) => clockTimeBeside(ms, verdict.away.timeZone, zone);
      return `Drive to ${verdict.away.name}: leave by ${clockTime(leaveMs, zone)}, shoot from ${there(window.startMs)} to ${there(window.endMs)}.`;
    }
    const start = `${verdict.kind === "goLate" ? "Go late, from" : "Go, from"} ${clockTime(window.startMs, zone)}`;
    return `${start}: ${workWords(choice, window, at)}.`;
  };
  return (
    <>
      <h1 className="text-headline mt-1 leading-tight">
        <Unbroken text={headline()} />
      </h1>
      {choice.kind === "go" && hasProjects ? (
        <>
          <p className="text-soft mt-2 max-w-[70ch]">
            {isSimulated && !isPlain ? <span className="text-lamp">Simulated weather. </span> : null}
            <Why title={`About ${formatMinutes(Math.round(night.odds.expectedMin / 5) * 5)} to be expected`}>
              <p>
                Usable minutes of the night (Sun low enough for the channel, target over your skyline and your lowest
                altitude, Moon far enough) times the chance of each hour, over the stretch worth being out for.
              </p>
              <p className="mt-2">
                Played 2,000 times with neighbouring hours going together: one night in ten gives under{" "}
                {formatMinutes(night.odds.tenthMin)}, half give {formatMinutes(night.odds.halfMin)} or more, one in ten{" "}
                {formatMinutes(night.odds.ninetiethMin)} or more. How strongly hours go together is a guess of this app.
              </p>
              <p className="mt-2">
                “Go” asks for {wishHours} h and the set-up on average, and an even chance of {wishHours} h. Driving must
                bring an hour more for every hour on the road.
              </p>
            </Why>
            , and {Math.round(night.odds.atLeastWish * 100)} % chance of at least {wishHours} h
            {away ? ` there; here ${Math.round(weighed.odds.atLeastWish * 100)} %` : ""}.
            {choice.then ? " Two targets are enough for one night: a third would only take time from both." : ""}
          </p>
          <ol className="mt-2 max-w-[70ch] list-decimal space-y-0.5 pl-5" aria-label="What decides it">
            {verdict.reasons.map((r) => (
              <li key={r.code}>{reasonWords(r, zone)}</li>
            ))}
          </ol>
          {verdict.change && !isPlain ? (
            <p className="text-soft mt-2 max-w-[70ch]">{changeWords(verdict.change, zone)}</p>
          ) : null}
        </>
      ) : null}
    </>
  );
}
