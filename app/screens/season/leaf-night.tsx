import clsx from "clsx";
import { CHANNEL_COLOUR } from "~/components/charts/channel-colour";
import type { RibbonNight } from "~/core/night";
import { channelsText, type Evening, type PlannedBlock } from "~/core/season";

/** Height of a night on the leaf. */
export const HEIGHT_PX = 92;
const LEAST_LETTERED_PX = 15;
const FILL = ["var(--twilight)", "var(--night)", "var(--night)"];

/** How much of a slice its letters take, px: hatching keeps off them. */
const letteredPx = (height: number, lanes: number): number =>
  height < LEAST_LETTERED_PX
    ? 0
    : lanes > 1 && height >= 2 * LEAST_LETTERED_PX
      ? 2 * LEAST_LETTERED_PX
      : LEAST_LETTERED_PX;

/** What part of the day the leaf shows, minutes from midnight before the evening. */
export interface Scale {
  readonly firstMin: number;
  readonly spanMin: number;
}

/** When a night begins, minutes from midnight before its evening. */
export const startMin = (n: RibbonNight) => (n.startMs - Date.parse(`${n.date}T00:00:00Z`)) / 60_000;

/** The night itself: dark hours as height, moonlight pale from its side. */
export function NightBlock({ sky, scale }: { readonly sky: RibbonNight; readonly scale: Scale }) {
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

/** What a rig does in a night, as slices of it; they can be dragged to another night. */
export function Slices({
  evening,
  lane,
  lanes,
  scale,
  isMovable,
  isDim,
  initial,
}: {
  readonly evening: Evening;
  /** Which of the rigs, side by side, from 0. */
  readonly lane: number;
  readonly lanes: number;
  readonly scale: Scale;
  readonly isMovable: boolean;
  readonly isDim: (block: PlannedBlock) => boolean;
  /** Projects by id, as the leaf calls them. */
  readonly initial: ReadonlyMap<string, string>;
}) {
  const { night, chance } = evening;
  return evening.blocks.map((b) => {
    const top = (b.startMs - Date.parse(`${night}T00:00:00Z`)) / 60_000 - scale.firstMin;
    const height = ((b.endMs - b.startMs) / 60_000 / scale.spanMin) * HEIGHT_PX;
    return (
      <span
        key={`${b.startMs} ${b.projectId}`}
        draggable={isMovable}
        onDragStart={(event) => event.dataTransfer.setData("text/plain", `${b.projectId}\n${night}`)}
        className="absolute overflow-hidden"
        style={{
          top: `${(top / scale.spanMin) * 100}%`,
          height,
          left: `${14 + (lane * 86) / lanes}%`,
          width: `${86 / lanes - 1}%`,
        }}
      >
        {/* The colour alone is faint: letters are read on it all the same. */}
        <span
          className={clsx("absolute inset-0", isDim(b) && "opacity-30")}
          style={{ background: CHANNEL_COLOUR[b.channel] }}
        >
          <span
            className="hatch-over absolute inset-x-0 bottom-0"
            style={{ height: `min(${100 * (1 - chance)}%, calc(100% - ${letteredPx(height, lanes)}px))` }}
          />
        </span>
        {height >= LEAST_LETTERED_PX ? (
          <span className="bg-ground text-ink text-note relative inline-block max-w-full truncate rounded-br-[3px] px-0.5 align-top leading-[15px] font-semibold">
            {initial.get(b.projectId)}
            {lanes === 1 ? ` ${channelsText(b)}` : ""}
            {lanes > 1 && height >= 2 * LEAST_LETTERED_PX ? (
              <span className="block truncate">{channelsText(b)}</span>
            ) : null}
          </span>
        ) : null}
      </span>
    );
  });
}
