import { Waiting } from "~/components/Waiting";
import { YearChart } from "~/components/charts/later-charts";
import { fixed } from "~/components/numbers";
import { Suspense } from "react";
import { Await, useNavigate, useSearchParams } from "react-router";
import { ChosenNight } from "./ChosenNight";
import { SkylineDrawing } from "~/components/charts/SkylineDrawing";
import { HourScale, WorthStrip } from "~/components/charts/WorthStrip";
import { axisHour, clockTime, longNight } from "~/components/clock";
import { SeasonWords } from "./SeasonWords";
import { Section } from "~/components/ui/Panel";
import { YearNumbers } from "./YearNumbers";
import { monthsOf, seasonOf } from "~/core/night";
import { nightWorthWords, obstructionWords, passageWords } from "~/components/words/way-words";
import { missingWords } from "~/components/words/target-words";
import { formatMinutes } from "~/core/notation";
import type { NightDate } from "~/core/time";
import { keptSearch } from "~/desk/sky/choice";
import type { TargetView } from "./load";

/** A target's night, its year, and its way over the skyline. */
export function TargetEvidence({ view, night }: { readonly view: TargetView; readonly night: NightDate }) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  return (
    <>
      <Section
        title={`${longNight(night)}, in ${view.channel}`}
        aside={
          view.transit
            ? `highest ${fixed(view.transit.altitudeDeg)}° at ${clockTime(view.transit.atMs, view.place.timeZone)}`
            : undefined
        }
      >
        <p className="text-figure">
          {view.sums.usableMin > 0 ? `${formatMinutes(view.sums.usableMin)} usable` : "Nothing usable this night"}
          <span className="text-body text-soft">{nightWorthWords(view.sums)}</span>
        </p>
        <p className="text-soft">
          {[
            ...view.way.passages.map((p) => passageWords(p, view.place.timeZone)),
            ...view.way.obstructions.map((o) => obstructionWords(o, view.place.timeZone)),
          ].join(" · ")}
        </p>
        {view.advice.missing.length > 0 ? (
          <p className="text-lamp">
            It shines in {view.advice.wanted.join(", ")}: {missingWords(view.advice.missing)}.
          </p>
        ) : null}
        <HourScale steps={view.steps} zone={view.place.timeZone} />
        <WorthStrip steps={view.steps} walk={view.walk} channel={view.channel} zone={view.place.timeZone} isTall />
      </Section>
      <Section
        title="Its year from here"
        aside="worth in hours at your moonless zenith · pale = what the Moon takes · press a night to choose it"
      >
        <Suspense fallback={<Waiting words="Going through the year …" heightPx={190} />}>
          <Await
            resolve={view.year}
            errorElement={<p className="text-soft">The year could not be computed. Try the page again.</p>}
          >
            {(nights) => (
              <>
                <SeasonWords season={seasonOf(nights, 60)} />
                <YearChart
                  nights={nights}
                  chosen={night}
                  onChoose={(date) =>
                    void navigate(keptSearch(params, { night: date, low: params.get("low") ?? "" }), {
                      preventScrollReset: true,
                    })
                  }
                />
                <ChosenNight nights={nights} chosen={night} />
                <details className="mt-2">
                  <summary className="min-h-6 cursor-pointer underline underline-offset-4">
                    The next twelve months in numbers
                  </summary>
                  <YearNumbers months={monthsOf(nights, view.clearChance)} />
                </details>
              </>
            )}
          </Await>
        </Suspense>
      </Section>
      <Section title="Its way over the skyline" aside={`hours at ${view.place.name} · filled = usable`}>
        <SkylineDrawing
          widthPx={796}
          skyline={view.place.skyline}
          landmarks={view.place.landmarks}
          minAltitudeDeg={view.place.minAltitudeDeg}
          centreDeg={view.place.latitudeDeg < 0 ? 0 : 180}
          steps={view.hourly
            .filter((h) => h.altitudeDeg > -1)
            .map((h) => ({
              azimuthDeg: h.azimuthDeg,
              altitudeDeg: h.altitudeDeg,
              word: axisHour(h.atMs, view.place.timeZone),
              isUsable: h.cause === "none",
            }))}
        />
      </Section>
    </>
  );
}
