import clsx from "clsx";
import { useState, type KeyboardEvent } from "react";
import { Link } from "react-router";
import { clockTime, dayOf, MONTHS, shortNight } from "~/components/clock";
import { clearWords, isAssumedOn } from "~/components/words/chance-words";
import { namedPhases, type RibbonNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { channelsText, isWanted, type Evening, type SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";
import { HEIGHT_PX, NightBlock, Slices, startMin, type Scale } from "./leaf-night";
import type { SeasonView } from "./load";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const PHASES = { new: "new Moon", firstQuarter: "first quarter", full: "full Moon", lastQuarter: "last quarter" };

/** What the leaf draws of a night. */
interface LeafNight {
  readonly date: NightDate;
  readonly sky: RibbonNight;
  readonly evenings: readonly Evening[];
  readonly isAhead: boolean;
}

/** From the earliest dusk to the latest dawn of all nights shown. */
function scaleOf(nights: readonly RibbonNight[]): Scale {
  const lit = nights.filter((n) => n.states.length > 0);
  const firstMin = Math.min(...lit.map(startMin), 24 * 60);
  const last = Math.max(...lit.map((n) => startMin(n) + n.states.length * n.stepMin), firstMin + 60);
  return { firstMin, spanMin: last - firstMin };
}

/**
 * The season as a leaf: weeks run down, nights across. Each night is an upright block of the ribbon's own shape, work lies in it as
 * slices in the colour of its channel with its letters and the project's initial; hatched is what cloud is expected to take, a ring
 * says that it is kept by hand. A project is read by lighting up its slices. Slices can be dragged to another night.
 */
export function SeasonLeaf({
  plan,
  view,
  weeks,
  lit,
  chosen,
  linkTo,
  onMove,
}: {
  readonly plan: SeasonPlan | null;
  readonly view: SeasonView;
  readonly weeks: number;
  /** The project whose slices are lit; null = all. */
  readonly lit: string | null;
  readonly chosen: NightDate;
  readonly linkTo: (night: string) => string;
  readonly onMove: (projectId: string, from: NightDate, to: NightDate) => void;
}) {
  const [over, setOver] = useState<string | null>(null);
  const byNight = new Map<string, Evening[]>();
  for (const e of plan?.evenings ?? []) byNight.set(e.night, [...(byNight.get(e.night) ?? []), e]);
  const shown = view.sky.slice(0, weeks * 7);
  const scale = scaleOf(view.sky);
  const phases = namedPhases(view.sky);
  const nights = shown.map((sky): LeafNight => ({
    date: sky.date,
    sky,
    evenings: byNight.get(sky.date) ?? [],
    isAhead: sky.date >= view.today,
  }));
  const initial = new Map(view.projects.map((p) => [p.id, p.initial]));
  const name = new Map(view.projects.map((p) => [p.id, p.name]));
  const stop = nights.some((n) => n.date === chosen) ? chosen : view.today;
  const isKept = (n: LeafNight) => view.locks.some((l) => l.night === n.date);
  const onKeyDown = (e: KeyboardEvent<HTMLElement>) => {
    const links = [...e.currentTarget.querySelectorAll<HTMLElement>("a[data-night]")];
    const at = links.indexOf(document.activeElement as HTMLElement);
    const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: 7, ArrowUp: -7 }[e.key];
    if (step === undefined || at < 0) return;
    e.preventDefault();
    links[at + step]?.focus();
  };
  const wordsOf = (n: LeafNight, phase: keyof typeof PHASES | undefined) => {
    const work = n.evenings.flatMap((e) =>
      e.blocks.map(
        (b) =>
          `${name.get(b.projectId) ?? ""}, ${channelsText(b)}, ${clockTime(b.startMs, view.zones[e.placeId] ?? view.zone)} to ${clockTime(b.endMs, view.zones[e.placeId] ?? view.zone)}`,
      ),
    );
    const [first] = n.evenings;
    const chance = first?.chance ?? n.sky.clearChance;
    const isAssumed = isAssumedOn(
      view.run?.question.places.find((p) => p.id === first?.placeId),
      n.date,
    );
    return `${shortNight(n.date)}: ${formatMinutes(n.sky.darkMin)} dark${phase ? `, ${PHASES[phase]}` : ""}, ${clearWords(chance, isAssumed)}. ${work.join("; ") || (n.isAhead ? "no work" : "gone by")}${isKept(n) ? "; kept by hand" : ""}`;
  };
  return (
    <div onKeyDown={onKeyDown} role="group" aria-label="Season">
      <div className="text-note text-soft grid grid-cols-7 gap-1.5" aria-hidden="true">
        {DAYS.map((d) => (
          <span key={d}>{d}</span>
        ))}
      </div>
      <div className="grid grid-cols-7 gap-1.5">
        {nights.map((n, i) => {
          const phase = phases.get(i);
          const words = wordsOf(n, phase);
          const isFirst = i === 0 || n.date.endsWith("-01");
          const lanes = n.evenings
            .filter((e) => e.blocks.length > 0)
            .sort((a, b) => a.rigIds.join().localeCompare(b.rigIds.join()));
          const isFree = n.isAhead && n.evenings.some((e) => e.closed === "busy" || e.closed === "forbidden");
          return (
            <Link
              key={n.date}
              to={linkTo(n.date)}
              preventScrollReset
              replace
              data-night={n.date}
              tabIndex={n.date === stop ? 0 : -1}
              aria-current={n.date === chosen ? "date" : undefined}
              title={words}
              className={clsx(
                "block rounded-[4px] border p-[3px]",
                n.date === chosen ? "border-lamp" : "hover:border-rule border-transparent",
                over === n.date && "bg-raised",
              )}
              onDragOver={(e) => {
                if (!n.isAhead) return;
                e.preventDefault();
                setOver(n.date);
              }}
              onDragLeave={() => setOver(null)}
              onDrop={(e) => {
                e.preventDefault();
                setOver(null);
                const [projectId, from] = e.dataTransfer.getData("text/plain").split("\n");
                if (projectId && from && from !== n.date && n.isAhead) onMove(projectId, from as NightDate, n.date);
              }}
            >
              <span className="sr-only">{words}</span>
              <span className="text-note flex items-baseline justify-between gap-1" aria-hidden="true">
                <span className={n.date === view.today ? "text-lamp font-bold" : "text-soft"}>
                  {dayOf(n.date)}
                  {isFirst ? ` ${MONTHS[Number(n.date.slice(5, 7)) - 1] ?? ""}` : ""}
                </span>
                <span className="text-moon truncate">
                  {phase === "new" ? "new" : phase === "full" ? "full" : ""}
                  {isKept(n) ? (
                    <svg
                      viewBox="0 0 10 10"
                      className="ml-1 inline-block h-2.5 w-2.5 align-baseline"
                      aria-hidden="true"
                    >
                      <circle cx="5" cy="5" r="3.8" fill="none" stroke="var(--lamp)" strokeWidth="1.8" />
                    </svg>
                  ) : null}
                </span>
              </span>
              <span
                aria-hidden="true"
                className={clsx("relative block overflow-hidden rounded-[2px]", !n.isAhead && "opacity-40")}
                style={{ height: HEIGHT_PX }}
              >
                <NightBlock sky={n.sky} scale={scale} />
                {isFree ? (
                  <span className="text-note text-faint absolute inset-x-0 top-1/2 text-center">free</span>
                ) : null}
                {lanes.map((e, lane) => (
                  <Slices
                    key={e.rigIds.join()}
                    evening={e}
                    lane={lane}
                    lanes={lanes.length}
                    scale={scale}
                    isMovable={n.isAhead}
                    isDim={(b) =>
                      (lit !== null && lit !== b.projectId) || (plan !== null && !isWanted(plan, b.projectId, n.date))
                    }
                    initial={initial}
                  />
                ))}
              </span>
            </Link>
          );
        })}
      </div>
    </div>
  );
}
