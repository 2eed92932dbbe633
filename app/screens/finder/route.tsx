import { deskOf } from "~/at-desk";
import { fixed } from "~/components/numbers";
import { useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { clockTime, longNight } from "~/components/clock";
import { FinderChart, type ChartStar } from "./FinderChart";
import { FinderSteps } from "./FinderSteps";
import { TestShot } from "./TestShot";
import { entryFacts, entryTitle } from "~/components/words/target-words";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import { Panel } from "~/components/ui/Panel";
import { chartFrame, chartPoint, chartSkyline, finderPath, type ChartTurn } from "~/core/finder";
import { horizontalAt, type Vec3 } from "~/core/sky";
import { utcMs } from "~/core/time";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { loadFinder } from "./load";

export const clientLoader = ({ context, request, params }: Route.ClientLoaderArgs) =>
  loadFinder(deskOf(context), request, params.targetId);
clientLoader.hydrate = true as const;
export const meta: Route.MetaFunction = ({ params }) => [{ title: `Finder for ${params.targetId} · Zenithar` }];

const FINDER_DEG = 5; // of an 8 × 50, the usual one
const LABELLED_TO_MAG = 3;
const MAG_SHOWN_TO = 5.2;

/** The same star in two lists: within 4″. */
const isSame = (a: Vec3, b: Vec3) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]) < 2e-5;

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function FinderRoute({ loaderData }: Route.ComponentProps) {
  const { entry, view } = loaderData;
  const [params] = useSearchParams();
  const back = `/targets/${encodeURIComponent(entry.id)}${keptSearch(params, { low: params.get("low") ?? "" })}`;
  return (
    <>
      <p className="text-note text-soft">
        <Link to={back} className="no-print inline-block min-h-6 underline underline-offset-4">
          {entryTitle(entry)}
        </Link>{" "}
        {entryFacts(entry)}
      </p>
      <h1 className="text-headline">Finding {entry.name || entry.id} by stars</h1>
      {view === null ? (
        <p className="text-soft mt-3">
          Which stars stand above your skyline decides the way:{" "}
          <Link to="/start" className="underline underline-offset-4">
            say where you observe from
          </Link>
          .
        </p>
      ) : view.startMs === null ? (
        <p className="text-soft mt-3">It does not get dark enough for stars on this night.</p>
      ) : (
        <Finder
          key={`${view.night} ${view.place.name}`}
          name={entry.name || entry.id}
          view={view}
          startMs={view.startMs}
        />
      )}
    </>
  );
}

type View = NonNullable<Route.ComponentProps["loaderData"]["view"]>;

function Finder({ name, view, startMs }: { readonly name: string; readonly view: View; readonly startMs: number }) {
  const { place, sky, target, guides } = view;
  const [atMs, setAtMs] = useState(startMs);
  const [turn, setTurn] = useState<ChartTurn>("eye");
  const ms = utcMs(atMs);
  const path = useMemo(() => finderPath({ place, sky, ms, target, stars: guides }), [place, sky, ms, target, guides]);
  const chart = useMemo(() => {
    if (path.kind !== "path") return null;
    const vectors = [...path.hops.map((h) => h.from.vector), target];
    const { centre, radiusDeg } = chartFrame(sky, ms, vectors);
    const on = (v: typeof target) => chartPoint(centre, horizontalAt(sky, v, ms));
    const onWay = new Map(path.hops.map((h) => [h.from.name, h.from]));
    const labelled = guides.filter((g) => onWay.has(g.name) || g.magnitude < LABELLED_TO_MAG);
    const dots = [
      ...view.drawn
        .filter((s) => !labelled.some((g) => Math.abs(g.magnitude - s.magnitude) < 0.006 && isSame(g.vector, s.vector)))
        .map((s) => ({ ...s, label: s.magnitude < MAG_SHOWN_TO ? fixed(s.magnitude, 1) : "" })),
      ...labelled.map((g) => ({ ...g, label: `${g.name} ${fixed(g.magnitude, 1)}` })),
    ].flatMap((s): ChartStar[] => {
      const p = on(s.vector);
      return p && Math.hypot(p.rightDeg, p.upDeg) < 1.45 * radiusDeg
        ? [{ ...p, magnitude: s.magnitude, label: s.label }]
        : [];
    });
    return {
      radiusDeg,
      stars: dots,
      way: vectors.flatMap((v) => on(v) ?? []),
      skyline: chartSkyline(place, centre, radiusDeg),
    };
  }, [path, sky, ms, target, guides, view.drawn, place]);
  const shortDeg = view.optics ? Math.min(view.optics.fieldWidthDeg, view.optics.fieldHeightDeg) : 1;
  return (
    <div className="mt-3 grid gap-6 lg:grid-cols-[minmax(0,1fr)_22rem]">
      <div>
        <p className="text-soft">
          {longNight(view.night)}, {clockTime(atMs, place.timeZone)} at {place.name}. Stars to magnitude{" "}
          {fixed(view.eyeLimitMag, 1)} show to the eye under your sky, half a magnitude more or less.
        </p>
        <div className="no-print my-3 grid max-w-[34rem] grid-cols-2 gap-3">
          <SelectField label="Time" value={String(atMs)} onChange={(e) => setAtMs(Number(e.target.value))}>
            {view.times.map((t) => (
              <option key={t} value={t}>
                {clockTime(t, place.timeZone)}
                {view.isNow && t === startMs ? ", now" : ""}
              </option>
            ))}
          </SelectField>
          <SelectField label="Chart" value={turn} onChange={(e) => setTurn(e.target.value as ChartTurn)}>
            <option value="eye">as the eye sees it</option>
            <option value="upsideDown">upside down (plain finder)</option>
            <option value="mirrored">mirrored (star diagonal)</option>
          </SelectField>
        </div>
        {chart ? (
          <FinderChart
            {...chart}
            turn={turn}
            finderDeg={FINDER_DEG}
            fieldShortDeg={shortDeg}
            title={`Chart of the way to ${name}`}
          />
        ) : null}
      </div>
      <aside className="space-y-4">
        <Panel title="The way">
          <FinderSteps path={path} targetName={name} finderDeg={FINDER_DEG} />
        </Panel>
        {view.optics && view.rig ? (
          <TestShot optics={view.optics} rigName={view.rig.name} stars={view.inField} />
        ) : null}
        <Button look="main" className="no-print w-full" onClick={() => window.print()}>
          Print the chart
        </Button>
      </aside>
    </div>
  );
}
