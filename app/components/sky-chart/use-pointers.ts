import { useEffect, useRef, useState, type PointerEvent } from "react";
import {
  fromScreen,
  isInPanel,
  skyToFrame,
  type ChartView,
  type MosaicLayout,
  type Panel,
  type ScreenPoint,
} from "~/core/framing";
import { positionAngleDeg, type Equatorial } from "~/core/sky";
import { wrap360 } from "~/core/units";
import { handleOf } from "~/drawing";
import { pinched, shifted, twisted, type ChartLie, type Fingers, type Gaze } from "./gestures";

const HOVER_PX = 9;
const PRESS_PX = 4; // a press that moves further is a drag
const FINGER_PX = 10; // a finger trembles
const HANDLE_PX = { mouse: 14, touch: 30 };
const HOLD_MS = 450; // a finger that rests on the frame so long takes hold of it

/** What pointers do to a chart. */
export interface ChartDeeds {
  readonly onGaze: (gaze: Gaze) => void;
  readonly onMove: (centre: Equatorial<"icrs">) => void;
  readonly onTurn: (positionAngleDeg: number) => void;
  /** Moves a panel put down by hand: its centre in the mosaic's frame, arcmin. */
  readonly onMovePanel?: ((number: number, xArcmin: number, yArcmin: number) => void) | undefined;
  readonly onCorner?: ((at: Equatorial<"icrs">) => void) | undefined;
  /** A line is drawn by dragging; while this is given, nothing else is taken hold of. One that comes to nothing is done without length. */
  readonly onLine?: ((from: Equatorial<"icrs">, to: Equatorial<"icrs">, isDone: boolean) => void) | undefined;
  /** The frame or a panel is taken hold of, and let go: what comes between is one gesture. */
  readonly onGrip?: (() => void) | undefined;
  readonly onLetGo?: (() => void) | undefined;
  /** What lies under the pointer while nothing is held; null when it leaves. */
  readonly onHover?: ((at: Equatorial<"icrs"> | null, reachDeg: number) => void) | undefined;
  readonly onPress?: ((at: Equatorial<"icrs">, reachDeg: number) => void) | undefined;
}

interface Chart extends ChartDeeds {
  readonly gaze: Gaze;
  readonly lie: ChartLie;
  readonly view: ChartView;
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  /** An outline is being drawn: a press puts down its next corner, and nothing of the frame is taken hold of. */
  readonly isDrawing: boolean;
}

type Grip =
  | { readonly kind: "pan"; readonly held: Equatorial<"icrs"> }
  | { readonly kind: "move"; readonly from: Equatorial<"icrs">; readonly centre: Equatorial<"icrs"> }
  /** A panel put down by hand; where its centre lies from the pointer, arcmin in the frame. */
  | { readonly kind: "panel"; readonly number: number; readonly dx: number; readonly dy: number }
  | { readonly kind: "turn" }
  | { readonly kind: "line"; readonly from: Equatorial<"icrs"> }
  /** Two fingers: from where, and what the chart and the frame were then. */
  | { readonly kind: "fingers"; readonly from: Fingers; readonly gaze: Gaze; readonly turnDeg: number };

/** What lies under a point: the handle that turns, the frame, a panel of its own, or the sky. */
function gripAt({ view, layout, panels, onMovePanel }: Chart, p: ScreenPoint, handlePx: number): Grip {
  const handle = handleOf(view, layout);
  if (handle && Math.hypot(p.x - handle.x, p.y - handle.y) < handlePx) return { kind: "turn" };
  const at = fromScreen(view, p);
  const inside = skyToFrame(layout, at);
  const byHand = inside && onMovePanel ? panels.find((o) => o.row === 0 && isInPanel(layout, o, inside)) : undefined;
  if (inside && byHand)
    return {
      kind: "panel",
      number: byHand.number,
      dx: byHand.xArcmin - inside.xArcmin,
      dy: byHand.yArcmin - inside.yArcmin,
    };
  if (inside && panels.some((panel) => isInPanel(layout, panel, inside)))
    return { kind: "move", from: at, centre: layout.centre };
  return { kind: "pan", held: at };
}

const isOfFrame = (grip: Grip | null): boolean =>
  grip !== null && grip.kind !== "pan" && grip.kind !== "line" && (grip.kind !== "fingers" || grip.turnDeg !== 0);

/**
 * Mouse, pen and fingers on a chart. A mouse drags what it points at. One finger drags the sky, and takes hold of the frame only by
 * its handle or when it rests on it; two fingers zoom and pan the sky, and turn the frame once their twist is meant.
 */
export function usePointers(chart: Chart) {
  const { gaze, lie, view, layout, isDrawing } = chart;
  const grip = useRef<Grip | null>(null);
  const pressed = useRef<ScreenPoint | null>(null);
  const fingers = useRef(new Map<number, ScreenPoint>());
  const waiting = useRef<ReturnType<typeof setTimeout> | null>(null);
  const [cursor, setCursor] = useState("grab");
  const [isHeld, setHeld] = useState(false);
  const stopWaiting = () => {
    if (waiting.current !== null) clearTimeout(waiting.current);
    waiting.current = null;
  };
  useEffect(() => stopWaiting, []);

  const pointOf = (event: PointerEvent): ScreenPoint => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const pan = (p: ScreenPoint): Grip => ({ kind: "pan", held: fromScreen(view, p) });
  const take = (next: Grip) => {
    grip.current = next;
    if (isOfFrame(next)) chart.onGrip?.();
  };
  const letGo = () => {
    stopWaiting();
    const held = grip.current;
    if (isOfFrame(held)) chart.onLetGo?.();
    if (held?.kind === "line") chart.onLine?.(held.from, held.from, true);
    grip.current = null;
    setHeld(false);
  };
  const two = (): Fingers | null => {
    const [a, b] = [...fingers.current.values()];
    return a && b ? [a, b] : null;
  };

  const onPointerDown = (e: PointerEvent) => {
    e.currentTarget.setPointerCapture(e.pointerId);
    const p = pointOf(e);
    const isFinger = e.pointerType === "touch";
    if (isFinger) fingers.current.set(e.pointerId, p);
    const pair = two();
    if (pair) {
      letGo();
      pressed.current = null;
      grip.current = { kind: "fingers", from: pair, gaze, turnDeg: 0 };
      return;
    }
    pressed.current = p;
    if (chart.onLine) return take({ kind: "line", from: fromScreen(view, p) });
    const under = gripAt(chart, p, HANDLE_PX[isFinger ? "touch" : "mouse"]);
    if (isDrawing) return take(pan(p));
    if (!isFinger || under.kind === "turn") return take(under);
    take(pan(p));
    if (under.kind === "pan") return;
    stopWaiting();
    waiting.current = setTimeout(() => {
      if (pressed.current === null) return; // it went somewhere
      pressed.current = null;
      take(under);
      setHeld(true);
    }, HOLD_MS);
  };

  const onPointerMove = (event: PointerEvent) => {
    const p = pointOf(event);
    const isFinger = event.pointerType === "touch";
    if (isFinger && fingers.current.has(event.pointerId)) fingers.current.set(event.pointerId, p);
    const held = grip.current;
    if (!held) {
      chart.onHover?.(fromScreen(view, p), HOVER_PX / view.pxPerDeg);
      const kind = isDrawing || chart.onLine ? "turn" : gripAt(chart, p, HANDLE_PX.mouse).kind;
      setCursor(kind === "turn" ? "crosshair" : kind === "pan" ? "grab" : "move");
      return;
    }
    if (held.kind === "fingers") return byFingers(held);
    const still = isFinger ? FINGER_PX : PRESS_PX;
    if (pressed.current && Math.hypot(p.x - pressed.current.x, p.y - pressed.current.y) < still) return;
    pressed.current = null;
    stopWaiting();
    const at = fromScreen(view, p);
    if (held.kind === "line") chart.onLine?.(held.from, at, false);
    else if (held.kind === "pan") chart.onGaze({ ...gaze, centre: shifted(gaze.centre, at, held.held) });
    else if (held.kind === "panel") {
      const to = skyToFrame(layout, at);
      if (to) chart.onMovePanel?.(held.number, to.xArcmin + held.dx, to.yArcmin + held.dy);
    } else if (held.kind === "move") chart.onMove(shifted(held.centre, held.from, at));
    else chart.onTurn(Math.round(positionAngleDeg(layout.centre, at) * 10) / 10);
  };

  const byFingers = (held: Extract<Grip, { kind: "fingers" }>) => {
    const now = two();
    if (!now) return;
    chart.onGaze(pinched(held.gaze, lie, held.from, now));
    const turnDeg = isDrawing ? 0 : twisted(held.from, now, lie.isMirrored);
    if (turnDeg === held.turnDeg) return;
    if (held.turnDeg === 0) chart.onGrip?.();
    chart.onTurn(Math.round(wrap360(layout.positionAngleDeg + turnDeg - held.turnDeg) * 10) / 10);
    grip.current = { ...held, turnDeg };
  };

  const onPointerUp = (e: PointerEvent) => {
    const p = pointOf(e);
    fingers.current.delete(e.pointerId);
    if (grip.current?.kind === "fingers") {
      letGo();
      // The finger that stays goes on dragging the sky.
      const [rest] = fingers.current.values();
      if (rest) grip.current = pan(rest);
      return;
    }
    const at = pressed.current ? fromScreen(view, p) : null;
    const held = grip.current;
    if (held?.kind === "line") {
      if (!at) grip.current = null;
      if (!at) chart.onLine?.(held.from, fromScreen(view, p), true);
    } else if (at && isDrawing) chart.onCorner?.(at);
    else if (at) chart.onPress?.(at, (e.pointerType === "touch" ? 2 * HOVER_PX : HOVER_PX) / view.pxPerDeg);
    pressed.current = null;
    letGo();
  };

  const onPointerCancel = (e: PointerEvent) => {
    fingers.current.delete(e.pointerId);
    pressed.current = null;
    letGo();
  };

  return {
    cursor,
    /** A finger has taken hold of the frame. */
    isHeld,
    handlers: {
      onPointerDown,
      onPointerMove,
      onPointerUp,
      onPointerCancel,
      onPointerLeave: () => chart.onHover?.(null, 0),
    },
  };
}
