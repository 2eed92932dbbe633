import { clockTime, shortNight } from "~/components/clock";
import { WorthStrip } from "~/components/charts/WorthStrip";
import { fixed } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { needWords, rankWords } from "~/components/words/rank-words";
import { entryFacts, entryTitle } from "~/components/words/target-words";
import { SkyPicture } from "~/components/SkyPicture";
import { opticsOf } from "~/core/framing";
import { firstLayout } from "~/core/plan";
import { formatMinutes } from "~/core/notation";
import type { FirstAnswer } from "~/desk/kit/start";

/** The first answer: tonight's three best, when, and why. */
export function FirstBest({
  answer,
  isBusy,
  onBegin,
}: {
  readonly answer: FirstAnswer;
  readonly isBusy: boolean;
  readonly onBegin: (targetId: string | null) => void;
}) {
  const { best, night, place, date } = answer;
  const optics = opticsOf(answer.rig);
  const zone = place.timeZone;
  if (best.length === 0)
    return (
      <p className="text-soft mt-4 max-w-prose">
        Nothing stands high enough in the dark from {place.name} on {shortNight(date)} for this kit: the Sun goes down
        to {fixed(Math.min(...night.steps.sunAltitudeDeg, 0))}°. Keep place and rig all the same: other nights are
        another matter.{" "}
        <Button disabled={isBusy} onClick={() => onBegin(null)}>
          Keep place and rig
        </Button>
      </p>
    );
  return (
    <section aria-labelledby="first-answer" className="mt-5">
      <h2 id="first-answer" className="text-figure font-serif" tabIndex={-1}>
        {shortNight(date)}, the best three, if it is clear
      </h2>
      {answer.isTonight ? null : (
        <p className="text-lamp">It does not get dark there tonight. First dark night there: {shortNight(date)}.</p>
      )}
      <ol className="mt-1">
        {best.map(({ target, night: its }, i) => {
          const [first, last] = [its.windows[0], its.windows.at(-1)];
          const need = needWords(target);
          return (
            <li
              key={target.entry.id}
              className="border-rule grid gap-x-6 gap-y-1 border-t py-3 md:grid-cols-[minmax(0,26rem)_minmax(0,1fr)_auto]"
            >
              <div className="flex gap-3">
                <SkyPicture entry={target.entry} frame={firstLayout(target.entry, optics)} sizePx={96} />
                <div className="min-w-0">
                  <h3 className="text-body font-semibold">{entryTitle(target.entry)}</h3>
                  <p className="text-note text-soft">{entryFacts(target.entry)}</p>
                  <p className="text-note">
                    {first && last
                      ? `${clockTime(first.startMs, zone)} to ${clockTime(last.endMs, zone)}, ${formatMinutes(target.usableMin)} usable in ${its.channel}`
                      : ""}
                    {`, up to ${fixed(target.topAltitudeDeg)}°`}
                  </p>
                  <p className="text-note text-soft">{rankWords(target)}</p>
                </div>
              </div>
              <WorthStrip steps={night.steps} walk={its.walk} channel={its.channel} zone={zone} />
              <div className="flex flex-col items-end justify-center gap-1">
                <Button look={i === 0 ? "main" : "quiet"} disabled={isBusy} onClick={() => onBegin(target.entry.id)}>
                  {answer.isTonight ? "Begin it tonight" : "Begin it"}
                </Button>
                <span className="text-note text-faint">
                  {need.hours}, {need.nights}
                </span>
              </div>
            </li>
          );
        })}
      </ol>
      <p className="border-rule flex flex-wrap items-baseline justify-between gap-3 border-t pt-2">
        <span className="text-note text-soft max-w-prose">
          Same ranking as under Targets: worth of the night × fit to the field × how rewarding × whether the season
          suffices. A level skyline is assumed until you draw yours.
        </span>
        <Button look="plain" disabled={isBusy} onClick={() => onBegin(null)}>
          Only keep place and rig
        </Button>
      </p>
    </section>
  );
}
