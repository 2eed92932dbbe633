import { Suspense, useEffect, useMemo, useState } from "react";
import { Await, Link, useSearchParams } from "react-router";
import { NO_FILTER, TargetFilters, type TargetFilter } from "~/components/TargetFilters";
import { TargetList, type TargetLine } from "~/components/TargetList";
import { HourScale } from "~/components/charts/WorthStrip";
import { shortNight } from "~/components/clock";
import { buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";
import type { CatalogEntry } from "~/core/catalog";
import { opticsOf } from "~/core/framing";
import { channelFor, nightSteps, placeSky } from "~/core/night";
import { orAborted, skyWorker, type RankedEntry } from "~/workers/sky";
import type { Route } from "./+types/targets";
import { keptSearch, loadChoice } from "./choice";

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
  if (!choice.place || !choice.rig) return null;
  const place = choice.place.data;
  const rig = choice.rig.data;
  const optics = opticsOf(rig);
  const channels = library.filters.filter((f) => rig.filterIds.includes(f.id)).map((f) => f.data.channel);
  const frameShortArcmin = Math.min(optics.planeWidthArcmin, optics.planeHeightArcmin);
  const sky = placeSky(place, choice.night);
  const ranked = orAborted(skyWorker().rank({ place, date: choice.night, frameShortArcmin, channels }), request.signal);
  ranked.catch(() => undefined); // an aborted ranking is nobody's fault; the screen that asked is gone
  return {
    place,
    rigName: rig.name,
    night: choice.night,
    sky,
    steps: nightSteps(sky, 5),
    frameShortArcmin,
    channels,
    ranked,
  };
}
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Targets · Zenithar" }];

export default function TargetsRoute({ loaderData }: Route.ComponentProps) {
  const [params] = useSearchParams();
  const search = keptSearch(params);
  if (!loaderData)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Targets</h1>
        <p className="my-3">A ranking needs to know your place and your rig.</p>
        <Link to={`/kit${search}`} className={buttonLook("main")}>
          Go to Kit
        </Link>
      </Empty>
    );
  const { place, rigName, night, ranked } = loaderData;
  return (
    <>
      <h1 className="text-headline">What suits {shortNight(night)}?</h1>
      <p className="text-soft">
        For {place.name} with {rigName}: worth of the night × fit to the field × how rewarding the object is. Clear sky
        assumed.
      </p>
      <Suspense fallback={<p className="text-soft py-8">Ranking the catalogue …</p>}>
        <Await
          resolve={ranked}
          errorElement={
            <p className="text-soft py-8">
              The catalogue did not load. Is the server still running? Try the page again.
            </p>
          }
        >
          {(list) => <Ranking list={list} data={loaderData} search={search} />}
        </Await>
      </Suspense>
    </>
  );
}

type Loaded = NonNullable<Route.ComponentProps["loaderData"]>;

function Ranking({
  list,
  data,
  search,
}: {
  readonly list: readonly RankedEntry[];
  readonly data: Loaded;
  readonly search: string;
}) {
  const [filter, setFilter] = useState<TargetFilter>(NO_FILTER);
  const [found, setFound] = useState<{ readonly query: string; readonly entries: readonly CatalogEntry[] }>({
    query: "",
    entries: [],
  });
  const query = filter.query.trim();
  useEffect(() => {
    if (query === "") return;
    let isCurrent = true;
    void skyWorker()
      .search(query, 80)
      .then((entries) => {
        if (isCurrent) setFound({ query, entries });
      });
    return () => {
      isCurrent = false;
    };
  }, [query]);
  const lines = useMemo(
    () => narrow(list, query === "" ? null : found.entries, filter, data),
    [list, query, found, filter, data],
  );
  return (
    <>
      <TargetFilters filter={filter} onChange={setFilter} />
      <div className="border-rule text-note text-faint grid grid-cols-[minmax(0,1fr)_5rem] items-end gap-x-4 border-b sm:grid-cols-[minmax(0,20rem)_minmax(0,1fr)_6.5rem]">
        <span aria-live="polite">
          {lines.length} {query === "" ? "usable this night" : "by that name"}
        </span>
        <span className="hidden sm:block">
          <HourScale steps={data.steps} zone={data.place.timeZone} />
        </span>
        <span className="text-right">usable</span>
      </div>
      {lines.length === 0 ? (
        <Empty>
          <p>
            {query !== "" && found.query !== query
              ? "Looking …"
              : query !== ""
                ? "Nothing by that name. Planets and comets are out of scope."
                : data.steps.count === 0
                  ? "The Sun does not set here on this night."
                  : "Nothing passes all filters. Ask for fewer hours, another size or any kind."}
          </p>
        </Empty>
      ) : (
        <TargetList lines={lines} place={data.place} sky={data.sky} steps={data.steps} search={search} />
      )}
    </>
  );
}

/** Combines the filters; by name, objects without a usable minute are shown too. */
function narrow(
  list: readonly RankedEntry[],
  found: readonly CatalogEntry[] | null,
  filter: TargetFilter,
  data: Loaded,
): TargetLine[] {
  const byId = new Map(list.map((r) => [r.entry.id, r]));
  const start: readonly TargetLine[] = found
    ? found.map(
        (entry) =>
          byId.get(entry.id) ?? {
            entry,
            channel: channelFor(entry, data.channels),
            usableMin: 0,
            worthMin: 0,
            mainLoss: "none" as const,
            mainLossMin: 0,
            fill: entry.majorArcmin === null ? null : entry.majorArcmin / data.frameShortArcmin,
          },
      )
    : list;
  const minMin = 60 * (Number(filter.minHours.replace(",", ".")) || 0);
  return start.filter((t) => {
    const fill = t.fill ?? 0;
    const isSize =
      filter.size === "any" ||
      (filter.size === "fits" ? fill > 0 && fill <= 1 : filter.size === "mosaic" ? fill > 1 : fill >= 0.1);
    return isSize && (filter.kind === "" || t.entry.kind === filter.kind) && t.usableMin >= minMin;
  });
}
