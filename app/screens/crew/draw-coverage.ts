import { fixed } from "~/components/numbers";
import { skyToFrame, weightAt, type CoveringFrame, type PlaneBox } from "~/core/framing";
import type { CoverageLayer } from "~/desk/sky/answers";

/** Colours of a theme that the map is drawn in. */
export interface MapInk {
  readonly ground: string;
  readonly ink: string;
  readonly soft: string;
  readonly rust: string;
  /** From the shallowest band to the deepest. */
  readonly bands: readonly string[];
}

/** Shares of the goal at which a band begins. */
export const BANDS = [0, 0.25, 0.5, 0.75, 1, 1.5] as const;

/** The band of some hours, by the goal; −1 = nothing was taken there. */
export const bandOf = (hours: number, goalHours: number): number =>
  hours <= 0 ? -1 : BANDS.findLastIndex((from) => hours >= from * goalHours * 0.995);

/** Colours as the page has them now. */
export function inkOf(element: Element): MapInk {
  const style = getComputedStyle(element);
  const of = (name: string) => style.getPropertyValue(`--${name}`).trim() || "#888";
  const mix = (share: number) => `color-mix(in oklab, ${of("lamp")} ${share}%, ${of("raised")})`;
  return {
    ground: of("ground"),
    ink: of("ink"),
    soft: of("soft"),
    rust: of("rust"),
    bands: [12, 28, 44, 62, 84, 100].map((share, i) =>
      i === 5 ? `color-mix(in oklab, ${of("lamp")} 70%, ${of("ink")})` : mix(share),
    ),
  };
}

/** What is drawn over the depth. */
export interface MapLines {
  readonly reference: readonly CoveringFrame[];
  readonly fields: readonly { readonly name: string; readonly frames: readonly CoveringFrame[] }[];
  readonly common: PlaneBox | null;
}

const DASHES = [[], [7, 4], [2, 3], [10, 3, 2, 3], [4, 4], [1, 5]] as const;
const MARGIN_SHARE = 0.04;

/** Where the map's plane falls in a picture of a width. */
export interface MapScale {
  readonly heightPx: number;
  readonly toPx: (xArcmin: number, yArcmin: number) => readonly [number, number];
  readonly fromPx: (x: number, y: number) => readonly [number, number];
  readonly pxPerArcmin: number;
}

/** The scale at which a map and the fields about it fill a width. */
export function scaleOf(layer: CoverageLayer, lines: MapLines, widthPx: number): MapScale {
  const { view, leftArcmin, topArcmin, columns, rows, cellArcmin } = layer.map;
  const points = [...lines.reference, ...lines.fields.flatMap((f) => f.frames)]
    .flatMap((f) => f.corners)
    .flatMap((p) => skyToFrame(view, p) ?? [])
    .map((p) => [p.xArcmin, p.yArcmin] as const);
  const xs = [leftArcmin, leftArcmin + columns * cellArcmin, ...points.map((p) => p[0])];
  const ys = [topArcmin, topArcmin - rows * cellArcmin, ...points.map((p) => p[1])];
  const [left, right, bottom, top] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const margin = MARGIN_SHARE * (right - left);
  const pxPerArcmin = widthPx / (right - left + 2 * margin);
  return {
    pxPerArcmin,
    heightPx: (top - bottom + 2 * margin) * pxPerArcmin,
    toPx: (x, y) => [(x - left + margin) * pxPerArcmin, (top + margin - y) * pxPerArcmin],
    fromPx: (x, y) => [x / pxPerArcmin + left - margin, top + margin - y / pxPerArcmin],
  };
}

/** Draws depth in bands of the goal, the frames of all, steps that will show, and what is common to all. */
export function drawCoverage(
  context: CanvasRenderingContext2D,
  layer: CoverageLayer,
  lines: MapLines,
  scale: MapScale,
  ink: MapInk,
  widthPx: number,
): void {
  const { map, goalHours } = layer;
  const { toPx, pxPerArcmin } = scale;
  context.fillStyle = ink.ground;
  context.fillRect(0, 0, widthPx, scale.heightPx);
  const cell = map.cellArcmin * pxPerArcmin;
  for (let row = 0; row < map.rows; row++) {
    const [x0, y] = toPx(map.leftArcmin, map.topArcmin - row * map.cellArcmin);
    let from = 0;
    for (let column = 1; column <= map.columns; column++) {
      const at = (c: number) => bandOf(map.weights[row * map.columns + c]!, goalHours || Infinity);
      if (column < map.columns && at(column) === at(from)) continue;
      const band = at(from);
      if (band >= 0) {
        context.fillStyle = ink.bands[band]!;
        // Whole pixels: a seam between rows would be a pattern that is not there.
        const [l, t] = [Math.round(x0 + from * cell), Math.round(y)];
        context.fillRect(l, t, Math.round(x0 + column * cell) - l, Math.round(y + cell) - t);
      }
      from = column;
    }
  }
  const path = (frame: CoveringFrame) => {
    context.beginPath();
    frame.corners.forEach((c, i) => {
      const p = skyToFrame(map.view, c);
      if (!p) return;
      const [x, y] = toPx(p.xArcmin, p.yArcmin);
      if (i === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    });
    context.closePath();
    context.stroke();
  };
  context.lineJoin = "round";
  context.font = `${Math.max(12, widthPx / 56)}px ${getComputedStyle(document.body).fontFamily}`;
  lines.fields.forEach(({ frames, name }, i) => {
    context.setLineDash([...DASHES[i % DASHES.length]!]);
    context.strokeStyle = ink.ink;
    context.lineWidth = 1.2;
    frames.forEach(path);
    // The name stands just inside its own corner, each at another one.
    const corner = frames[0]?.corners[i % 4];
    const p = corner && skyToFrame(map.view, corner);
    if (!p) return;
    const [x, y] = toPx(p.xArcmin, p.yArcmin);
    context.setLineDash([]);
    context.textAlign = i % 4 === 0 || i % 4 === 3 ? "left" : "right";
    context.textBaseline = i % 4 < 2 ? "top" : "bottom";
    const [dx, dy] = [context.textAlign === "left" ? 5 : -5, i % 4 < 2 ? 4 : -4];
    context.lineWidth = 4;
    context.strokeStyle = ink.ground;
    context.strokeText(name, x + dx, y + dy);
    context.fillStyle = ink.ink;
    context.fillText(name, x + dx, y + dy);
  });
  context.setLineDash([]);
  for (const step of layer.steps) {
    const [a, b] = step.line.map((p) => toPx(p.x, p.y)) as [readonly [number, number], readonly [number, number]];
    context.strokeStyle = ink.rust;
    context.lineWidth = step.ratio > 1.4 ? 4 : 2.5;
    context.beginPath();
    context.moveTo(...a);
    context.lineTo(...b);
    context.stroke();
    hatch(context, layer, step.line, scale);
  }
  const { common } = lines;
  if (common) {
    const [x, y] = toPx(common.xArcmin - common.widthArcmin / 2, common.yArcmin + common.heightArcmin / 2);
    context.strokeStyle = ink.soft;
    context.setLineDash([3, 5]);
    context.lineWidth = 2;
    context.strokeRect(x + 2, y + 2, common.widthArcmin * pxPerArcmin - 4, common.heightArcmin * pxPerArcmin - 4);
    context.setLineDash([]);
  }
  drawCompass(context, map.view.positionAngleDeg, widthPx, ink);
}

const TEETH_PX = 14;

/** Teeth on the shallow side of a step: where hours would soften it. */
function hatch(
  context: CanvasRenderingContext2D,
  { map }: CoverageLayer,
  [a, b]: CoverageLayer["steps"][number]["line"],
  { toPx, pxPerArcmin }: MapScale,
): void {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  const [nx, ny] = [-(b.y - a.y) / length, (b.x - a.x) / length];
  const [mx, my] = [(a.x + b.x) / 2, (a.y + b.y) / 2];
  const out = 2 * map.cellArcmin;
  const side = weightAt(map, mx + nx * out, my + ny * out) < weightAt(map, mx - nx * out, my - ny * out) ? 1 : -1;
  const teeth = Math.max(1, Math.floor((length * pxPerArcmin) / TEETH_PX));
  context.lineWidth = 1.5;
  context.beginPath();
  for (let i = 0; i < teeth; i++) {
    const t = (i + 0.5) / teeth;
    const [x, y] = [a.x + t * (b.x - a.x), a.y + t * (b.y - a.y)];
    context.moveTo(...toPx(x, y));
    context.lineTo(...toPx(x + (side * nx * 7) / pxPerArcmin, y + (side * ny * 7) / pxPerArcmin));
  }
  context.stroke();
}

/** North and east, as they lie on the map: east is left of north. */
function drawCompass(context: CanvasRenderingContext2D, positionAngleDeg: number, widthPx: number, ink: MapInk): void {
  const [x, y, arm] = [widthPx - 34, 40, 20];
  const up = (positionAngleDeg * Math.PI) / 180;
  context.strokeStyle = context.fillStyle = ink.soft;
  context.lineWidth = 1.5;
  context.textAlign = "center";
  context.textBaseline = "middle";
  for (const [word, turn] of [
    ["N", 0],
    ["E", -Math.PI / 2],
  ] as const) {
    const [dx, dy] = [Math.sin(up + turn) * arm, -Math.cos(up + turn) * arm];
    context.beginPath();
    context.moveTo(x, y);
    context.lineTo(x + dx, y + dy);
    context.stroke();
    context.fillText(word, x + dx * 1.45, y + dy * 1.45);
  }
}
export const hoursWord = (hours: number) => `${fixed(hours, hours < 10 ? 1 : 0)} h`;
