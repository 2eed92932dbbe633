import { fixed } from "~/components/numbers";
import type { SkyData } from "~/core/catalog";
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import type { CatalogEntry } from "~/core/catalog";
import {
  chartView,
  fromScreen,
  isInPanel,
  skyToFrame,
  type MosaicLayout,
  type Panel,
  type ScreenPoint,
} from "~/core/framing";
import { offsetBy, positionAngleDeg, separationDeg, type Equatorial } from "~/core/sky";
import { useTheme } from "~/components/use-theme";
import { wrap360 } from "~/core/units";
import { drawCompass, drawOutlines } from "./marks-layer";
import { drawObjects, drawPatches } from "./object-layers";
import { viewRadiusDeg, type Ink } from "./pen";
import { drawBorders, drawFigures, drawGraticule, drawMilkyWay, drawStars } from "./sky-layers";
import { drawMosaic, handleOf } from "./mosaic-layer";
import { drawUnderlay, type Underlay } from "./underlay-layer";

/** What the chart looks at. */
export interface Gaze {
  readonly centre: Equatorial<"icrs">;
  readonly heightDeg: number;
}

interface Props {
  readonly gaze: Gaze;
  readonly onGaze: (gaze: Gaze) => void;
  readonly data: SkyData | null;
  readonly objects: readonly CatalogEntry[];
  /** Ids of the objects whose outline is shown: chosen, or near the pointer. The same list until it changes. */
  readonly outlined?: readonly string[];
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly seamStars: readonly Equatorial<"icrs">[];
  readonly onMove: (centre: Equatorial<"icrs">) => void;
  readonly onTurn: (positionAngleDeg: number) => void;
  /** Moves a panel put down by hand: its centre in the mosaic's frame, arcmin. */
  readonly onMovePanel?: (number: number, xArcmin: number, yArcmin: number) => void;
  /** Up on the chart: north, or the frame's own up axis. */
  readonly up?: "north" | "frame";
  readonly isMirrored?: boolean;
  readonly labelOf: (panelNumber: number) => string;
  readonly outlines?: readonly { readonly name: string; readonly corners: readonly (readonly [number, number])[] }[];
  /** A picture of one's own under everything. */
  readonly underlay?: Underlay | null;
  /** Corners of an outline being drawn; while there are any (or none yet), a press puts down the next. */
  readonly draft?: readonly (readonly [number, number])[] | null;
  readonly onCorner?: (at: Equatorial<"icrs">) => void;
  /** What lies under the pointer while nothing is held; null when it leaves. */
  /** The frame or a panel is taken hold of, and let go: what comes between is one gesture. */
  readonly onGrip?: () => void;
  readonly onLetGo?: () => void;
  readonly onHover?: (at: Equatorial<"icrs"> | null, reachDeg: number) => void;
  readonly onPress?: (at: Equatorial<"icrs">, reachDeg: number) => void;
}

const HOVER_PX = 9;
const PRESS_PX = 4; // a press that moves further is a drag

const INKS = ["ground", "rule", "ink", "soft", "faint", "lamp", "moonlit", "rust", "sage", "twilight"] as const;
const NONE: NonNullable<Props["outlines"]> = [];
const NO_IDS: readonly string[] = [];
const MIN_DEG = 5 / 60;
const MAX_DEG = 60;

function inkOf(element: Element): Ink {
  const style = getComputedStyle(element);
  return Object.fromEntries(INKS.map((name) => [name, style.getPropertyValue(`--${name}`)])) as unknown as Ink;
}

/** The chart keeps its size in CSS pixels and redraws when its box changes. */
function useSize(canvas: React.RefObject<HTMLCanvasElement | null>): { readonly w: number; readonly h: number } {
  const [size, setSize] = useState({ w: 800, h: 520 });
  useLayoutEffect(() => {
    const box = canvas.current?.parentElement;
    if (!box) return;
    const observer = new ResizeObserver(() => setSize({ w: box.clientWidth, h: box.clientHeight }));
    observer.observe(box);
    return () => observer.disconnect();
  }, [canvas]);
  return size;
}

type Grip =
  | { readonly kind: "pan"; readonly held: Equatorial<"icrs"> }
  | { readonly kind: "move"; readonly from: Equatorial<"icrs">; readonly centre: Equatorial<"icrs"> }
  /** A panel put down by hand; where its centre lies from the pointer, arcmin in the frame. */
  | { readonly kind: "panel"; readonly number: number; readonly dx: number; readonly dy: number }
  | { readonly kind: "turn" };

/** Moves a direction as the pointer went: the same shift along bearing and distance. */
function shifted(centre: Equatorial<"icrs">, from: Equatorial<"icrs">, to: Equatorial<"icrs">): Equatorial<"icrs"> {
  return offsetBy(centre, { positionAngleDeg: positionAngleDeg(from, to), distanceDeg: separationDeg(from, to) });
}

/** A sky chart with the rig's mosaic on it. Drag the frame to move it, its handle to turn it, the sky to pan; wheel zooms. */
export function SkyChart({
  gaze,
  onGaze,
  data,
  objects,
  outlined = NO_IDS,
  layout,
  panels,
  seamStars,
  onMove,
  onTurn,
  onMovePanel,
  up = "north",
  isMirrored = false,
  labelOf,
  outlines = NONE,
  draft = null,
  underlay = null,
  onCorner,
  onGrip,
  onLetGo,
  onHover,
  onPress,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const grip = useRef<Grip | null>(null);
  const [cursor, setCursor] = useState("grab");
  const { w, h } = useSize(canvas);
  const theme = useTheme();
  const rollDeg = up === "frame" ? layout.positionAngleDeg : 0;
  const look = useMemo(() => ({ rollDeg, isMirrored, widthPx: w, heightPx: h }), [rollDeg, isMirrored, w, h]);
  const view = chartView({ ...gaze, ...look });
  const pressed = useRef<ScreenPoint | null>(null);

  useEffect(() => {
    const element = canvas.current;
    const ctx = element?.getContext("2d");
    if (!element || !ctx) return;
    const frame = requestAnimationFrame(() => {
      const ratio = window.devicePixelRatio;
      element.width = w * ratio;
      element.height = h * ratio;
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
      const v = chartView({ ...gaze, ...look });
      const ink = inkOf(element);
      ctx.fillStyle = ink.ground;
      ctx.fillRect(0, 0, w, h);
      drawMilkyWay(ctx, v, ink);
      if (underlay) drawUnderlay(ctx, v, underlay);
      drawGraticule(ctx, v, ink);
      if (data) drawBorders(ctx, v, data, ink);
      if (data) drawFigures(ctx, v, data, ink);
      drawPatches(ctx, v, objects, ink);
      drawObjects(ctx, v, objects, new Set(outlined), ink);
      if (data) drawStars(ctx, v, data, ink);
      drawOutlines(ctx, v, outlines, draft, ink);
      drawMosaic(ctx, v, layout, panels, seamStars, labelOf, ink);
      drawCompass(ctx, v, ink);
    });
    return () => cancelAnimationFrame(frame);
  }, [gaze, look, w, h, data, objects, outlined, layout, panels, seamStars, theme, outlines, draft, labelOf, underlay]);

  const zoom = (factor: number, about?: ScreenPoint) => {
    const heightDeg = Math.min(MAX_DEG, Math.max(MIN_DEG, gaze.heightDeg * factor));
    if (!about) return onGaze({ ...gaze, heightDeg });
    const held = fromScreen(view, about);
    const wider = chartView({ centre: gaze.centre, heightDeg, ...look });
    onGaze({ centre: shifted(gaze.centre, fromScreen(wider, about), held), heightDeg });
  };
  useEffect(() => {
    const element = canvas.current;
    if (!element) return;
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      zoom(Math.exp(event.deltaY * 0.0015), { x: event.clientX - box.left, y: event.clientY - box.top });
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  });

  const pointOf = (event: PointerEvent): ScreenPoint => {
    const box = event.currentTarget.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  };
  const gripAt = (p: ScreenPoint): Grip => {
    const handle = handleOf(view, layout);
    if (handle && Math.hypot(p.x - handle.x, p.y - handle.y) < 14) return { kind: "turn" };
    const at = fromScreen(view, p);
    const inside = skyToFrame(layout, at);
    const byHand =
      inside && onMovePanel ? panels.find((panel) => panel.row === 0 && isInPanel(layout, panel, inside)) : undefined;
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
  };
  const onPointerMove = (event: PointerEvent) => {
    const p = pointOf(event);
    const held = grip.current;
    if (!held) {
      onHover?.(fromScreen(view, p), HOVER_PX / view.pxPerDeg);
      const kind = draft ? "turn" : gripAt(p).kind;
      setCursor(kind === "turn" ? "crosshair" : kind === "pan" ? "grab" : "move");
      return;
    }
    if (pressed.current && Math.hypot(p.x - pressed.current.x, p.y - pressed.current.y) < PRESS_PX) return;
    pressed.current = null;
    const at = fromScreen(view, p);
    if (held.kind === "pan") onGaze({ ...gaze, centre: shifted(gaze.centre, at, held.held) });
    else if (held.kind === "panel") {
      const to = skyToFrame(layout, at);
      if (to) onMovePanel?.(held.number, to.xArcmin + held.dx, to.yArcmin + held.dy);
    } else if (held.kind === "move") onMove(shifted(held.centre, held.from, at));
    else onTurn(Math.round(positionAngleDeg(layout.centre, at) * 10) / 10);
  };
  const letGo = () => {
    if (grip.current && grip.current.kind !== "pan") onLetGo?.();
    grip.current = null;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const stepDeg = (event.shiftKey ? 10 : 1) / 60;
    // Arrows go as the chart shows it, however it is turned.
    const left = isMirrored ? 270 : 90;
    const toward: Record<string, number> = {
      ArrowUp: rollDeg,
      ArrowLeft: rollDeg + left,
      ArrowDown: rollDeg + 180,
      ArrowRight: rollDeg + left + 180,
    };
    const turn = event.key === "," || event.key === "<" ? -1 : event.key === "." || event.key === ">" ? 1 : 0;
    if (event.key in toward)
      onMove(offsetBy(layout.centre, { positionAngleDeg: wrap360(toward[event.key]!), distanceDeg: stepDeg }));
    else if (turn !== 0) onTurn(wrap360(layout.positionAngleDeg + turn * (event.shiftKey ? 0.1 : 1)));
    else if (event.key === "+" || event.key === "=") zoom(0.8);
    else if (event.key === "-") zoom(1.25);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <canvas
      ref={canvas}
      className="absolute inset-0 h-full w-full touch-none"
      style={{ cursor }}
      tabIndex={0}
      role="application"
      aria-label={`Sky chart with ${panels.length === 1 ? "the frame" : `${panels.length} panels`} at ${fixed(layout.centre.raDeg, 3)}, ${fixed(layout.centre.decDeg, 3)} degrees. Arrows nudge, comma and period turn, plus and minus zoom.`}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        pressed.current = pointOf(e);
        const held = gripAt(pointOf(e));
        grip.current = draft && held.kind !== "pan" ? { kind: "pan", held: fromScreen(view, pointOf(e)) } : held;
        if (grip.current.kind !== "pan") onGrip?.();
      }}
      onPointerMove={onPointerMove}
      onPointerLeave={() => onHover?.(null, 0)}
      onPointerUp={(e) => {
        const at = pressed.current ? fromScreen(view, pointOf(e)) : null;
        if (at && draft) onCorner?.(at);
        else if (at) onPress?.(at, HOVER_PX / view.pxPerDeg);
        pressed.current = null;
        letGo();
      }}
      onPointerCancel={letGo}
      onKeyDown={onKeyDown}
    />
  );
}

/** Radius around the centre in which a chart of this gaze needs objects. */
export const gazeRadiusDeg = (gaze: Gaze): number =>
  Math.min(90, viewRadiusDeg(chartView({ ...gaze, widthPx: 1200, heightPx: 700 })) * 1.1);
