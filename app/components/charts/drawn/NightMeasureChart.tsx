import { CartesianGrid, Line, LineChart, Tooltip, XAxis, YAxis } from "recharts";
import { shortNight } from "~/components/clock";
import { counted, fixed } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

interface Point {
  readonly dayMs: number;
  readonly night: string;
  readonly value: number;
  readonly words: string;
}

const Tip = tipOf<Point>((p) => [shortNight(p.night), p.words]);
const dayMs = (night: string) => Date.parse(`${night}T00:00:00Z`);

/** One measure over the nights it was written down on. */
export default function NightMeasureChart({
  name,
  unit,
  digits,
  nights,
}: {
  readonly name: string;
  readonly unit: string;
  readonly digits: number;
  readonly nights: readonly { readonly night: string; readonly value: number }[];
}) {
  const said = (v: number) =>
    `${fixed(v, digits)}${unit === "" ? "" : unit === "″" || unit === "′" || unit === "°" ? unit : ` ${unit}`}`;
  const points = nights.map((n): Point => ({ ...n, dayMs: dayMs(n.night), words: said(n.value) }));
  const values = points.map((p) => p.value);
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const middle = [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;
  return (
    <ChartFrame
      title={`${name} over ${counted(points.length, "night")}`}
      heightPx={170}
      words={`${said(least)} to ${said(most)}, in the middle ${said(middle)}.`}
    >
      <LineChart data={points} margin={MARGIN} accessibilityLayer>
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="dayMs"
          type="number"
          domain={["dataMin", "dataMax"]}
          tickFormatter={(ms: number) => shortNight(new Date(ms).toISOString().slice(0, 10)).slice(4)}
          minTickGap={40}
          {...AXIS}
        />
        <YAxis width={48} domain={["auto", "auto"]} label={axisWords(unit || "1 to 5", "insideLeft")} {...AXIS} />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <Line
          dataKey="value"
          stroke="var(--lamp)"
          strokeWidth={1.5}
          dot={{ r: 3, fill: "var(--lamp)", stroke: "none" }}
          isAnimationActive={false}
        />
      </LineChart>
    </ChartFrame>
  );
}
