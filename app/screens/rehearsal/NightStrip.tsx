import { axisHour, clockTime } from "~/components/clock";
import type { Played, RehearsalRig } from "~/core/rehearsal";
import { HOUR_MS } from "~/core/time";

const WIDTH = 1000;
const HEIGHT = 44;

/** When the sky was closed, as far as the night has gone. */
function closedSpans(played: Played, rigId: string, nowMs: number): readonly (readonly [number, number])[] {
  const spans: [number, number][] = [];
  let from: number | null = null;
  for (const { rigId: of, atMs, is } of played.events) {
    if (of !== rigId || is.what !== "cloud" || atMs > nowMs) continue;
    if (!is.isClear) from ??= atMs;
    else if (from !== null) {
      spans.push([from, atMs]);
      from = null;
    }
  }
  return from === null ? spans : [...spans, [from, nowMs]];
}

/** A rig's evening as one bar: the sheet's blocks as frames, what was kept filled, what was lost hatched, a line above it while the sky was closed; as far as the night has gone. */
export function NightStrip({
  rig,
  index,
  played,
  nowMs,
  zone,
  startMs,
  endMs,
}: {
  /** What the bars of all rigs span. */
  readonly startMs: number;
  readonly endMs: number;
  readonly rig: RehearsalRig;
  readonly index: number;
  readonly played: Played;
  readonly nowMs: number;
  readonly zone: string;
}) {
  const { lines } = rig.sheet;
  const x = (ms: number) => (WIDTH * (ms - startMs)) / Math.max(1, endMs - startMs);
  const subs = played.subs.filter((s) => s.rig === index && s.exposure.startMs < nowMs);
  const kept = subs.filter((s) => s.lostTo === null);
  const hours: number[] = [];
  for (let ms = Math.ceil(startMs / HOUR_MS) * HOUR_MS; ms < endMs; ms += HOUR_MS) hours.push(ms);
  const closed = closedSpans(played, rig.rigId, nowMs);
  const hatch = `lost-${index}`;
  return (
    <figure className="my-2">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        preserveAspectRatio="none"
        className="h-11 w-full"
        role="img"
        aria-label={`${rig.rig.name} to ${clockTime(nowMs, zone)}: ${kept.length} of ${subs.length} subs kept`}
      >
        <defs>
          <pattern id={hatch} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2.5" height="6" className="fill-rust" />
          </pattern>
        </defs>
        {lines.map((l) => (
          <rect
            key={`${l.kind} ${l.startMs}`}
            x={x(l.startMs)}
            width={Math.max(1, x(l.endMs) - x(l.startMs))}
            y={l.kind === "block" ? 2 : 16}
            height={l.kind === "block" ? HEIGHT - 4 : 12}
            className={l.kind === "block" ? "stroke-rule fill-none" : "fill-raised"}
            vectorEffect="non-scaling-stroke"
          />
        ))}
        {subs.map((s) => (
          <rect
            key={s.exposure.startMs}
            x={x(s.exposure.startMs)}
            width={Math.max(1, x(s.exposure.startMs + s.exposure.sec * 1000) - x(s.exposure.startMs) - 1)}
            y={6}
            height={HEIGHT - 12}
            className={s.lostTo === null ? "fill-lamp" : undefined}
            fill={s.lostTo === null ? undefined : `url(#${hatch})`}
          />
        ))}
        {closed.map(([from, to]) => (
          <rect key={from} x={x(from)} width={Math.max(1, x(to) - x(from))} y={0} height={5} className="fill-soft" />
        ))}
        <line x1={x(nowMs)} x2={x(nowMs)} y1={0} y2={HEIGHT} className="stroke-ink" vectorEffect="non-scaling-stroke" />
      </svg>
      <div className="text-note text-soft relative h-5" aria-hidden="true">
        {hours.map((ms) => (
          <span key={ms} className="absolute -translate-x-1/2" style={{ left: `${x(ms) / (WIDTH / 100)}%` }}>
            {axisHour(ms, zone)}
          </span>
        ))}
      </div>
    </figure>
  );
}
