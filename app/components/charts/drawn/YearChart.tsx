import { Area, ComposedChart, ReferenceLine, Tooltip, XAxis, YAxis, CartesianGrid } from "recharts";
import type { YearNight } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { MONTHS, shortNight } from "~/components/clock";
import { fixed, percent } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

interface Point {
  readonly night: YearNight;
  readonly worth: number;
  readonly moonless: number;
}

const Tip = tipOf<Point>(({ night }) => [
  shortNight(night.date),
  `${formatMinutes(night.usableMin)} usable, worth ${fixed(night.worthMin / 60, 1)} h`,
  `worth ${fixed(night.moonlessWorthMin / 60, 1)} h without the Moon, ${percent(night.illuminatedFraction)} lit`,
]);

/** A year of nights for one target: filled = what a night is worth, pale = what the Moon takes of it. A press chooses the night under the pointer. */
export default function YearChart({
  nights,
  chosen,
  onChoose,
}: {
  readonly nights: readonly YearNight[];
  readonly chosen: string;
  readonly onChoose: (date: string) => void;
}) {
  const points = nights.map((night): Point => ({
    night,
    worth: night.worthMin / 60,
    moonless: night.moonlessWorthMin / 60,
  }));
  const firsts = nights.flatMap((n, i) => (n.date.endsWith("-01") ? [i] : []));
  const monthOf = (i: number) => MONTHS[Number(nights[i]?.date.slice(5, 7)) - 1] ?? "";
  const at = nights.findIndex((n) => n.date === chosen);
  const months = MONTHS.map((month, i) => {
    const mine = nights.filter((n) => Number(n.date.slice(5, 7)) === i + 1);
    return `${month} ${fixed(mine.reduce((s, n) => s + n.worthMin, 0) / 60)} h`;
  });
  return (
    <ChartFrame title={`Worth in hours of ${nights.length} nights, ${months.join(", ")}`} heightPx={190}>
      <ComposedChart
        data={points.map((p, i) => ({ ...p, i }))}
        margin={MARGIN}
        accessibilityLayer
        onClick={({ activeLabel }) => {
          const night = nights[Number(activeLabel)];
          if (activeLabel !== undefined && night) onChoose(night.date);
        }}
        style={{ cursor: "pointer" }}
      >
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="i"
          type="number"
          domain={[0, nights.length - 1]}
          ticks={firsts}
          tickFormatter={monthOf}
          {...AXIS}
        />
        <YAxis
          width={60} // "0.195" beside what it measures
          allowDecimals={Math.max(...points.map((p) => p.moonless)) < 3}
          label={axisWords("worth, h a night", "insideLeft")}
          {...AXIS}
        />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <Area
          dataKey="moonless"
          type="step"
          stroke="none"
          fill="var(--moonlit)"
          fillOpacity={1}
          isAnimationActive={false}
          activeDot={false}
        />
        <Area
          dataKey="worth"
          type="step"
          stroke="none"
          fill="var(--lamp)"
          fillOpacity={1}
          isAnimationActive={false}
          activeDot={false}
        />
        {at >= 0 ? <ReferenceLine x={at} stroke="var(--ink)" strokeDasharray="2 3" /> : null}
      </ComposedChart>
    </ChartFrame>
  );
}
