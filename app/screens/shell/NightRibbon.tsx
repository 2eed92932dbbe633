import clsx from "clsx";
import { memo, useEffect, useRef, type KeyboardEvent } from "react";
import { Link } from "react-router";
import { dayOf, MONTHS, shortNight } from "~/components/clock";
import { AnyNight } from "./AnyNight";
import { percent } from "~/components/numbers";
import { namedPhases, type PhaseName, type RibbonNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";

const FILL = ["var(--twilight)", "var(--night)", "var(--moonlit)"];
const [WIDTH, HEIGHT] = [24, 46];

const PHASE_WORDS: Readonly<Record<PhaseName, string>> = {
  new: "new Moon",
  firstQuarter: "first quarter",
  full: "full Moon",
  lastQuarter: "last quarter",
};

/** Minutes from 00:00 UTC of the evening date to the start of the night. */
const minuteOfDay = (night: RibbonNight) => (night.startMs - Date.parse(`${night.date}T00:00:00Z`)) / 60_000;

/** Where the ribbon begins and how far it reaches, minutes from 00:00 UTC of each evening's date. */
interface Span {
  readonly firstMin: number;
  readonly spanMin: number;
}

function spanOf(nights: readonly RibbonNight[]): Span {
  const shown = nights.filter((n) => n.states.length > 0);
  const firstMin = Math.min(...shown.map(minuteOfDay), 24 * 60);
  const lastMin = Math.max(...nights.map((n) => minuteOfDay(n) + n.states.length * n.stepMin), firstMin + 60);
  return { firstMin, spanMin: lastMin - firstMin };
}

/** Runs of like states as rectangles: y from the earliest sunset shown. */
function runs(night: RibbonNight, { firstMin, spanMin }: Span) {
  const from = minuteOfDay(night);
  const found: { y: number; h: number; state: number }[] = [];
  night.states.forEach((state, i) => {
    const y = ((from + i * night.stepMin - firstMin) / spanMin) * HEIGHT;
    const h = (night.stepMin / spanMin) * HEIGHT;
    const last = found.at(-1);
    if (last?.state === state) last.h += h;
    else found.push({ y, h, state });
  });
  return found;
}

/** A phase as a small disc, lit as the sky shows it from the north. */
function PhaseMark({ phase }: { readonly phase: PhaseName }) {
  const half = phase === "firstQuarter" ? "M6 1.5A4.5 4.5 0 0 1 6 10.5Z" : "M6 1.5A4.5 4.5 0 0 0 6 10.5Z";
  return (
    <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
      <circle cx="6" cy="6" r="4.5" fill={phase === "full" ? "var(--moon)" : "none"} stroke="var(--moon)" />
      {phase === "firstQuarter" || phase === "lastQuarter" ? <path d={half} fill="var(--moon)" /> : null}
    </svg>
  );
}

/** What a night is marked with: work taken, work planned, or something kept by hand. */
export type NightMark = "taken" | "planned" | "kept";

const MARK_WORDS: Readonly<Record<NightMark, string>> = {
  taken: ", work taken",
  planned: ", work planned",
  kept: ", kept by hand",
};

interface Props {
  readonly nights: readonly RibbonNight[];
  readonly chosen: string;
  readonly today: string;
  readonly marks: ReadonlyMap<string, NightMark>;
  readonly linkTo: (date: string) => string;
  /** A night that the ribbon may not reach is chosen. */
  readonly onChoose: (date: string) => void;
}

interface ColumnProps extends Span {
  readonly night: RibbonNight;
  readonly to: string;
  readonly isChosen: boolean;
  readonly isToday: boolean;
  /** Where the Tab key stops. */
  readonly isStop: boolean;
  /** The first one, or of a month. */
  readonly isFirst: boolean;
  readonly phase: PhaseName | undefined;
  readonly mark: NightMark | undefined;
}

/** One night of the ribbon: drawn anew only when something of its own has changed. */
const NightColumn = memo(function NightColumn(props: ColumnProps) {
  const { night, to, isChosen, isToday, isStop, isFirst, phase, mark, firstMin, spanMin } = props;
  const here = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    const column = here.current;
    const ribbon = column?.parentElement;
    if (!isChosen || !column || !ribbon) return;
    // The ribbon alone: brought into view, the page would move by the ribbon's edge.
    const fromLeft = column.getBoundingClientRect().left - ribbon.getBoundingClientRect().left;
    ribbon.scrollLeft += fromLeft - (ribbon.clientWidth - column.clientWidth) / 2;
  }, [isChosen]);
  const words = `${shortNight(night.date)}: ${formatMinutes(night.darkMin)} dark, ${formatMinutes(night.moonlessMin)} of it without Moon, Moon ${percent(night.illuminatedFraction)} lit${phase ? `, ${PHASE_WORDS[phase]}` : ""}, clear on about ${Math.round(night.clearChance * 100)} of 100 such nights${mark ? MARK_WORDS[mark] : ""}`;
  return (
    <Link
      ref={here}
      to={to}
      preventScrollReset
      tabIndex={isStop ? 0 : -1}
      aria-label={words}
      aria-current={isChosen ? "date" : undefined}
      title={words}
      className={clsx(
        "group flex min-w-[30px] flex-1 shrink-0 flex-col items-center rounded-[6px] border px-[3px]",
        isChosen ? "border-lamp" : "hover:border-rule border-transparent",
      )}
    >
      <span className="relative flex w-full justify-center" aria-hidden="true">
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          preserveAspectRatio="none"
          aria-hidden="true"
          className="h-[46px] w-full max-w-9 rounded-[2px]"
        >
          {runs(night, { firstMin, spanMin }).map((r) => (
            <rect key={r.y} x="0" width={WIDTH} y={r.y} height={r.h + 0.4} fill={FILL[r.state]} />
          ))}
          <rect x="2" y={HEIGHT - 3} height="2" width={(WIDTH - 4) * night.clearChance} fill="var(--sage)" />
        </svg>
        {/* Beside the drawing, which is stretched: a dot stays round. Borders, since some give no fill its colour. */}
        {mark ? (
          <span
            className={clsx(
              "border-lamp absolute top-[7px] rounded-full",
              mark === "kept" ? "h-2 w-2 border-2" : "border-[3px]",
            )}
          />
        ) : null}
      </span>
      <span
        className={clsx(
          "text-note mt-0.5",
          isChosen
            ? "text-ink font-bold"
            : isToday
              ? "text-lamp underline underline-offset-2"
              : "text-faint group-hover:text-ink",
        )}
      >
        {dayOf(night.date)}{" "}
      </span>
      {/* After the day, as its name has it; drawn above. */}
      <span className="text-soft order-first flex h-4 items-center text-[0.75rem] leading-none" aria-hidden="true">
        {isFirst ? MONTHS[Number(night.date.slice(5, 7)) - 1] : phase ? <PhaseMark phase={phase} /> : null}
      </span>
    </Link>
  );
});

/**
 * The nights to come, one column each: time runs down from dusk to dawn, dark is dark, moonlit pale; the bar below is the
 * place's chance of a clear night; a filled mark is work taken or planned, a ring something kept by hand. The chosen night governs every screen. One stop for the Tab
 * key; arrows go from night to night.
 */
export const NightRibbon = memo(function NightRibbon({ nights, chosen, today, marks, linkTo, onChoose }: Props) {
  const span = spanOf(nights);
  const phases = namedPhases(nights);
  const stop = nights.some((n) => n.date === chosen) ? chosen : (nights[0]?.date ?? "");
  const onKeyDown = (e: KeyboardEvent<HTMLElement>) => {
    const links = [...e.currentTarget.querySelectorAll<HTMLElement>("a, button")];
    const at = links.indexOf(document.activeElement as HTMLElement);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: links.length - 1 }[e.key];
    if (to === undefined || at < 0) return;
    e.preventDefault();
    links[to]?.focus();
  };
  return (
    <nav
      aria-label="Nights"
      className="flex [scrollbar-width:none] overflow-x-auto px-2 pt-1 pb-1"
      onKeyDown={onKeyDown}
    >
      {nights.map((night, i) => (
        <NightColumn
          key={night.date}
          night={night}
          {...span}
          to={linkTo(night.date)}
          isChosen={night.date === chosen}
          isToday={night.date === today}
          isStop={night.date === stop}
          isFirst={i === 0 || night.date.endsWith("-01")}
          phase={phases.get(i)}
          mark={marks.get(night.date)}
        />
      ))}
      <AnyNight chosen={chosen} today={today} onChoose={onChoose} />
    </nav>
  );
});
