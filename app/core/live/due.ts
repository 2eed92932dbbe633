import type { UtcMs } from "~/core/time";
import type { NightEvent } from "./event";
import type { LiveState } from "./state";

/** What is due, and when; past its time it is overdue. */
export interface Due {
  readonly what: "flip" | "dither" | "focusByTime" | "focusByAir" | "rain" | "dew" | "battery" | "dawn" | "lookUp";
  readonly atMs: UtcMs;
  readonly isOverdue: boolean;
  /** Of the air: by how much it changed since the last focus, °C; of dew: how far the air is above the dew point, °C; else null. */
  readonly byC: number | null;
}

/** What the rig and the sky say of a night, as far as they are known. */
export interface DueFacts {
  /** How long focus is trusted, ms; and by how many °C of air it moves out of focus, null = not known. */
  readonly focusEveryMs: number;
  readonly focusPerC: number | null;
  /** After how many subs the frame is moved by hand; null = something guides, and dithers by itself. */
  readonly ditherEvery: number | null;
  readonly airC: number | null;
  readonly dewPointC: number | null;
  /** When rain is expected, when the battery is empty, when the Sun comes up. */
  readonly rainMs: UtcMs | null;
  readonly batteryMs: UtcMs | null;
  readonly sunriseMs: UtcMs | null;
}

const MINUTE = 60_000;
/** How long before its time something is said; proposals of this project. */
const AHEAD_MS = { flip: 15 * MINUTE, rain: 60 * MINUTE, battery: 45 * MINUTE, dawn: 30 * MINUTE } as const;
const DEW_C = 2; // nearer to the dew point glass is wet before one looks; common practice, no source

/** Subs through of what is on since it began, or since the frame was last moved by hand. */
function subsSinceDither({ now, subsThrough }: LiveState, events: readonly NightEvent[], nowMs: UtcMs): number {
  if (now?.line.kind !== "block") return 0;
  const { startMs, endMs, line } = now;
  const dithered = events.flatMap((e) => (e.is.what === "dithered" && e.atMs <= nowMs ? [e.atMs] : []));
  const lastMs = Math.max(startMs, ...dithered);
  return Math.max(0, subsThrough - Math.floor(((lastMs - startMs) / Math.max(1, endMs - startMs)) * line.subs));
}

/** What is due now, the most urgent first. While the sky is closed nobody focuses or flips; after the night nothing is due. */
export function dueNow(state: LiveState, events: readonly NightEvent[], facts: DueFacts, nowMs: UtcMs): readonly Due[] {
  if (state.phase === "over" || state.phase === "before") return [];
  const found: Due[] = [];
  const tell = (what: Due["what"], atMs: UtcMs, byC: number | null = null) =>
    found.push({ what, atMs, isOverdue: atMs <= nowMs, byC });
  if (state.phase === "on") {
    const flip = state.lines.find((l) => l.line.kind === "flip" && (l.state === "on" || l.state === "toCome"));
    const isFlipped = events.some(
      (e) => e.is.what === "flipped" && flip && e.atMs > flip.startMs - AHEAD_MS.flip && e.atMs <= nowMs,
    );
    if (flip && !isFlipped && flip.startMs - nowMs <= AHEAD_MS.flip) tell("flip", flip.startMs);
    const subs = facts.ditherEvery === null ? 0 : subsSinceDither(state, events, nowMs);
    if (facts.ditherEvery !== null && subs >= facts.ditherEvery) tell("dither", nowMs);
    const { focused } = state;
    if (focused && nowMs - focused.atMs >= facts.focusEveryMs)
      tell("focusByTime", (focused.atMs + facts.focusEveryMs) as UtcMs);
    if (focused?.airC != null && facts.airC !== null && facts.focusPerC !== null) {
      const byC = facts.airC - focused.airC;
      if (Math.abs(byC) >= facts.focusPerC) tell("focusByAir", nowMs, byC);
    }
  }
  const lookMs = state.decided?.untilMs ?? null;
  if (lookMs !== null && lookMs <= nowMs) tell("lookUp", lookMs);
  const last = state.lines.at(-1);
  if (facts.rainMs !== null && facts.rainMs - nowMs <= AHEAD_MS.rain) tell("rain", facts.rainMs);
  if (facts.batteryMs !== null && last && facts.batteryMs < last.endMs && facts.batteryMs - nowMs <= AHEAD_MS.battery)
    tell("battery", facts.batteryMs);
  if (facts.sunriseMs !== null && facts.sunriseMs - nowMs <= AHEAD_MS.dawn) tell("dawn", facts.sunriseMs);
  if (facts.airC !== null && facts.dewPointC !== null && facts.airC - facts.dewPointC < DEW_C)
    tell("dew", nowMs, facts.airC - facts.dewPointC);
  return found.sort((a, b) => a.atMs - b.atMs);
}
