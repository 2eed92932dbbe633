import { Suspense } from "react";
import { Await, Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { SkyPicture } from "~/components/SkyPicture";
import { clockTime, shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import type { ChannelSum } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { channelsText } from "~/core/season";
import type { ProjectCardView, ProjectsView } from "./load";

/** A project at a glance: its frame on the sky, how far each channel is, and its next night. */
export function ProjectCard({
  id,
  name,
  card,
  targets,
  next,
  search,
}: {
  readonly id: string;
  readonly name: string;
  readonly card: ProjectCardView;
  readonly targets: ProjectsView["targets"];
  readonly next: ProjectsView["next"];
  readonly search: string;
}) {
  const sum = (of: (c: ChannelSum) => number) => card.channels.reduce((s, c) => s + of(c), 0);
  const frame = card.panels === 1 ? "one frame" : counted(card.panels, "panel");
  return (
    <article className="grid grid-cols-[7.5rem_minmax(0,1fr)] gap-x-4">
      <Link to={`/projects/${id}/frame${search}`} aria-label={`The frame of ${name}`} title="Its frame">
        <Suspense fallback={<SkyPicture entry={null} sizePx={120} />}>
          <Await resolve={targets} errorElement={<SkyPicture entry={null} frame={card.frame} sizePx={120} />}>
            {(of) => (
              <SkyPicture
                entry={of[id] ?? null}
                frame={card.frame}
                sizePx={120}
                label={`${name}: ${frame} on its piece of sky`}
              />
            )}
          </Await>
        </Suspense>
      </Link>
      <div className="min-w-0">
        <h2 className="text-figure leading-tight">
          <Link to={`/projects/${id}/plan${search}`} className="hover:underline">
            {name}
          </Link>
        </h2>
        <p className="text-note text-soft">
          {card.target} · {frame} · {card.rig}, {card.place}
          {card.members > 1 ? ` · ${counted(card.members, "person", "people")}` : ""}
        </p>
        <ChannelBars channels={card.channels} />
        <p className="text-note text-soft">
          {formatMinutes(sum((c) => c.keptMin))} kept, counts {formatMinutes(sum((c) => c.countedMin))} of{" "}
          {formatMinutes(sum((c) => c.goalMin))}
        </p>
        {card.isMine ? (
          <p className="text-note min-h-5">
            <Suspense fallback={<span className="text-faint">Next night: asking the plan …</span>}>
              <Await resolve={next} errorElement={<span className="text-rust">The plan could not be made.</span>}>
                {(of) => (
                  <NextNight
                    night={of[id] ?? null}
                    isDone={sum((c) => c.goalMin) > 0 && card.channels.every((c) => c.share >= 1)}
                    zone={card.zone}
                  />
                )}
              </Await>
            </Suspense>
          </p>
        ) : (
          <p className="text-note text-soft">Others shoot it; you take no part.</p>
        )}
      </div>
    </article>
  );
}

/** How far each channel is towards its goal, all panels together. */
function ChannelBars({ channels }: { readonly channels: readonly ChannelSum[] }) {
  if (channels.length === 0) return <p className="text-note text-soft my-1">No goals yet: set them under Budget.</p>;
  return (
    <ul className="my-1.5 space-y-1">
      {channels.map((c) => {
        const words = `${c.channel}${c.isShort ? " short" : ""}`;
        return (
          <li key={words} className="text-note flex items-center gap-2">
            <span className="text-soft w-14 shrink-0">{words}</span>
            <span className="bg-raised border-rule h-2.5 min-w-0 flex-1 border-b">
              <span
                className="block h-full"
                style={{ width: `${Math.min(100, 100 * c.share)}%`, background: CHANNEL_COLOUR[c.channel] }}
              />
            </span>
            <span className="text-soft w-12 shrink-0 text-right tabular-nums">
              {percent(c.share < 1 ? Math.min(0.99, c.share) : c.share)}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** When the plan takes it up next. */
function NextNight({
  night,
  isDone,
  zone,
}: {
  readonly night: Awaited<ProjectsView["next"]>[string];
  readonly isDone: boolean;
  readonly zone: string;
}) {
  const [first] = night?.blocks ?? [];
  if (!night || !first)
    return <span className="text-soft">{isDone ? "All collected." : "No night for it in the plan."}</span>;
  return (
    <>
      Next: <b>{shortNight(night.night)}</b>, {clockTime(first.startMs, zone)}, {channelsText(first)}
      <span className="text-soft"> · {percent(night.evening.chance)} clear</span>
    </>
  );
}
