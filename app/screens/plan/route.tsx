import { useEffect, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { Loom } from "~/components/charts/Loom";
import { CollectedChart, FinishChart } from "~/components/charts/later-charts";
import type { HoursBy } from "~/components/charts/drawn/CollectedChart";
import { Progress } from "~/components/ui/Progress";
import { leftForOthersWords } from "~/components/words/target-words";
import { longNight, shortNight } from "~/components/clock";
import { PlanCalendar } from "./PlanCalendar";
import { Button } from "~/components/ui/Button";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { collectedByNight } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { plannedHours } from "~/core/plan";
import { NIGHT_PERSISTENCE } from "~/core/weather";
import { addNights } from "~/core/time";
import { libraryHere } from "~/desk/open-library";
import { planInWorker, type PlanAnswer, type PlanRequest } from "~/workers/plan";
import type { Route } from "./+types/route";
import { choiceOf, keptSearch } from "~/desk/choice";
import { requireContext } from "~/desk/project";

const SHOWN = 60;
const LOOKED_AT = 180;

export async function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  const library = await libraryHere();
  const c = requireContext(library, params.projectId);
  const { today } = choiceOf(library, new URL(request.url).searchParams);
  const plan: PlanRequest = {
    place: c.place.data,
    moon: c.moon,
    target: c.layout.centre,
    needs: c.needs,
    channels: [...new Set(c.needs.map((n) => n.channel))],
    rules: c.rules,
    from: today,
    count: LOOKED_AT,
    runs: 400,
  };
  return {
    plan,
    cells: c.cells,
    others: leftForOthersWords(c),
    kept: collectedByNight(c.counted).map((k) => ({ night: k.night, hours: k.keptMin / 60 })),
    placeName: c.place.data.name,
    school: c.project.data.school,
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Plan · Zenithar" }];

type Work = { readonly key: string } & (
  | { readonly kind: "running"; readonly share: number }
  | { readonly kind: "done"; readonly answer: PlanAnswer }
  | { readonly kind: "stopped" }
  | { readonly kind: "failed"; readonly message: string }
);

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function PlanRoute({ loaderData }: Route.ComponentProps) {
  const { plan, cells, kept, placeName, others } = loaderData;
  const [params] = useSearchParams();
  const key = JSON.stringify(plan);
  const [work, setWork] = useState<Work>({ key, kind: "running", share: 0 });
  const [stop, setStop] = useState<AbortController | null>(null);
  const [turn, setTurn] = useState(0);
  useEffect(() => {
    const controller = new AbortController();
    const request = JSON.parse(key) as PlanRequest;
    const began = setTimeout(() => {
      setStop(controller);
      setWork({ key, kind: "running", share: 0 });
      planInWorker(
        request,
        controller.signal,
        (share) => !controller.signal.aborted && setWork({ key, kind: "running", share }),
      ).then(
        (answer) => setWork({ key, kind: "done", answer }),
        (error: unknown) =>
          !controller.signal.aborted &&
          setWork({ key, kind: "failed", message: error instanceof Error ? error.message : "unknown" }),
      );
    }, 0);
    return () => {
      clearTimeout(began);
      controller.abort(new Error("left"));
    };
  }, [key, turn]);
  const search = keptSearch(params);
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_20rem]">
      <div>
        {work.kind === "running" ? (
          <Progress
            words={`Looking at ${LOOKED_AT} nights …`}
            share={work.share}
            onStop={() => {
              stop?.abort(new Error("stopped"));
              setWork({ key, kind: "stopped" });
            }}
          />
        ) : work.kind === "done" ? (
          <Answer answer={work.answer} plan={plan} kept={kept} placeName={placeName} others={others} search={search} />
        ) : (
          <div className="my-4">
            <p>{work.kind === "stopped" ? "Stopped." : `The plan could not be computed: ${work.message}`}</p>
            <Button className="mt-2" onClick={() => setTurn(turn + 1)}>
              Plan again
            </Button>
          </div>
        )}
      </div>
      <aside>
        <Section title="Collected so far">
          <Loom cells={cells} isLarge />
        </Section>
      </aside>
    </div>
  );
}

function Answer({
  answer,
  plan,
  kept,
  placeName,
  others,
  search,
}: {
  readonly answer: PlanAnswer;
  readonly plan: PlanRequest;
  readonly kept: readonly HoursBy[];
  readonly placeName: string;
  /** What is left for others, in words. */
  readonly others: string;
  readonly search: string;
}) {
  const { plan: result, odds, offers } = answer;
  const left = plan.needs.reduce((s, n) => s + n.remainingMin, 0);
  if (left <= 0.5)
    return (
      <p className="text-figure">
        {others
          ? `Nothing left for this rig: ${others}.`
          : "Every goal is met. Raise the hours under Budget to go deeper."}
      </p>
    );
  const last = addNights(plan.from, LOOKED_AT - 1);
  const when = (date: string | null) => (date === null ? `after ${shortNight(last)}` : shortNight(date));
  const shown = result.nights.slice(0, SHOWN);
  const usable = offers
    .slice(0, SHOWN)
    .filter((o) => Object.values(o.channels).some((c) => c.usableMin >= plan.rules.leastNightMin)).length;
  const done = result.finishedOn;
  const goalMin = plan.needs.reduce((s, n) => s + n.goalMin, 0);
  const keptMin = goalMin - left;
  const planned = [{ night: plan.from, hours: keptMin / 60 }, ...plannedHours(result.nights, keptMin)];
  return (
    <>
      <p className="text-figure leading-snug">
        {done
          ? `With every night clear, done on ${longNight(done)}.`
          : `Even with every night clear not done by ${shortNight(last)}: ${formatMinutes(result.unmetMin)} would be missing.`}
      </p>
      <p className="text-soft mt-1 max-w-[64ch]">
        With the clear nights of {placeName}:{" "}
        <Why
          title={
            odds.half
              ? `half the time by ${shortNight(odds.half)}`
              : `done by ${shortNight(last)} in ${Math.round(odds.doneShare * 100)} of 100 simulations`
          }
        >
          <p>
            {odds.runs} simulations: each night clear by its month&apos;s long-term chance, clear nights coming in runs
            (day-to-day correlation {NIGHT_PERSISTENCE}, from memory), a clear night clear throughout. The same random
            numbers every time, so two plans differ by their inputs only.
          </p>
          <p className="mt-2">
            One in ten: {when(odds.tenth)}; half: {when(odds.half)}; nine in ten: {when(odds.ninetieth)}.{" "}
            {Math.round(odds.doneShare * 100)} % within {LOOKED_AT} nights.
          </p>
        </Why>
        {odds.half
          ? `, one in ten by ${when(odds.tenth)}, nine in ten ${odds.ninetieth ? "by " : ""}${when(odds.ninetieth)}`
          : ""}
        . {formatMinutes(left)} of exposure to go; {usable} of the next {SHOWN} nights offer three quarters of an hour
        or more.
        {others ? ` Not in this plan: ${others}.` : ""}
      </p>
      <div className="grid gap-x-8 xl:grid-cols-2">
        <Section title="Done by when" aside={`of ${odds.runs} simulations`}>
          <FinishChart dates={offers.map((o) => o.date)} odds={odds} />
        </Section>
        <Section title="Hours collected, and the plan">
          <CollectedChart kept={kept} planned={planned} goalHours={goalMin / 60} />
        </Section>
      </div>
      <Section title={`The next ${SHOWN} nights`} aside="pale = usable, filled = first allocation, clear sky assumed">
        <PlanCalendar
          nights={shown}
          offers={new Map(offers.map((o) => [o.date, o.channels]))}
          linkTo={(date) =>
            `/nights?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), night: date }).toString()}`
          }
        />
      </Section>
      <p className="text-note text-faint mt-3">
        Moonlit nights go to the channels that bear it, dark ones to those that do not, then to what is furthest behind;
        a first plan, not proven best.{" "}
        <Link to={`/targets${search}`} className="underline">
          Other targets
        </Link>
      </p>
    </>
  );
}
