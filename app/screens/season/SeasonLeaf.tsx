import clsx from "clsx";
import { useState, type KeyboardEvent } from "react";
import { Link } from "react-router";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import { clockTime, dayOf, MONTHS, shortNight } from "~/components/clock";
import { percent } from "~/components/numbers";
import { clearWords, isAssumedOn } from "~/components/words/chance-words";
import { namedPhases, type RibbonNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { channelsText, isWanted, type Evening, type SeasonPlan } from "~/core/season";
import type { NightDate } from "~/core/time";
import type { SeasonView } from "./load";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const HEIGHT_PX = 92;
const LEAST_LETTERED_PX = 15;
const FILL = ["var(--twilight)", "var(--night)", "var(--night)"];
const PHASES = { new: "new Moon", firstQuarter: "first quarter", full: "full Moon", lastQuarter: "last quarter" };

/** How much of a slice its letters take, px: hatching keeps off them. */
const letteredPx = (height: number, lanes: number): number =>
  height < LEAST_LETTERED_PX
    ? 0
    : lanes > 1 && height >= 2 * LEAST_LETTERED_PX
      ? 2 * LEAST_LETTERED_PX
      : LEAST_LETTERED_PX;

/** What the leaf draws of a night. */
interface LeafNight {
  readonly date: NightDate;
  readonly sky: RibbonNight;
  readonly evenings: readonly Evening[];
  readonly isAhead: boolean;
}

interface Scale {
  readonly firstMin: number;
  readonly spanMin: number;
}

const startMin = (n: RibbonNight) => (n.startMs - Date.parse(`${n.date}T00:00:00Z`)) / 60_000;

/** From the earliest dusk to the latest dawn of all nights shown. */
function scaleOf(nights: readonly RibbonNight[]): Scale {
  const lit = nights.filter((n) => n.states.length > 0);
  const firstMin = Math.min(...lit.map(startMin), 24 * 60);
  const last = Math.max(...lit.map((n) => startMin(n) + n.states.length * n.stepMin), firstMin + 60);
  return { firstMin, spanMin: last - firstMin };
}

/** The night itself: dark hours as height, moonlight pale from its side. */
function NightBlock({ sky, scale }: { readonly sky: RibbonNight; readonly scale: Scale }) {
  const y = (i: number) => ((startMin(sky) + i * sky.stepMin - scale.firstMin) / scale.spanMin) * 100;
  const runs: { from: number; to: number; readonly state: number }[] = [];
  sky.states.forEach((state, i) => {
    const last = runs.at(-1);
    if (last?.state === state) last.to = i + 1;
    else runs.push({ from: i, to: i + 1, state });
  });
  return (
    <svg viewBox="0 0 100 100" preserveAspectRatio="none" className="absolute inset-0 h-full w-full" aria-hidden="true">
      {runs.map(({ from, to, state }) => (
        <g key={from}>
          <rect x="0" width="100" y={y(from)} height={y(to) - y(from) + 0.3} fill={FILL[state]} />
          {state === 2 ? (
            <rect x="0" width="12" y={y(from)} height={y(to) - y(from) + 0.3} fill="var(--moonlit)" />
          ) : null}
        </g>
      ))}
    </svg>
  );
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
              aria-label={words}
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
              <span className="text-note flex items-baseline justify-between gap-1">
                <span className={n.date === view.today ? "text-lamp font-bold" : "text-soft"}>
                  {isFirst ? `${MONTHS[Number(n.date.slice(5, 7)) - 1] ?? ""} ` : ""}
                  {dayOf(n.date)}
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
                className={clsx("relative block overflow-hidden rounded-[2px]", !n.isAhead && "opacity-40")}
                style={{ height: HEIGHT_PX }}
              >
                <NightBlock sky={n.sky} scale={scale} />
                {isFree ? (
                  <span className="text-note text-faint absolute inset-x-0 top-1/2 text-center">free</span>
                ) : null}
                {lanes.map((e, lane) =>
                  e.blocks.map((b) => {
                    const top = (b.startMs - Date.parse(`${n.date}T00:00:00Z`)) / 60_000 - scale.firstMin;
                    const height = ((b.endMs - b.startMs) / 60_000 / scale.spanMin) * HEIGHT_PX;
                    const isDim =
                      (lit !== null && lit !== b.projectId) || (plan !== null && !isWanted(plan, b.projectId, n.date));
                    return (
                      <span
                        key={`${b.startMs} ${b.projectId}`}
                        draggable={n.isAhead}
                        onDragStart={(event) => event.dataTransfer.setData("text/plain", `${b.projectId}\n${n.date}`)}
                        className={clsx("absolute overflow-hidden", isDim && "opacity-30")}
                        style={{
                          top: `${(top / scale.spanMin) * 100}%`,
                          height,
                          left: `${14 + (lane * 86) / lanes.length}%`,
                          width: `${86 / lanes.length - 1}%`,
                          background: CHANNEL_COLOUR[b.channel],
                        }}
                      >
                        <span
                          className="hatch-over absolute inset-x-0 bottom-0"
                          style={{
                            height: `min(${100 * (1 - e.chance)}%, calc(100% - ${letteredPx(height, lanes.length)}px))`,
                          }}
                        />
                        {height >= LEAST_LETTERED_PX ? (
                          <span className="text-on-lamp text-note relative block truncate px-0.5 leading-[15px] font-semibold">
                            {initial.get(b.projectId)}
                            {lanes.length === 1 ? ` ${channelsText(b)}` : ""}
                            {lanes.length > 1 && height >= 2 * LEAST_LETTERED_PX ? (
                              <span className="block truncate">{channelsText(b)}</span>
                            ) : null}
                          </span>
                        ) : null}
                      </span>
                    );
                  }),
                )}
              </span>
            </Link>
          );
        })}
      </div>
    </div>
  );
}

/** The same on a narrow window: nights with work, and those kept by hand, one below the other. */
export function SeasonList({
  plan,
  view,
  chosen,
  linkTo,
}: {
  readonly plan: SeasonPlan | null;
  readonly view: SeasonView;
  readonly chosen: NightDate;
  readonly linkTo: (night: string) => string;
}) {
  const nights = [...new Set((plan?.evenings ?? []).filter((e) => e.blocks.length > 0).map((e) => e.night))].slice(
    0,
    28,
  );
  const name = new Map(view.projects.map((p) => [p.id, p.name]));
  return (
    <ol>
      {nights.map((night) => {
        const evenings = plan!.evenings.filter((e) => e.night === night);
        return (
          <li key={night} className="border-rule border-t py-1.5">
            <Link
              to={linkTo(night)}
              preventScrollReset
              replace
              aria-current={night === chosen ? "date" : undefined}
              className={clsx("block", night === chosen && "text-lamp")}
            >
              <span className="flex justify-between gap-2">
                <b>{shortNight(night)}</b>
                <span className="text-soft">{percent(evenings[0]?.chance ?? 0)} clear</span>
              </span>
              {evenings.flatMap((e) =>
                e.blocks.map((b) => (
                  <span key={`${b.startMs} ${b.projectId}`} className="block">
                    <span
                      className="mr-2 inline-block h-2.5 w-1.5"
                      style={{ background: CHANNEL_COLOUR[b.channel] }}
                      aria-hidden="true"
                    />
                    {clockTime(b.startMs, view.zones[e.placeId] ?? view.zone)} {name.get(b.projectId)},{" "}
                    {channelsText(b)}
                  </span>
                )),
              )}
            </Link>
          </li>
        );
      })}
    </ol>
  );
}
