import { useDesk } from "~/at-desk";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime, longNight, shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import { clearWords, isAssumedOn } from "~/components/words/chance-words";
import { SkyPicture } from "~/components/SkyPicture";
import { Panel } from "~/components/ui/Panel";
import { formatMinutes } from "~/core/notation";
import { channelsText, type Evening, type SeasonPlan, type WhyEvening } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonIntent } from "./intents";
import type { SeasonView } from "./load";
import { BlockByHand, ByHand } from "./ByHand";

const SLIGHT_MIN = 3; // less is as good as nothing

/** The chosen night: what each rig does, why, what would do instead, and what can be fixed by hand. */
export function NightDetail({
  plan,
  view,
  night,
  search,
  act,
}: {
  readonly plan: SeasonPlan;
  readonly view: SeasonView;
  readonly night: NightDate;
  readonly search: string;
  readonly act: (intent: SeasonIntent) => void;
}) {
  const evenings = plan.evenings.filter((e) => e.night === night);
  const isAhead = night >= view.today;
  const busy = evenings.find((e) => e.closed === "busy" || e.closed === "forbidden")?.closed;
  const planned = new Set(evenings.flatMap((e) => e.blocks.map((b) => b.projectId)));
  return (
    <Panel title={longNight(night)}>
      {evenings.every((e) => e.blocks.length === 0) ? (
        <p className="text-soft">
          {!isAhead
            ? "Gone by: see the log."
            : busy === "forbidden"
              ? "You keep this night free."
              : busy === "busy"
                ? "This evening of the week is not free, by your own rules."
                : evenings.some((e) => e.usableMin >= 45)
                  ? "Left free: what is left is as good as done without it."
                  : "Nothing of yours is usable long enough."}
        </p>
      ) : null}
      {evenings
        .filter((e) => e.blocks.length > 0)
        .map((e) => (
          <EveningWords
            key={`${e.placeId} ${e.rigIds.join()}`}
            evening={e}
            view={view}
            plan={plan}
            act={isAhead ? act : null}
          />
        ))}
      {isAhead ? <ByHand view={view} night={night} planned={planned} act={act} /> : null}
      {planned.size > 0 ? (
        <p className="mt-3">
          <Link to={`/nights${search}`} className="underline underline-offset-4">
            Open the run sheet
          </Link>
        </p>
      ) : null}
    </Panel>
  );
}

/** One rig's evening, and why it is so. */
function EveningWords({
  evening,
  view,
  plan,
  act,
}: {
  readonly evening: Evening;
  readonly view: SeasonView;
  readonly plan: SeasonPlan;
  /** Null = nothing of it can be changed any more. */
  readonly act: ((intent: SeasonIntent) => void) | null;
}) {
  const zone = view.zones[evening.placeId] ?? view.zone;
  const nameOf = (id: string) => view.projects.find((p) => p.id === id)?.name ?? id;
  const at = view.run?.question.places.find((p) => p.id === evening.placeId);
  return (
    <div className="mb-2">
      <p className="text-note text-soft">
        {evening.rigIds.map((id) => view.rigNames[id] ?? id).join(", ")}, {view.placeNames[evening.placeId]} ·{" "}
        {isAssumedOn(at, evening.night)
          ? clearWords(evening.chance, true)
          : `${clearWords(evening.chance, false)}, by ${at?.hours[evening.night] ? "the forecasts" : "the place's own chance"}`}
        {evening.isFixed ? " · kept by hand" : ""}
      </p>
      <div className="my-1 flex flex-wrap gap-2">
        {[...new Set(evening.blocks.map((b) => b.projectId))].map((id) => (
          <figure key={id} className="w-24">
            <SkyPicture
              entry={null}
              frame={view.projects.find((p) => p.id === id)?.layout ?? null}
              sizePx={96}
              label={`${nameOf(id)}: its frame`}
            />
            <figcaption className="text-note text-soft truncate" aria-hidden="true">
              {nameOf(id)}
            </figcaption>
          </figure>
        ))}
      </div>
      <ul>
        {evening.blocks.map((b) => (
          <li key={b.startMs}>
            <span
              className="mr-2 inline-block h-2.5 w-1.5"
              style={{ background: CHANNEL_COLOUR[b.channel] }}
              aria-hidden="true"
            />
            {clockTime(b.startMs, zone)}–{clockTime(b.endMs, zone)} <b>{nameOf(b.projectId)}</b>, {channelsText(b)}
            <span className="text-soft">
              {" "}
              · {formatMinutes(b.exposureMin)} of exposure
              {b.subs === undefined ? "" : ` (${b.subs} × ${b.subSec} s)`}
              {Math.abs(b.exposureMin - b.countsMin) < 1 ? "" : `, counts ${formatMinutes(b.countsMin)}`}
            </span>
            {act ? (
              <BlockByHand block={b} view={view} night={evening.night} act={act} name={nameOf(b.projectId)} />
            ) : null}
          </li>
        ))}
      </ul>
      {plan.stage === "whole" ? <WhyWords evening={evening} plan={plan} nameOf={nameOf} /> : null}
    </div>
  );
}

function WhyWords({
  evening,
  plan,
  nameOf,
}: {
  readonly evening: Evening;
  readonly plan: SeasonPlan;
  readonly nameOf: (id: string) => string;
}) {
  const desk = useDesk();
  const [why, setWhy] = useState<{ readonly of: SeasonPlan; readonly it: WhyEvening | null } | null>(null);
  useEffect(() => {
    let isHere = true;
    desk.workers.season.why(evening).then(
      (it) => isHere && setWhy({ of: plan, it }),
      () => undefined, // the plan itself says when its worker is gone
    );
    return () => {
      isHere = false;
    };
  }, [desk, evening, plan]);
  const it = why?.of === plan ? why.it : null;
  if (!it) return null;
  const loses = (min: number) =>
    min < SLIGHT_MIN ? "costs next to nothing" : `would cost the season ${formatMinutes(Math.round(min))}`;
  return (
    <ul className="text-note text-soft mt-1 space-y-0.5">
      {it.brings.map((b) => (
        <li key={`brings ${b.projectId}`}>
          If it is clear, {percent(b.share)} of {nameOf(b.projectId)}
          {b.endWith && b.endWithout !== b.endWith
            ? `; its end comes from ${b.endWithout ? shortNight(b.endWithout) : "beyond the season"} to ${shortNight(b.endWith)}`
            : ""}
          .{" "}
          {b.asGood
            ? `If you stay in, the next night as good is ${shortNight(b.asGood)}.`
            : "None of the next 30 nights is as good for it."}
        </li>
      ))}
      {it.rivals.map((r) => (
        <li key={r.projectId}>
          {nameOf(r.projectId)} instead would count {formatMinutes(r.countsMin)} in {r.channels.join(", then ")} and{" "}
          {loses(r.lossMin)}: it has {r.otherNights === 0 ? "no night" : counted(r.otherNights, "other night")}.
        </li>
      ))}
      {Object.entries(it.instead).map(([id, nights]) =>
        nights.length === 0 ? (
          <li key={id}>For {nameOf(id)} no other night of the next 30 has time that is not planned for it already.</li>
        ) : (
          <li key={id}>
            Instead for {nameOf(id)}:{" "}
            {nights
              .map(
                (n) =>
                  `${shortNight(n.night)} (${n.lossMin < SLIGHT_MIN ? "no loss" : `−${formatMinutes(Math.round(n.lossMin))}`})`,
              )
              .join(", ")}
            .
          </li>
        ),
      )}
    </ul>
  );
}
