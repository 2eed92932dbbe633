import { plain } from "~/components/numbers";
import type { Channel } from "~/core/exposure";
import { stretches, type NightSteps, type Walk } from "~/core/night";
import { formatMinutes } from "~/core/notation";
import { fullHours } from "~/core/time";
import { clockTime, hourWord } from "../clock";
import { CAUSE_WORDS } from "../words/log-words";
import { CHANNEL_COLOUR } from "./channel-colour";

/** An instant marked on a strip: start, flip, now. */
export interface StripMark {
  readonly atMs: number;
  readonly word: string;
}

/** Area under the worth of a night, in a box of 1000 × 100. */
function areaPath(steps: NightSteps, walk: Walk): string {
  const x = (i: number) => plain((1000 * i) / steps.count, 1);
  let path = "";
  for (let i = 0; i < steps.count; i++) {
    if (walk.cause[i] !== 0) continue;
    const y = plain(100 - 96 * Math.min(1, walk.worth[i]!), 1);
    path += `${path === "" || walk.cause[i - 1] !== 0 ? `M${x(i)} 100V${y}` : ""}H${x(i)}V${y}H${x(i + 1)}`;
    if (i + 1 === steps.count || walk.cause[i + 1] !== 0) path += "V100Z";
  }
  return path;
}

/**
 * Sunset to sunrise as one bar: height is the worth of a minute (full height = this place's moonless zenith), lost time is
 * hatched on the base line with its cause in words.
 */
export function WorthStrip({
  steps,
  walk,
  channel,
  zone,
  marks = [],
  isTall = false,
}: {
  readonly steps: NightSteps;
  readonly walk: Walk;
  readonly channel: Channel;
  readonly zone: string;
  readonly marks?: readonly StripMark[];
  readonly isTall?: boolean;
}) {
  if (steps.count === 0) return <p className="text-note text-faint">The Sun does not set.</p>;
  const runs = stretches(steps, walk);
  const spanMs = steps.count * steps.stepMin * 60_000;
  const percent = (ms: number) => (100 * (ms - steps.startMs)) / spanMs;
  const words = runs
    .map((r) => `${clockTime(r.startMs, zone)} to ${clockTime(r.endMs, zone)} ${CAUSE_WORDS[r.cause]}`)
    .join(", ");
  return (
    <div
      className={`border-rule relative w-full border-b ${isTall ? "h-14" : "h-8"}`}
      role="img"
      aria-label={`${channel}: ${words}`}
    >
      {runs.map((r) => {
        const width = percent(r.endMs) - percent(r.startMs);
        if (r.cause === "none") return null;
        return (
          <div
            key={r.startMs}
            className="absolute bottom-0"
            style={{ left: `${percent(r.startMs)}%`, width: `${width}%` }}
            title={`${CAUSE_WORDS[r.cause]}, ${formatMinutes((r.endMs - r.startMs) / 60_000)}`}
          >
            {width > (isTall ? 8 : 17) ? (
              <span className="text-faint block truncate text-center text-[0.75rem] leading-tight">
                {CAUSE_WORDS[r.cause]}
              </span>
            ) : null}
            <span className="hatch block h-2" />
          </div>
        );
      })}
      <svg
        viewBox="0 0 1000 100"
        preserveAspectRatio="none"
        className="absolute inset-0 h-full w-full"
        aria-hidden="true"
      >
        <path d={areaPath(steps, walk)} fill={CHANNEL_COLOUR[channel]} />
      </svg>
      {marks
        .filter((m) => m.atMs >= steps.startMs && m.atMs <= steps.startMs + spanMs)
        .map((m) => (
          <span
            key={m.word}
            className="border-ink text-ink absolute top-0 bottom-0 border-l border-dotted pl-1 text-[0.75rem] leading-none"
            style={{ left: `${percent(m.atMs)}%` }}
          >
            {m.word}
          </span>
        ))}
    </div>
  );
}

/** Hour marks over strips of one night. */
export function HourScale({ steps, zone }: { readonly steps: NightSteps; readonly zone: string }) {
  const spanMs = steps.count * steps.stepMin * 60_000;
  const hours = fullHours(steps.startMs, steps.startMs + spanMs, zone).filter(
    (_, i, all) => all.length <= 8 || i % 2 === 0,
  );
  return (
    <div className="text-faint @container relative h-5 w-full text-[0.75rem]" aria-hidden="true">
      {hours.map((ms, i) => (
        <span
          key={ms}
          className={i % 2 === 1 ? "absolute hidden -translate-x-1/2 @[26rem]:inline" : "absolute -translate-x-1/2"}
          style={{ left: `${(100 * (ms - steps.startMs)) / spanMs}%` }}
        >
          {hourWord(ms, zone)}
        </span>
      ))}
    </div>
  );
}
