import type { Block, RunSheet, SheetEvent } from "~/core/night";
import { groupBy } from "~/core/numeric";
import { utcMs, type UtcInterval, type UtcMs } from "~/core/time";
import { inOrder, isSameBlock, packedUpMs, type BlockKey, type CloudDecision, type NightEvent } from "./event";

/** A line of the sheet as the night goes: moved by how far the night is behind or ahead. */
export interface LiveLine {
  readonly line: Block | SheetEvent;
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** Said to be done; gone by though nobody said; on; to come; given up, since all was packed up before it. */
  readonly state: "done" | "gone" | "on" | "toCome" | "givenUp";
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
  /** How far what is on, or comes next, is behind its sheet, min; negative = ahead. */
  readonly behindMin: number;
  /** Since when the sky is closed; null = it is not, as far as anybody said. */
  readonly cloudSinceMs: UtcMs | null;
  /** What was decided under the closed sky, last; null = nothing yet, or it is open. */
  readonly decided: { readonly choice: CloudDecision; readonly untilMs: UtcMs | null } | null;
  /** Whether somebody said that it has begun, or that a block is done; else it goes by the clock alone. */
  readonly isSaid: boolean;
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

/** Where blocks stand in a sheet; -1 = not in it. Looked for by when they begin: a night at a press has thousands of questions. */
function placesIn(lines: RunSheet["lines"]): (of: BlockKey) => number {
  const places = groupBy(
    lines.flatMap((line, i) => (line.kind === "block" ? [{ line, i }] : [])),
    ({ line }) => line.startMs,
  );
  return (of) => places.get(of.startMs as UtcMs)?.find(({ line }) => isSameBlock(line, of))?.i ?? -1;
}

/** What is said of blocks, by their place in the sheet. */
function saidOf(
  placeOf: (of: BlockKey) => number,
  events: readonly NightEvent[],
): ReadonlyMap<number, { kept: number; lost: number }> {
  const said = new Map<number, { kept: number; lost: number }>();
  for (const { is } of events) {
    const i = is.what === "done" ? placeOf(is.of) : -1;
    if (is.what === "done" && i >= 0) said.set(i, { kept: is.kept, lost: is.lost });
  }
  return said;
}

/** The last thing said that tells how far the night is: a block done, a flip, a focus, another block begun. */
function anchorOf(
  lines: RunSheet["lines"],
  placeOf: (of: BlockKey) => number,
  events: readonly NightEvent[],
  laidOutMs: number,
): Anchor {
  let anchor: Anchor = { from: 0, shiftMs: 0 };
  const first = lines[0];
  let hasBegun = false;
  for (const { atMs, is } of events) {
    if (atMs < laidOutMs) continue; // the sheet knows of it
    // Begun again after packing up, the night goes on where its sheet is by now.
    if (is.what === "begun" && first && !hasBegun) anchor = { from: 0, shiftMs: Math.max(0, atMs - first.startMs) };
    if (is.what === "begun") hasBegun = true;
    if (is.what === "done") {
      const i = placeOf(is.of);
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
      const i = placeOf(is.to);
      if (i >= 0) anchor = { from: i, shiftMs: atMs - lines[i]!.startMs };
    }
  }
  return anchor;
}

const NEAR_MS = 20 * MINUTE; // a proposal of this project: farther off, it was another one

/**
 * When the lines of a sheet come, moved by how far the night is behind where it was last heard of. A stretch where nothing is done, and
 * a wait, are there for the sky's sake: they take up what one is behind, and nothing after them comes before its time.
 */
function movedLines(lines: RunSheet["lines"], { from, shiftMs }: Anchor): readonly UtcInterval[] {
  let [endMs, sheetEndMs] = [0, 0];
  return lines.map((line, i) => {
    if (i < from) return line;
    const isFirst = i === from;
    const gapMs = isFirst ? 0 : line.startMs - sheetEndMs;
    const soonest = isFirst ? line.startMs + shiftMs : endMs + gapMs;
    const startMs = gapMs > IDLE_MS ? Math.max(line.startMs, endMs) : soonest;
    sheetEndMs = line.endMs;
    endMs = line.kind === "wait" ? Math.max(startMs, line.endMs) : startMs + line.endMs - line.startMs;
    return { startMs: utcMs(startMs), endMs: utcMs(endMs) };
  });
}

const IDLE_MS = MINUTE; // between lines of a sheet: less is rounding

/** By how much a line comes after its time on the sheet, ms. */
const behindOf = (live: LiveLine | null): number => (live ? live.startMs - live.line.startMs : 0);

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
  // What was pressed was pressed, by whatever clock: one that is set back makes nobody press again.
  const events = inOrder(pressed);
  const lines = [...sheet.lines].sort((a, b) => a.startMs - b.startMs);
  const placeOf = placesIn(lines);
  const said = saidOf(placeOf, events);
  const { from, shiftMs } = anchorOf(lines, placeOf, events, laidOutMs);
  const packedMs = packedUpMs(events);
  const clouds = events.flatMap((e) => (e.is.what === "cloud" ? [{ atMs: e.atMs, isClear: e.is.isClear }] : []));
  const cloudSinceMs = closedSince(clouds);
  const moved = movedLines(lines, { from, shiftMs });
  const live = lines.map((line, i): LiveLine => {
    const { startMs, endMs } = moved[i]!;
    const state = said.has(i)
      ? "done"
      : packedMs !== null && startMs >= packedMs
        ? "givenUp"
        : i < from || endMs <= nowMs || packedMs !== null
          ? "gone"
          : startMs <= nowMs && cloudSinceMs === null
            ? "on"
            : "toCome";
    return { line, startMs, endMs, state, said: said.get(i) ?? null };
  });
  const now = live.find((l) => l.state === "on") ?? null;
  const next = live.find((l) => l.state === "toCome" && l !== now) ?? null;
  const hasBegun = events.some((e) => e.is.what === "begun") || (live[0] !== undefined && live[0].startMs <= nowMs);
  const isPast = live.length > 0 && live.every((l) => l.state !== "on" && l.state !== "toCome");
  return {
    phase: packedMs !== null || isPast ? "over" : !hasBegun ? "before" : cloudSinceMs !== null ? "cloud" : "on",
    lines: live,
    now,
    subsThrough: now?.line.kind === "block" ? throughOf(now, now.line, nowMs) : 0,
    next,
    behindMin: behindOf(now ?? next) / MINUTE,
    cloudSinceMs,
    decided: decidedSince(events, cloudSinceMs),
    isSaid: events.some((e) => e.is.what === "begun" || e.is.what === "done"),
    focused: focusedLast(live, events, nowMs),
  };
}

/** Since when the sky is closed: from the first cloudy word after the last clear one. */
function closedSince(clouds: readonly { readonly atMs: number; readonly isClear: boolean }[]): UtcMs | null {
  let since: number | null = null;
  for (const { atMs, isClear } of clouds) since = isClear ? null : (since ?? atMs);
  return since as UtcMs | null;
}

/** What was decided last since the sky closed. */
function decidedSince(events: readonly NightEvent[], cloudSinceMs: UtcMs | null): LiveState["decided"] {
  let decided: LiveState["decided"] = null;
  for (const { atMs, is } of events)
    if (is.what === "decided" && cloudSinceMs !== null && atMs >= cloudSinceMs)
      decided = { choice: is.choice, untilMs: is.untilMs as UtcMs | null };
  return decided;
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
