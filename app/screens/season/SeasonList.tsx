import clsx from "clsx";
import { Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime, shortNight } from "~/components/clock";
import { percent } from "~/components/numbers";
import { channelsText, type SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonView } from "./load";

/** The leaf on a narrow window: nights with work, and those kept by hand, one below the other. */
export function SeasonList({
  plan,
  view,
  chosen,
  linkTo,
}: {
  readonly plan: SeasonPlan | null;
  readonly view: SeasonView;
  readonly chosen: NightDate;
  readonly linkTo: (night: string) => string;
}) {
  const nights = [...new Set((plan?.evenings ?? []).filter((e) => e.blocks.length > 0).map((e) => e.night))].slice(
    0,
    28,
  );
  const name = new Map(view.projects.map((p) => [p.id, p.name]));
  return (
    <ol>
      {nights.map((night) => {
        const evenings = plan!.evenings.filter((e) => e.night === night);
        return (
          <li key={night} className="border-rule border-t py-1.5">
            <Link
              to={linkTo(night)}
              preventScrollReset
              replace
              aria-current={night === chosen ? "date" : undefined}
              className={clsx("block", night === chosen && "text-lamp")}
            >
              <span className="flex justify-between gap-2">
                <b>{shortNight(night)}</b>
                <span className="text-soft">{percent(evenings[0]?.chance ?? 0)} clear</span>
              </span>
              {evenings.flatMap((e) =>
                e.blocks.map((b) => (
                  <span key={`${b.startMs} ${b.projectId}`} className="block">
                    <span
                      className="mr-2 inline-block h-2.5 w-1.5"
                      style={{ background: CHANNEL_COLOUR[b.channel] }}
                      aria-hidden="true"
                    />
                    {clockTime(b.startMs, view.zones[e.placeId] ?? view.zone)} {name.get(b.projectId)},{" "}
                    {channelsText(b)}
                  </span>
                )),
              )}
            </Link>
          </li>
        );
      })}
    </ol>
  );
}
