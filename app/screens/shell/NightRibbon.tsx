import clsx from "clsx";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import type { RibbonNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { dayOf, shortNight } from "~/components/clock";

const FILL = ["var(--twilight)", "var(--night)", "var(--moonlit)"];
const HEIGHT = 52;

/** Runs of like states as rectangles: y from the earliest sunset shown. */
function runs(night: RibbonNight, firstMin: number, spanMin: number, offsetMin: number) {
  const found: { y: number; h: number; state: number }[] = [];
  night.states.forEach((state, i) => {
    const y = ((offsetMin + i * night.stepMin - firstMin) / spanMin) * HEIGHT;
    const h = (night.stepMin / spanMin) * HEIGHT;
    const last = found.at(-1);
    if (last?.state === state) last.h += h;
    else found.push({ y, h, state });
  });
  return found;
}

/** Minutes from 00:00 UTC of the evening date to the start of the night. */
const minuteOfDay = (night: RibbonNight) => (night.startMs - Date.parse(`${night.date}T00:00:00Z`)) / 60_000;

/**
 * The nights to come, one column each: time runs down from dusk to dawn, dark is dark, moonlit pale; the bar below is the
 * place's chance of a clear night; a filled mark is planned work. The chosen night governs every screen.
 */
export function NightRibbon({
  nights,
  chosen,
  today,
  planned,
  linkTo,
}: {
  readonly nights: readonly RibbonNight[];
  readonly chosen: string;
  readonly today: string;
  readonly planned: ReadonlySet<string>;
  readonly linkTo: (date: string) => string;
}) {
  const current = useRef<HTMLAnchorElement>(null);
  useEffect(() => {
    // Not returned: newer browsers answer with a promise, which is no clean-up.
    void current.current?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [chosen]);
  const starts = nights.map(minuteOfDay);
  const first = Math.min(...starts.filter((_, i) => nights[i]!.states.length > 0), 24 * 60);
  const last = Math.max(...nights.map((n, i) => starts[i]! + n.states.length * n.stepMin), first + 60);
  return (
    <nav aria-label="Nights" className="flex [scrollbar-width:none] overflow-x-auto px-3 pt-2 pb-1">
      {nights.map((night, i) => {
        const isChosen = night.date === chosen;
        const words = `${shortNight(night.date)}: ${formatMinutes(night.darkMin)} dark, ${formatMinutes(night.moonlessMin)} of it without Moon, Moon ${Math.round(night.illuminatedFraction * 100)} % lit, clear on about ${Math.round(night.clearChance * 100)} of 100 such nights${planned.has(night.date) ? ", work taken" : ""}`;
        return (
          <Link
            key={night.date}
            ref={isChosen ? current : null}
            to={linkTo(night.date)}
            preventScrollReset
            aria-label={words}
            aria-current={isChosen ? "date" : undefined}
            title={words}
            className={clsx(
              "group flex shrink-0 flex-col items-center rounded-[6px] border px-[3px] pt-[3px]",
              isChosen ? "border-lamp" : "hover:border-rule border-transparent",
            )}
          >
            <svg width="24" height={HEIGHT} aria-hidden="true" className="rounded-[2px]">
              {runs(night, first, last - first, starts[i]!).map((r) => (
                <rect key={r.y} x="0" width="24" y={r.y} height={r.h + 0.4} fill={FILL[r.state]} />
              ))}
              <rect x="2" y={HEIGHT - 3} height="2" width={20 * night.clearChance} fill="var(--sage)" />
              {planned.has(night.date) ? <circle cx="12" cy="10" r="3" fill="var(--lamp)" /> : null}
            </svg>
            <span
              className={clsx(
                "text-note mt-0.5",
                isChosen
                  ? "text-ink font-bold"
                  : night.date === today
                    ? "text-lamp underline underline-offset-2"
                    : "text-faint group-hover:text-ink",
              )}
            >
              {dayOf(night.date)}
            </span>
          </Link>
        );
      })}
    </nav>
  );
}
