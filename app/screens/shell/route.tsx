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
import { NightRibbon } from "./NightRibbon";
import { RibbonWords } from "./RibbonWords";
import type { OwnPlace } from "./SearchPalette";
import { ShellFrame, STATIONS } from "./ShellFrame";
import { useForecasts, useNightMarks } from "./use-night-marks";
import { ThemeChoice } from "./ThemeChoice";
import { NewVersion } from "./NewVersion";
import { prepareOffline } from "~/offline/register";
import { hasDrawn, isGoing } from "~/offline/rescue";
import { isShortcut, isTyping } from "~/components/shortcuts";
import { ACTS, type ActsIntent } from "~/components/forms/acts-intent";
import { DraftShelfProvider, isOnPage, readDraft } from "~/components/forms/drafts";
import { Toasts, useSay } from "~/components/ui/Toasts";
import { addNights, nightsBetween } from "~/core/time";
import { theDrafts } from "~/desk/records/kept";
import type { Route } from "./+types/route";
import { Button } from "~/components/ui/Button";
import { backupWords } from "~/components/words/file-words";
import { backupState } from "~/desk/records/backup";
import { keptSearch, loadShellChoice } from "~/desk/sky/choice";
import { onNotice } from "~/desk/records/notices";
import { onLibrary } from "~/desk/records/open-library";
import { setHabits } from "~/components/habits";
import { orRechecked } from "~/desk/records/recheck";

// Opened now and then: not part of the first load.
const SearchPalette = lazy(() => import("./SearchPalette").then((m) => ({ default: m.SearchPalette })));
const KeyHelp = lazy(() => import("./KeyHelp").then((m) => ({ default: m.KeyHelp })));

const NIGHTS = 34;

export async function clientLoader({ context, request }: Route.ClientLoaderArgs) {
  const desk = deskOf(context);
  const { library, choice, fault } = await orRechecked(desk, () => loadShellChoice(desk, request));
  setHabits(library.settings?.data ?? null);
  const ahead = nightsBetween(choice.today, choice.night);
  const from = addNights(choice.today, ahead >= -1 && ahead < NIGHTS - 2 ? -1 : ahead - 3);
  const ribbon = choice.place ? desk.workers.sky.ribbon({ place: choice.place.data, from, count: NIGHTS }) : null;
  const backup = backupState(library, desk.now());
  return { library, choice, ribbon, fault, backup };
}
clientLoader.hydrate = true as const;

export { ShellLoading as HydrateFallback } from "./ShellLoading";

export default function Shell({ loaderData }: Route.ComponentProps) {
  const desk = useDesk();
  const { library, choice, ribbon, fault, backup } = loaderData;
  const [isLater, setLater] = useState(false);
  const [params] = useSearchParams();
  const location = useLocation();
  const navigate = useNavigate();
  const revalidator = useRevalidator();
  const navigation = useNavigation();
  const isSought = useRef(false);
  const [isSearching, setSearching] = useState(false);
  const [isHelping, setHelping] = useState(false);
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
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isShortcut(event, "search")) {
        event.preventDefault();
        setSearching(true);
        return;
      }
      if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
      const station = STATIONS.find((s) => s.key === event.key);
      const night = isShortcut(event, "nightAfter")
        ? addNights(choice.night, 1)
        : isShortcut(event, "nightBefore")
          ? addNights(choice.night, -1)
          : isShortcut(event, "tonight")
            ? choice.today
            : null;
      if (station) void navigate({ pathname: station.to, search });
      else if (night) void navigate(linkTo(night), { preventScrollReset: true });
      else if (isShortcut(event, "help")) setHelping(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [navigate, search, linkTo, choice.night, choice.today]);
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
  const searchObjects = useCallback((query: string) => desk.workers.sky.search(query, 12), [desk]);

  return (
    <Toasts onUndo={undo}>
      <DraftShelfProvider value={desk.at(theDrafts)}>
        <Notices />
        <NewVersion />
        <ShellFrame
          search={search}
          themes={<ThemeChoice />}
          note={desk.isDemo ? <DemoNote /> : null}
          onSearch={() => setSearching(true)}
          onHelp={() => setHelping(true)}
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
              <p className="text-note text-soft flex h-[93px] items-center gap-1 px-4">
                <Link to="/start" className="underline underline-offset-4">
                  Say where you observe from
                </Link>
                , and the nights to come appear here.
              </p>
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
          {isHelping ? <KeyHelp open onOpenChange={setHelping} /> : null}
        </Suspense>
      </DraftShelfProvider>
    </Toasts>
  );
}

/** Says what the desk has done, and, when the app opens, what was typed before and is not saved. */
function Notices() {
  const desk = useDesk();
  const say = useSay();
  useEffect(() => onNotice(desk, (notice) => say(notice.text, notice.undoId)), [desk, say]);
  useEffect(() => {
    // What is on the page by then says so itself.
    const timer = setTimeout(() => {
      const names = desk
        .at(theDrafts)
        .names()
        .filter((name) => !isOnPage(name));
      const titles = names.flatMap((name) => readDraft(desk.at(theDrafts).get(name))?.title ?? []);
      if (titles.length > 0)
        say(`Not saved yet, from last time: ${titles.slice(0, 4).join("; ")}. It is there as you left it.`);
    }, 1500);
    return () => clearTimeout(timer);
  }, [desk, say]);
  useEffect(() => {
    // What failed and was not heard of where it was asked for is said here, so that nobody waits for it.
    const onFailed = ({ reason }: PromiseRejectionEvent) => {
      if (!(reason instanceof Error) || GIVEN_UP.has(reason.message) || reason.name === "AbortError") return;
      say(`Something could not be done: ${reason.message}. What you entered is kept; try again, or reload the page.`);
    };
    window.addEventListener("unhandledrejection", onFailed);
    return () => window.removeEventListener("unhandledrejection", onFailed);
  }, [say]);
  return null;
}

/** Reasons that somebody gave for stopping: nothing has failed. */
const GIVEN_UP = new Set(["left", "stopped"]);

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

/** What is stored does not come together; what does still opens. */
function FaultBanner({ reason }: { readonly reason: string }) {
  return (
    <p role="alert" className="border-rule bg-raised border-b px-5 py-2">
      Tonight&apos;s place could not be worked out from what is stored ({reason}). It is all kept: look under Kit, Data
      in and out.
    </p>
  );
}

/** Reminds of a backup until one is taken; "Later" lasts until the app is opened again. */
function BackupBanner({
  words,
  search,
  onLater,
}: {
  readonly words: string;
  readonly search: string;
  readonly onLater: () => void;
}) {
  return (
    <div role="status" className="border-rule bg-raised flex flex-wrap items-center gap-x-4 border-b px-5 py-2">
      <p>
        {words} All of it lies in this browser alone.{" "}
        <Link to={`/kit/data${search}`} className="underline underline-offset-4">
          Take a backup
        </Link>
      </p>
      <Button look="plain" className="min-h-0 py-0" onClick={onLater}>
        Later
      </Button>
    </div>
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
