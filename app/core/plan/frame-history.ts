import { panelName, skyToFrame, USUAL_OVERLAP, type Optics, type Panel } from "~/core/framing";
import { separationDeg } from "~/core/sky";
import { degToRad, turnTo } from "~/core/units";
import { layoutOf, panelsOf, type FrameData } from "./project";

/** What a change of a frame makes of a panel with hours, held against where those were taken. */
export interface PanelMove {
  /** Its name before: "P3". */
  readonly panel: string;
  /** The panel that its exposures still fill; null = none. */
  readonly becomes: string | null;
  /** How far the nearest panel's centre lies from where it was, arcminutes. */
  readonly offArcmin: number;
  /** How far the camera is turned there, degrees, at most 90: a rectangle is the same at 180°. */
  readonly turnDeg: number;
}

const STANDS_STILL = { arcmin: 0.02, deg: 0.005 } as const; // a second of arc, and what a text field rounds away

/**
 * Whether exposures of `before` still fill `now`, both of one rig: shift and turn together take no more of a side than its overlap
 * gives (MATHS 5.5: o h ≥ w sin ε + 2 e, and with the sides swapped). A single frame has its rim to lose instead of an overlap, as
 * much as the usual one.
 */
function fills(
  before: Panel,
  now: Panel,
  sides: { readonly w: number; readonly h: number },
  overlap: number,
  overlapRows: number,
): boolean {
  const turn = degToRad(turnBetween(before.positionAngleDeg, now.positionAngleDeg));
  const at = skyToFrame(now, before.centre);
  if (!at) return false;
  const lost = {
    w: sides.h * Math.sin(turn) + 2 * Math.abs(at.xArcmin),
    h: sides.w * Math.sin(turn) + 2 * Math.abs(at.yArcmin),
  };
  return lost.w <= overlap * sides.w && lost.h <= overlapRows * sides.h;
}

/** The angle between two cameras' sides, degrees, 0 to 90. */
const turnBetween = (a: number, b: number): number => Math.abs(turnTo(a, b));

/**
 * What a change of a frame does to panels that have hours: for each the panel that its exposures still fill, found by where it
 * stands and not by its number. Panels left out of the mosaic are looked at as if they were in it: their hours stay theirs.
 */
export function panelMoves(
  before: FrameData,
  after: FrameData,
  optics: Optics,
  withHours: readonly string[],
): PanelMove[] {
  const whole = ({ skipped: _, ...frame }: FrameData) => panelsOf(frame, optics);
  const layout = layoutOf(after, optics);
  const sides = { w: layout.planeWidthArcmin, h: layout.planeHeightArcmin };
  const overlap = layout.overlap > 0 ? layout.overlap : USUAL_OVERLAP;
  const panels = whole(after);
  return whole(before).flatMap((old) => {
    const panel = panelName(old.number);
    if (!withHours.includes(panel)) return [];
    const [nearest] = panels
      .map((now) => ({ now, offArcmin: separationDeg(old.centre, now.centre) * 60 }))
      .sort(
        (a, b) =>
          a.offArcmin - b.offArcmin || Math.abs(a.now.number - old.number) - Math.abs(b.now.number - old.number),
      );
    if (!nearest) return [{ panel, becomes: null, offArcmin: 0, turnDeg: 0 }];
    const { now, offArcmin } = nearest;
    return [
      {
        panel,
        becomes: fills(old, now, sides, overlap, layout.overlapRows ?? overlap) ? panelName(now.number) : null,
        offArcmin,
        turnDeg: turnBetween(old.positionAngleDeg, now.positionAngleDeg),
      },
    ];
  });
}

/** The moves that are moves: a panel that stands where it did, under its own number, is none. */
const realMoves = (moves: readonly PanelMove[]): PanelMove[] =>
  moves.filter((m) => m.becomes !== m.panel || m.offArcmin > STANDS_STILL.arcmin || m.turnDeg > STANDS_STILL.deg);

interface StoredFrame {
  readonly id: string;
  readonly data: FrameData;
}

/** What a log entry says of the frame it was taken with. */
interface Taken {
  readonly panel: string;
  readonly frameId?: string;
}

/** A log entry as far as a change of its frame concerns it. */
interface TakenHours extends Taken {
  readonly kept: number;
  readonly exposureSec: number;
}

/** Frames of a project as they are stored, and which of them is the reference. */
export interface FrameStock {
  readonly frames: readonly StoredFrame[];
  readonly referenceId: string;
}

const MOST_STEPS = 200;

/** A frame and those it follows, latest first; a ring, as only an edited file has it, is cut. */
function lineOf(frameId: string, frames: readonly StoredFrame[]): StoredFrame[] {
  const line: StoredFrame[] = [];
  let next = frames.find((f) => f.id === frameId);
  while (next !== undefined && !line.includes(next) && line.length < MOST_STEPS) {
    line.push(next);
    const before = next.data.follows?.frameId;
    next = frames.find((f) => f.id === before);
  }
  return line;
}

/** The frame an entry was taken with: one that names none, with the first of those that the reference frame follows. */
const takenWith =
  ({ frames, referenceId }: FrameStock) =>
  (entry: Taken): string | undefined =>
    entry.frameId ?? lineOf(referenceId, frames).at(-1)?.id;

/** The panel of the first frame of a line that stands for a panel of one of its later members; null = none. */
function carried(line: readonly StoredFrame[], depth: number, panel: string): string | null {
  let name: string | undefined = panel;
  for (let i = depth - 1; i >= 0 && name !== undefined; i--) name = line[i]?.data.follows?.panels[name];
  return name ?? null;
}

/**
 * Which panel of a frame an entry counts for; null when it was taken with another frame. An entry of a frame that this one
 * follows counts for the panel that took its place.
 */
export function panelCountedFor(frameId: string, stock: FrameStock): (entry: Taken) => string | null {
  const line = lineOf(frameId, stock.frames);
  const frameOf = takenWith(stock);
  return (entry) => {
    const id = frameOf(entry);
    const depth = line.findIndex((f) => f.id === id);
    return depth === -1 ? null : carried(line, depth, entry.panel);
  };
}

/** What a change of a frame means for the hours that count in it. */
export interface FrameChange {
  /** Every panel with hours that would stand elsewhere: empty = nothing to ask. */
  readonly moves: readonly PanelMove[];
  /** Kept minutes that this concerns. */
  readonly keptMin: number;
  /** What the changed frame follows if the old hours still count; null when those of a panel would not fill one any more. */
  readonly follows: NonNullable<FrameData["follows"]> | null;
  /** Whether hours were taken with this very frame: then it stays as it is, and the changed one is another. */
  readonly hasOwnHours: boolean;
}

/**
 * Holds a changed frame against where its hours were really taken: with this frame, and with each of those it follows, so that
 * many small moves do not add up to a large one unseen.
 */
export function frameChange(
  frame: StoredFrame,
  after: FrameData,
  stock: FrameStock,
  optics: Optics,
  entries: readonly TakenHours[],
): FrameChange {
  const line = lineOf(frame.id, stock.frames);
  const frameOf = takenWith(stock);
  const withHours = entries.filter((e) => e.kept > 0);
  const hasOwnHours = withHours.some((e) => frameOf(e) === frame.id);
  const taken = line.flatMap((old, depth) => {
    const kept = new Map<string, number>();
    for (const e of withHours)
      if (frameOf(e) === old.id) kept.set(e.panel, (kept.get(e.panel) ?? 0) + (e.kept * e.exposureSec) / 60);
    return panelMoves(old.data, after, optics, [...kept.keys()]).flatMap((move) => {
      const now = carried(line, depth, move.panel);
      return now === null ? [] : [{ move, depth, now, keptMin: kept.get(move.panel)! }];
    });
  });
  const edit = realMoves(panelMoves(frame.data, after, optics, [...new Set(taken.map((t) => t.now))]));
  // The changed frame follows this one if that has hours of its own to keep, else it takes its place after the one before.
  const base = hasOwnHours ? 0 : 1;
  const worst = new Map<string, PanelMove>();
  const panels: Record<string, string> = {};
  let keptMin = 0;
  let isFilled = true;
  for (const { move, depth, now, keptMin: minutes } of taken) {
    const { becomes } = move;
    const from = carried(line.slice(base), depth - base, move.panel);
    if (becomes === null) isFilled = false;
    else if (from !== null) {
      if ((panels[from] ?? becomes) !== becomes) isFilled = false;
      panels[from] = becomes;
    }
    if (!edit.some((m) => m.panel === now)) continue;
    keptMin += minutes;
    const before = worst.get(now);
    if (!before || (before.becomes !== null && (becomes === null || move.offArcmin > before.offArcmin)))
      worst.set(now, { ...move, panel: now });
  }
  const followed = line[base]?.id;
  return {
    moves: [...worst.values()],
    keptMin,
    follows: isFilled && followed !== undefined ? { frameId: followed, panels } : null,
    hasOwnHours,
  };
}

/** Frames that another one follows: kept for their hours, no longer shot. */
export const isFollowed = (frameId: string, frames: readonly StoredFrame[]): boolean =>
  frames.some((f) => f.data.follows?.frameId === frameId && f.id !== frameId);
