import { cycleSec, type Channel, type Overheads } from "~/core/exposure";
import { addMs, MINUTE_MS, type UtcInterval, type UtcMs } from "~/core/time";

/** What a night should do: so many subs of one panel in one channel, possible only inside its windows. */
export interface WorkItem {
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  readonly subSec: number;
  /** Subs dealt to it; more are taken only where time is left over. */
  readonly subs: number;
  /** Name of the need it is for: several items may share one, and together take no more than `most` says. */
  readonly need: string;
  /** Which stretch of the evening it belongs to: a later one begins when the one before has nothing left to do, or at its own time. */
  readonly stage: number;
  /** Within its stretch: in the order given, or whichever window closes first. */
  readonly inOrder?: boolean;
  readonly windows: readonly UtcInterval[];
  /** Any upper transit of the panel, before, in or after the night: it tells on which side of the meridian it stands when. */
  readonly transitMs: UtcMs;
  /** Round after round in the order given: which rounds. A round is shot whole or not at all. */
  readonly turn?: string;
}

/** Subs of one panel and channel in a row. */
export interface Block {
  readonly kind: "block";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  readonly subs: number;
  readonly subSec: number;
  /** Which stretch of the evening it belongs to. */
  readonly stage: number;
  /** The rounds that it belongs to. */
  readonly turn?: string;
}

/** A break between blocks, with the time it takes. */
export interface SheetEvent {
  readonly kind: "setUp" | "align" | "centre" | "filter" | "focus" | "flip" | "wait" | "packUp";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** What is centred on, or which filter goes in. */
  readonly detail: string;
  /** Packing up: when everything has to be under a roof, and for what. */
  readonly by?: PackUpBy;
  /** Whose panel it is, where it is one. */
  readonly projectId?: string;
}

/** When everything has to be under a roof. */
export interface PackUpBy {
  readonly ms: UtcMs;
  readonly why: "rain" | "dawn";
}

/** A night in order, and what did not fit. */
export interface RunSheet {
  readonly lines: readonly (Block | SheetEvent)[];
  readonly exposureMin: number;
  readonly leftOver: readonly { readonly panel: string; readonly channel: Channel; readonly exposureMin: number }[];
}

const lastEnd = (item: WorkItem) => Math.max(...item.windows.map((w) => w.endMs), 0);

const SOON = 0.4; // of the focus interval
const ALIGN_SHARE = 0.4; // of the set-up that needs stars: polar alignment, a first focus, a test shot; a proposal of this project
const HALF_TURN_MS = 43_082_045; // half a sidereal day
const AT_DUSK_MS = 90 * MINUTE_MS; // after the first stars: who begins later sets up later; a proposal of this project
const PACK_UP_SHARE = 0.5; // of the set-up; a guess
// A target that is pointed at shortly before its passage is taken from the other side at once: mounts go on 10 to 15 minutes past the
// meridian (MATHS 6.4), and a flip after two subs would cost more than it gives.
const BEYOND_MS = [10 * MINUTE_MS, 15 * MINUTE_MS] as const;

/** How a night is begun, and what the mount does at the meridian. */
export interface SheetOptions {
  /** A mount that must change sides at the meridian. */
  readonly flips: boolean;
  /** Everything but what needs stars is done by sunset. */
  readonly standsBeforeDark: boolean;
  /** The evening's sunset, and when the first stars show (Sun at −8°); null where the Sun does not pass. */
  readonly sunsetMs: UtcMs | null;
  readonly starsMs: UtcMs | null;
  /** Absent = nobody says. */
  readonly packUpBy?: PackUpBy | null;
  /** The kit stands and is aligned already. */
  readonly isSetUp?: boolean;
  /** A rig with one filter, or none, has nothing to change; absent = it has. */
  readonly changesFilters?: boolean;
  /** Each stretch of the evening begins at its own time, or as soon as the one before has nothing left to do. */
  readonly stagesFromMs?: readonly UtcMs[];
}

/** On which side of the meridian a panel stands: 0 east, before its transit; 1 west, after. */
const sideAt = (item: WorkItem, ms: number): 0 | 1 => {
  const turns = Math.floor((ms - item.transitMs) / HALF_TURN_MS);
  return (turns & 1) === 0 ? 1 : 0;
};

/** The next passage of a panel through the meridian, above or below the pole, after an instant. */
const nextPassageMs = (item: WorkItem, ms: number): number =>
  item.transitMs + (Math.floor((ms - item.transitMs) / HALF_TURN_MS) + 1) * HALF_TURN_MS;

/** The night being laid out. */
interface Run {
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

const wantedOf = (item: WorkItem, run: Run): number => run.wanted.get(item.need) ?? 0;

/** Whether two items are shot at the same pointing. */
const isSamePointing = (a: WorkItem, b: WorkItem | undefined): boolean =>
  a.panel === b?.panel && a.projectId === b.projectId;

/** Whether two items belong to the same rounds. */
const isSameTurn = (a: WorkItem, b: WorkItem | undefined): boolean => a.turn !== undefined && a.turn === b?.turn;

function add(run: Run, kind: SheetEvent["kind"], lengthMs: number, detail = "", projectId?: string): void {
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
const isOtherFilter = (item: WorkItem, before: WorkItem | undefined, changes: boolean): boolean =>
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
const isFocusDue = (run: Run, atMs: number, o: Overheads) => run.focusDueMs - atMs < SOON * o.focusEveryMin * MINUTE_MS;

/** Whether an item can go on, or be begun, at an instant: a whole round of it, else a sub. */
function fits(item: WorkItem, fromMs: number, subs: number, o: Overheads): boolean {
  const lengthMs = ((subs - 1) * cycleSec(item.subSec, o) + item.subSec) * 1000;
  return item.windows.some((w) => w.startMs <= fromMs && fromMs + lengthMs <= w.endMs);
}

/** Whether something of an earlier stretch can still be done, now or later. */
const isBusyBefore = (items: readonly WorkItem[], run: Run, stage: number): boolean =>
  items.some((x) => x.stage < stage && wantedOf(x, run) > 0 && lastEnd(x) > run.now + x.subSec * 1000);

/** From when on an item may be worked on: its stretch's own time, or any once those before have nothing left. */
function opensMs(items: readonly WorkItem[], run: Run, i: number, at: SheetOptions): number {
  const item = items[i]!;
  const own = at.stagesFromMs?.[item.stage] ?? 0;
  return isBusyBefore(items, run, item.stage) ? own : 0;
}

/**
 * The item to work on now: the present one while it has subs dealt, else the next of the earliest stretch: in order, or whichever
 * window closes first. Where all that was dealt is done and time is left, the present one goes on, then others, up to what is wanted.
 */
function choose(items: readonly WorkItem[], run: Run, o: Overheads, at: SheetOptions): number {
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
function beginning(firstMs: number, o: Overheads, at: SheetOptions): SheetEvent[] {
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
