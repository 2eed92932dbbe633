import { deskOf } from "~/at-desk";
import { HourWords } from "~/components/HourWords";
import { Link, useSearchParams } from "react-router";
import { Loom } from "~/components/charts/Loom";
import { CollectedChart, FinishChart } from "~/components/charts/later-charts";
import type { HoursBy } from "~/components/charts/drawn/CollectedChart";
import { ProofLine } from "~/components/charts/ProofLine";
import { ruleWords } from "~/components/words/rule-words";
import { saveWords } from "~/components/words/save-words";
import { leftForOthersWords } from "~/components/words/target-words";
import { shortNight } from "~/components/clock";
import { isAssumedOn } from "~/components/words/chance-words";
import { PlanCalendar } from "./PlanCalendar";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { useSeason } from "~/components/use-season";
import { collectedByNight } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import {
  isReserve,
  plannedHours,
  shareOf,
  type ProjectShare,
  type Save,
  type SeasonPlan,
  type SeasonQuestion,
} from "~/core/season";
import { NIGHT_PERSISTENCE } from "~/core/weather";
import { addNights } from "~/core/time";
import { libraryHere } from "~/desk/records/open-library";
import { keptSearch } from "~/desk/sky/choice";
import { isAtRest, requireContext } from "~/desk/projects/project";
import { savesFor } from "~/desk/plan/saves";
import { seasonInTurns } from "~/desk/plan/season";
import type { Route } from "./+types/route";

const SHOWN = 60;

export async function clientLoader({ context, params }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const library = await libraryHere(desk);
  const c = requireContext(library, params.projectId);
  const run = await seasonInTurns(library);
  await run.settled;
  return {
    run,
    savesOf: (share: ProjectShare) => savesFor(library, c, share, run.question.from),
    projectId: c.id,
    isMine: c.part.isMine,
    atRest: isAtRest(c),
    goalMin: c.cells.reduce((s, cell) => s + cell.goalMin, 0),
    cells: c.cells,
    others: leftForOthersWords(c),
    counted: collectedByNight(c.counted).map((k) => ({ night: k.night, hours: k.countedMin / 60 })),
    placeName: c.place.data.name,
    zone: c.place.data.timeZone,
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Plan · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function PlanRoute({ loaderData }: Route.ComponentProps) {
  const plan = useSeason(loaderData.run);
  const [params] = useSearchParams();
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        {plan ? (
          <Share {...loaderData} question={loaderData.run.question} plan={plan} search={keptSearch(params)} />
        ) : null}
      </div>
      <aside>
        <Section title="Collected so far">
          <Loom cells={loaderData.cells} isLarge />
        </Section>
      </aside>
    </div>
  );
}

/** A project's share of the one plan, and its odds. */
function Share({
  plan,
  projectId,
  isMine,
  atRest,
  goalMin,
  counted,
  placeName,
  zone,
  others,
  search,
  savesOf,
  question,
}: {
  readonly plan: SeasonPlan;
  readonly question: SeasonQuestion;
  readonly savesOf: (share: ProjectShare) => readonly Save[];
  readonly projectId: string;
  readonly isMine: boolean;
  /** Finished, or waiting for its next season. */
  readonly atRest: boolean;
  readonly goalMin: number;
  readonly counted: readonly HoursBy[];
  readonly placeName: string;
  readonly zone: string;
  /** What is left for others, in words. */
  readonly others: string;
  readonly search: string;
}) {
  const share = shareOf(plan, projectId);
  const { odds, nights, deciding } = share;
  const literal = plan.literally?.find((o) => o.projectId === projectId) ?? null;
  const isByLight = question.projects.some((p) => p.id === projectId && p.counts === "light");
  const hasReserve = nights.some((n) => isReserve(n.needed));
  const home = question.places.find((p) => p.id === question.projects.find((x) => x.id === projectId)?.placeId);
  const isAssumed = (night: string) => isAssumedOn(home, night);
  if (!isMine)
    return (
      <p className="text-figure">
        You take no part in this project, so your season has no night for it. Take part above.
      </p>
    );
  if (atRest)
    return (
      <p className="text-figure">
        Nothing is planned for it: it is finished, or rests until its next season. Take it up again under Record.
      </p>
    );
  if (share.jobs.length === 0)
    return (
      <p className="text-figure">
        {others
          ? `Nothing left for this rig: ${others}.`
          : "Every goal is met. Raise the hours under Budget to go deeper."}
      </p>
    );
  const saves = savesOf(share);
  const rules = ruleWords(question, projectId);
  const left = share.jobs.reduce((s, j) => s + j.needMin, 0);
  const last = addNights(plan.from, plan.nights - 1);
  const when = (date: string | null) => (date === null ? `after ${shortNight(last)}` : shortNight(date));
  const countedMin = (counted.at(-1)?.hours ?? 0) * 60;
  const planned = [{ night: plan.from, hours: countedMin / 60 }, ...plannedHours(share, countedMin)];
  const dates = Array.from({ length: plan.nights }, (_, i) => addNights(plan.from, i));
  const expected = share.jobs.reduce((s, j) => s + Math.min(j.expectedMin, j.needMin), 0);
  return (
    <>
      <p className="text-figure leading-snug">
        {nights.length === 0
          ? "The season has no night for it: it is never up long enough, or others need the nights more."
          : !odds
            ? "Reckoning the odds …"
            : odds.half
              ? `An even chance of being done by ${shortNight(odds.half)}.`
              : odds.doneShare >= 0.1
                ? `Done by ${shortNight(last)} in ${Math.round(odds.doneShare * 100)} of 100 seasons.`
                : `Not to be finished by ${shortNight(last)}.`}
      </p>
      {rules.length > 0 ? <p className="text-soft mt-1 max-w-[64ch]">{rules.join(" ")}</p> : null}
      {odds && nights.length > 0 ? (
        <p className="text-soft mt-1 max-w-[64ch]">
          <Why
            title={
              odds.tenth
                ? `One in ten by ${when(odds.tenth)}, nine in ten ${odds.ninetieth ? `by ${when(odds.ninetieth)}` : "not within the season"}`
                : `About ${formatMinutes(Math.round(expected / 10) * 10)} of the ${formatMinutes(left)} left are to be expected`
            }
          >
            <p>
              {plan.runs} seasons played as this plan would be followed: each night clear by the chance of {placeName}{" "}
              (forecasts first, then its months
              {nights.some((n) => isAssumed(n.night)) ? ", which are not known: 40 % is assumed" : ""}), clear nights
              coming in runs (day-to-day correlation {NIGHT_PERSISTENCE}, a figure we remember and have not measured
              here), and on every clear night the programme that serves best what would be missing in the end. The same
              random numbers every time, so two plans differ by their inputs only.
            </p>
            {literal ? (
              <p className="mt-2">
                That is if you follow the plan anew each night. If you keep the nights as they are printed, whatever
                comes: {literal.half ? `an even chance by ${shortNight(literal.half)}, ` : ""}
                {Math.round(literal.doneShare * 100)} % within {plan.nights} nights.
              </p>
            ) : null}
            <p className="mt-2">
              One in ten: {when(odds.tenth)}; half: {when(odds.half)}; nine in ten: {when(odds.ninetieth)}.{" "}
              {Math.round(odds.doneShare * 100)} % within {plan.nights} nights.
            </p>
          </Why>
          . {formatMinutes(left)} to go{isByLight ? ", counted as at its best here: highest, no Moon" : ""}
          {share.clockMin === null ? "" : `, about ${formatMinutes(Math.round(share.clockMin / 10) * 10)} by the clock`}
          .{deciding ? ` ${deciding.channel} decides: ${formatMinutes(deciding.needMin)} of it.` : ""}
          {others ? ` Not in this plan: ${others}.` : ""}
        </p>
      ) : null}
      {saves.length > 0 ? (
        <>
          <p className="mt-3">It would be finished with any of these:</p>
          <ul className="text-soft list-disc pl-5">
            {saves.map((save) => (
              <li key={saveWords(save)}>{saveWords(save)}</li>
            ))}
          </ul>
        </>
      ) : null}
      <div className="grid gap-x-8 xl:grid-cols-2">
        {odds ? (
          <Section title="Done by when" aside={`of ${plan.runs} seasons`}>
            <FinishChart dates={dates} odds={odds} />
          </Section>
        ) : null}
        <Section title="Hours that count, and the plan" aside="if every planned night is clear">
          <CollectedChart kept={counted} planned={planned} goalHours={goalMin / 60} />
        </Section>
      </div>
      <HourWords of={["exposure", "kept", "counts", "by the clock"]} />
      <Section title="Its nights" aside="hours = what they count if it is clear">
        {hasReserve ? (
          <p className="text-note text-soft mb-2 max-w-[64ch]">
            Faint nights are a reserve: by then it is done in more than half the seasons played. They are there for what
            clouds leave undone.
          </p>
        ) : null}
        <PlanCalendar
          nights={nights.slice(0, SHOWN)}
          zone={zone}
          isAssumed={isAssumed}
          linkTo={(date) =>
            `/nights?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), night: date }).toString()}`
          }
        />
      </Section>
      <div className="mt-3 max-w-md">
        <ProofLine plan={plan} />
      </div>
      <p className="text-note text-faint mt-3">
        Its share of the one plan for all your projects:{" "}
        <Link to={`/season${search}`} className="underline">
          see the season
        </Link>
        .
      </p>
    </>
  );
}
