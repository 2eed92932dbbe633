import { temperature } from "~/components/measures";
import { Suspense } from "react";
import { Await } from "react-router";
import { longNight } from "~/components/clock";
import { fixed, percent } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import type { CellAdvice, DoneAdvice, Unlevel } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { Declination, RightAscension } from "~/components/Position";
import type { DoneView, Repeat } from "~/desk/projects/done";

const VERDICTS = {
  done: "Done: every goal is met.",
  enough: "Good enough: what is missing nobody would see.",
  more: "More would be seen.",
} as const satisfies Readonly<Record<DoneAdvice["verdict"], string>>;

const nameOf = ({ cell }: CellAdvice) => `${cell.panel} ${cell.channel}${cell.isShort ? " short" : ""}`;

const gainWords = ({ gain }: CellAdvice): string =>
  Number.isFinite(gain) ? `an hour more gives ${percent(gain - 1)} more signal to noise` : "an hour more is the first";

const levelWords = (u: Unlevel): string =>
  Number.isFinite(u.ratio)
    ? `${u.channel}${u.isShort ? " short" : ""}: ${u.weakest} is ${fixed(u.ratio, 1)} times as noisy as the best panel, and its seam will show. ${fixed(u.softHours, 1)} h would hide it, ${fixed(u.levelHours, 1)} h make all alike.`
    : `${u.channel}${u.isShort ? " short" : ""}: ${u.weakest} has nothing yet. ${fixed(u.softHours, 1)} h until no seam shows, ${fixed(u.levelHours, 1)} h until all are alike.`;

const MOST_CELLS = 5;

/** Whether the picture is done, where more would help most, and its end or its rest. */
export function DonePanel({
  view,
  isBusy,
  onState,
}: {
  readonly view: DoneView;
  readonly isBusy: boolean;
  readonly onState: (state: "finish" | "resume" | { readonly restsUntil: string }) => void;
}) {
  const { advice, finishedOn, restsUntil } = view;
  if (advice.cells.length === 0) return null;
  const open = advice.cells.filter((c) => c.cell.share < 0.995);
  return (
    <Section title="Done, or more?">
      <p className="text-figure">
        {finishedOn
          ? `Finished, on ${longNight(finishedOn)}.`
          : restsUntil
            ? `Rests until ${longNight(restsUntil)}.`
            : VERDICTS[advice.verdict]}
      </p>
      {open.length > 0 ? (
        <ul className="mt-1">
          {open.slice(0, MOST_CELLS).map((c) => (
            <li key={nameOf(c)} className="border-rule border-t py-1.5">
              <span className="font-semibold">{nameOf(c)}</span>: {formatMinutes(c.cell.countedMin)} of{" "}
              {formatMinutes(c.cell.goalMin)}
              {c.shortMag === null ? "" : `, ${fixed(c.shortMag, 2)} mag short`}; {gainWords(c)}.
            </li>
          ))}
          {open.length > MOST_CELLS ? (
            <li className="text-note text-soft border-rule border-t py-1.5">
              and {open.length - MOST_CELLS} more below their goals
            </li>
          ) : null}
        </ul>
      ) : null}
      {advice.unlevel.length > 0 ? (
        <ul className="mt-2">
          {advice.unlevel.map((u) => (
            <li key={`${u.channel} ${u.isShort}`} className="py-1">
              {levelWords(u)}
            </li>
          ))}
        </ul>
      ) : null}
      <div className="mt-3 flex flex-wrap gap-2">
        {finishedOn !== null || restsUntil !== null ? (
          <Button look="main" disabled={isBusy} onClick={() => onState("resume")}>
            Take it up again
          </Button>
        ) : (
          <>
            <Button
              look={advice.verdict === "more" ? "plain" : "main"}
              disabled={isBusy}
              onClick={() => onState("finish")}
            >
              Call it finished
            </Button>
            <Suspense>
              <Await resolve={view.nextSeason}>
                {(night) =>
                  night === null ? null : (
                    <Button disabled={isBusy} onClick={() => onState({ restsUntil: night })}>
                      Keep for next season, from {longNight(night)}
                    </Button>
                  )
                }
              </Await>
            </Suspense>
          </>
        )}
      </div>
      <RepeatList repeat={view.repeat} />
      <p className="text-note text-soft mt-2">
        <Why title="How it is judged">
          <p>
            Depth grows with 1.25 times the logarithm of hours: 70 % of a goal is 0.19 mag short, which nobody misses in
            a finished picture (common practice). Panels that differ by more than 1.2 times in noise show a seam. One
            hour more on W hours lifts signal to noise by √((W + 1)/W), where the sky sets the noise. Finished and
            resting pictures are not planned for; nothing of them is deleted.
          </p>
        </Why>
      </p>
    </Section>
  );
}

/** What to set up again: frame, angle, camera, calibration. */
function RepeatList({ repeat }: { readonly repeat: Repeat }) {
  const { panels, lights, measuredAngleDeg, sensorC, flats, darks } = repeat;
  return (
    <details className="mt-3">
      <summary className="cursor-pointer underline underline-offset-4">What to set up again to go on with it</summary>
      <ul className="mt-2">
        {panels.slice(0, 30).map((p) => (
          <li key={p.panel}>
            {p.panel}: <RightAscension deg={p.raDeg} /> <Declination deg={p.decDeg} />, camera angle{" "}
            {fixed(p.positionAngleDeg, 1)}° (or 180° from it)
          </li>
        ))}
        {measuredAngleDeg === null ? null : <li>Measured on the last solved sub: {fixed(measuredAngleDeg, 1)}°</li>}
        <li>
          {repeat.rigName}
          {sensorC === null ? "" : `, sensor at ${temperature(sensorC)}`}
        </li>
        {lights.map((l) => (
          <li key={`${l.channel} ${l.subSec}`}>
            {l.filterName}: {l.subSec} s{l.gain === null ? "" : `, gain ${fixed(l.gain)}`}
          </li>
        ))}
        <li>
          {flats === null
            ? "No flats on the shelf: take new ones."
            : `Flats of ${flats}: void once the camera was turned or taken off.`}{" "}
          {darks === null ? "No darks on the shelf." : `Darks of ${darks} serve for a year.`}
        </li>
      </ul>
    </details>
  );
}
