import { deskOf, useDesk } from "~/at-desk";
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from "react";
import {
  Await,
  Link,
  Outlet,
  useFetcher,
  useLocation,
  useNavigate,
  useNavigation,
  useRevalidator,
  useSearchParams,
} from "react-router";
import { BackupBanner, FaultBanner, MemoryBanner } from "./Banners";
import { NightRibbon } from "./NightRibbon";
import { Notices } from "./Notices";
import { RibbonWords } from "./RibbonWords";
import type { OwnPlace } from "./SearchPalette";
import { ShellFrame, STATIONS } from "./ShellFrame";
import { useShellKeys } from "./use-shell-keys";
import { useForecasts, useNightMarks } from "./use-night-marks";
import { ThemeChoice } from "./ThemeChoice";
import { NewVersion } from "./NewVersion";
import { prepareOffline } from "~/offline/register";
import { hasDrawn, isGoing } from "~/offline/rescue";
import { ACTS, type ActsIntent } from "~/components/forms/acts-intent";
import { DraftShelfProvider } from "~/components/forms/drafts";
import { TapFacts } from "~/components/tap/TapFacts";
import { Toasts } from "~/components/ui/Toasts";
import { addNights, nightsBetween } from "~/core/time";
import { SmallPictures, type PictureMaker } from "~/components/SkyPicture";
import { smallPicture } from "~/desk/sky/small-pictures";
import { theDrafts } from "~/desk/records/kept";
import type { Route } from "./+types/route";
import { backupWords } from "~/components/words/file-words";
import { roundHere, roundOn } from "~/desk/kit/round";
import { backupState } from "~/desk/records/backup";
import { keptSearch, loadShellChoice } from "~/desk/sky/choice";
import { onLanding, wakeWatch } from "~/desk/log/landings";
import { onLibrary } from "~/desk/records/open-library";
import { setHabits } from "~/components/habits";
import { orRechecked } from "~/desk/records/recheck";

// Opened now and then: not part of the first load.
const SearchPalette = lazy(() => import("./SearchPalette").then((m) => ({ default: m.SearchPalette })));
const MoreSheet = lazy(() => import("./MoreSheet").then((m) => ({ default: m.MoreSheet })));
const KeyHelp = lazy(() => import("./KeyHelp").then((m) => ({ default: m.KeyHelp })));

const RoundBar = lazy(() => import("./RoundBar").then((m) => ({ default: m.RoundBar })));

const NIGHTS = 34;

export async function clientLoader({ context, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const { library, choice, fault } = await orRechecked(desk, () => loadShellChoice(desk, request));
  setHabits(library.settings?.data ?? null);
  const ahead = nightsBetween(choice.today, choice.night);
  const from = addNights(choice.today, ahead >= -1 && ahead < NIGHTS - 2 ? -1 : ahead - 3);
  const ribbon = choice.place ? desk.workers.sky.ribbon({ place: choice.place.data, from, count: NIGHTS }) : null;
  const backup = backupState(library, desk.now());
  const at = roundHere(desk);
  const round = at && roundOn(at, library, choice, new URL(request.url).searchParams.get("project"));
  return { library, choice, ribbon, fault, backup, round };
}
clientLoader.hydrate = true as const;

export { ShellLoading as HydrateFallback } from "./ShellLoading";

export default function Shell({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { library, choice, ribbon, fault, backup, round } = loaderData;
  const [isLater, setLater] = useState(false);
  const [params] = useSearchParams();
  const location = useLocation();
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const navigation = useNavigation();
  const isSought = useRef(false);
  const [isSearching, setSearching] = useState(false);
  const [isHelping, setHelping] = useState(false);
  const [isMore, setMore] = useState(false);
  const search = keptSearch(params);
  const linkTo = useCallback(
    (date: string) =>
      `${location.pathname}${keptSearch(params, { night: date, project: params.get("project") ?? "" })}`,
    [location.pathname, params],
  );

  const chooseNight = useCallback(
    (night: string) => void navigate(linkTo(night), { preventScrollReset: true }),
    [navigate, linkTo],
  );
  useEffect(prepareOffline, []);
  useEffect(() => hasDrawn(sessionStorage), []);
  const going = navigation.location?.pathname ?? null;
  useEffect(() => isGoing(sessionStorage, going), [going]);
  // What this tab keeps is followed by its own actions; what another tab keeps is heard of here.
  useEffect(() => onLibrary(desk, (by) => by === "elsewhere" && void revalidator.revalidate()), [desk, revalidator]);
  useEffect(() => onLanding(desk, () => void revalidator.revalidate()), [desk, revalidator]);
  useEffect(() => void wakeWatch(desk).catch(() => undefined), [desk]); // the log says what is amiss with the folder
  useShellKeys({
    search,
    linkTo,
    night: choice.night,
    today: choice.today,
    onSearch: () => setSearching(true),
    onHelp: () => setHelping(true),
  });
  // After a search the page that was found is read from its heading on, not from the top of the rail.
  useEffect(() => {
    const heading = document.querySelector<HTMLElement>("main h1");
    if (!isSought.current || !heading) return;
    isSought.current = false;
    heading.tabIndex = -1;
    heading.focus();
  }, [location.pathname]);
  const undoer = useFetcher();
  const { submit } = undoer;
  const undo = useCallback(
    (undoId: string) => {
      const intent: ActsIntent = { act: "undo", undoId };
      void submit({ ...intent }, { method: "post", action: ACTS, encType: "application/json" });
    },
    [submit],
  );

  const own: OwnPlace[] = [
    ...STATIONS.map((s) => ({ word: s.word, kind: "station", to: `${s.to}${search}` })),
    ...library.projects.map((p) => ({ word: p.data.name, kind: "project", to: `/projects/${p.id}/frame${search}` })),
    ...library.places.map((p) => ({ word: p.data.name, kind: "place", to: `/kit/places/${p.id}${search}` })),
    ...library.ownTargets.map((t) => ({ word: t.data.name, kind: "own target", to: `/targets/${t.id}${search}` })),
    ...library.rigs.map((r) => ({ word: r.data.name, kind: "rig", to: `/kit/rigs/${r.id}${search}` })),
  ];
  useForecasts();
  const marks = useNightMarks(library);
  const makePicture = useCallback<PictureMaker>((sky, look) => smallPicture(desk, sky, look), [desk]);
  const searchObjects = useCallback((query: string) => desk.workers.sky.search(query, 12), [desk]);

  return (
    <Toasts onUndo={undo}>
      <DraftShelfProvider value={desk.at(theDrafts)}>
        <SmallPictures value={makePicture}>
          <Notices />
          <NewVersion />
          <TapFacts />
          <ShellFrame
            search={search}
            themes={<ThemeChoice />}
            note={desk.isDemo ? <DemoNote /> : null}
            onSearch={() => setSearching(true)}
            onHelp={() => setHelping(true)}
            onMore={() => setMore(true)}
            isPending={navigation.state !== "idle"}
            banner={
              fault ? (
                <FaultBanner reason={fault} />
              ) : !library.isLasting ? (
                <MemoryBanner />
              ) : backup.isDue && !desk.isDemo && !isLater ? (
                <BackupBanner words={backupWords(backup)} search={search} onLater={() => setLater(true)} />
              ) : null
            }
            ribbon={
              ribbon === null ? (
                <nav aria-label="Nights to come" className="text-note text-soft flex h-[93px] items-center px-4">
                  <p>
                    <Link to="/start" className="underline underline-offset-4">
                      Say where you observe from
                    </Link>
                    , and the nights to come appear here.
                  </p>
                </nav>
              ) : (
                <Suspense fallback={<div className="h-[93px]" />}>
                  <Await
                    resolve={ribbon}
                    errorElement={
                      <p className="text-note text-rust px-4 py-3">The nights of this place could not be worked out.</p>
                    }
                  >
                    {(nights) => (
                      <NightRibbon
                        nights={nights}
                        chosen={choice.night}
                        today={choice.today}
                        marks={marks}
                        linkTo={linkTo}
                        onChoose={chooseNight}
                      />
                    )}
                  </Await>
                </Suspense>
              )
            }
          >
            {/* What stands below a page is below the fold from the start, so that it does not jump when the page grows. */}
            <div className="min-h-screen print:min-h-0">
              {round ? (
                <Suspense>
                  <RoundBar view={round} search={search} />
                </Suspense>
              ) : null}
              <Outlet />
            </div>
            {ribbon ? <RibbonWords /> : null}
          </ShellFrame>
          <Suspense>
            {isSearching ? (
              <SearchPalette
                open
                onOpenChange={setSearching}
                own={own}
                searchObjects={searchObjects}
                onGo={(to) => {
                  isSought.current = true;
                  void navigate(to.includes("?") ? to : `${to}${search}`);
                }}
              />
            ) : null}
            {isMore ? (
              <MoreSheet
                search={search}
                onClose={() => setMore(false)}
                onSearch={() => setSearching(true)}
                onHelp={() => setHelping(true)}
              />
            ) : null}
            {isHelping ? <KeyHelp open onOpenChange={setHelping} /> : null}
          </Suspense>
        </SmallPictures>
      </DraftShelfProvider>
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
