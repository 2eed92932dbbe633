import { CartesianGrid, Line, LineChart, ReferenceLine, Tooltip, XAxis, YAxis } from "recharts";
import { shortNight } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

/** Hours by the end of a night. */
export interface HoursBy {
  readonly night: string;
  readonly hours: number;
}

interface Point {
  readonly dayMs: number;
  readonly night: string;
  readonly kept?: number;
  readonly planned?: number;
}

const dayMs = (night: string) => Date.parse(`${night}T00:00:00Z`);
const Tip = tipOf<Point>((p) => [
  shortNight(p.night),
  p.kept === undefined ? `${fixed(p.planned ?? 0, 1)} h planned by then` : `${fixed(p.kept, 1)} h count`,
]);

/** Hours collected, night by night, the plan from today on if every night were clear, and the goal. */
export default function CollectedChart({
  kept,
  planned,
  goalHours,
}: {
  readonly kept: readonly HoursBy[];
  readonly planned: readonly HoursBy[];
  readonly goalHours: number;
}) {
  const points: Point[] = [
    ...kept.map((k): Point => ({ dayMs: dayMs(k.night), night: k.night, kept: k.hours })),
    ...planned.map((p): Point => ({ dayMs: dayMs(p.night), night: p.night, planned: p.hours })),
  ];
  const last = kept.at(-1);
  const end = planned.at(-1);
  const title = `Hours collected: ${last ? `${fixed(last.hours, 1)} h kept by ${shortNight(last.night)}` : "none yet"}, goal ${fixed(goalHours, 1)} h`;
  return (
    <ChartFrame
      title={title}
      heightPx={170}
      words={`${last ? `${fixed(last.hours, 1)} h of ${fixed(goalHours, 1)} h count.` : "Nothing counts yet."}${end ? ` Dashed: the plan if every night were clear, to ${shortNight(end.night)}.` : ""}`}
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
        <YAxis
          width={44}
          domain={[0, Math.ceil((1.08 * goalHours) / 4) * 4]}
          tickCount={5}
          label={axisWords("hours", "insideLeft")}
          {...AXIS}
        />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <ReferenceLine
          y={goalHours}
          stroke="var(--soft)"
          label={{ value: "goal", position: "insideTopLeft", fill: "var(--soft)", fontSize: 12 }}
        />
        <Line
          dataKey="kept"
          type="stepAfter"
          stroke="var(--lamp)"
          strokeWidth={2}
          dot={{ r: 2, fill: "var(--lamp)", stroke: "none" }}
          isAnimationActive={false}
        />
        <Line
          dataKey="planned"
          type="stepAfter"
          stroke="var(--lamp)"
          strokeDasharray="4 4"
          dot={false}
          isAnimationActive={false}
        />
      </LineChart>
    </ChartFrame>
  );
}
