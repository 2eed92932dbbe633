import { cycleSec, type Channel, type Overheads } from "~/core/exposure";
import { addMs, MINUTE_MS, type UtcInterval, type UtcMs } from "~/core/time";

/** What a night should do: so much exposure of one panel in one channel, possible only inside its windows. */
export interface WorkItem {
  readonly projectId: string;
  readonly panel: string;
  readonly channel: Channel;
  readonly filterName: string;
  readonly subSec: number;
  /** Wanted exposure. */
  readonly exposureMin: number;
  readonly windows: readonly UtcInterval[];
  /** Any upper transit of the panel, before, in or after the night: it tells on which side of the meridian it stands when. */
  readonly transitMs: UtcMs;
  /** Round after round in the order given: which rounds; absent = whenever its window closes first. */
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
  /** The rounds that it belongs to. */
  readonly turn?: string;
}

/** A break between blocks, with the time it takes. */
export interface SheetEvent {
  readonly kind: "setUp" | "align" | "centre" | "filter" | "focus" | "flip" | "wait";
  readonly startMs: UtcMs;
  readonly endMs: UtcMs;
  /** What is centred on, or which filter goes in. */
  readonly detail: string;
  /** Whose panel it is, where it is one. */
  readonly projectId?: string;
}

/** A night in order, and what did not fit. */
export interface RunSheet {
  readonly lines: readonly (Block | SheetEvent)[];
  readonly exposureMin: number;
  readonly leftOver: readonly { readonly panel: string; readonly channel: Channel; readonly exposureMin: number }[];
}

const isInside = (windows: readonly UtcInterval[], startMs: number, endMs: number) =>
  windows.some((w) => w.startMs <= startMs && endMs <= w.endMs);
const lastEnd = (item: WorkItem) => Math.max(...item.windows.map((w) => w.endMs), 0);

const SOON = 0.4; // of the focus interval
const ALIGN_SHARE = 0.4; // of the set-up that needs stars: polar alignment, a first focus, a test shot; a proposal of this project
const HALF_TURN_MS = 43_082_045; // half a sidereal day

/** How a night is begun, and what the mount does at the meridian. */
export interface SheetOptions {
  /** A mount that must change sides at the meridian. */
  readonly flips: boolean;
  /** Everything but what needs stars is done by sunset. */
  readonly standsBeforeDark: boolean;
  /** The evening's sunset, and when the first stars show (Sun at −8°); null where the Sun does not pass. */
  readonly sunsetMs: UtcMs | null;
  readonly starsMs: UtcMs | null;
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
  readonly leftSec: number[];
  now: number;
  focusDueMs: number;
  current: number;
  /** Side of the meridian the telescope points to; null until something is pointed at. */
  side: 0 | 1 | null;
}

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

/** Time between now and the first sub of an item: centring, filter, and focus when the filter differs or it is due. */
function leadMs(item: WorkItem, run: Run, before: WorkItem | undefined, o: Overheads): number {
  const isOtherFilter = item.channel !== before?.channel;
  const isRefocused = isOtherFilter && !isSameTurn(item, before);
  const centreMs = isSamePointing(item, before) ? 0 : o.panelChangeSec * 1000;
  const filterMs = isOtherFilter ? o.filterChangeSec * 1000 : 0;
  const focusMs = isRefocused || isFocusDue(run, run.now + centreMs + filterMs, o) ? o.focusMin * MINUTE_MS : 0;
  return centreMs + filterMs + focusMs;
}

/** Rather now, while nothing is running, than in the middle of the block. */
const isFocusDue = (run: Run, atMs: number, o: Overheads) => run.focusDueMs - atMs < SOON * o.focusEveryMin * MINUTE_MS;

/** The item to work on now: the present one while it can go on, else the usable one whose window closes first. */
function choose(items: readonly WorkItem[], run: Run, o: Overheads): number {
  const canRun = (i: number) => {
    const item = items[i];
    if (item === undefined || run.leftSec[i]! <= 0) return false;
    const from = run.now + (i === run.current ? 0 : leadMs(item, run, items[run.current], o));
    return isInside(item.windows, from, from + item.subSec * 1000);
  };
  if (canRun(run.current)) return run.current;
  const open = items.map((_, i) => i).filter(canRun);
  const rank = (i: number) => (items[i]!.turn === undefined ? lastEnd(items[i]!) : 0);
  return open.sort((a, b) => rank(a) - rank(b) || a - b)[0] ?? -1;
}

/** What is done before the first sub: by daylight and by the first stars where that is wanted, else right before. */
function beginning(firstMs: number, o: Overheads, at: SheetOptions): SheetEvent[] {
  const setUpMs = o.setUpMin * MINUTE_MS;
  const alignMs = setUpMs * ALIGN_SHARE;
  const alignBy = firstMs - alignMs;
  // Alignment as soon as stars show, so that nothing is left to do when the target comes; not before.
  const early = at.standsBeforeDark && at.starsMs !== null ? Math.min(at.starsMs, alignBy) : alignBy;
  const standBy = at.standsBeforeDark && at.sunsetMs !== null ? Math.min(at.sunsetMs, early) : early;
  const line = (kind: SheetEvent["kind"], startMs: number, lengthMs: number): SheetEvent => ({
    kind,
    startMs: startMs as UtcMs,
    endMs: addMs(startMs as UtcMs, lengthMs),
    detail: "",
  });
  return [line("setUp", standBy - (setUpMs - alignMs), setUpMs - alignMs), line("align", early, alignMs)];
}

/**
 * Lays out a night: centring, filter changes, focus when due, subs that never span the meridian, nothing outside the windows.
 * The side of the meridian is a state: whenever the next sub lies on the other side than the last, the mount flips, and focus
 * follows. Deterministic. Sub counts are whole; what does not fit is listed as left over; nothing follows the last sub.
 */
export function runSheet(items: readonly WorkItem[], o: Overheads, options: SheetOptions): RunSheet {
  const starts = items.flatMap((i) => i.windows.map((w) => w.startMs));
  const empty = {
    lines: [],
    exposureMin: 0,
    leftOver: items.map(({ panel, channel, exposureMin }) => ({ panel, channel, exposureMin })),
  };
  if (starts.length === 0) return empty;
  const first = Math.min(...starts);
  const end = Math.max(...items.map(lastEnd));
  const begun = beginning(first, o, options);
  const run: Run = {
    lines: [...begun],
    leftSec: items.map((i) => i.exposureMin * 60),
    now: Math.max(first, begun.at(-1)?.endMs ?? first),
    focusDueMs: 0,
    current: -1,
    side: null,
  };
  while (run.now < end) {
    const next = choose(items, run, o);
    if (next === -1) {
      const opening = Math.min(
        ...items.flatMap((i, k) =>
          run.leftSec[k]! > 0 ? i.windows.map((w) => w.startMs).filter((s) => s > run.now) : [],
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
  if (!lines.some((l) => l.kind === "block")) return empty;
  const over = new Map<string, { panel: string; channel: Channel; exposureMin: number }>();
  items.forEach((i, k) => {
    if (run.leftSec[k]! <= 30) return;
    const key = `${i.projectId} ${i.panel} ${i.channel}`;
    const sum = over.get(key) ?? { panel: i.panel, channel: i.channel, exposureMin: 0 };
    sum.exposureMin += run.leftSec[k]! / 60;
    over.set(key, sum);
  });
  const leftOver = [...over.values()];
  const exposureMin = lines.reduce((sum, l) => sum + (l.kind === "block" ? (l.subs * l.subSec) / 60 : 0), 0);
  return { lines, exposureMin, leftOver };
}

/** Nothing is prepared for a sub that never comes. */
const untilLastBlock = (lines: Run["lines"]): Run["lines"] =>
  lines.slice(0, lines.findLastIndex((l) => l.kind === "block") + 1);

/** Waits for the meridian where a sub would span it, and flips where the next sub lies on the other side; false when neither is called for. */
function changesSide(item: WorkItem, run: Run, o: Overheads): boolean {
  const passageMs = nextPassageMs(item, run.now);
  if (passageMs < run.now + item.subSec * 1000) {
    add(run, "wait", passageMs - run.now, "meridian");
    run.now = passageMs + 1; // past it, not upon it
    return true;
  }
  const side = sideAt(item, run.now);
  if (run.side === null || run.side === side) {
    run.side = side;
    return false;
  }
  add(run, "flip", o.flipMin * MINUTE_MS, item.panel, item.projectId);
  run.side = side;
  run.focusDueMs = 0; // the train hangs the other way round
  return true;
}

function prepare(item: WorkItem, before: WorkItem | undefined, run: Run, o: Overheads): void {
  if (!isSamePointing(item, before)) add(run, "centre", o.panelChangeSec * 1000, item.panel, item.projectId);
  if (item.channel !== before?.channel) {
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
  run.leftSec[index]! -= item.subSec;
  const last = run.lines.at(-1);
  if (
    last?.kind === "block" &&
    last.projectId === item.projectId &&
    last.panel === item.panel &&
    last.channel === item.channel &&
    last.subSec === item.subSec
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
      ...(item.turn === undefined ? {} : { turn: item.turn }),
    });
}
