import { useState } from "react";
import { useSearchParams } from "react-router";
import { clockTime, shortNight } from "~/components/clock";
import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import type { Played, RehearsalRig, WayKey } from "~/core/rehearsal";
import { Ending, Hindsight, OtherSkies } from "./Afterwards";
import { Frames } from "./Frames";
import type { RehearsalView } from "./load";
import { NightStrip } from "./NightStrip";
import { decisionWords, PREPARED_WORDS, troubleWords, wayCosts, wayName } from "./rehearsal-words";
import { usePlayClock } from "./use-play-clock";

const SPEEDS = [1, 60, 300, 1000] as const;

/** What a rig is doing at an instant: its sub, or the line of its sheet. */
function doingWords(rig: RehearsalRig, index: number, played: Played, nowMs: number, isOver: boolean): string {
  const taken = played.subs.filter((s) => s.rig === index && s.exposure.startMs <= nowMs);
  const last = taken.at(-1);
  const isExposing = last !== undefined && nowMs < last.exposure.startMs + last.exposure.sec * 1000;
  const kept = taken.filter((s) => s.lostTo === null).length;
  if (isOver) return taken.length === 0 ? "nothing was exposed" : `${kept} of ${counted(taken.length, "sub")} kept`;
  const so = taken.length > 0 ? `, ${kept} of ${counted(taken.length, "sub")} kept` : "";
  if (isExposing) return `${last.of.channel} on ${last.of.panel}, ${last.of.subSec} s${so}`;
  return `nothing is exposed${so}`;
}

/** A night played: the clock, the strip, what is to be decided, and what came of it. */
export function Rehearsal({ view }: { readonly view: RehearsalView }) {
  const [params, setParams] = useSearchParams();
  const { played, night, zone, ways } = view;
  const [speed, setSpeed] = useState<number>(300);
  const last = played.decided.at(-1)?.decision.atMs;
  const startMs = Math.min(...night.rigs.flatMap((r) => r.sheet.lines.map((l) => l.startMs)));
  const endMs = Math.max(...night.rigs.flatMap((r) => r.sheet.lines.map((l) => l.endMs)));
  const clock = usePlayClock(last ?? startMs, played.untilMs, speed);
  const decide = (next: readonly WayKey[]) =>
    setParams(
      (p) => {
        p.set("did", next.join("."));
        return p;
      },
      { replace: true, preventScrollReset: true },
    );
  const { due } = played;
  const isDue = due !== null && clock.isThere;
  const isOver = due === null && clock.isThere;
  const words = view.of === "sheet" ? null : PREPARED_WORDS[view.of];
  const another = () => {
    const next = new URLSearchParams(params);
    next.set("sky", String((view.seed % 9999) + 1));
    next.delete("did");
    setParams(next, { preventScrollReset: true });
  };
  return (
    <div className="max-w-4xl">
      <p className="text-soft">
        {words ? words.name : `The sheet of ${shortNight(night.night)}`} · simulated sky and kit
        {night.weather === null ? `, sky ${view.seed} of this forecast` : ""}
      </p>
      <h1 className="text-headline text-[2rem] leading-tight">
        {isOver ? "The night is over." : clockTime(clock.nowMs, zone)}
      </h1>
      {words ? <p className="text-soft">{words.begins}</p> : null}
      {isOver ? <Ending view={view} /> : null}
      <ul className="mt-2">
        {night.rigs.map((rig, i) => (
          <li key={rig.rigId}>
            <span className="text-soft">{rig.rig.name}:</span> {doingWords(rig, i, played, clock.nowMs, isOver)}
            <NightStrip
              startMs={startMs}
              endMs={endMs}
              rig={rig}
              index={i}
              played={played}
              nowMs={clock.nowMs}
              zone={zone}
            />
          </li>
        ))}
      </ul>
      {isDue ? (
        <section aria-label="To be decided" className="border-lamp my-4 border-l-2 pl-4" aria-live="polite">
          <h2 className="text-title">
            {night.rigs.length > 1 ? `${night.rigs[due.rig]!.rig.name}: ` : ""}
            {troubleWords(due.trouble, zone)}
          </h2>
          <ul className="mt-3 space-y-3">
            {due.ways.map((way, i) => (
              <li key={way.does} className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
                <Button
                  className={`min-h-12 min-w-52 ${i === 0 ? "!border-lamp text-lamp border-2 font-semibold" : ""}`}
                  onClick={() => decide([...ways, way.does])}
                >
                  {wayName(way, zone)}
                </Button>
                <span className="text-soft">
                  {i === 0 ? "The app’s advice: " : ""}
                  {wayCosts(way)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      ) : !isOver ? (
        <div className="my-4 flex flex-wrap items-end gap-3">
          <Button look="main" className="min-h-12 min-w-36" onClick={() => clock.run(!clock.isRunning)}>
            {clock.isRunning ? "Pause" : "Play"}
          </Button>
          <Button className="min-h-12" onClick={clock.jump}>
            {due ? "To the next decision" : "To the end"}
          </Button>
          <div className="w-40">
            <SelectField label="Speed" value={String(speed)} onChange={(e) => setSpeed(Number(e.target.value))}>
              {SPEEDS.map((s) => (
                <option key={s} value={s}>
                  {s === 1 ? "as it goes" : `${s} times`}
                </option>
              ))}
            </SelectField>
          </div>
        </div>
      ) : null}
      {played.decided.length > 0 ? (
        <section aria-label="Decided so far" className="mt-2">
          <ol>
            {played.decided.map(({ decision, does }) => (
              <li key={`${decision.atMs} ${decision.rig}`} className="py-0.5">
                <span className="text-soft">{decisionWords(decision, zone)}</span>{" "}
                {wayName(
                  decision.ways.find((w) => w.does === does)!,
                  zone,
                )}
              </li>
            ))}
          </ol>
          <Button className="mt-1" onClick={() => decide(ways.slice(0, played.decided.length - 1))}>
            Undo the last decision
          </Button>
        </section>
      ) : null}
      {isOver ? (
        <>
          {words ? <p className="border-lamp mt-4 border-l-2 pl-4">{words.lesson}</p> : null}
          <Hindsight view={view} />
          {night.weather === null ? <OtherSkies view={view} /> : null}
          <Frames view={view} />
        </>
      ) : null}
      <div className="mt-4 flex flex-wrap gap-2">
        {night.weather === null ? <Button onClick={another}>Another sky</Button> : null}
        <Button
          look="plain"
          onClick={() =>
            setParams(
              (p) => {
                for (const name of ["of", "sky", "did"]) p.delete(name);
                return p;
              },
              { preventScrollReset: false },
            )
          }
        >
          Other nights to rehearse
        </Button>
      </div>
    </div>
  );
}
