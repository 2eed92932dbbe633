import { fixed } from "~/components/numbers";
import { inkOf, pixelRatio } from "~/components/canvas";
import type { SkyData } from "~/core/catalog";
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import type { CatalogEntry } from "~/core/catalog";
import { chartView, type MosaicLayout, type Panel, type ScreenPoint } from "~/core/framing";
import { offsetBy, type Equatorial } from "~/core/sky";
import { spokenDeclination, spokenRightAscension } from "~/core/notation";
import { useTheme } from "~/components/use-theme";
import { wrap360 } from "~/core/units";
import {
  drawBackdrop,
  drawBorders,
  drawCompass,
  drawFigures,
  drawGraticule,
  drawMilkyWay,
  drawMosaic,
  drawObjects,
  drawOutlines,
  drawPatches,
  drawStars,
  drawUnderlay,
  viewRadiusDeg,
  type Backdrop,
  type ChartAsked,
  type Underlay,
} from "~/drawing";
import { zoomed, type Gaze } from "./gestures";
import { usePointers, type ChartDeeds } from "./use-pointers";

export type { Gaze } from "./gestures";

interface Props extends ChartDeeds {
  readonly gaze: Gaze;
  readonly data: SkyData | null;
  readonly objects: readonly CatalogEntry[];
  /** Ids of the objects whose outline is shown: chosen, or near the pointer. The same list until it changes. */
  readonly outlined?: readonly string[];
  readonly layout: MosaicLayout;
  readonly panels: readonly Panel[];
  readonly seamStars: readonly Equatorial<"icrs">[];
  /** Up on the chart: north, or the frame's own up axis. */
  readonly up?: "north" | "frame";
  readonly isMirrored?: boolean;
  readonly labelOf: (panelNumber: number) => string;
  readonly outlines?: readonly { readonly name: string; readonly corners: readonly (readonly [number, number])[] }[];
  /** A picture of one's own under everything. */
  readonly underlay?: Underlay | null;
  /** A picture of the sky behind everything, in place of what is drawn of it. */
  readonly backdrop?: Backdrop | null;
  /** Hears what the chart shows, in pixels of the screen, whenever it is another view. */
  readonly onView?: ((chart: ChartAsked) => void) | undefined;
  /** Corners of an outline or a line being drawn; while there are any (or none yet), a press puts down the next, unless a line is drawn. */
  readonly draft?: readonly (readonly [number, number])[] | null;
}

const NONE: NonNullable<Props["outlines"]> = [];
const NO_IDS: readonly string[] = [];

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

/** A sky chart with the rig's mosaic on it. Drag the frame to move it, its handle to turn it, the sky to pan; wheel and two fingers zoom. */
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
  backdrop = null,
  onView,
  onCorner,
  onLine,
  onGrip,
  onLetGo,
  onHover,
  onPress,
}: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { w, h } = useSize(canvas);
  const theme = useTheme();
  const rollDeg = up === "frame" ? layout.positionAngleDeg : 0;
  const look = useMemo(() => ({ rollDeg, isMirrored, widthPx: w, heightPx: h }), [rollDeg, isMirrored, w, h]);
  const view = chartView({ ...gaze, ...look });
  const { cursor, isHeld, handlers } = usePointers({
    gaze,
    lie: look,
    view,
    layout,
    panels,
    isDrawing: draft !== null,
    onGaze,
    onMove,
    onTurn,
    onMovePanel,
    onCorner,
    onLine,
    onGrip,
    onLetGo,
    onHover,
    onPress,
  });

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
      if (backdrop) drawBackdrop(ctx, v, backdrop);
      else drawMilkyWay(ctx, v, ink);
      if (underlay) drawUnderlay(ctx, v, underlay);
      drawGraticule(ctx, v, ink);
      if (data) drawBorders(ctx, v, data, ink);
      if (data) drawFigures(ctx, v, data, ink);
      if (!backdrop) drawPatches(ctx, v, objects, ink);
      drawObjects(ctx, v, objects, new Set(outlined), ink);
      if (data) drawStars(ctx, v, data, ink);
      drawOutlines(ctx, v, outlines, draft, ink);
      drawMosaic(ctx, v, layout, panels, seamStars, labelOf, ink);
      drawCompass(ctx, v, ink);
    });
    return () => cancelAnimationFrame(frame);
  }, [
    gaze,
    look,
    w,
    h,
    data,
    objects,
    outlined,
    layout,
    panels,
    seamStars,
    theme,
    outlines,
    draft,
    labelOf,
    underlay,
    backdrop,
  ]);
  useEffect(() => {
    if (!onView) return;
    const ratio = pixelRatio();
    onView({ ...gaze, ...look, widthPx: Math.round(w * ratio), heightPx: Math.round(h * ratio) });
  }, [gaze, look, w, h, onView]);

  const zoom = (factor: number, about: ScreenPoint = { x: w / 2, y: h / 2 }) =>
    onGaze(zoomed(gaze, look, factor, about));
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
    <>
      <canvas
        ref={canvas}
        className="turns-to-ink absolute inset-0 h-full w-full touch-none print:object-contain"
        style={{ cursor }}
        tabIndex={0}
        role="application"
        aria-label={`Sky chart with ${panels.length === 1 ? "the frame" : `${panels.length} panels`} at right ascension ${spokenRightAscension(layout.centre.raDeg)}, declination ${spokenDeclination(layout.centre.decDeg)}, camera at ${fixed(layout.positionAngleDeg, 1)} degrees. Arrows nudge, comma and period turn, plus and minus zoom.`}
        onKeyDown={onKeyDown}
        {...handlers}
      />
      <p className="pointer-events-none absolute inset-x-0 bottom-2 text-center" role="status">
        {isHeld ? (
          <span className="bg-lamp text-on-lamp rounded-full px-3 py-1">The frame moves with your finger</span>
        ) : null}
      </p>
    </>
  );
}

/** Radius around the centre in which a chart of this gaze needs objects. */
export const gazeRadiusDeg = (gaze: Gaze): number =>
  Math.min(90, viewRadiusDeg(chartView({ ...gaze, widthPx: 1200, heightPx: 700 })) * 1.1);
