import { Suspense } from "react";
import { Await, data, Form, Link, redirect, useNavigate, useSearchParams } from "react-router";
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
import type { CatalogEntry } from "~/core/catalog";
import { equivalentHours, type Channel } from "~/core/exposure";
import { opticsOf } from "~/core/framing";
import type { NightDate } from "~/core/time";
import {
  accountOf,
  channelFor,
  channelSky,
  hourlySteps,
  nightSteps,
  placeSky,
  seasonOf,
  walkTarget,
  type Place,
} from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { newProject, nightOffer } from "~/core/plan";
import { apparentVector, transits } from "~/core/sky";
import { loadLibrary, saveAll } from "~/storage/records";
import { newId } from "~/storage/session";
import { orAborted, skyWorker } from "~/workers/sky";
import type { Route } from "./+types/target";
import { choiceOf, keptSearch, loadChoice } from "./choice";

export async function clientLoader({ request, params }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
  const entry = await orAborted(skyWorker().entry(params.targetId), request.signal);
  if (!entry) throw data({ code: "unknownTarget" }, { status: 404 });
  const projects = library.projects
    .filter((p) => p.data.targetId === entry.id)
    .map((p) => ({ id: p.id, name: p.data.name }));
  if (!choice.place || !choice.rig) return { entry, projects, night: choice.night, view: null };
  const place = choice.place.data;
  const optics = opticsOf(choice.rig.data);
  const channels = library.filters.filter((f) => choice.rig!.data.filterIds.includes(f.id)).map((f) => f.data.channel);
  const channel = channelFor(entry, channels);
  const sky = placeSky(place, choice.night);
  const steps = nightSteps(sky, 2);
  const vector = apparentVector(sky, { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg });
  const walk = walkTarget(steps, channelSky(place, steps, channel), vector);
  const icrs = { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg } as const;
  const year = orAborted(skyWorker().year({ place, from: choice.today, target: icrs, channel }), request.signal);
  year.catch(() => undefined); // an aborted year is nobody's fault; the screen that asked is gone
  const near = await orAborted(
    skyWorker().within({
      raDeg: entry.raDeg,
      decDeg: entry.decDeg,
      radiusDeg: Math.hypot(optics.fieldWidthDeg, optics.fieldHeightDeg) / 2,
      limit: 12,
    }),
    request.signal,
  );
  return {
    entry,
    projects,
    night: choice.night,
    view: {
      place,
      optics,
      rigName: choice.rig.data.name,
      channel,
      steps,
      walk,
      account: accountOf(steps, walk),
      hourly: hourlySteps(sky, steps, walk, vector),
      transit: transits(sky, vector)[0] ?? null,
      near: near.filter((e) => e.id !== entry.id),
      year,
      elsewhere:
        library.places.length > 1
          ? library.places.map((p) => placeTonight(p.id, p.data, place, entry, channel, choice.night))
          : [],
    },
  };
}
clientLoader.hydrate = true as const;

/** One night of a target from another place, in hours of this one's zenith. */
function placeTonight(id: string, there: Place, here: Place, entry: CatalogEntry, channel: Channel, night: NightDate) {
  const target = { frame: "icrs", raDeg: entry.raDeg, decDeg: entry.decDeg } as const;
  const offer = nightOffer(there, target, [channel], night).channels[channel]!;
  const ratio = equivalentHours(there.skyMagPerArcsec2, here.skyMagPerArcsec2);
  return {
    id,
    name: there.name,
    skyMagPerArcsec2: there.skyMagPerArcsec2,
    usableMin: offer.usableMin,
    hereMin: offer.worthMin * ratio,
  };
}

export async function clientAction({ request, params }: Route.ClientActionArgs) {
  const url = new URL(request.url);
  const library = await loadLibrary();
  const choice = choiceOf(library, url.searchParams);
  const entry = await skyWorker().entry(params.targetId);
  if (!entry) throw data({ code: "unknownTarget" }, { status: 404 });
  if (!choice.place || !choice.rig) return redirect("/kit");
  const filters = library.filters.filter((f) => choice.rig!.data.filterIds.includes(f.id));
  const made = newProject(
    entry,
    { rig: choice.rig.data, rigId: choice.rig.id, filters, place: choice.place.data, placeId: choice.place.id },
    choice.today,
  );
  const projectId = newId("project");
  const saved = await saveAll([
    { kind: "project", id: projectId, data: made.project, baseRev: null },
    { kind: "frame", id: newId("frame"), data: { projectId, ...made.frame }, baseRev: null },
    { kind: "goal", id: newId("goal"), data: { projectId, ...made.goal }, baseRev: null },
  ]);
  if (!saved.ok) return data({ storage: saved.error.code }, { status: 507 });
  return redirect(`/projects/${projectId}/frame${keptSearch(url.searchParams)}`);
}

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
