import { CartesianGrid, ReferenceLine, Scatter, ScatterChart, Tooltip, XAxis, YAxis, ZAxis } from "recharts";
import type { ReliabilityBin } from "~/core/weather";
import { counted, percent } from "~/components/numbers";
import { SHAPES } from "../shapes";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

const INKS = ["var(--lamp)", "var(--moon)", "var(--sage)", "var(--soft)", "var(--rust)"] as const;
const TICKS = [0, 0.25, 0.5, 0.75, 1];

type Point = ReliabilityBin & { readonly name: string };
const Tip = tipOf<Point>((p) => [
  p.name,
  `told ${percent(p.told)}, came ${percent(p.seen)}`,
  `over ${counted(p.hours, "hour")}`,
]);

/** Odds told against what came, by source: on the line a source is reliable; below it promises too much. Larger marks stand for more hours. */
export default function ReliabilityChart({
  sources,
}: {
  readonly sources: readonly { readonly id: string; readonly name: string; readonly bins: readonly ReliabilityBin[] }[];
}) {
  return (
    <ChartFrame
      title={`Reliability of ${counted(sources.length, "source")}: odds told against what came`}
      heightPx={240}
      words="On the line a source is reliable; below it, it promises too much. Larger marks stand for more hours."
    >
      <ScatterChart margin={{ ...MARGIN, bottom: 12 }} accessibilityLayer>
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="told"
          type="number"
          domain={[0, 1]}
          ticks={TICKS}
          tickFormatter={(v: number) => percent(v)}
          label={axisWords("odds told", "insideBottom")}
          height={38}
          {...AXIS}
        />
        <YAxis
          dataKey="seen"
          type="number"
          domain={[0, 1]}
          ticks={TICKS}
          tickFormatter={(v: number) => percent(v)}
          width={52}
          label={axisWords("came", "insideLeft")}
          {...AXIS}
        />
        <ZAxis dataKey="hours" range={[30, 260]} />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <ReferenceLine
          segment={[
            { x: 0, y: 0 },
            { x: 1, y: 1 },
          ]}
          stroke="var(--soft)"
          strokeDasharray="4 4"
        />
        {sources.map((s, i) => (
          <Scatter
            key={s.id}
            name={s.name}
            data={s.bins.map((b): Point => ({ ...b, name: s.name }))}
            shape={SHAPES[i % SHAPES.length] ?? "circle"}
            fill={INKS[i % INKS.length] ?? "var(--ink)"}
            isAnimationActive={false}
          />
        ))}
      </ScatterChart>
    </ChartFrame>
  );
}
