import { useEffect, useState, useSyncExternalStore } from "react";
import { Link, useFetcher, useSearchParams } from "react-router";
import { deskOf, useDesk } from "~/at-desk";
import { clockTime } from "~/components/clock";
import { download } from "~/components/download";
import { Checklist } from "~/components/kit/Checklist";
import { FolderWatch } from "~/components/FolderWatch";
import { LatestSub } from "~/components/LatestSub";
import { counted } from "~/components/numbers";
import { FirstStepPage } from "~/components/FirstStep";
import { ACTS, type ActsIntent } from "~/components/forms/acts-intent";
import { useAct } from "~/components/forms/use-act";
import { StorageRefusal } from "~/components/StorageRefusal";
import { Button } from "~/components/ui/Button";
import { nightDate } from "~/core/time";
import { airNow, dueNow, liveState, type Happening } from "~/core/live";
import { theWatchedFolder } from "~/desk/log/watched-folder";
import { focusHintWords } from "~/components/words/focus-words";
import { keptSearch } from "~/desk/sky/choice";
import type { Route } from "./+types/route";
import { liveAction } from "./action";
import type { LiveAnswer, LiveIntent } from "./intents";
import { behindWords, dueWords, lineWords, partsNow, throughWords } from "./live-words";
import { CallsChoice } from "./CallsChoice";
import { canCall, useCallsChoice, useTelling } from "./use-calls";
import { LivePresses } from "./LivePresses";
import { Told, Written } from "./NightRecord";
import { OtherDevice } from "./OtherDevice";
import { UnderCloud } from "./UnderCloud";
import { hourAt, loadLive, type LiveView } from "./load";
import { useAwake, useNightClock, useRedLight } from "./use-night-clock";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadLive(deskOf(context), request);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => liveAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Live · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

/** A press can be taken back for a minute. */
const TAKEN_BACK_MS = 60_000;

export default function LiveRoute({ loaderData: { night, view, firstStep } }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (firstStep)
    return (
      <FirstStepPage title="Live" step={firstStep} search={search}>
        The night as it goes, beside the mount.
      </FirstStepPage>
    );
  if (!view)
    return (
      <>
        <h1 className="text-headline">Nothing is on tonight</h1>
        <p className="mt-2">
          <Link to={`/nights${search}`} className="underline underline-offset-4">
            The run sheet says why
          </Link>
        </p>
      </>
    );
  return <Live key={`${night} ${view.rigId}`} night={night} view={view} search={search} />;
}

function Live({ night, view, search }: { readonly night: string; readonly view: LiveView; readonly search: string }) {
  const desk = useDesk();
  const watch = desk.at(theWatchedFolder);
  const asked = useSyncExternalStore(watch.listen, watch.latest, watch.latest).asked.length;
  const { calls, choose, isRefused } = useCallsChoice();
  const nowMs = useNightClock(calls !== "none");
  useAwake();
  useRedLight(view.duskMs !== null && nowMs > view.duskMs);
  const { act, answer, refusal, isBusy } = useAct<LiveIntent, LiveAnswer>();
  const state = liveState(view.sheet, view.events, nowMs, view.laidOutMs ?? undefined);
  const hour = hourAt(view, nowMs);
  const airC = airNow(view.events, (ms) => hourAt(view, ms)?.airC ?? null, nowMs);
  const due = dueNow(state, view.events, { ...view, airC, dewPointC: hour?.dewC ?? null }, nowMs);
  const dueSaid = due.map((d) => ({ ...d, words: dueWords(d, view.zone, view.slope) }));
  useTelling(dueSaid, calls);
  const press = (is: Happening) => void act({ act: "press", night, rigId: view.rigId, placeId: view.placeId, is });
  const { now, next } = state;
  // How the focuser goes when the filter is changed: said with the change, at it and before it.
  const [refocus] = [now, next].flatMap((l) => (l?.line.kind === "filter" && view.focus[l.line.startMs]) || []);
  const share = now ? Math.min(1, (nowMs - now.startMs) / Math.max(1, now.endMs - now.startMs)) : 0;
  return (
    <div className="mx-auto flex min-h-[calc(100dvh-11rem)] max-w-2xl flex-col sm:min-h-[calc(100dvh-9rem)]">
      <p className="text-soft">
        {clockTime(nowMs, view.zone)} · {view.rigName}
        {behindWords(state) === "" ? "" : ` · ${behindWords(state)}`}
        {view.isSimulated ? " · simulated weather" : ""}
      </p>
      <h1 className="text-headline text-[2rem] leading-tight" aria-live="polite">
        {state.phase === "over"
          ? "The night is over."
          : state.phase === "cloud"
            ? `Cloud since ${clockTime(state.cloudSinceMs!, view.zone)}.`
            : now
              ? lineWords(now, view.names)
              : next
                ? `${state.phase === "before" ? "Begins at" : "Nothing until"} ${clockTime(next.startMs, view.zone)}`
                : "Nothing is on."}
      </h1>
      {now && state.phase === "on" ? (
        <>
          <p className="text-figure mt-1">{throughWords(state, view.zone)}</p>
          <div className="bg-raised mt-2 h-3" aria-hidden="true">
            <div className="bg-lamp h-full" style={{ width: `${100 * share}%` }} />
          </div>
        </>
      ) : null}
      {next && state.phase !== "over" ? (
        <p className="text-figure text-soft mt-3">
          Next: {lineWords(next, view.names)}, {clockTime(next.startMs, view.zone)}
        </p>
      ) : null}
      {refocus ? <p className="mt-1 text-lg">{focusHintWords(refocus)}</p> : null}
      {due.length > 0 ? (
        <ul className="mt-3 space-y-1" aria-label="Due">
          {dueSaid.map((d) => (
            <li
              key={d.what}
              className={`border-l-2 pl-3 text-lg ${d.isOverdue ? "border-rust text-rust" : "border-lamp"}`}
            >
              {d.words}
            </li>
          ))}
        </ul>
      ) : null}
      {state.phase === "cloud" ? (
        <UnderCloud key={state.cloudSinceMs} view={view} state={state} nowMs={nowMs} isBusy={isBusy} onPress={press} />
      ) : null}
      {state.phase === "over" ? (
        <Told view={view} state={state} search={search} isBusy={isBusy} onPress={press} />
      ) : null}
      <section aria-labelledby="checklist" className="mt-4">
        <h2 id="checklist" className="sr-only">
          Checklist
        </h2>
        <Checklist
          key={partsNow(state).join(" ")}
          rig={view.rig}
          rigId={view.rigId}
          night={nightDate(night)}
          checks={view.checks}
          parts={partsNow(state)}
          done={view.done}
          search={search}
          isLarge
          // While subs are taken nobody reads lists: it is one press away.
          isFolded={partsNow(state).includes("night")}
        />
      </section>
      {view.latest ? (
        <div className="[&_button]:min-h-14">
          <LatestSub {...view.latest} zone={view.zone} />
        </div>
      ) : null}
      <StorageRefusal fault={refusal} />
      <nav aria-label="Beside this" className="mt-3 flex flex-wrap gap-x-4">
        {view.rigs.length > 1
          ? view.rigs.map((r) => (
              <Link
                key={r.id}
                to={`/nights/live?${new URLSearchParams({ ...Object.fromEntries(new URLSearchParams(search)), with: r.id }).toString()}`}
                aria-current={r.id === view.rigId ? "true" : undefined}
                className="aria-current:text-lamp inline-flex min-h-14 items-center underline underline-offset-4"
              >
                {r.name}
              </Link>
            ))
          : null}
        <Link to={`/nights${search}`} className="inline-flex min-h-14 items-center underline underline-offset-4">
          The whole sheet
        </Link>
      </nav>
      {watch.canChoose() ? (
        <div className="[&_button]:min-h-14">
          <FolderWatch watch={watch}>
            {asked > 0 ? (
              <Link to={`/log${search}`} className="inline-flex min-h-14 items-center underline underline-offset-4">
                {counted(asked, "file")} of the folder {asked === 1 ? "waits" : "wait"} for an answer in the log
              </Link>
            ) : null}
          </FolderWatch>
        </div>
      ) : null}
      {canCall() && state.phase !== "over" ? (
        <div className="mb-3 max-w-72 [&_select]:min-h-14">
          <CallsChoice calls={calls} isRefused={isRefused} onChoose={(c) => void choose(c)} />
        </div>
      ) : null}
      {view.events.length > 0 ? <Written view={view} /> : null}
      <OtherDevice
        night={nightDate(night)}
        written={view.events.length + view.done.size}
        isBusy={isBusy}
        onFile={() =>
          void import("~/desk/records/written")
            .then((m) => m.writeNight(desk, nightDate(night)))
            .then((f) => download(f.name, f.text, "application/json"))
        }
        onTakeOver={(handle) => void act({ act: "takeOver", handle })}
      />
      <LivePresses
        state={state}
        names={view.names}
        isDitherDue={due.some((d) => d.what === "dither")}
        airC={airC}
        isBusy={isBusy}
        onPress={press}
      >
        {answer?.undoId ? <TakeBack key={answer.undoId} undoId={answer.undoId} /> : null}
      </LivePresses>
    </div>
  );
}

/** Takes the last press back, for a minute. */
function TakeBack({ undoId }: { readonly undoId: string }) {
  const [isThere, setThere] = useState(true);
  const { submit, data } = useFetcher<unknown>();
  useEffect(() => {
    const timer = setTimeout(() => setThere(false), TAKEN_BACK_MS);
    return () => clearTimeout(timer);
  }, []);
  if (!isThere || data) return null;
  const intent: ActsIntent = { act: "undo", undoId };
  return (
    <p className="flex items-center gap-3">
      Written down.
      <Button
        className="min-h-14 text-lg"
        onClick={() => void submit({ ...intent }, { method: "post", action: ACTS, encType: "application/json" })}
      >
        Take it back
      </Button>
    </p>
  );
}
