import { Waiting } from "~/components/Waiting";
import { deskOf } from "~/at-desk";
import { Suspense, useCallback, useDeferredValue, useMemo, useState } from "react";
import { Await, Link, useNavigate, useSearchParams } from "react-router";
import { shortNight } from "~/components/clock";
import { ColumnsExplained } from "./ColumnsExplained";
import { SearchNote } from "./SearchNote";
import { SCHOOLS, TargetFilters, type School } from "./TargetFilters";
import { TargetList } from "./TargetList";
import { narrowed, NO_FILTER, ordered, type Order, type TargetFilter } from "./lines";
import { buttonLook } from "~/components/ui/Button";
import { Empty } from "~/components/ui/Panel";
import { formatDegrees } from "~/core/notation";
import { isCalled } from "~/core/catalog";
import type { Ranking } from "~/core/night";
import type { RankedEntry } from "~/desk/sky/answers";
import type { Route } from "./+types/route";
import { keptSearch } from "~/desk/sky/choice";
import { loadTargets } from "./load";
import { useFound } from "./use-found";

export const clientLoader = ({ context, request }: Route.ClientLoaderArgs) => loadTargets(deskOf(context), request);
clientLoader.hydrate = true as const;

export const meta: Route.MetaFunction = () => [{ title: "Targets · Zenithar" }];

export { ScreenFault as ErrorBoundary } from "~/components/ScreenFault";

export default function TargetsRoute({ loaderData }: Route.ComponentProps) {
  if (!loaderData)
    return (
      <Empty>
        <h1 className="text-headline text-ink">Targets</h1>
        <p className="my-3">Which targets suit depends on where you observe from, and with what.</p>
        <Link to="/start" className={buttonLook("main")}>
          Say where you observe from
        </Link>
      </Empty>
    );
  const { rigName, isUsualRig, night, lightNight, ranking } = loaderData;
  const { place, date } = night;
  return (
    <>
      <h1 className="text-headline">What suits {shortNight(date)}?</h1>
      <p className="text-soft">
        For {place.name} with {rigName}: what the night gives × fit to the field × how rewarding the object is × its
        time of the year. Clear sky assumed.
      </p>
      {lightNight === null ? null : (
        <p className="text-lamp">
          {lightNight === date
            ? `It does not get dark here within a year, as you take twilight.`
            : `It does not get dark here on ${shortNight(lightNight)}. First dark night here: ${shortNight(date)}; this is the list for it.`}
        </p>
      )}
      {isUsualRig ? (
        <p className="text-lamp">
          You have no rig yet: ranked for a small refractor of 360 mm with a colour camera.{" "}
          <Link to="/start" className="underline underline-offset-4">
            Say what you have
          </Link>
        </p>
      ) : null}
      <Suspense fallback={<Waiting words="Ranking the catalogue …" heightPx={520} />}>
        <Await
          resolve={ranking}
          errorElement={
            <p className="text-soft py-8">
              The catalogue did not load. Is the server still running? Try the page again.
            </p>
          }
        >
          {(list) => <RankedList ranking={list} data={loaderData} />}
        </Await>
      </Suspense>
    </>
  );
}

type Loaded = NonNullable<Route.ComponentProps["loaderData"]>;

function RankedList({ ranking, data }: { readonly ranking: Ranking<RankedEntry>; readonly data: Loaded }) {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const [filter, setFilter] = useState<TargetFilter>(NO_FILTER);
  const [order, setOrder] = useState<Order>("overall");
  const query = filter.query.trim();
  const found = useFound(query, data.question);
  // The list follows when there is time: what is typed is painted first.
  const asked = useDeferredValue(filter);
  const isByName = asked.query.trim() !== "" && found.query !== "";
  const lines = useMemo(
    () => ordered(narrowed(isByName ? found.lines : ranking.ranked, asked), order),
    [ranking, isByName, found, asked, order],
  );
  const low = params.get("low") ?? "";
  const school: School = SCHOOLS.find((s) => s === low) ?? "";
  const kept = keptSearch(params, { low });
  const linkTo = useCallback((id: string) => `/targets/${encodeURIComponent(id)}${kept}`, [kept]);
  return (
    <>
      <TargetFilters
        filter={filter}
        onChange={setFilter}
        order={order}
        onOrder={setOrder}
        school={school}
        placeMinDeg={data.placeMinDeg}
        onSchool={(next) =>
          void navigate(`/targets${keptSearch(params, { low: next })}`, { replace: true, preventScrollReset: true })
        }
      />
      <div className="text-note text-soft flex flex-wrap justify-between gap-x-4">
        <span aria-live="polite">
          {lines.length} {query === "" ? "up this night" : "by that name"}
        </span>
        {ranking.tooLow > 0 && ranking.ranked.length > 0 ? (
          <span>
            {ranking.tooLow} more stand above 10° here but never reach {data.night.place.minAltitudeDeg}°
          </span>
        ) : null}
        <ColumnsExplained />
        <Link to={`/targets/own/new${kept}`} className="min-h-6 underline underline-offset-4">
          A target of your own
        </Link>
      </div>
      {query === "" ? null : (
        <SearchNote
          query={query}
          isKnown={found.query === query ? found.lines.some((l) => isCalled(l.entry, query)) : null}
          linkTo={(position) => `/targets/own/new${keptSearch(params, { low, position })}`}
        />
      )}
      {lines.length === 0 ? (
        <Empty>
          <p>
            {query !== "" && found.query !== query
              ? "Looking through the catalogue …"
              : query !== ""
                ? "Nothing by that name passes the filters."
                : data.night.steps.count === 0
                  ? "The Sun does not set here on this night."
                  : ranking.ranked.length === 0
                    ? `Nothing is usable this night: the Sun goes down to only ${formatDegrees(Math.min(...data.night.steps.sunAltitudeDeg))}.`
                    : "Nothing passes all filters. Ask for fewer hours, another size or any kind."}
          </p>
        </Empty>
      ) : (
        <TargetList
          lines={lines}
          night={data.night}
          optics={data.optics}
          order={order}
          onOrder={setOrder}
          linkTo={linkTo}
        />
      )}
    </>
  );
}
