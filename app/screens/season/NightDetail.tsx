import { useDesk } from "~/at-desk";
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime, longNight, shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import { clearWords, isAssumedOn } from "~/components/words/chance-words";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { formatMinutes } from "~/core/notation";
import { channelsText, type Evening, type PlannedBlock, type SeasonPlan, type WhyEvening } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonIntent } from "./intents";
import type { SeasonView } from "./load";

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

/** What can be fixed and ruled out by hand on a night. */
function ByHand({
  view,
  night,
  planned,
  act,
}: {
  readonly view: SeasonView;
  readonly night: NightDate;
  readonly planned: ReadonlySet<string>;
  readonly act: (intent: SeasonIntent) => void;
}) {
  const locks = view.locks.filter((l) => l.night === night);
  const free = locks.filter((l) => l.does === "forbid" && l.projectId === undefined && l.placeId === undefined);
  const stretches = locks.filter((l) => l.channel !== undefined);
  const at = locks.filter((l) => l.placeId !== undefined);
  const places = view.plannedPlaces.filter((id) => !at.some((l) => l.placeId === id));
  const quiet = "text-soft hover:text-ink min-h-6 underline underline-offset-4";
  return (
    <div className="border-rule mt-3 border-t pt-2">
      <p className="text-note text-soft">By hand</p>
      <ul>
        {view.projects
          .filter((p) => p.channels.length > 0)
          .map((p) => {
            const lock = locks.find((l) => l.projectId === p.id && l.channel === undefined);
            const about = { projectId: p.id };
            return (
              <li key={p.id} className="flex flex-wrap items-baseline gap-x-3">
                <span className="min-w-0 flex-1 truncate">{p.name}</span>
                {lock ? (
                  <button
                    type="button"
                    className={quiet}
                    aria-label={`${lock.does === "fix" ? "Let go of" : "Allow again"} ${p.name}`}
                    onClick={() => act({ act: "unlock", ids: [lock.id] })}
                  >
                    {lock.does === "fix" ? "kept: let go" : "ruled out: allow"}
                  </button>
                ) : (
                  <>
                    <button
                      type="button"
                      className={quiet}
                      aria-label={`${planned.has(p.id) ? "Keep" : "Shoot instead"}: ${p.name}`}
                      onClick={() => act({ act: "lock", night, about: { does: "fix", ...about } })}
                    >
                      {planned.has(p.id) ? "keep" : "this instead"}
                    </button>
                    {planned.has(p.id) ? (
                      <button
                        type="button"
                        className={quiet}
                        aria-label={`Not this night: ${p.name}`}
                        onClick={() => act({ act: "lock", night, about: { does: "forbid", ...about } })}
                      >
                        not then
                      </button>
                    ) : null}
                  </>
                )}
              </li>
            );
          })}
      </ul>
      {stretches.length + at.length > 0 ? (
        <ul className="border-rule mt-2 border-t pt-1">
          {[...stretches, ...at].map((l) => {
            const what = l.placeId
              ? view.placeNames[l.placeId]
              : `${view.projects.find((p) => p.id === l.projectId)?.name ?? ""} in ${l.channel}`;
            return (
              <li key={l.id} className="flex flex-wrap items-baseline gap-x-3">
                <span className="min-w-0 flex-1 truncate">{what}</span>
                <button
                  type="button"
                  className={quiet}
                  aria-label={`${l.does === "fix" ? "Let go of" : "Allow again"} ${what}`}
                  onClick={() => act({ act: "unlock", ids: [l.id] })}
                >
                  {l.does === "fix" ? "kept: let go" : "ruled out: allow"}
                </button>
              </li>
            );
          })}
        </ul>
      ) : null}
      {view.plannedPlaces.length > 1 && places.length > 0 ? (
        <ul className="border-rule mt-2 border-t pt-1">
          {places.map((id) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-3">
              <span className="min-w-0 flex-1 truncate">{view.placeNames[id]}</span>
              <button
                type="button"
                className={quiet}
                aria-label={`Spend the night at ${view.placeNames[id]}`}
                onClick={() => act({ act: "lock", night, about: { does: "fix", placeId: id } })}
              >
                be there
              </button>
              <button
                type="button"
                className={quiet}
                aria-label={`Not at ${view.placeNames[id]} this night`}
                onClick={() => act({ act: "lock", night, about: { does: "forbid", placeId: id } })}
              >
                not there
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      {free.length > 0 ? (
        <Button className="mt-2" onClick={() => act({ act: "unlock", ids: free.map((l) => l.id) })}>
          Use the night again
        </Button>
      ) : (
        <Button className="mt-2" onClick={() => act({ act: "lock", night, about: { does: "forbid" } })}>
          Keep the night free
        </Button>
      )}
    </div>
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

/** One stretch kept or ruled out by hand: its channel, where its project has others. */
function BlockByHand({
  block,
  view,
  night,
  name,
  act,
}: {
  readonly block: PlannedBlock;
  readonly view: SeasonView;
  readonly night: NightDate;
  readonly name: string;
  readonly act: (intent: SeasonIntent) => void;
}) {
  const { projectId, channel } = block;
  const project = view.projects.find((p) => p.id === projectId);
  if ((project?.channels.length ?? 0) < 2) return null;
  const isKept = view.locks.some((l) => l.night === night && l.projectId === projectId && l.channel === channel);
  const what = `${name} in ${channelsText(block)}`;
  const quiet = "text-soft hover:text-ink min-h-6 underline underline-offset-4";
  const lock = (does: "fix" | "forbid") => act({ act: "lock", night, about: { does, projectId, channel } });
  return (
    <span className="text-note flex gap-3">
      {isKept ? null : (
        <button type="button" className={quiet} aria-label={`Keep this stretch: ${what}`} onClick={() => lock("fix")}>
          keep this stretch
        </button>
      )}
      <button type="button" className={quiet} aria-label={`Not this stretch: ${what}`} onClick={() => lock("forbid")}>
        not this one
      </button>
    </span>
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
