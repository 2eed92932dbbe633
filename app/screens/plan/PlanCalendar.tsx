import type { PlannedNight } from "~/core/plan";
import type { Channel } from "~/core/exposure";
import { formatMinutes } from "~/core/notation";
import { Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { shortNight } from "~/components/clock";

/** What each night gives: usable time as a pale bar, the exposure planned in it by channel, and for which panels. */
export function PlanCalendar({
  nights,
  offers,
  linkTo,
}: {
  readonly nights: readonly PlannedNight[];
  readonly offers: ReadonlyMap<string, Readonly<Partial<Record<Channel, { readonly usableMin: number }>>>>;
  readonly linkTo: (date: string) => string;
}) {
  const most = Math.max(60, ...nights.map((n) => n.usableMin));
  return (
    <ol className="gap-x-8 md:columns-2">
      {nights.map((n) => {
        const byChannel = [...new Set(n.work.map((w) => w.channel))].map((channel) => ({
          channel,
          min: n.work.filter((w) => w.channel === channel).reduce((s, w) => s + w.exposureMin, 0),
          panels: n.work.filter((w) => w.channel === channel).map((w) => w.panel),
        }));
        const could = Object.entries(offers.get(n.date) ?? {}).map(([c, o]) => `${c} ${formatMinutes(o.usableMin)}`);
        return (
          <li
            key={n.date}
            className="border-rule grid break-inside-avoid grid-cols-[5.5rem_minmax(0,1fr)_8.5rem] items-center gap-x-3 border-t py-1"
          >
            <Link to={linkTo(n.date)} className="hover:underline">
              {shortNight(n.date)}
            </Link>
            <div
              className="[container-type:inline-size] relative h-4"
              title={`usable: ${could.join(", ") || "nothing"}`}
            >
              <div
                className="bg-raised absolute inset-y-0 left-0"
                style={{ width: `${(100 * n.usableMin) / most}%` }}
              />
              <div className="absolute inset-y-1 left-0 flex">
                {byChannel.map((b) => (
                  <div
                    key={b.channel}
                    className="h-full"
                    style={{ width: `${(b.min / most) * 100}cqw`, background: CHANNEL_COLOUR[b.channel] }}
                  />
                ))}
              </div>
            </div>
            <p className="text-note truncate text-right">
              {byChannel.length === 0 ? (
                <span className="text-faint">
                  {n.usableMin > 0 ? `${formatMinutes(n.usableMin)} free` : "nothing usable"}
                </span>
              ) : (
                byChannel.map((b) => `${b.channel} ${formatMinutes(b.min)}`).join(", ")
              )}
            </p>
            {byChannel.some((b) => b.panels.length > 1) ? (
              <p className="text-note text-faint col-span-2 col-start-2 -mt-0.5">
                {byChannel.map((b) => `${b.channel} ${b.panels.join(" ")}`).join(", ")}
              </p>
            ) : null}
          </li>
        );
      })}
    </ol>
  );
}
