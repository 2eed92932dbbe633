import type { Block, RunSheet, SheetEvent } from "~/core/night";
import { addMs, type UtcMs } from "~/core/time";
import { inOrder, isSameBlock, type NightEvent } from "./event";

/** A line of the sheet as the night goes: moved by how far the night is behind or ahead. */
export interface LiveLine {
  readonly line: Block | SheetEvent;
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** Said to be done; gone by though nobody said; on; to come. */
  readonly state: "done" | "gone" | "on" | "toCome";
  /** Of a block: subs kept and lost, as said; null where nobody said. */
  readonly said: { readonly kept: number; readonly lost: number } | null;
}

/** How a night stands. */
export interface LiveState {
  readonly phase: "before" | "on" | "cloud" | "over";
  readonly lines: readonly LiveLine[];
  /** What is on; null = nothing is. */
  readonly now: LiveLine | null;
  /** Subs that are through of the block that is on, by the clock. */
  readonly subsThrough: number;
  readonly next: LiveLine | null;
  /** How far the night is behind its sheet, min; negative = ahead. */
  readonly behindMin: number;
  /** Since when the sky is closed; null = it is not, as far as anybody said. */
  readonly cloudSinceMs: UtcMs | null;
  /** When it was last focused, and in which air: as said, else as the sheet has it. Null = not yet. */
  readonly focused: { readonly atMs: UtcMs; readonly airC: number | null; readonly isSaid: boolean } | null;
}

const MINUTE = 60_000;

/** Where the night was on its sheet when somebody last said so, and how far behind it. */
interface Anchor {
  /** Lines before this one are past. */
  readonly from: number;
  readonly shiftMs: number;
}

/** What is said of blocks, by their place in the sheet. */
function saidOf(
  lines: RunSheet["lines"],
  events: readonly NightEvent[],
): ReadonlyMap<number, { kept: number; lost: number }> {
  const said = new Map<number, { kept: number; lost: number }>();
  for (const { is } of events) {
    if (is.what !== "done") continue;
    const i = lines.findIndex((l) => l.kind === "block" && isSameBlock(l, is.of));
    if (i >= 0) said.set(i, { kept: is.kept, lost: is.lost });
  }
  return said;
}

/** The last thing said that tells how far the night is: a block done, a flip, a focus, another block begun. */
function anchorOf(lines: RunSheet["lines"], events: readonly NightEvent[], laidOutMs: number): Anchor {
  let anchor: Anchor = { from: 0, shiftMs: 0 };
  const first = lines[0];
  for (const { atMs, is } of events) {
    if (atMs < laidOutMs) continue; // the sheet knows of it
    if (is.what === "begun" && first) anchor = { from: 0, shiftMs: Math.max(0, atMs - first.startMs) };
    if (is.what === "done") {
      const i = lines.findIndex((l) => l.kind === "block" && isSameBlock(l, is.of));
      if (i >= anchor.from) anchor = { from: i + 1, shiftMs: atMs - lines[i]!.endMs };
    }
    if (is.what === "flipped" || is.what === "focused") {
      const kind = is.what === "flipped" ? "flip" : "focus";
      const i = lines.findIndex((l, k) => k >= anchor.from && l.kind === kind);
      // Only where it was due: who focuses between two lines has not left the sheet.
      const isDue = i >= 0 && Math.abs(lines[i]!.endMs + anchor.shiftMs - atMs) <= NEAR_MS;
      if (isDue) anchor = { from: i + 1, shiftMs: atMs - lines[i]!.endMs };
    }
    if (is.what === "swapped") {
      const i = lines.findIndex((l) => l.kind === "block" && isSameBlock(l, is.to));
      if (i >= 0) anchor = { from: i, shiftMs: atMs - lines[i]!.startMs };
    }
  }
  return anchor;
}

const NEAR_MS = 20 * MINUTE; // a proposal of this project: farther off, it was another one

/**
 * How a night stands by its sheet, what was pressed, and the clock: the same whatever the order in which the presses came. What
 * nobody said anything of goes as the sheet has it, moved by how far the night was behind when somebody last said something.
 * `laidOutMs`: when the rest of the sheet was last laid out; what was said before is in it.
 */
export function liveState(
  sheet: Pick<RunSheet, "lines">,
  pressed: readonly NightEvent[],
  nowMs: UtcMs,
  laidOutMs: number = -Infinity,
): LiveState {
  const events = inOrder(pressed).filter((e) => e.atMs <= nowMs);
  const lines = [...sheet.lines].sort((a, b) => a.startMs - b.startMs);
  const said = saidOf(lines, events);
  const { from, shiftMs } = anchorOf(lines, events, laidOutMs);
  const isOver = events.some((e) => e.is.what === "packedUp");
  const clouds = events.flatMap((e) => (e.is.what === "cloud" ? [{ atMs: e.atMs, isClear: e.is.isClear }] : []));
  const cloudSinceMs = closedSince(clouds);
  const live = lines.map((line, i): LiveLine => {
    const moved = i >= from ? shiftMs : 0;
    const [startMs, endMs] = [addMs(line.startMs, moved), addMs(line.endMs, moved)];
    const isPast = i < from || endMs <= nowMs || isOver;
    const state = said.has(i) ? "done" : isPast ? "gone" : startMs <= nowMs && cloudSinceMs === null ? "on" : "toCome";
    return { line, startMs, endMs, state, said: said.get(i) ?? null };
  });
  const now = live.find((l) => l.state === "on") ?? null;
  const next = live.find((l) => l.state === "toCome" && l !== now) ?? null;
  const hasBegun = events.some((e) => e.is.what === "begun") || (live[0] !== undefined && live[0].startMs <= nowMs);
  const isPast = live.length > 0 && live.every((l) => l.state === "done" || l.state === "gone");
  return {
    phase: isOver || isPast ? "over" : !hasBegun ? "before" : cloudSinceMs !== null ? "cloud" : "on",
    lines: live,
    now,
    subsThrough: now?.line.kind === "block" ? throughOf(now, now.line, nowMs) : 0,
    next,
    behindMin: shiftMs / MINUTE,
    cloudSinceMs,
    focused: focusedLast(live, events, nowMs),
  };
}

/** Since when the sky is closed: from the first cloudy word after the last clear one. */
function closedSince(clouds: readonly { readonly atMs: number; readonly isClear: boolean }[]): UtcMs | null {
  let since: number | null = null;
  for (const { atMs, isClear } of clouds) since = isClear ? null : (since ?? atMs);
  return since as UtcMs | null;
}

/** Subs of a block that are through by the clock: whole ones, never more than it has. */
function throughOf({ startMs, endMs }: LiveLine, { subs }: Block, nowMs: UtcMs): number {
  const share = (nowMs - startMs) / Math.max(1, endMs - startMs);
  return Math.min(subs, Math.max(0, Math.floor(share * subs)));
}

/** The last time it was focused: as said, or as the sheet has it where that is later. */
function focusedLast(lines: readonly LiveLine[], events: readonly NightEvent[], nowMs: UtcMs): LiveState["focused"] {
  let last: LiveState["focused"] = null;
  for (const { line, endMs } of lines)
    if ((line.kind === "focus" || line.kind === "align") && endMs <= nowMs)
      last = { atMs: endMs, airC: null, isSaid: false };
  for (const { atMs, is } of events)
    if (is.what === "focused" && (last === null || atMs >= last.atMs - NEAR_MS))
      last = { atMs: atMs as UtcMs, airC: is.airC, isSaid: true };
  return last;
}
