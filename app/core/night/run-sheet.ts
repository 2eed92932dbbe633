import { cycleSec, type Overheads } from "~/core/exposure";
import {
  BEYOND_MS,
  PACK_UP_SHARE,
  type Run,
  add,
  beginning,
  choose,
  isFocusDue,
  isOtherFilter,
  isSamePointing,
  isSameTurn,
  lastEnd,
  nextPassageMs,
  opensMs,
  sideAt,
  wantedOf,
} from "./sheet-choice";
import { addMs, MINUTE_MS, type UtcMs } from "~/core/time";
import type { WorkItem, SheetOptions, RunSheet, SheetEvent } from "./sheet-model";

/**
 * Lays out a night: centring, filter changes, focus when due, subs that never span the meridian, nothing outside the windows, no more
 * subs than are wanted (`most`, by need). The side of the meridian is a state: whenever the next sub of a picture lies on the other
 * side than the last, the mount flips, and focus follows; going to another target is one slew, whichever side it stands on.
 * Deterministic. Sub counts are whole; what does not fit is listed as left over; the last line is packing up.
 */
export function runSheet(
  items: readonly WorkItem[],
  o: Overheads,
  options: SheetOptions,
  most: ReadonlyMap<string, number> = new Map(items.map((i) => [i.need, i.subs])),
): RunSheet {
  const starts = items.flatMap((i) => i.windows.map((w) => Math.max(w.startMs, options.stagesFromMs?.[i.stage] ?? 0)));
  const empty: RunSheet = { lines: [], exposureMin: 0, leftOver: leftOverOf(items, new Map(most)) };
  if (starts.length === 0) return empty;
  const first = Math.min(...starts);
  const end = Math.max(...items.map(lastEnd));
  const begun = options.isSetUp ? [] : beginning(first, o, options);
  const run: Run = {
    lines: [...begun],
    dealt: items.map((i) => i.subs),
    wanted: new Map(most),
    now: Math.max(first, begun.at(-1)?.endMs ?? first),
    focusDueMs: 0,
    current: -1,
    side: null,
    changesFilters: options.changesFilters ?? true,
    beyondUntilMs: 0,
  };
  while (run.now < end) {
    const next = choose(items, run, o, options);
    if (next === -1) {
      const opening = Math.min(
        ...items.flatMap((i, k) =>
          wantedOf(i, run) > 0
            ? i.windows.flatMap((w) => {
                const from = Math.max(w.startMs, opensMs(items, run, k, options));
                return from > run.now && from < w.endMs ? [from] : [];
              })
            : [],
        ),
      );
      if (!Number.isFinite(opening)) break;
      add(run, "wait", opening - run.now);
      continue;
    }
    if (next !== run.current) prepare(items[next]!, items[run.current], run, o);
    run.current = next;
    const item = items[next]!;
    if (options.flips && changesSide(item, run, o)) continue;
    if (run.now >= run.focusDueMs) {
      add(run, "focus", o.focusMin * MINUTE_MS);
      run.focusDueMs = run.now + o.focusEveryMin * MINUTE_MS;
      continue;
    }
    expose(item, next, run, o);
  }
  const lines = untilLastBlock(run.lines).filter((l) => l.endMs > l.startMs);
  const last = lines.at(-1);
  if (last?.kind !== "block") return empty;
  const exposureMin = lines.reduce((sum, l) => sum + (l.kind === "block" ? (l.subs * l.subSec) / 60 : 0), 0);
  const packing: SheetEvent = {
    kind: "packUp",
    startMs: last.endMs,
    endMs: addMs(last.endMs, PACK_UP_SHARE * o.setUpMin * MINUTE_MS),
    detail: "",
    ...(options.packUpBy ? { by: options.packUpBy } : {}),
  };
  return { lines: [...lines, packing], exposureMin, leftOver: leftOverOf(items, run.wanted) };
}

/** What of the needs is left, each once. */
function leftOverOf(items: readonly WorkItem[], wanted: ReadonlyMap<string, number>): RunSheet["leftOver"] {
  const needs = new Map(items.map((i) => [i.need, i]));
  return [...needs].flatMap(([need, { panel, channel, subSec }]) => {
    const subs = wanted.get(need) ?? 0;
    return subs > 0 ? [{ panel, channel, exposureMin: (subs * subSec) / 60 }] : [];
  });
}

/** Nothing is prepared for a sub that never comes. */
const untilLastBlock = (lines: Run["lines"]): Run["lines"] =>
  lines.slice(0, lines.findLastIndex((l) => l.kind === "block") + 1);

/** Waits for the meridian where a sub would span it, and flips where the next sub lies on the other side; false when neither is called for. */
function changesSide(item: WorkItem, run: Run, o: Overheads): boolean {
  if (run.now < run.beyondUntilMs) return false;
  const passageMs = nextPassageMs(item, run.now);
  if (run.side === null) {
    // Nothing of it was shot yet: of the two sides the one on which it can stay.
    const reach = Math.min(BEYOND_MS[1], Math.max(BEYOND_MS[0], 2 * item.subSec * 1000));
    const isNear = passageMs - run.now <= reach;
    run.side = isNear ? sideAt(item, passageMs + 1) : sideAt(item, run.now);
    if (isNear) run.beyondUntilMs = passageMs;
    return false;
  }
  if (passageMs < run.now + item.subSec * 1000) {
    add(run, "wait", passageMs - run.now, "meridian");
    run.now = passageMs + 1; // past it, not upon it
    return true;
  }
  const side = sideAt(item, run.now);
  if (run.side === side) return false;
  add(run, "flip", o.flipMin * MINUTE_MS, item.panel, item.projectId);
  run.side = side;
  run.focusDueMs = 0; // the train hangs the other way round
  return true;
}

function prepare(item: WorkItem, before: WorkItem | undefined, run: Run, o: Overheads): void {
  if (!isSamePointing(item, before)) add(run, "centre", o.panelChangeSec * 1000, item.panel, item.projectId);
  // Another target is one slew, whichever side of the meridian it stands on.
  if (item.projectId !== before?.projectId) run.side = null;
  if (item.projectId !== before?.projectId || item.panel !== before.panel) run.beyondUntilMs = 0;
  if (isOtherFilter(item, before, run.changesFilters)) {
    add(run, "filter", o.filterChangeSec * 1000, item.filterName);
    // Filters differ in focus; those shot in turn are taken as equal, or of known offset.
    if (!isSameTurn(item, before)) run.focusDueMs = 0;
  }
  if (isFocusDue(run, run.now, o)) run.focusDueMs = 0;
}

/** One sub: joined to the block before it when nothing came between. */
function expose(item: WorkItem, index: number, run: Run, o: Overheads): void {
  const startMs = run.now as UtcMs;
  run.now += cycleSec(item.subSec, o) * 1000;
  run.dealt[index]!--;
  run.wanted.set(item.need, wantedOf(item, run) - 1);
  const last = run.lines.at(-1);
  if (
    last?.kind === "block" &&
    last.projectId === item.projectId &&
    last.panel === item.panel &&
    last.channel === item.channel &&
    last.subSec === item.subSec &&
    last.stage === item.stage
  )
    run.lines[run.lines.length - 1] = { ...last, subs: last.subs + 1, endMs: run.now as UtcMs };
  else
    run.lines.push({
      kind: "block",
      startMs,
      endMs: run.now as UtcMs,
      projectId: item.projectId,
      panel: item.panel,
      channel: item.channel,
      filterName: item.filterName,
      subs: 1,
      subSec: item.subSec,
      stage: item.stage,
      ...(item.turn === undefined ? {} : { turn: item.turn }),
    });
}
