import clsx from "clsx";
import {
  BookOpen,
  CalendarClock,
  CalendarRange,
  Crosshair,
  Ellipsis,
  FolderOpen,
  Keyboard,
  MoonStar,
  Search,
  Wrench,
} from "lucide-react";
import type { ReactNode } from "react";
import { NavLink, useLocation } from "react-router";

/** The stations, in working order, with the key that opens each; on a phone those that are not at hand lie under "More". */
export const STATIONS = [
  { to: "/", word: "Tonight", key: "1", Icon: MoonStar, isAtHand: true },
  { to: "/targets", word: "Targets", key: "2", Icon: Crosshair, isAtHand: true },
  { to: "/projects", word: "Projects", key: "3", Icon: FolderOpen, isAtHand: true },
  { to: "/season", word: "Season", key: "4", Icon: CalendarRange, isAtHand: false },
  { to: "/nights", word: "Nights", key: "5", Icon: CalendarClock, isAtHand: false },
  { to: "/log", word: "Log", key: "6", Icon: BookOpen, isAtHand: true },
  { to: "/kit", word: "Kit", key: "7", Icon: Wrench, isAtHand: false },
] as const;

/** Rail, ribbon and page. On a narrow window the rail lies at the bottom. */
export function ShellFrame({
  search,
  ribbon,
  themes,
  banner,
  note,
  onSearch,
  onHelp,
  onMore,
  isPending,
  children,
}: {
  readonly search: string;
  readonly ribbon: ReactNode;
  readonly themes: ReactNode;
  readonly banner: ReactNode;
  /** A word under the themes, such as that this is the demo. */
  readonly note: ReactNode;
  readonly onSearch: () => void;
  readonly onHelp: () => void;
  /** Opens the stations and tools that a small window has no room for. */
  readonly onMore: () => void;
  /** Another page is on its way. */
  readonly isPending: boolean;
  readonly children: ReactNode;
}) {
  const { pathname, search: query } = useLocation();
  const isElsewhere = STATIONS.some((s) => !s.isAtHand && pathname.startsWith(s.to));
  return (
    <div className="min-h-screen pb-16 sm:pb-0 sm:pl-[76px] print:min-h-0 print:p-0">
      <a href="#page" className="focus:bg-sheet sr-only focus:not-sr-only focus:absolute focus:z-50 focus:p-2">
        Skip to the page
      </a>
      <div className="no-print border-rule bg-ground fixed inset-x-0 bottom-0 z-30 flex border-t sm:inset-y-0 sm:right-auto sm:w-[76px] sm:flex-col sm:border-t-0 sm:border-r">
        <div
          className="text-figure text-lamp low:hidden hidden py-3 text-center font-serif sm:block"
          aria-hidden="true"
        >
          Z
        </div>
        <nav aria-label="Stations" className="flex flex-1 justify-around sm:flex-col sm:justify-start sm:gap-1 sm:px-2">
          {STATIONS.map(({ to, word, key, Icon, isAtHand }) => (
            <NavLink
              key={to}
              to={{ pathname: to, search }}
              end={to === "/"}
              title={`${word} (${key})`}
              className={({ isActive }) =>
                clsx(
                  "text-note flex-col items-center gap-0.5 rounded-[8px] px-1 py-2",
                  isAtHand ? "flex" : "hidden sm:flex",
                  isActive ? "is-chosen bg-raised text-ink" : "text-soft hover:text-ink",
                )
              }
            >
              <Icon size={18} strokeWidth={1.6} aria-hidden="true" />
              <span className="sm:low:sr-only">{word}</span>
            </NavLink>
          ))}
          <button
            type="button"
            aria-haspopup="dialog"
            title="More: other stations, search, light, keys"
            onClick={onMore}
            className={clsx(
              "text-note sm:low:flex flex flex-col items-center gap-0.5 rounded-[8px] px-1 py-2 sm:hidden",
              isElsewhere ? "max-sm:bg-raised text-ink" : "text-soft hover:text-ink",
            )}
          >
            <Ellipsis size={18} strokeWidth={1.6} aria-hidden="true" />
            <span className="sm:low:sr-only">More</span>
          </button>
        </nav>
      </div>
      {isPending ? <div className="pending-bar" role="presentation" /> : null}
      <div className="no-print border-rule border-b">{ribbon}</div>
      {banner}
      <main
        id="page"
        data-at={pathname + query} // which address is shown: a page in the making leaves the last one standing
        className="mx-auto max-w-[1240px] px-4 pt-4 pb-10 min-[1500px]:max-w-[1880px] min-[2100px]:max-w-[2460px] sm:px-6 print:max-w-none print:p-0"
      >
        {children}
      </main>
      {/* Last in the order of keys: what a screen is for comes before the tools of the rail. */}
      <section
        aria-label="Tools"
        className="no-print bg-ground low:hidden fixed bottom-0 left-0 z-30 hidden w-[75px] flex-col items-center gap-1 pb-3 sm:flex"
      >
        <button
          type="button"
          onClick={onSearch}
          title="Search everywhere (Ctrl K)"
          className="text-note text-soft hover:text-ink flex flex-col items-center rounded-[8px] p-2"
        >
          <Search size={18} strokeWidth={1.6} aria-hidden="true" />
          Search
        </button>
        {themes}
        {note}
        <button
          type="button"
          onClick={onHelp}
          title="Keys (?)"
          className="text-note text-soft hover:text-ink flex flex-col items-center rounded-[8px] p-2"
        >
          <Keyboard size={18} strokeWidth={1.6} aria-hidden="true" />
          Keys
        </button>
      </section>
    </div>
  );
}
