import { Suspense } from "react";
import { Await, Form, Link, useNavigate, useSearchParams } from "react-router";
import { NightAccountChart } from "~/components/charts/NightAccountChart";
import { SeasonChart } from "~/components/charts/SeasonChart";
import { SkylineDrawing } from "~/components/charts/SkylineDrawing";
import { HourScale, WorthStrip } from "~/components/charts/WorthStrip";
import { clockTime, longNight } from "~/components/clock";
import { PlacesCompared } from "~/components/PlacesCompared";
import { SeasonWords } from "~/components/SeasonWords";
import { StorageRefusal } from "~/components/StorageRefusal";
import { TargetFacts } from "~/components/TargetFacts";
import { entryFacts, entryTitle } from "~/components/target-words";
import { Button } from "~/components/ui/Button";
import { Panel, Section } from "~/components/ui/Panel";
import { seasonOf } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import type { Route } from "./+types/target";
import { keptSearch } from "./choice";
import { loadTarget, startProject } from "./target.load";

export const clientLoader = ({ request, params }: Route.ClientLoaderArgs) => loadTarget(request, params.targetId);
clientLoader.hydrate = true as const;
export const clientAction = ({ request, params }: Route.ClientActionArgs) => startProject(request, params.targetId);
export const meta: Route.MetaFunction = ({ params }) => [{ title: `${params.targetId} · Zenithar` }];

export default function TargetRoute({ loaderData, actionData }: Route.ComponentProps) {
  const { entry, view, night, projects } = loaderData;
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const search = keptSearch(params);
  return (
    <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_21rem]">
      <div>
        <p className="text-note text-soft">{entryFacts(entry)}</p>
        <h1 className="text-headline">{entryTitle(entry)}</h1>
        {entry.curated?.framing ? <p className="text-soft mt-1 max-w-[65ch]">{entry.curated.framing}</p> : null}
        {actionData?.storage ? <StorageRefusal code={actionData.storage} /> : null}
        {view ? (
          <>
            <Section
              title={`${longNight(night)}, in ${view.channel}`}
              aside={
                view.transit
                  ? `highest ${view.transit.altitudeDeg.toFixed(0)}° at ${clockTime(view.transit.atMs, view.place.timeZone)}`
                  : undefined
              }
            >
              <p className="text-figure">
                {view.account.usableMin > 0
                  ? `${formatMinutes(view.account.usableMin)} usable`
                  : "Nothing usable this night"}
              </p>
              <HourScale steps={view.steps} zone={view.place.timeZone} />
              <WorthStrip
                steps={view.steps}
                walk={view.walk}
                channel={view.channel}
                zone={view.place.timeZone}
                isTall
              />
            </Section>
            <Section
              title="Its year from here"
              aside="filled = usable hours, pale = lost to the Moon · press a night to choose it"
            >
              <Suspense fallback={<p className="text-soft h-56 py-4">Going through the year …</p>}>
                <Await
                  resolve={view.year}
                  errorElement={<p className="text-soft">The year did not come. Try the page again.</p>}
                >
                  {(nights) => (
                    <>
                      <SeasonWords season={seasonOf(nights, 60)} />
                      <SeasonChart
                        nights={nights}
                        chosen={night}
                        onChoose={(date) =>
                          void navigate(keptSearch(params, { night: date }), { preventScrollReset: true })
                        }
                      />
                    </>
                  )}
                </Await>
              </Suspense>
            </Section>
            <Section title="Its way over the skyline" aside={`hours at ${view.place.name} · filled = usable`}>
              <SkylineDrawing
                widthPx={796}
                skyline={view.place.skyline}
                minAltitudeDeg={view.place.minAltitudeDeg}
                centreDeg={view.place.latitudeDeg < 0 ? 0 : 180}
                steps={view.hourly
                  .filter((h) => h.altitudeDeg > -1)
                  .map((h) => ({
                    azimuthDeg: h.azimuthDeg,
                    altitudeDeg: h.altitudeDeg,
                    word: clockTime(h.atMs, view.place.timeZone).slice(0, 2),
                    isUsable: h.cause === "none",
                  }))}
              />
            </Section>
          </>
        ) : (
          <p className="text-soft mt-6">Enter a place and a rig in Kit to see its night.</p>
        )}
      </div>
      <aside className="space-y-4">
        <TargetFacts
          entry={entry}
          {...(view
            ? {
                frame: {
                  widthArcmin: view.optics.planeWidthArcmin,
                  heightArcmin: view.optics.planeHeightArcmin,
                  rigName: view.rigName,
                },
              }
            : {})}
        />
        {view ? (
          <Panel title="Where the night goes" aside={view.channel}>
            <NightAccountChart account={view.account} />
          </Panel>
        ) : null}
        {view && view.elsewhere.length > 0 ? (
          <PlacesCompared
            places={view.elsewhere}
            hereName={view.place.name}
            channel={view.channel}
            linkTo={(id) => keptSearch(params, { place: id })}
          />
        ) : null}
        {view && view.near.length > 0 ? (
          <Panel title="In the same field">
            <ul className="space-y-0.5">
              {view.near.map((e) => (
                <li key={e.id}>
                  <Link
                    to={`/targets/${encodeURIComponent(e.id)}${search}`}
                    className="block min-h-6 py-0.5 hover:underline"
                  >
                    {entryTitle(e)}
                  </Link>
                </li>
              ))}
            </ul>
          </Panel>
        ) : null}
        {projects.map((p) => (
          <Link
            key={p.id}
            to={`/projects/${p.id}/frame${search}`}
            className="block min-h-6 underline underline-offset-4"
          >
            Your project: {p.name}
          </Link>
        ))}
        <Form method="post">
          <Button look="main" type="submit" className="w-full" disabled={!view}>
            Start a project
          </Button>
        </Form>
      </aside>
    </div>
  );
}
