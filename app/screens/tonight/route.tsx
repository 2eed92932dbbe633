import { deskOf } from "~/at-desk";
import { WhenSeen } from "~/components/ui/WhenSeen";
import { counted, fixed, percent } from "~/components/numbers";
import { lazy, startTransition, Suspense, useEffect, useState } from "react";
import { HourLines, ReliabilityChart } from "~/components/charts/later-charts";
import { shapeWord } from "~/components/charts/shapes";
import { USUAL_WIND_SHARE } from "~/core/weather";
import { Link, useSearchParams } from "react-router";
import { useAct } from "~/components/forms/use-act";
import { BetterNext } from "./BetterNext";
import { LookUp } from "./LookUp";
import { StorageRefusal } from "~/components/StorageRefusal";
import { TonightAside } from "./TonightAside";
import { WhatItBrought } from "~/components/WhatItBrought";
import { TonightStrips } from "./TonightStrips";
import { leftForOthersWords } from "~/components/words/target-words";
import { RestOfTonight } from "./RestOfTonight";
import { TonightVerdict } from "./TonightVerdict";
import { WeatherBoard } from "./WeatherBoard";
import { longNight } from "~/components/clock";
import { buttonLook } from "~/components/ui/Button";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import type { BetterNext as Next } from "~/desk/kit/better";
import { tonightAction } from "./action";
import type { TonightViewData } from "~/desk/plan/tonight";
import type { TonightAnswer, TonightIntent } from "./intents";
import { loadTonight } from "./load";

// Opened now and then, and what reads files comes with it: not part of the first load.
const OwnForecast = lazy(() => import("./OwnForecast").then((m) => ({ default: m.OwnForecast })));

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadTonight(deskOf(context), request);
clientLoader.hydrate = true as const;
export const clientAction = ({ context, request }: Route.ClientActionArgs) => tonightAction(deskOf(context), request);
export const meta: Route.MetaFunction = () => [{ title: "Tonight · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function TonightRoute({ loaderData }: Route.ComponentProps) {
  const { view, fresh, better } = loaderData;
  // One and the same page, whichever of the two it shows: what is opened or typed on it stays.
  const [answered, setAnswered] = useState<{ readonly to: typeof fresh; readonly view: TonightViewData } | null>(null);
  useEffect(() => {
    let isHere = true;
    fresh?.then(
      (its) => isHere && startTransition(() => setAnswered({ to: fresh, view: its })),
      () => undefined, // asked in vain: what is kept stays
    );
    return () => {
      isHere = false;
    };
  }, [fresh]);
  return <TonightView view={answered !== null && answered.to === fresh ? answered.view : view} better={better} />;
}

function TonightView({ view, better }: { readonly view: TonightViewData; readonly better: readonly Next[] }) {
  const [params] = useSearchParams();
  const { act, refusal } = useAct<TonightIntent, TonightAnswer>();
  const search = keptSearch(params);
  const { place, night, verdict, choice, tonight, steps, weather, weighed } = view;
  const hasForecasts = weather.sources.some((s) => s.hours.length > 0 || s.state !== "silent");
  return (
    // Where it is one column, what one presses outside comes right after the verdict.
    <div className="flex flex-col gap-6 lg:grid lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="contents min-w-0 lg:block">
        <div className="order-1 min-w-0">
          <p className="text-note text-soft">
            {longNight(night)}, {place.name} · {fixed(Math.abs(place.latitudeDeg), 2)}°{" "}
            {place.latitudeDeg < 0 ? "S" : "N"} · {fixed(place.skyMagPerArcsec2, 1)} mag/arcsec²
            {view.isProvisional ? (
              <span role="status" className="text-lamp">
                {" "}
                · Provisional: still being worked out
              </span>
            ) : null}
          </p>
          <StorageRefusal fault={refusal} />
          {view.lastNight.length === 0 ? null : (
            <p className="mt-1">
              Last night brought <WhatItBrought brought={view.lastNight} search={search} />.
            </p>
          )}
          <TonightVerdict
            verdict={verdict}
            choice={choice}
            names={new Map(tonight.map((t) => [t.id, t.name]))}
            steps={steps}
            zone={place.timeZone}
            hasProjects={view.hasProjects}
            darkAgain={view.darkAgain}
            isAssumed={view.isChanceAssumed}
            others={leftForOthersWords(view)}
            wishHours={view.wishHours}
            nowMs={view.nowMs}
            isSimulated={weather.isSimulated}
            rigNames={view.rigNames}
            rest={view.begunMs === null ? null : view.rest}
          />
          {view.rest ? (
            <RestOfTonight
              rest={view.rest}
              zone={place.timeZone}
              nowMs={view.nowMs}
              rigNames={view.rigNames}
              nameOf={(id) => tonight.find((t) => t.id === id)?.name ?? id}
            />
          ) : null}
        </div>
        <div className="order-3 min-w-0">
          {view.planElsewhere ? (
            <p className="text-lamp mt-2">
              Your plan spends this night at {view.planElsewhere.name}.{" "}
              <Link
                to={`/${keptSearch(params, { place: view.planElsewhere.placeId })}`}
                className="underline underline-offset-4"
              >
                Look at it from there
              </Link>
            </p>
          ) : null}
          {steps.count > 0 && tonight.length > 0 ? (
            <TonightStrips
              tonight={tonight}
              expected={new Map(weighed.projects.map((p) => [p.id, p]))}
              steps={steps}
              zone={place.timeZone}
              search={search}
              window={verdict.kind === "go" || verdict.kind === "goLate" ? verdict.window : null}
            />
          ) : null}
          {steps.count > 0 ? (
            <>
              <WeatherBoard
                hours={weighed.hours}
                sources={weather.sources}
                zone={place.timeZone}
                nowMs={view.nowMs}
                gustLimitKmh={view.rules.gustLimitKmh}
                action={
                  <button
                    className="text-soft hover:text-ink min-h-6 underline underline-offset-4"
                    onClick={() => void act({ act: "again" })}
                  >
                    Ask again
                  </button>
                }
              />
              {hasForecasts ? (
                <WhenSeen heightPx={184}>
                  <HourLines
                    hours={weighed.hours}
                    zone={place.timeZone}
                    windShare={view.rules.windShare ?? USUAL_WIND_SHARE}
                    gustLimitKmh={view.rules.gustLimitKmh}
                  />
                </WhenSeen>
              ) : null}
              {weather.isSimulated ? (
                <p className="text-note text-lamp mt-2">
                  Simulated services: pretended weather, nobody&apos;s forecast. Do not go by it on a real night.
                </p>
              ) : weather.sources.length === 0 ? (
                <p className="text-soft mt-2">
                  No forecast service is connected. Type what you read elsewhere or read a file below
                  {weather.canSimulate ? (
                    <>
                      ; simulated services can be switched on in{" "}
                      <Link to={`/kit/rules${search}`} className="underline underline-offset-4">
                        Kit, Rules
                      </Link>
                    </>
                  ) : null}
                  .
                </p>
              ) : null}
              {weather.sources.some((s) => s.credit !== "") ? (
                <p className="text-note text-faint mt-2">
                  {[...new Set(weather.sources.map((s) => s.credit))].filter((c) => c !== "").join(" · ")}
                </p>
              ) : null}
              <Records sources={weather.sources} />
              <Suspense fallback={<div className="mt-3 h-9" />}>
                <OwnForecast
                  at={{ nowMs: view.nowMs, latitudeDeg: place.latitudeDeg, longitudeDeg: place.longitudeDeg }}
                />
              </Suspense>
            </>
          ) : null}
        </div>
      </div>
      <TonightAside
        view={view}
        look={
          <LookUp
            look={weather.look}
            zone={place.timeZone}
            isTonight={view.isTonight}
            isPast={view.isPast}
            onLook={(isClear) => void act({ act: "look", isClear })}
            begunMs={view.begunMs}
            onBegin={view.isTonight && choice.kind === "go" ? () => void act({ act: "begin" }) : null}
          />
        }
        next={<BetterNext list={better} search={search} />}
        act={
          choice.kind === "go" ? (
            <div className="flex gap-2">
              <Link to={`/nights${search}`} className={buttonLook("main", "flex-1")}>
                Open the run sheet
              </Link>
              {view.isTonight ? (
                <Link to={`/nights/live${search}`} className={buttonLook("quiet")}>
                  Live
                </Link>
              ) : null}
              <Link to={`/log${search}`} className={buttonLook("quiet")}>
                Log this
              </Link>
            </div>
          ) : (
            <Link to={`/targets${search}`} className={buttonLook("main", "w-full")}>
              Look for a target
            </Link>
          )
        }
      />
    </div>
  );
}

/** A mean squared error of odds beside that of always saying one in two. */
const betterThanCoin = (error: number): string => {
  const share = 1 - error / 0.25;
  return share > 0.02 ? `${percent(share)} better than a coin` : "no better than a coin";
};

/** How each source has done here, for those who ask. */
function Records({ sources }: { readonly sources: TonightViewData["weather"]["sources"] }) {
  const [isOpen, setOpen] = useState(false);
  const scored = sources.filter((s) => s.reliability.length > 0);
  if (scored.length === 0) return null;
  return (
    <details className="border-rule mt-3 border-t pt-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="text-soft hover:text-ink min-h-6 cursor-pointer">How reliable they were here</summary>
      {isOpen ? (
        <div className="mt-2 max-w-xl">
          <ReliabilityChart sources={scored.map((s) => ({ id: s.id, name: s.name, bins: s.reliability }))} />
          <p className="text-note text-soft">
            {scored
              .map(
                (s, i) =>
                  `${s.name}: ${shapeWord(i)}, ${counted(s.record.hours, "hour")} scored, ${betterThanCoin(s.record.brier)}`,
              )
              .join(" · ")}
          </p>
          <p className="text-note text-soft">
            Judged by the mean squared error of the odds: a coin’s is a quarter, perfect odds have none.
          </p>
        </div>
      ) : null}
    </details>
  );
}
