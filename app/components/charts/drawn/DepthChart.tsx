import { Area, CartesianGrid, ComposedChart, Line, ReferenceDot, ReferenceLine, Tooltip, XAxis, YAxis } from "recharts";
import { fixed } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

/** How deep a stack goes after some hours. */
export interface DepthPoint {
  readonly hours: number;
  /** mag/arcsec², 3σ over 10″ × 10″, under ideal conditions. */
  readonly mag: number;
}

const LOSS_MAG = 1; // real stacks reach 0.3 to 1 mag less than the ideal: flats, gradients, correlated noise (from memory)

type Point = DepthPoint & { readonly band: readonly [number, number] };
const Tip = tipOf<Point>((p) => [
  `${fixed(p.hours, 1)} h`,
  `${fixed(p.mag, 1)} mag/arcsec² at best`,
  `${fixed(p.mag - LOSS_MAG, 1)} with poor flats and gradients`,
]);

/** Depth against hours in one channel: fainter is higher; hatched is what real stacks lose. */
export default function DepthChart({
  channel,
  points,
  marks,
  objectMag,
}: {
  readonly channel: string;
  readonly points: readonly DepthPoint[];
  /** Hours with a name: tonight, kept, goal. */
  readonly marks: readonly (DepthPoint & { readonly word: string })[];
  /** Mean surface brightness of the target; null = not known. */
  readonly objectMag: number | null;
}) {
  const data = points.map((p): Point => ({ ...p, band: [p.mag - LOSS_MAG, p.mag] }));
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const lowest = Math.floor(first.mag - LOSS_MAG);
  const isShown = objectMag !== null && objectMag > lowest && objectMag < Math.ceil(last.mag);
  return (
    <ChartFrame
      title={`Depth in ${channel}: ${marks.map((m) => `${m.word} ${fixed(m.mag, 1)}`).join(", ")} mag/arcsec²`}
      heightPx={210}
      words={`Surface brightness seen at 3σ over 10″ × 10″ in ${channel}, one panel. Twice the hours go 0.38 mag deeper, every time. The band: flats, gradients and stacking cost 0.3 to 1 mag (from memory).`}
    >
      <ComposedChart data={data} margin={MARGIN} accessibilityLayer>
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="hours"
          type="number"
          domain={[0, 1.04 * last.hours]}
          tickFormatter={(h: number) => fixed(h, last.hours < 5 ? 1 : 0)}
          minTickGap={30}
          label={axisWords("hours a panel", "insideBottom")}
          height={38}
          {...AXIS}
        />
        <YAxis
          width={56}
          domain={[lowest, Math.ceil(last.mag)]}
          tickFormatter={(m: number) => fixed(m, 1)}
          label={axisWords("mag/arcsec²", "insideLeft")}
          {...AXIS}
        />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <Area
          dataKey="band"
          stroke="none"
          fill="var(--hatch)"
          fillOpacity={0.45}
          isAnimationActive={false}
          activeDot={false}
        />
        <Line dataKey="mag" stroke="var(--ch-l)" strokeWidth={2} dot={false} isAnimationActive={false} />
        {isShown ? (
          <ReferenceLine
            y={objectMag}
            stroke="var(--sage)"
            strokeDasharray="4 4"
            label={{ value: "the target's mean", position: "insideBottomRight", fill: "var(--sage)", fontSize: 12 }}
          />
        ) : null}
        {marks.map((m) => (
          <ReferenceDot
            key={m.word}
            x={m.hours}
            y={m.mag}
            r={3.5}
            fill="var(--lamp)"
            stroke="none"
            label={{ value: m.word, position: "bottom", fill: "var(--ink)", fontSize: 12 }}
          />
        ))}
      </ComposedChart>
    </ChartFrame>
  );
}
