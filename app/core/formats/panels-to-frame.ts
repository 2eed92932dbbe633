import { mosaicPanels, skyToFrame, type MosaicLayout, type Optics } from "~/core/framing";
import type { FrameData } from "~/core/plan";
import { MOST_EXTRA_PANELS } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { positionAngleDeg, separationDeg, unitVector, directionOf } from "~/core/sky";
import { wrap360 } from "~/core/units";
import type { PanelListFault, PanelRow } from "./panel-list";

/** The part of a frame that a list of panels says. */
export type FrameOfPanels = Pick<
  FrameData,
  "raDeg" | "decDeg" | "positionAngleDeg" | "columns" | "rows" | "overlap" | "extra" | "skipped"
> &
  Partial<Pick<FrameData, "overlapRows" | "rowShift" | "names" | "order">>;

const MATCH_ARCSEC = 0.5;
/** No mosaic reaches further from its middle: 45°, one radian on the plane. */
const FURTHEST_ARCMIN = (180 * 60) / Math.PI;

/** Tangent point and angle for panels from elsewhere: their middle, and the mean of their angles mod 180 (of the first, when they do not say). */
function tangentOf(rows: readonly PanelRow[]): NonNullable<PanelRow["mosaic"]> {
  const sum = rows
    .map((r) => unitVector(r))
    .reduce((s, v) => [s[0] + v[0], s[1] + v[1], s[2] + v[2]] as const, [0, 0, 0] as const);
  // Panels all round the sky have no middle.
  const { raDeg, decDeg } = Math.hypot(...sum) < 1e-6 ? rows[0]! : directionOf(sum);
  const centre = { frame: "icrs", raDeg, decDeg } as const;
  // A panel's own angle differs from the mosaic's by the turn of north between both places.
  const angles = rows.flatMap((r) => {
    if (r.positionAngleDeg === null) return [];
    const here = { frame: "icrs", raDeg: r.raDeg, decDeg: r.decDeg } as const;
    if (separationDeg(centre, here) < 1e-6) return [r.positionAngleDeg];
    const turn = positionAngleDeg(here, centre) + 180 - positionAngleDeg(centre, here);
    return [r.positionAngleDeg - turn];
  });
  const twice = angles.map((a) => (a * Math.PI) / 90);
  const mean = Math.atan2(
    twice.reduce((s, a) => s + Math.sin(a), 0),
    twice.reduce((s, a) => s + Math.cos(a), 0),
  );
  return { raDeg, decDeg, positionAngleDeg: angles.length === 0 ? 0 : wrap360((mean * 90) / Math.PI) % 180 };
}

/**
 * A frame from a list of panels: the same grid when the list is one of ours and the field is this rig's (to 0.5″), else every
 * panel put down by hand where the list says, all at the angle of the mosaic.
 */
export function frameOfPanels(rows: readonly PanelRow[], optics: Optics): Result<FrameOfPanels, PanelListFault> {
  const tangent = rows[0]?.mosaic ?? tangentOf(rows);
  const base: MosaicLayout = {
    centre: { frame: "icrs", raDeg: tangent.raDeg, decDeg: tangent.decDeg },
    positionAngleDeg: tangent.positionAngleDeg,
    planeWidthArcmin: optics.planeWidthArcmin,
    planeHeightArcmin: optics.planeHeightArcmin,
    columns: 1,
    rows: 1,
    overlap: 0.15,
  };
  const points: { readonly xArcmin: number; readonly yArcmin: number }[] = [];
  for (const [i, r] of rows.entries()) {
    const point = skyToFrame(base, { frame: "icrs", raDeg: r.raDeg, decDeg: r.decDeg });
    if (!point || !(Math.hypot(point.xArcmin, point.yArcmin) < FURTHEST_ARCMIN))
      return err({ code: "listTooFar", found: `${r.raDeg.toFixed(2)}°, ${r.decDeg.toFixed(2)}°`, line: i + 2 });
    points.push(point);
  }
  const where = { raDeg: tangent.raDeg, decDeg: tangent.decDeg, positionAngleDeg: tangent.positionAngleDeg };
  const grid = gridOf(rows, points, base);
  if (grid) return ok({ ...where, ...grid, ...named(rows, (r) => numberOf(r)) });
  // One panel of a 1 × 1 grid is left out so that only the ones put down by hand are shot.
  const extra = points.map((p) => ({ xArcmin: p.xArcmin, yArcmin: p.yArcmin }));
  if (rows.length > MOST_EXTRA_PANELS) return err({ code: "listTooMany", found: String(rows.length), line: 0 });
  if (rows.length === 1)
    return ok({
      ...where,
      raDeg: rows[0]!.raDeg,
      decDeg: rows[0]!.decDeg,
      columns: 1,
      rows: 1,
      overlap: 0.15,
      extra: [],
      skipped: [],
      ...named(rows, () => 1),
    });
  return ok({ ...where, columns: 1, rows: 1, overlap: 0.15, extra, skipped: [1], ...named(rows, (_, i) => i + 2) });
}

const numberOf = (r: PanelRow): number | null => (/^P\d+$/.test(r.panel) ? Number(r.panel.slice(1)) : null);

function named(
  rows: readonly PanelRow[],
  number: (r: PanelRow, i: number) => number | null,
): Pick<FrameOfPanels, "names" | "order"> {
  const numbers = rows.map(number);
  const names = Object.fromEntries(
    rows.flatMap((r, i) => (r.name !== "" && numbers[i] ? [[String(numbers[i]), r.name]] : [])),
  );
  const order = numbers.filter((n) => n !== null);
  const isSorted = order.every((n, i) => i === 0 || n > order[i - 1]!);
  return { ...(Object.keys(names).length > 0 ? { names } : {}), ...(isSorted ? {} : { order }) };
}

/** The grid a list was made from, when it says rows and columns and everything fits. */
function gridOf(
  rows: readonly PanelRow[],
  points: readonly { readonly xArcmin: number; readonly yArcmin: number }[],
  base: MosaicLayout,
): Omit<FrameOfPanels, "raDeg" | "decDeg" | "positionAngleDeg"> | null {
  const inGrid = rows
    .map((r, i) => ({ r, p: points[i]!, number: numberOf(r) }))
    .filter((g) => g.r.row > 0 && g.r.column > 0);
  if (inGrid.length === 0 || rows.some((r) => numberOf(r) === null)) return null;
  // Numbers run row by row: the last column follows from any panel below the first row, else from the largest column.
  const below = inGrid.find((g) => g.r.row > 1);
  const columns = below
    ? Math.round((below.number! - below.r.column) / (below.r.row - 1))
    : Math.max(...inGrid.map((g) => g.r.column));
  const extras = rows.map((r, i) => ({ r, p: points[i]! })).filter((g) => g.r.row === 0);
  const firstExtra = extras.length > 0 ? Math.min(...extras.map((g) => numberOf(g.r)!)) : null;
  const rowCount =
    firstExtra === null ? Math.max(...inGrid.map((g) => g.r.row)) : Math.max(1, Math.round((firstExtra - 1) / columns));
  const stepX = stepOf(inGrid, (a, b) =>
    a.r.row === b.r.row ? (b.p.xArcmin - a.p.xArcmin) / (b.r.column - a.r.column) : null,
  );
  const stepY = stepOf(inGrid, (a, b) =>
    a.r.row !== b.r.row ? (a.p.yArcmin - b.p.yArcmin) / (b.r.row - a.r.row) : null,
  );
  const overlap = stepX === null ? base.overlap : 1 - stepX / base.planeWidthArcmin;
  const overlapRows = stepY === null ? overlap : 1 - stepY / base.planeHeightArcmin;
  if (overlap < -1e-6 || overlap > 0.5 || overlapRows < -1e-6 || overlapRows > 0.5 || columns > 10 || rowCount > 10)
    return null;
  const tidy = (share: number) => Math.max(0, Math.round(share * 1e5) / 1e5);
  const shift = stepOf(inGrid, (a, b) =>
    a.r.column === b.r.column && a.r.row % 2 === 1 && b.r.row % 2 === 0 ? b.p.xArcmin - a.p.xArcmin : null,
  );
  const step = base.planeWidthArcmin * (1 - overlap);
  const rowShift = shift === null ? 0 : Math.round((shift / step) * 1e4) / 1e4;
  const present = new Set(rows.map((r) => numberOf(r)!));
  if (columns < 1 || rowCount < 1) return null;
  const last = Math.max(columns * rowCount, ...present);
  if (last - columns * rowCount > MOST_EXTRA_PANELS) return null;
  const skipped = Array.from({ length: last }, (_, i) => i + 1).filter((n) => !present.has(n));
  const extra = Array.from({ length: last - columns * rowCount }, (_, i) => {
    const found = extras.find((g) => numberOf(g.r) === columns * rowCount + i + 1);
    return found ? { xArcmin: found.p.xArcmin, yArcmin: found.p.yArcmin } : { xArcmin: 0, yArcmin: 0 };
  });
  const grid = {
    columns,
    rows: rowCount,
    overlap: tidy(overlap),
    ...(Math.abs(overlap - overlapRows) < 1e-5 ? {} : { overlapRows: tidy(overlapRows) }),
    ...(Math.abs(rowShift) < 1e-4 ? {} : { rowShift }),
    extra,
    skipped,
  };
  const made = mosaicPanels({ ...base, ...grid });
  const fits = rows.every((r) => {
    const mine = made.find((m) => m.number === numberOf(r));
    return (
      mine && separationDeg(mine.centre, { frame: "icrs", raDeg: r.raDeg, decDeg: r.decDeg }) * 3600 < MATCH_ARCSEC
    );
  });
  return fits ? grid : null;
}

/** The first value that a pair of panels gives. */
function stepOf<T>(all: readonly T[], of: (a: T, b: T) => number | null): number | null {
  for (const a of all)
    for (const b of all)
      if (a !== b) {
        const value = of(a, b);
        if (value !== null) return value;
      }
  return null;
}
