import { Area, AreaChart, CartesianGrid, ReferenceDot, Tooltip, XAxis, YAxis } from "recharts";
import type { FinishDates } from "~/core/season";
import { shortNight } from "~/components/clock";
import { percent } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

interface Point {
  readonly i: number;
  readonly date: string;
  readonly share: number;
}

const Tip = tipOf<Point>((p) => [shortNight(p.date), `done by then in ${percent(p.share)} of the simulations`]);

/** Odds of being done by a date, as a staircase; the three dates are written at their steps. */
export default function FinishChart({
  dates,
  odds,
}: {
  readonly dates: readonly string[];
  readonly odds: FinishDates;
}) {
  const points = odds.doneBy.map((share, i): Point => ({ i, date: dates[i] ?? "", share }));
  const marks = (
    [
      [0.1, odds.tenth],
      [0.5, odds.half],
      [0.9, odds.ninetieth],
    ] as const
  ).flatMap(([share, date]) => {
    const i = date === null ? -1 : dates.indexOf(date);
    return i < 0 || date === null ? [] : [{ share, i, date }];
  });
  const end = Math.min(points.length - 1, (marks.at(-1)?.i ?? points.length) + 14);
  return (
    <ChartFrame
      title={`Chance of being done by a date: ${marks.map((m) => `${percent(m.share)} by ${shortNight(m.date)}`).join(", ") || "under one in ten within these nights"}`}
      heightPx={190}
    >
      <AreaChart data={points.slice(0, end + 1)} margin={MARGIN} accessibilityLayer>
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="i"
          type="number"
          domain={[0, end]}
          tickFormatter={(i: number) => shortNight(dates[i] ?? dates[0] ?? "2000-01-01").slice(4)}
          minTickGap={40}
          {...AXIS}
        />
        <YAxis
          width={52}
          domain={[0, 1]}
          ticks={[0, 0.25, 0.5, 0.75, 1]}
          tickFormatter={(share: number) => percent(share)}
          label={axisWords("done", "insideLeft")}
          {...AXIS}
        />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <Area
          dataKey="share"
          type="stepAfter"
          stroke="var(--lamp)"
          fill="var(--lamp)"
          fillOpacity={0.18}
          isAnimationActive={false}
        />
        {marks.map((m) => (
          <ReferenceDot
            key={m.share}
            x={m.i}
            y={m.share}
            r={3}
            fill="var(--lamp)"
            stroke="none"
            label={{
              value: shortNight(m.date),
              position: m.i > 0.6 * end ? "left" : "right",
              fill: "var(--ink)",
              fontSize: 12,
            }}
          />
        ))}
      </AreaChart>
    </ChartFrame>
  );
}
