import type { NightEvents, SunLine } from "~/core/sky";
import { shortNight } from "~/components/clock";
import { Time } from "~/components/Time";
import { Panel } from "~/components/ui/Panel";

function Line({ word, line, zone }: { readonly word: string; readonly line: SunLine; readonly zone: string }) {
  return (
    <div className="flex justify-between gap-3">
      <dt className="text-soft">{word}</dt>
      <dd>
        {line.kind === "passes" ? (
          <>
            {line.downMs !== null ? <Time ms={line.downMs} zone={zone} /> : "–"} to{" "}
            {line.upMs !== null ? <Time ms={line.upMs} zone={zone} /> : "–"}
          </>
        ) : line.kind === "staysAbove" ? (
          "never"
        ) : (
          "all day"
        )}
      </dd>
    </div>
  );
}

/** Sun and Moon of the night, and what to mind before going out. */
export function TonightFacts({
  events,
  illuminatedFraction,
  clearChance,
  isChanceAssumed,
  zone,
  night,
}: {
  readonly events: NightEvents;
  readonly illuminatedFraction: number;
  readonly clearChance: number;
  readonly isChanceAssumed: boolean;
  readonly zone: string;
  readonly night: string;
}) {
  const moon = [
    ...events.moonrises.map((ms) => ({ ms, word: "rises" })),
    ...events.moonsets.map((ms) => ({ ms, word: "sets" })),
  ].sort((a, b) => a.ms - b.ms);
  return (
    <Panel title="Sun and Moon" aside={shortNight(night)}>
      <dl className="space-y-0.5">
        <Line word="Sun down" line={events.horizon} zone={zone} />
        <Line word="below −12°" line={events.nautical} zone={zone} />
        <Line word="dark, below −18°" line={events.astronomical} zone={zone} />
        <div className="flex justify-between gap-3">
          <dt className="text-moon">Moon, {Math.round(illuminatedFraction * 100)} % lit</dt>
          <dd>
            {moon.length === 0 ? "no rise or set" : null}
            {moon.map(({ ms, word }, i) => (
              <span key={ms}>
                {i > 0 ? ", " : ""}
                {word} <Time ms={ms} zone={zone} />
              </span>
            ))}
          </dd>
        </div>
        <div className="flex justify-between gap-3">
          <dt className="text-sage">Clear nights</dt>
          <dd>
            {isChanceAssumed
              ? `not known here; ${Math.round(clearChance * 100)} of 100 assumed`
              : `${Math.round(clearChance * 100)} of 100, long-term`}
          </dd>
        </div>
      </dl>
      <p className="text-note text-faint mt-3">Look up before you carry anything out. Cap the tube before sunrise.</p>
    </Panel>
  );
}
