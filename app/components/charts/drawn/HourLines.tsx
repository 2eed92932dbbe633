import { CartesianGrid, ComposedChart, Line, ReferenceLine, Tooltip, XAxis, YAxis } from "recharts";
import type { WeatherHour } from "~/core/weather";
import { axisHour, clockTime } from "~/components/clock";
import { inUnit, temperature, temperatureGap, unitName, windSpeed } from "~/components/measures";
import { fixed } from "~/components/numbers";
import { AXIS, axisWords, ChartFrame, CURSOR, GRID, MARGIN, tipOf } from "../chart-frame";

const KMH_PER_MS = 3.6;

interface Point {
  readonly atMs: number;
  readonly words: string;
  readonly air: number | null;
  readonly dew: number | null;
  readonly gust: number | null;
}

const said = (value: number | null, words: (value: number) => string) => (value === null ? "not said" : words(value));
const Tip = tipOf<Point>((p) => [
  p.words,
  `air ${said(p.air, temperature)}, dew point ${said(p.dew, temperature)}`,
  `gusts ${said(p.gust, windSpeed)} at the mount`,
]);

/** Air, dew point and gusts through a night, hour by hour. Where air and dew point meet, glass gets wet. */
export default function HourLines({
  hours,
  zone,
  windShare,
  gustLimitKmh,
}: {
  readonly hours: readonly WeatherHour[];
  readonly zone: string;
  readonly windShare: number;
  readonly gustLimitKmh: number;
}) {
  const points = hours.map((h): Point => ({
    atMs: h.atMs,
    words: clockTime(h.atMs, zone),
    air: h.airC,
    dew: h.dewC,
    gust: h.gustMs === null ? null : h.gustMs * KMH_PER_MS * windShare,
  }));
  const temperatures = points.flatMap((p) => [p.air, p.dew].filter((t) => t !== null));
  const gusts = points.flatMap((p) => p.gust ?? []);
  if (temperatures.length === 0 && gusts.length === 0) return null;
  const closest = Math.min(...points.flatMap((p) => (p.air === null || p.dew === null ? [] : [p.air - p.dew])));
  return (
    <ChartFrame
      title={`Air from ${temperature(Math.max(...temperatures))} to ${temperature(Math.min(...temperatures))}, gusts to ${windSpeed(Math.max(0, ...gusts))}`}
      heightPx={160}
      words={
        Number.isFinite(closest)
          ? `Solid: air. Dashed: dew point, at the closest ${temperatureGap(closest, 1)} below it. Dotted: gusts at the mount, limit ${windSpeed(gustLimitKmh)}.`
          : `Dotted: gusts at the mount, limit ${windSpeed(gustLimitKmh)}.`
      }
    >
      <ComposedChart data={points} margin={{ ...MARGIN, right: 0 }} accessibilityLayer>
        <CartesianGrid {...GRID} />
        <XAxis
          dataKey="atMs"
          type="number"
          domain={["dataMin", "dataMax"]}
          tickFormatter={(ms: number) => axisHour(ms, zone)}
          ticks={points.filter((_, i) => i % 2 === 0).map((p) => p.atMs)}
          {...AXIS}
        />
        <YAxis
          yAxisId="air"
          width={40}
          domain={["dataMin - 1", "dataMax + 1"]}
          tickFormatter={(t: number) => fixed(inUnit(t, "°C"))}
          label={axisWords(unitName("°C"), "insideLeft")}
          {...AXIS}
        />
        <YAxis
          yAxisId="gust"
          orientation="right"
          width={44}
          domain={[0, Math.max(gustLimitKmh, ...gusts)]}
          tickFormatter={(v: number) => fixed(inUnit(v, "km/h"))}
          label={{ ...axisWords(unitName("km/h"), "insideLeft"), position: "insideRight" }}
          {...AXIS}
        />
        <Tooltip content={<Tip />} cursor={CURSOR} isAnimationActive={false} />
        <ReferenceLine yAxisId="gust" y={gustLimitKmh} stroke="var(--rust)" strokeDasharray="6 3" />
        <Line yAxisId="air" dataKey="air" stroke="var(--ink)" strokeWidth={1.5} dot={false} isAnimationActive={false} />
        <Line
          yAxisId="air"
          dataKey="dew"
          stroke="var(--moon)"
          strokeDasharray="5 4"
          dot={false}
          isAnimationActive={false}
        />
        <Line
          yAxisId="gust"
          dataKey="gust"
          stroke="var(--soft)"
          strokeDasharray="1 4"
          strokeWidth={2}
          dot={false}
          isAnimationActive={false}
        />
      </ComposedChart>
    </ChartFrame>
  );
}
