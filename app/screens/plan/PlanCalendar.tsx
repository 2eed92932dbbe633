import { Link } from "react-router";
import { channelsText, isReserve, type ShareNight } from "~/core/season";
import { formatMinutes } from "~/core/notation";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime, shortNight } from "~/components/clock";
import { clearWords } from "~/components/words/chance-words";

/** The nights of a project's share: from when to when, in which channel, how likely clear, and whether it is still wanted by then. */
export function PlanCalendar({
  nights,
  zone,
  isAssumed,
  linkTo,
}: {
  readonly nights: readonly ShareNight[];
  readonly zone: string;
  /** Whether the chance of a night is assumed: no forecast speaks of it, and nobody knows the place. */
  readonly isAssumed: (night: string) => boolean;
  readonly linkTo: (date: string) => string;
}) {
  return (
    <ol className="gap-x-8 md:columns-2">
      {nights.map((n) => (
        <li
          key={`${n.night} ${n.evening.rigIds.join()}`}
          className={`border-rule grid break-inside-avoid grid-cols-[5.5rem_minmax(0,1fr)_4.5rem] items-baseline gap-x-3 border-t py-1 ${isReserve(n.needed) ? "text-faint" : ""}`}
        >
          <Link to={linkTo(n.night)} className="hover:underline">
            {shortNight(n.night)}
          </Link>
          <ul>
            {n.blocks.map((b) => (
              <li key={b.startMs}>
                <span
                  className="mr-2 inline-block h-2.5 w-1.5"
                  style={{ background: CHANNEL_COLOUR[b.channel] }}
                  aria-hidden="true"
                />
                {channelsText(b)} {clockTime(b.startMs, zone)}–{clockTime(b.endMs, zone)}
                <span className="text-note text-soft"> · {formatMinutes(b.countsMin)}</span>
              </li>
            ))}
          </ul>
          <span className="text-note text-right">
            {clearWords(n.evening.chance, isAssumed(n.evening.night))}
            {isReserve(n.needed) ? <span className="block">reserve</span> : null}
          </span>
        </li>
      ))}
    </ol>
  );
}
