import { fixed, plain } from "~/components/numbers";
import { turned, type ChartPoint, type ChartTurn } from "~/core/finder";

/** A star of the chart; those on the way carry their name and magnitude. */
export interface ChartStar extends ChartPoint {
  readonly magnitude: number;
  readonly label: string;
}

const SIZE = 640;
const HALF = SIZE / 2;

/** Radius of a star's dot: half as large again for every magnitude brighter. */
const dotRadius = (magnitude: number) => Math.max(0.8, 7.5 * 0.76 ** Math.max(-1, magnitude));

/**
 * The way by stars on paper: stars by magnitude, the hops as numbered lines, the finder's and the camera's field around the
 * target, what stands in front of the sky hatched. Drawn in ink, so that it prints.
 */
export function FinderChart({
  stars,
  way,
  skyline,
  radiusDeg,
  turn,
  finderDeg,
  fieldShortDeg,
  title,
}: {
  readonly stars: readonly ChartStar[];
  /** From the first star to the target. */
  readonly way: readonly ChartPoint[];
  readonly skyline: readonly ChartPoint[];
  readonly radiusDeg: number;
  readonly turn: ChartTurn;
  readonly finderDeg: number;
  readonly fieldShortDeg: number;
  readonly title: string;
}) {
  const scale = HALF / radiusDeg;
  const at = (p: ChartPoint) => {
    const t = turned(p, turn);
    return { x: HALF + t.rightDeg * scale, y: HALF - t.upDeg * scale };
  };
  const path = (points: readonly ChartPoint[]) =>
    points
      .map(at)
      .map((p, i) => `${i === 0 ? "M" : "L"}${plain(p.x, 1)} ${plain(p.y, 1)}`)
      .join("");
  const target = way.at(-1);
  const goal = target ? at(target) : null;
  const ground =
    skyline.length > 1
      ? [...skyline, { rightDeg: skyline.at(-1)!.rightDeg, upDeg: -99 }, { rightDeg: skyline[0]!.rightDeg, upDeg: -99 }]
      : [];
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label={title}
      className="border-rule bg-sheet text-ink w-full max-w-[40rem] rounded-[6px] border"
    >
      <defs>
        <pattern id="finder-ground" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="7" className="stroke-faint" strokeWidth="1" />
        </pattern>
      </defs>
      {ground.length > 0 ? <path d={`${path(ground)}Z`} fill="url(#finder-ground)" className="stroke-faint" /> : null}
      {way.length > 1 ? (
        <path d={path(way)} fill="none" className="stroke-lamp" strokeWidth="1.5" strokeDasharray="6 4" />
      ) : null}
      {stars.map((s, i) => {
        const p = at(s);
        return <circle key={i} cx={p.x} cy={p.y} r={dotRadius(s.magnitude)} fill="currentColor" />;
      })}
      {stars
        .filter((s) => s.label !== "")
        .map((s) => {
          const p = at(s);
          const isRight = p.x < SIZE - 130;
          return (
            <text
              key={`${s.label} ${plain(p.x, 1)}`}
              x={p.x + (isRight ? 9 : -9)}
              y={p.y - 6}
              textAnchor={isRight ? "start" : "end"}
              className={
                /^\d/.test(s.label)
                  ? "fill-soft text-[12px] max-sm:text-[20px]"
                  : "fill-ink text-[13px] font-semibold max-sm:text-[22px]"
              }
              paintOrder="stroke"
              stroke="var(--color-sheet)"
              strokeWidth="3"
            >
              {s.label}
            </text>
          );
        })}
      {way.slice(1).map((p, i) => {
        const [a, b] = [at(way[i]!), at(p)];
        return (
          <g key={i}>
            <circle cx={(a.x + b.x) / 2} cy={(a.y + b.y) / 2} r="9" className="fill-sheet stroke-lamp" />
            <text
              x={(a.x + b.x) / 2}
              y={(a.y + b.y) / 2 + 4.5}
              textAnchor="middle"
              className="fill-ink text-[12px] max-sm:text-[15px]"
            >
              {i + 1}
            </text>
          </g>
        );
      })}
      {goal ? (
        <>
          <circle
            cx={goal.x}
            cy={goal.y}
            r={(finderDeg / 2) * scale}
            fill="none"
            className="stroke-faint"
            strokeDasharray="3 4"
          />
          <circle
            cx={goal.x}
            cy={goal.y}
            r={Math.max(4, (fieldShortDeg / 2) * scale)}
            fill="none"
            className="stroke-lamp"
            strokeWidth="2"
          />
          <path d={`M${goal.x - 3} ${goal.y}h6M${goal.x} ${goal.y - 3}v6`} className="stroke-lamp" strokeWidth="1.5" />
        </>
      ) : null}
      <text x="12" y={SIZE - 12} className="fill-soft text-[12px] max-sm:text-[20px]">
        {turn === "eye"
          ? "zenith up, as the eye sees it"
          : turn === "upsideDown"
            ? "upside down, as in a plain finder"
            : "mirrored, as behind a star diagonal"}
        {` · ${fixed(2 * radiusDeg)}° across`}
      </text>
    </svg>
  );
}
