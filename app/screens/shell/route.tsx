import { lazy, Suspense, useCallback, useEffect, useState } from "react";
import { Await, Outlet, useLocation, useNavigate, useRevalidator, useSearchParams } from "react-router";
import { NightRibbon } from "./NightRibbon";
import type { OwnPlace } from "./SearchPalette";
import { ShellFrame, STATIONS } from "./ShellFrame";
import { ThemeChoice } from "./ThemeChoice";
import { Toasts } from "~/components/ui/Toasts";
import { addNights, nightsBetween } from "~/core/time";
import { isDemo } from "~/storage/session";
import { onOtherTab } from "~/storage/tabs";
import { ribbonOf, skyWorker } from "~/workers/sky";
import type { Route } from "./+types/route";
import { keptSearch, loadChoice } from "~/desk/choice";

// Opened now and then: not part of the first load.
const SearchPalette = lazy(() => import("./SearchPalette").then((m) => ({ default: m.SearchPalette })));
const KeyHelp = lazy(() => import("./KeyHelp").then((m) => ({ default: m.KeyHelp })));

const NIGHTS = 34;

export async function clientLoader({ request }: Route.ClientLoaderArgs) {
  const { library, choice } = await loadChoice(request);
  const ahead = nightsBetween(choice.today, choice.night);
  const from = addNights(choice.today, ahead >= -1 && ahead < NIGHTS - 2 ? -1 : ahead - 3);
  const ribbon = choice.place ? ribbonOf({ place: choice.place.data, from, count: NIGHTS }) : null;
  return { library, choice, ribbon };
}
clientLoader.hydrate = true as const;

export function HydrateFallback() {
  return <p className="text-soft p-8">Opening the almanac …</p>;
}

export default function Shell({ loaderData }: Route.ComponentProps) {
  const { library, choice, ribbon } = loaderData;
  const [params] = useSearchParams();
  const location = useLocation();
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const [isSearching, setSearching] = useState(false);
  const [isHelping, setHelping] = useState(false);
  const search = keptSearch(params);
  const linkTo = useCallback(
    (date: string) => `${location.pathname}${keptSearch(params, { night: date })}`,
    [location.pathname, params],
  );

  useEffect(() => onOtherTab(() => void revalidator.revalidate()), [revalidator]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "k") {
        event.preventDefault();
        setSearching(true);
        return;
      }
      const target = event.target as HTMLElement;
      if (event.ctrlKey || event.metaKey || event.altKey || target.closest("input, textarea, select, [role=dialog]"))
        return;
      const station = STATIONS.find((s) => s.key === event.key);
      if (station) void navigate({ pathname: station.to, search });
      else if (event.key === "?") setHelping(true);
      else if (event.key === "[" || event.key === "]")
        void navigate(linkTo(addNights(choice.night, event.key === "]" ? 1 : -1)), { preventScrollReset: true });
      else if (event.key.toLowerCase() === "t") void navigate(linkTo(choice.today), { preventScrollReset: true });
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, search, linkTo, choice.night, choice.today]);

  const own: OwnPlace[] = [
    ...STATIONS.map((s) => ({ word: s.word, kind: "station", to: `${s.to}${search}` })),
    ...library.projects.map((p) => ({ word: p.data.name, kind: "project", to: `/projects/${p.id}/frame${search}` })),
    ...library.places.map((p) => ({ word: p.data.name, kind: "place", to: `/kit/places/${p.id}${search}` })),
    ...library.ownTargets.map((t) => ({ word: t.data.name, kind: "own target", to: `/targets/${t.id}${search}` })),
    ...library.rigs.map((r) => ({ word: r.data.name, kind: "rig", to: `/kit/rigs/${r.id}${search}` })),
  ];
  const shot = new Set(library.contributions.map((c) => c.data.night));
  const searchObjects = useCallback((query: string) => skyWorker().search(query, 12), []);

  return (
    <Toasts>
      <ShellFrame
        search={search}
        themes={<ThemeChoice />}
        note={isDemo() ? <DemoNote /> : null}
        onSearch={() => setSearching(true)}
        onHelp={() => setHelping(true)}
        banner={library.isLasting ? null : <MemoryBanner />}
        ribbon={
          ribbon === null ? (
            <p className="text-note text-soft px-4 py-3">Enter a place in Kit, and the nights to come appear here.</p>
          ) : (
            <Suspense fallback={<div className="h-[86px]" />}>
              <Await resolve={ribbon}>
                {(nights) => (
                  <NightRibbon
                    nights={nights}
                    chosen={choice.night}
                    today={choice.today}
                    planned={shot}
                    linkTo={linkTo}
                  />
                )}
              </Await>
            </Suspense>
          )
        }
      >
        <Outlet />
      </ShellFrame>
      <Suspense>
        {isSearching ? (
          <SearchPalette
            open
            onOpenChange={setSearching}
            own={own}
            searchObjects={searchObjects}
            onGo={(to) => void navigate(to.includes("?") ? to : `${to}${search}`)}
          />
        ) : null}
        {isHelping ? <KeyHelp open onOpenChange={setHelping} /> : null}
      </Suspense>
    </Toasts>
  );
}

function DemoNote() {
  return (
    <span
      title="An invented group on a fixed evening, 5 December 2026, 17:40 at the garden"
      className="text-note text-lamp"
    >
      demo
    </span>
  );
}

function MemoryBanner() {
  return (
    <p role="alert" className="border-rule bg-raised border-b px-5 py-2">
      This browser does not let the app store anything (a private window?). You can work, but all is gone when this tab
      closes: export it under Kit, Data before you leave.
    </p>
  );
}
