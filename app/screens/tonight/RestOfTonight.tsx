import { clockTime } from "~/components/clock";
import { percent } from "~/components/numbers";
import { formatMinutes } from "~/core/notation";
import type { RestOfNight, RestStep } from "~/core/plan";

const SLIGHT_MIN = 3; // less is as good as nothing

const minutes = (min: number): string => formatMinutes(Math.round(min / 5) * 5);

/** What a step of the rest of the night is, and why. */
function stepWords(
  step: RestStep,
  zone: string,
  nowMs: number,
  nameOf: (projectId: string) => string,
): readonly [string, string] {
  switch (step.kind) {
    case "shoot": {
      const from = step.fromMs > nowMs + 60_000 ? `from ${clockTime(step.fromMs, zone)} ` : "";
      const until = `${from}until ${clockTime(step.untilMs, zone)}`;
      const name = nameOf(step.projectId);
      if (!step.insteadOf) return [`${name}, in ${step.channels}`, until];
      const { projectId, gainMin } = step.insteadOf;
      const price =
        gainMin > SLIGHT_MIN
          ? `what is left of the night counts ${minutes(gainMin)} more by it`
          : "it counts as much, and leaves the season better off";
      return [`Change to ${name}, in ${step.channels}`, `${until}, instead of ${nameOf(projectId)}: ${price}`];
    }
    case "wait":
      return [`Wait until ${clockTime(step.untilMs, zone)}`, `then ${percent(step.odds)} likely to be clear`];
    case "darks":
      return ["Take darks now", `cap on: ${minutes(step.minutes)} that nothing else could use`];
    case "packUp": {
      const by = clockTime(step.byMs, zone);
      switch (step.why) {
        case "rain":
          return [`Everything under a roof by ${by}`, "rain may come half an hour later"];
        case "unlikely":
          return [`Pack up from ${by} on`, "after it a clear hour is too unlikely to wait for"];
        case "over":
          return [`Pack up from ${by} on`, "nothing of yours is usable after it"];
        case "noHours":
          return ["Pack up now", "what is left is not worth staying for"];
        case "allDone":
          return ["Pack up now", "every goal of yours is met"];
      }
    }
  }
}

/** A night under way: what to do next, by the sky as it was last seen and the plan made from it. */
export function RestOfTonight({
  rest,
  zone,
  nowMs,
  nameOf,
  rigNames,
}: {
  readonly rest: RestOfNight;
  readonly zone: string;
  readonly nowMs: number;
  readonly nameOf: (projectId: string) => string;
  readonly rigNames: Readonly<Record<string, string>>;
}) {
  const rigs = new Set(rest.steps.flatMap((s) => (s.kind === "shoot" ? [s.rigId] : [])));
  const rigOf = (step: RestStep) => (step.kind === "shoot" && rigs.size > 1 ? (rigNames[step.rigId] ?? null) : null);
  return (
    <section aria-labelledby="rest-of-tonight" className="border-lamp mt-3 border-l-2 pl-3">
      <h2 id="rest-of-tonight" className="font-semibold">
        From now on
      </h2>
      <ol>
        {rest.steps.map((step) => {
          const [what, why] = stepWords(step, zone, nowMs, nameOf);
          return (
            <li key={step.kind === "shoot" ? `${step.rigId} ${step.fromMs}` : step.kind}>
              {rigOf(step) ? <span className="text-soft">{rigOf(step)}: </span> : null}
              {what}
              <span className="text-soft">: {why}.</span>
            </li>
          );
        })}
      </ol>
      <p className="text-note text-soft">
        {rest.expectedMin >= 5
          ? `Going home now would give up ${minutes(rest.expectedMin)} of clear time, as far as can be told.`
          : "Going home now gives up next to nothing."}
      </p>
    </section>
  );
}
