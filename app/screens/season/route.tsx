import { Term } from "~/components/ui/Term";
import { Waiting } from "~/components/Waiting";
import { FirstStepPage } from "~/components/FirstStep";
import { deskOf, useDesk } from "~/at-desk";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { ProofLine } from "~/components/charts/ProofLine";
import { download } from "~/components/download";
import { shortNight } from "~/components/clock";
import { counted, percent } from "~/components/numbers";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { Panel } from "~/components/ui/Panel";
import { useSeason } from "~/components/use-season";
import { seasonToCalendar } from "~/core/formats";
import { type Evening, chanceOfRun, isWanted, phasesOf, type SeasonPlan, type SeasonQuestion } from "~/core/season";
import { addNights } from "~/core/time";
import { keptSearch } from "~/desk/sky/choice";
import { markSeen, stopPlanning, type SeasonRun } from "~/desk/plan/season";
import { oddsIfWaiting } from "~/desk/plan/waits";
import type { Route } from "./+types/route";
import { seasonAction } from "./action";
import type { SeasonAnswer, SeasonIntent } from "./intents";
import { loadSeason, type SeasonView } from "./load";
import { MonthsBest } from "./MonthsBest";
import { NightDetail } from "./NightDetail";
import { moonSentence, phaseWords } from "./season-words";
import { ProjectKey, ProjectLines } from "./ProjectLines";
import { SeasonLeaf } from "./SeasonLeaf";
import { SeasonList } from "./SeasonList";
import { WhatIfPanel } from "./WhatIfPanel";
import { WishPanel } from "./WishPanel";
import { YearTable } from "./YearTable";
import { Conflicts, Moved } from "./Moved";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadSeason(deskOf(context), request);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => seasonAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Season · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

const WEEKS_FIRST = 6;
const SEEN_AFTER_MS = 3000; // sooner nobody has read it

export default function SeasonRoute({ loaderData: view }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (!view.run)
    return (
      <FirstStepPage title="Season" step={view.firstStep} search={search}>
        Here lies the plan of all your nights to come, once there is something to shoot.
      </FirstStepPage>
    );
  return <Planned view={view} run={view.run} />;
}

function Planned({ view, run }: { readonly view: SeasonView; readonly run: NonNullable<SeasonView["run"]> }) {
  const desk = useDesk();
  const plan = useSeason(run);
  const [params] = useSearchParams();
  const search = keptSearch(params);
  const { act, answer, refusal } = useAct<SeasonIntent, SeasonAnswer>();
  const [lit, setLit] = useState<string | null>(null);
  const [isLong, setLong] = useState(false);
  const linkTo = (night: string) => `/season${keptSearch(params, { night })}`;
  useEffect(() => {
    if (plan?.stage !== "whole") return;
    const read = setTimeout(() => markSeen(desk, plan), SEEN_AFTER_MS);
    return () => clearTimeout(read);
  }, [desk, plan]);
  const waited = useWaits(run, plan);
  if (!plan) return <Waiting words="Planning the season …" heightPx={520} />;
  const isDone = plan.stage === "whole";
  const last = addNights(plan.from, plan.nights - 1);
  const open = view.projects.filter((p) => p.channels.length > 0);
  const nights = plan.evenings.filter((e) => e.blocks.length > 0);
  return (
    <div className="grid gap-8 lg:grid-cols-[minmax(0,1fr)_21rem] print:block print:[zoom:0.9]">
      <div className="min-w-0">
        <p className="text-note text-soft">
          {shortNight(plan.from)} to {shortNight(last)}
        </p>
        <h1 className="text-headline leading-tight">{headline(plan, open.length, last)}</h1>
        {view.firstDark === null ? null : (
          <p className="text-lamp">
            It does not get dark here now. First dark night here: {shortNight(view.firstDark)}.
          </p>
        )}
        <StorageRefusal fault={refusal} />
        <Conflicts view={view} plan={plan} />
        <Moved view={view} plan={plan} before={run.before()} />
        <ProjectKey projects={view.projects} lit={lit} onLight={setLit} />
        <div className="hidden sm:block">
          <SeasonLeaf
            plan={plan}
            view={view}
            weeks={isLong ? 26 : WEEKS_FIRST}
            lit={lit}
            chosen={view.night}
            linkTo={linkTo}
            onMove={(projectId, from, to) => void act({ act: "move", projectId, from, to })}
          />
          <p className="text-note text-faint mt-2">
            Height = hours from dusk to dawn, pale edge = Moon up, hatched = what cloud is expected to take, faint = a{" "}
            <Term word="reserve" /> in case of cloud.
            <span className="no-print"> Drag a slice to another night to move it there.</span>
          </p>
          <Button look="plain" onClick={() => setLong(!isLong)} className="no-print mt-1">
            {isLong ? "Six weeks only" : "The whole half year"}
          </Button>
        </div>
        <div className="sm:hidden">
          <SeasonList plan={plan} view={view} chosen={view.night} linkTo={linkTo} />
        </div>
        <ProjectLines plan={plan} view={view} run={run} waited={waited} search={search} last={last} />
        <Sentences plan={plan} view={view} question={run.question} />
        <div className="no-print mt-2 flex max-w-xl items-end gap-3">
          <div className="flex-1">
            <ProofLine plan={plan} />
          </div>
          {isDone ? null : (
            <Button look="plain" onClick={() => stopPlanning(desk)}>
              Good enough
            </Button>
          )}
        </div>
        <div className="no-print">
          <YearTable year={view.year} search={search} />
          {view.ask ? <MonthsBest ask={view.ask} search={search} /> : null}
        </div>
      </div>
      <aside className="no-print space-y-4">
        <NightDetail plan={plan} view={view} night={view.night} search={search} act={(intent) => void act(intent)} />
        {isDone ? <WhatIfPanel view={view} plan={plan} /> : null}
        <WishPanel view={view} plan={plan} search={search} act={(intent) => void act(intent)} answer={answer} />
        <Panel title="Take it along">
          <p className="text-soft mb-2">
            One event a planned night, with an alarm for the set-up. Reserve nights say so: they are for what clouds
            leave undone. A later file updates it.
          </p>
          <Button
            disabled={nights.length === 0}
            onClick={() =>
              download(
                "zenithar-season.ics",
                seasonToCalendar(nights, {
                  nameOf: (id) => view.projects.find((p) => p.id === id)?.name ?? id,
                  placeOf: (id) => view.placeNames[id] ?? "",
                  alarmMin: (e) => setUpAlarm(e, view.alarmMin),
                  isReserve: (e) => e.blocks.every((b) => !isWanted(plan, b.projectId, e.night)),
                  uidBase: view.calendarId,
                  stampMs: desk.now(),
                }),
                "text/calendar",
              )
            }
          >
            Season to my calendar
          </Button>
        </Panel>
      </aside>
    </div>
  );
}

const WEEK = 7;

/** Minutes from the alarm to the evening's beginning: the set-up of its own sheet, and the road; `usual` where it is not laid out. */
const setUpAlarm = (e: Evening, usual: number): number =>
  e.setUpMs === undefined ? usual : Math.round(((e.blocks[0]?.startMs ?? e.setUpMs) - e.setUpMs) / 60_000);

/** What the season comes to in sentences: clear nights in a row, and when each rig goes for narrow or broad bands. */
function Sentences({
  plan,
  view,
  question,
}: {
  readonly plan: SeasonPlan;
  readonly view: SeasonView;
  readonly question: SeasonQuestion;
}) {
  const place = question.places[0];
  const of = (run: number) => percent(chanceOfRun(place!.chances.slice(0, WEEK), run, question.persistence));
  const rigs = [...new Set(plan.evenings.flatMap((e) => e.rigIds))];
  const phases = rigs.map((id) => ({ id, phases: phasesOf(plan, id) })).filter((r) => r.phases.length > 0);
  return (
    <ul className="text-soft mt-2">
      {place ? (
        <li>
          Within a week at {view.placeNames[place.id] ?? "home"}: two clear nights in a row {of(2)}, three {of(3)}.
        </li>
      ) : null}
      {moonSentence(plan, view.sky) === "" ? null : <li>{moonSentence(plan, view.sky)}</li>}
      {phases.map((r) => (
        <li key={r.id}>
          {view.rigNames[r.id]}: {phaseWords(r.phases)}.
        </li>
      ))}
    </ul>
  );
}

/** The odds of each project if it waits four weeks, as they come. */
function useWaits(run: SeasonRun, plan: SeasonPlan | null): ReadonlyMap<string, number> {
  const desk = useDesk();
  const [known, setKnown] = useState<{ readonly of: SeasonPlan | null; readonly by: ReadonlyMap<string, number> }>({
    of: null,
    by: new Map(),
  });
  useEffect(() => {
    if (plan?.stage !== "whole") return;
    let isHere = true;
    oddsIfWaiting(desk, run, (by) => {
      if (isHere) setKnown({ of: plan, by });
    }).catch(() => undefined); // the plan itself says when its worker is gone
    return () => {
      isHere = false;
    };
  }, [desk, run, plan]);
  return known.of === plan ? known.by : new Map();
}

/** The season in one sentence. */
function headline(plan: SeasonPlan, open: number, last: string): string {
  if (open === 0) return "Nothing left to do: every goal of yours is met.";
  if (!plan.odds) return "Reckoning the odds …";
  const sure = plan.odds.filter((o) => o.doneShare >= 0.9).length;
  const likely = plan.odds.filter((o) => o.doneShare >= 0.5).length;
  const never = plan.odds.filter((o) => o.doneShare < 0.1).length;
  if (sure === open)
    return `All ${open === 1 ? "of it" : counted(open, "project")} as good as sure by ${shortNight(last)}.`;
  if (likely === 0) return `No project is likely to be finished by ${shortNight(last)}.`;
  return `${likely} of ${counted(open, "project")} likely done by ${shortNight(last)}${never > 0 ? `; ${never} cannot be finished` : ""}.`;
}
