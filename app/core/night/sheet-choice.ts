import { type Overheads, cycleSec } from "~/core/exposure";
import type { SheetOptions, SheetEvent, Block, WorkItem } from "./sheet-model";
import { addMs, MINUTE_MS, type UtcMs } from "~/core/time";

const SOON = 0.4; // of the focus interval
const ALIGN_SHARE = 0.4; // of the set-up that needs stars: polar alignment, a first focus, a test shot; a proposal of this project
const AT_DUSK_MS = 90 * MINUTE_MS; // after the first stars: who begins later sets up later; a proposal of this project

/** Half a sidereal day. */
export const HALF_TURN_MS = 43082045;

/** Packing up takes this part of the set-up; a guess. */
export const PACK_UP_SHARE = 0.5;

/**
 * A target that is pointed at shortly before its passage is taken from the other side at once: mounts go on 10 to 15 minutes past the
 * meridian (MATHS 6.4), and a flip after two subs would cost more than it gives.
 */
export const BEYOND_MS = [10 * MINUTE_MS, 15 * MINUTE_MS] as const;

/** When the last window of an item ends; 0 without one. */
export const lastEnd = (item: WorkItem): number => Math.max(...item.windows.map((w) => w.endMs), 0);

/** On which side of the meridian a panel stands: 0 east, before its transit; 1 west, after. */
export const sideAt = (item: WorkItem, ms: number): 0 | 1 => {
  const turns = Math.floor((ms - item.transitMs) / HALF_TURN_MS);
  return (turns & 1) === 0 ? 1 : 0;
};

/** The next passage of a panel through the meridian, above or below the pole, after an instant. */
export const nextPassageMs = (item: WorkItem, ms: number): number =>
  item.transitMs + (Math.floor((ms - item.transitMs) / HALF_TURN_MS) + 1) * HALF_TURN_MS;

/** The night being laid out. */
export interface Run {
  readonly lines: (Block | SheetEvent)[];
  /** Subs dealt that are still to come, by item; and those that are wanted at all, by need. */
  readonly dealt: number[];
  readonly wanted: Map<string, number>;
  now: number;
  focusDueMs: number;
  current: number;
  /** Side of the meridian the telescope points to; null until something is pointed at. */
  side: 0 | 1 | null;
  readonly changesFilters: boolean;
  /** Until when it points past the meridian from the other side. */
  beyondUntilMs: number;
}

/** Subs of an item that are still wanted. */
export const wantedOf = (item: WorkItem, run: Run): number => run.wanted.get(item.need) ?? 0;

/** Whether two items are shot at the same pointing. */
export const isSamePointing = (a: WorkItem, b: WorkItem | undefined): boolean =>
  a.panel === b?.panel && a.projectId === b.projectId;

/** Whether two items belong to the same rounds. */
export const isSameTurn = (a: WorkItem, b: WorkItem | undefined): boolean => a.turn !== undefined && a.turn === b?.turn;

/** Writes a line of so many ms down, from now on. */
export function add(run: Run, kind: SheetEvent["kind"], lengthMs: number, detail = "", projectId?: string): void {
  run.lines.push({
    kind,
    startMs: run.now as UtcMs,
    endMs: addMs(run.now as UtcMs, lengthMs),
    detail,
    ...(projectId === undefined ? {} : { projectId }),
  });
  run.now += lengthMs;
}

/** Whether another filter has to go in. */
export const isOtherFilter = (item: WorkItem, before: WorkItem | undefined, changes: boolean): boolean =>
  changes && (item.channel !== before?.channel || item.filterName !== before.filterName);

/** Time between now and the first sub of an item: centring, filter, and focus when the filter differs or it is due. */
function leadMs(item: WorkItem, run: Run, before: WorkItem | undefined, o: Overheads): number {
  const isChanged = isOtherFilter(item, before, run.changesFilters);
  const isRefocused = isChanged && !isSameTurn(item, before);
  const centreMs = isSamePointing(item, before) ? 0 : o.panelChangeSec * 1000;
  const filterMs = isChanged ? o.filterChangeSec * 1000 : 0;
  const focusMs = isRefocused || isFocusDue(run, run.now + centreMs + filterMs, o) ? o.focusMin * MINUTE_MS : 0;
  return centreMs + filterMs + focusMs;
}

/** Rather now, while nothing is running, than in the middle of the block. */
export const isFocusDue = (run: Run, atMs: number, o: Overheads) =>
  run.focusDueMs - atMs < SOON * o.focusEveryMin * MINUTE_MS;

/** Whether an item can go on, or be begun, at an instant: a whole round of it, else a sub. */
function fits(item: WorkItem, fromMs: number, subs: number, o: Overheads): boolean {
  const lengthMs = ((subs - 1) * cycleSec(item.subSec, o) + item.subSec) * 1000;
  return item.windows.some((w) => w.startMs <= fromMs && fromMs + lengthMs <= w.endMs);
}

/** Whether something of an earlier stretch can still be done, now or later. */
const isBusyBefore = (items: readonly WorkItem[], run: Run, stage: number): boolean =>
  items.some((x) => x.stage < stage && wantedOf(x, run) > 0 && lastEnd(x) > run.now + x.subSec * 1000);

/** From when on an item may be worked on: its stretch's own time, or any once those before have nothing left. */
export function opensMs(items: readonly WorkItem[], run: Run, i: number, at: SheetOptions): number {
  const item = items[i]!;
  const own = at.stagesFromMs?.[item.stage] ?? 0;
  return isBusyBefore(items, run, item.stage) ? own : 0;
}

/**
 * The item to work on now: the present one while it has subs dealt, else the next of the earliest stretch: in order, or whichever
 * window closes first. Where all that was dealt is done and time is left, the present one goes on, then others, up to what is wanted.
 */
export function choose(items: readonly WorkItem[], run: Run, o: Overheads, at: SheetOptions): number {
  const canRun = (i: number, isMore: boolean) => {
    const item = items[i];
    if (item === undefined || wantedOf(item, run) <= 0 || (!isMore && run.dealt[i]! <= 0)) return false;
    if (isMore && item.turn !== undefined) return false;
    if (i !== run.current && opensMs(items, run, i, at) > run.now) return false;
    const from = run.now + (i === run.current ? 0 : leadMs(item, run, items[run.current], o));
    // A round is begun only where all of it fits; once begun it goes on.
    const isWhole = item.turn !== undefined && run.dealt[i] === item.subs;
    return fits(item, from, isWhole ? Math.min(item.subs, wantedOf(item, run)) : 1, o);
  };
  if (canRun(run.current, false)) return run.current;
  const rank = (i: number) =>
    items[i]!.turn === undefined && items[i]!.inOrder !== true ? lastEnd(items[i]!) : Number.NEGATIVE_INFINITY;
  const next = (isMore: boolean) =>
    items
      .map((_, i) => i)
      .filter((i) => canRun(i, isMore))
      .sort((a, b) => items[a]!.stage - items[b]!.stage || rank(a) - rank(b) || a - b)[0] ?? -1;
  const dealt = next(false);
  // What is left over of a stretch goes to that stretch before the next one begins early.
  const current = items[run.current];
  if (current && (dealt === -1 || items[dealt]!.stage > current.stage) && canRun(run.current, true)) return run.current;
  if (dealt !== -1) return dealt;
  return next(true);
}

/** What is done before the first sub: by daylight and by the first stars where that is wanted, else right before. */
export function beginning(firstMs: number, o: Overheads, at: SheetOptions): SheetEvent[] {
  const setUpMs = o.setUpMin * MINUTE_MS;
  const alignMs = setUpMs * ALIGN_SHARE;
  const alignBy = firstMs - alignMs;
  // Alignment as soon as stars show, so that nothing is left to do when the target comes; not before. An evening that begins in the
  // middle of the night is set up then.
  const isAtDusk = at.starsMs === null || firstMs - at.starsMs <= AT_DUSK_MS;
  const isEarly = at.standsBeforeDark && isAtDusk;
  const early = isEarly && at.starsMs !== null ? Math.min(at.starsMs, alignBy) : alignBy;
  const standBy = isEarly && at.sunsetMs !== null ? Math.min(at.sunsetMs, early) : early;
  const line = (kind: SheetEvent["kind"], startMs: number, lengthMs: number): SheetEvent => ({
    kind,
    startMs: startMs as UtcMs,
    endMs: addMs(startMs as UtcMs, lengthMs),
    detail: "",
  });
  return [line("setUp", standBy - (setUpMs - alignMs), setUpMs - alignMs), line("align", early, alignMs)];
}
