import { formatMinutes } from "~/core/notation";
import type { RestOfNight, TonightChoice, Verdict } from "~/core/plan";
import type { NightSteps } from "~/core/night";
import { rigsAtWork, turnsOf, workWords } from "~/components/words/evening-words";
import { clockTime, clockTimeBeside, longNight } from "~/components/clock";
import { Unbroken } from "~/components/ui/Unbroken";
import { Why } from "~/components/ui/Why";
import { changeWords, reasonWords } from "./verdict-words";

function stayWords(choice: TonightChoice, hasProjects: boolean, darkAgain: string | null, others: string): string {
  if (!hasProjects && !(choice.kind === "stayIn" && (choice.reason === "noDarkness" || choice.reason === "tooLight")))
    return "No project yet: choose a target and start one.";
  if (choice.kind === "go") return "Stay in tonight.";
  switch (choice.reason) {
    case "noDarkness":
      return `Stay in: the Sun does not set.${darkAgain ? ` First dark night here: ${longNight(darkAgain)}.` : ""}`;
    case "tooLight":
      return `Stay in: the sky does not get dark.${darkAgain ? ` First dark night here: ${longNight(darkAgain)}.` : ""}`;
    case "allDone":
      return others ? `Nothing left for you to do: ${others}.` : "Nothing left to do: every goal is met.";
    case "nothingUp":
      return "Stay in: none of your projects has three quarters of an hour.";
    case "busy":
      return "Stay in: this evening of the week is not free, by your own rules.";
    case "forbidden":
      return "Stay in: you keep this night free.";
    case "leftFree":
      return "Stay in: what is left is as good as done without this night.";
  }
}

/** What to do now, with the kit outside: the first step of what is left of the night. */
function outsideWords(rest: RestOfNight, nameOf: (id: string) => string, zone: string, nowMs: number): string {
  const [step] = rest.steps;
  if (!step) return "Nothing is left of tonight: pack up.";
  switch (step.kind) {
    case "shoot":
      return step.fromMs > nowMs + 60_000
        ? `Next: ${nameOf(step.projectId)} in ${step.channels}, from ${clockTime(step.fromMs, zone)} until ${clockTime(step.untilMs, zone)}.`
        : `Now: ${nameOf(step.projectId)} in ${step.channels}, until ${clockTime(step.untilMs, zone)}.`;
    case "wait":
      return `Wait until ${clockTime(step.untilMs, zone)}, then look again.`;
    case "darks":
      return "Take darks while you wait.";
    case "packUp":
      return step.why === "allDone" ? "Every goal is met: pack up." : `Pack up by ${clockTime(step.byMs, zone)}.`;
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
  isAssumed,
  others,
  wishHours,
  nowMs,
  isSimulated,
  rigNames,
  rest,
}: {
  readonly verdict: Verdict;
  readonly choice: TonightChoice;
  readonly names: ReadonlyMap<string, string>;
  readonly steps: NightSteps;
  readonly zone: string;
  readonly hasProjects: boolean;
  readonly darkAgain: string | null;
  /** Nobody has said how many nights are clear here: the chance of a night no forecast speaks of is assumed. */
  readonly isAssumed: boolean;
  /** What is left for others, in words. */
  readonly others: string;
  readonly wishHours: number;
  readonly nowMs: number;
  readonly isSimulated: boolean;
  readonly rigNames: Readonly<Record<string, string>>;
  /** What is left of a night that has begun; null = it has not. */
  readonly rest: RestOfNight | null;
}) {
  const { weighed, away } = verdict;
  const night = away ? away.weighed : weighed;
  const isPlain = weighed.hours.every((h) => h.basis === "longTerm");
  const at = { steps, zone, nameOf: (id: string) => names.get(id) ?? id };
  const rigs = choice.kind === "go" ? rigsAtWork(choice.blocks) : [];
  const window =
    choice.kind !== "go"
      ? null
      : !isPlain && (verdict.kind === "go" || verdict.kind === "goLate")
        ? verdict.window
        : choice;
  const targets = Math.max(0, ...rigs.map((r) => turnsOf(r.blocks).length));
  const headline = () => {
    if (rest) return outsideWords(rest, at.nameOf, zone, nowMs);
    if (choice.kind !== "go" || !hasProjects) return stayWords(choice, hasProjects, darkAgain, others);
    const whole = { startMs: choice.startMs, endMs: choice.endMs };
    const work = (window: { readonly startMs: number; readonly endMs: number }) =>
      rigs.length > 1 ? `, with ${rigs.length} rigs` : `: ${workWords(choice.blocks, window, at)}`;
    if (isPlain) return `If it clears, go from ${clockTime(whole.startMs, zone)}${work(whole)}.`;
    if (verdict.kind === "stayIn") return "Stay in tonight.";
    const { window } = verdict;
    if (verdict.kind === "borrow") {
      const leaveMs = Math.max(nowMs, window.startMs - (verdict.away.travelMin + 30) * 60_000);
      const there = (ms: number) => clockTimeBeside(ms, verdict.away.timeZone, zone);
      return `Drive to ${verdict.away.name}: leave by ${clockTime(leaveMs, zone)}, shoot from ${there(window.startMs)} to ${there(window.endMs)}.`;
    }
    const start = `${verdict.kind === "goLate" ? "Go late, from" : "Go, from"} ${clockTime(window.startMs, zone)}`;
    return `${start}${work(window)}.`;
  };
  return (
    <>
      <h1 className="text-headline mt-1 leading-tight">
        <Unbroken text={headline()} />
      </h1>
      {choice.kind === "go" && hasProjects ? (
        <>
          {rigs.length > 1 && window && (isPlain || verdict.kind !== "stayIn") ? (
            <ul className="text-figure mt-1">
              {rigs.map((r) => (
                <li key={r.rigId}>
                  {rigNames[r.rigId] ?? "Rig"}: {workWords(r.blocks, window, at) || "too little within that time"}.
                </li>
              ))}
            </ul>
          ) : null}
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
            {isPlain && isAssumed ? ", if four nights in ten are clear here, as is assumed: " : ", and "}
            {Math.round(night.odds.atLeastWish * 100)} % chance of at least {wishHours} h
            {away ? ` there; here ${Math.round(weighed.odds.atLeastWish * 100)} %` : ""}.
            {targets > 1 ? " Two targets are enough for one night: a third would only take time from both." : ""}
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
