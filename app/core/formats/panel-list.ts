import Papa from "papaparse";
import { panelName, type MosaicLayout, type Panel } from "~/core/framing";
import { parseAngle, parseDeclinationDeg, parseNumber, plainPosition } from "~/core/notation";
import { PANEL_NAME } from "~/core/records";
import { err, ok, type Result } from "~/core/result";
import { wrap360 } from "~/core/units";

/** A panel as files carry it; ICRS degrees, field on the plane. */
export interface PanelRow {
  readonly panel: string;
  readonly name: string;
  /** 0 beside the grid. */
  readonly row: number;
  readonly column: number;
  readonly raDeg: number;
  readonly decDeg: number;
  /** Of the panel's up axis, north through east; null where a file does not say. */
  readonly positionAngleDeg: number | null;
  readonly widthArcmin: number | null;
  readonly heightArcmin: number | null;
  /** Tangent point and angle of the mosaic, so that it comes back as it was; null from elsewhere. */
  readonly mosaic: { readonly raDeg: number; readonly decDeg: number; readonly positionAngleDeg: number } | null;
}

/** Columns of a panel list; documented in docs/formats.md. */
export const PANEL_COLUMNS = [
  "panel", "name", "row", "column", "ra_j2000", "dec_j2000", "ra_deg", "dec_deg", "position_angle_deg", "field_width_arcmin", "field_height_arcmin",
  "mosaic_ra_deg", "mosaic_dec_deg", "mosaic_position_angle_deg",
] as const; // prettier-ignore

/** Panels of a mosaic as rows of a file, in the order given. */
export const panelRows = (
  panels: readonly Panel[],
  layout: MosaicLayout,
  names: Readonly<Record<string, string>> = {},
): PanelRow[] =>
  panels.map((p) => ({
    panel: panelName(p.number),
    name: names[String(p.number)]?.trim() ?? "",
    row: p.row,
    column: p.column,
    raDeg: p.centre.raDeg,
    decDeg: p.centre.decDeg,
    positionAngleDeg: p.positionAngleDeg,
    widthArcmin: layout.planeWidthArcmin,
    heightArcmin: layout.planeHeightArcmin,
    mosaic: {
      raDeg: layout.centre.raDeg,
      decDeg: layout.centre.decDeg,
      positionAngleDeg: layout.positionAngleDeg,
    },
  }));

/** Seven decimals of a degree: 0.4 milliarcseconds. */
const fine = (deg: number | null | undefined): string => (deg === null || deg === undefined ? "" : deg.toFixed(7));

/** An angle all round: what rounds to 360 is 0. */
const fineTurn = (deg: number | null | undefined): string => fine(deg).replace(/^360\.0+$/, (0).toFixed(7));

/** The texts of a row by column, the same in CSV and VOTable. */
export const panelCells = (p: PanelRow): Readonly<Record<(typeof PANEL_COLUMNS)[number], string>> => ({
  panel: p.panel,
  name: p.name,
  row: String(p.row),
  column: String(p.column),
  ra_j2000: plainPosition(p).ra,
  dec_j2000: plainPosition(p).dec,
  ra_deg: fineTurn(p.raDeg),
  dec_deg: fine(p.decDeg),
  position_angle_deg: fineTurn(p.positionAngleDeg),
  field_width_arcmin: p.widthArcmin === null ? "" : p.widthArcmin.toFixed(4),
  field_height_arcmin: p.heightArcmin === null ? "" : p.heightArcmin.toFixed(4),
  mosaic_ra_deg: fineTurn(p.mosaic?.raDeg),
  mosaic_dec_deg: fine(p.mosaic?.decDeg),
  mosaic_position_angle_deg: fineTurn(p.mosaic?.positionAngleDeg),
});

/**
 * What makes a spreadsheet take a cell for a formula, also after blanks and letters of no width, which some pass over; and after
 * apostrophes, so that taking one away gives back what was there.
 */
const FORMULA = /^['\s\p{Cf}\p{Cc}]*[=+\-@＝＋－＠]|^'*[\t\r\n]/u;
/** A text cell for spreadsheets: one that they would take for a formula begins with an apostrophe. */
export const spreadsheetCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text);
const unsafe = (text: string): string => (text.startsWith("'") && FORMULA.test(text) ? text.slice(1) : text);

/** Panels as CSV: sexagesimal and degrees (ICRS), each panel's own position angle, field on the plane in arcmin. */
export const panelsToCsv = (rows: readonly PanelRow[]): string =>
  Papa.unparse(
    rows.map((r) => ({ ...panelCells(r), name: spreadsheetCell(r.name) })),
    { columns: [...PANEL_COLUMNS] },
  );

/** Which column of a file holds what, by its head; "" = none. */
export interface ColumnMapping {
  readonly ra: string;
  readonly dec: string;
  readonly positionAngle: string;
  readonly name: string;
  /** How plain numbers of right ascension are meant; null = ask when it is unclear. */
  readonly raUnit: "degrees" | "hours" | null;
}

/** Why a panel list is not read. */
export interface PanelListFault {
  readonly code:
    | "listEmpty"
    | "listNoColumns"
    | "listRaUnclear"
    | "listCell"
    | "listNotXml"
    | "listNotVotable"
    | "listTooLong"
    | "listTooMany"
    | "listTooFar";
  readonly found: string;
  /** Line of the file, from 1; 0 for the file as a whole. */
  readonly line: number;
}

/** A grid of 10 × 10 and 100 panels beside it. */
const MOST_PANELS = 200;
const MOST_HEADS = 200;
/** A list of 200 panels has about 40 kB. */
const MOST_BYTES = 1_000_000;

/** Guesses which columns hold what from their heads. */
export function guessColumns(heads: readonly string[]): ColumnMapping {
  const find = (...patterns: readonly RegExp[]) => {
    for (const p of patterns) {
      const head = heads.find((h) => p.test(h.trim()));
      if (head !== undefined) return head;
    }
    return "";
  };
  return {
    ra: find(/^ra_deg$/i, /^(ra|right.?ascension|α)\b/i, /^ra/i),
    dec: find(/^dec_deg$/i, /^(dec|decl|declination|δ)\b/i, /^dec/i),
    positionAngle: find(/^position_angle_deg$/i, /^(pa|position.?angle|rotation|angle)\b/i),
    name: find(/^name$/i, /^(panel|pane|tile|object|target)/i),
    raUnit: find(/^ra_deg$/i) === "" ? null : "degrees",
  };
}

/** Heads and cells of a CSV text; heads are the first line. */
export function csvTable(text: string): Result<{ heads: string[]; rows: Record<string, string>[] }, PanelListFault> {
  if (text.length > MOST_BYTES)
    return err({ code: "listTooLong", found: `${Math.round(text.length / 1e6)} MB`, line: 0 });
  const plain = text.replace(/^\uFEFF/, "").trim();
  // Before anything is parsed: a first line of very many heads, and quotes that never end, would take seconds.
  const first = plain.slice(0, plain.search(/\r|\n|$/));
  const headCount = first.split(/[,;\t|]/, MOST_HEADS + 2).length;
  if (headCount > MOST_HEADS || first.length > 20_000)
    return err({ code: "listTooLong", found: `more than ${MOST_HEADS} columns`, line: 1 });
  const lineCount = plain.split("\n", 20 * MOST_PANELS).length;
  if (lineCount >= 20 * MOST_PANELS) return err({ code: "listTooLong", found: "thousands of lines", line: 0 });
  const parsed = Papa.parse<Record<string, string>>(plain, {
    header: true,
    skipEmptyLines: true,
    preview: MOST_PANELS + 1,
  });
  const heads = parsed.meta.fields ?? [];
  if (parsed.data.length === 0) return err({ code: "listEmpty", found: "", line: 0 });
  if (parsed.data.length > MOST_PANELS)
    return err({ code: "listTooLong", found: `more than ${MOST_PANELS} lines`, line: 0 });
  return ok({ heads, rows: parsed.data });
}

/** Reads rows of texts by a mapping of columns; the first cell that cannot be is named and nothing is taken. */
export function readPanelRows(
  table: { readonly heads: readonly string[]; readonly rows: readonly Readonly<Record<string, string>>[] },
  mapping: ColumnMapping = guessColumns(table.heads),
): Result<PanelRow[], PanelListFault> {
  if (mapping.ra === "" || mapping.dec === "")
    return err({ code: "listNoColumns", found: table.heads.join(", ").slice(0, 120), line: 1 });
  const plain = table.rows.map((r) => parseNumber(r[mapping.ra] ?? ""));
  if (mapping.raUnit === null && plain.every((n) => n !== null && n >= 0 && n < 24))
    return err({ code: "listRaUnclear", found: table.rows[0]?.[mapping.ra] ?? "", line: 2 });
  const rows: PanelRow[] = [];
  for (const [i, cells] of table.rows.entries()) {
    const cell = (name: string) => (name === "" ? "" : (cells[name] ?? "").trim());
    const fault = (found: string) => err({ code: "listCell" as const, found: found.slice(0, 40), line: i + 2 });
    const raDeg = rightAscension(cell(mapping.ra), mapping.raUnit);
    if (raDeg === null) return fault(cell(mapping.ra));
    const dec = parseDeclinationDeg(cell(mapping.dec));
    if (!dec.ok) return fault(cell(mapping.dec));
    const angleText = cell(mapping.positionAngle);
    const angle = angleText === "" ? null : parseNumber(angleText);
    if (angleText !== "" && angle === null) return fault(angleText);
    const number = (name: string) => parseNumber(cell(name));
    const [mRa, mDec, mPa] = ["mosaic_ra_deg", "mosaic_dec_deg", "mosaic_position_angle_deg"].map(number);
    if (
      /^P\d+$/.test(cell("panel")) &&
      !(Number(cell("panel").slice(1)) >= 1 && Number(cell("panel").slice(1)) <= MOST_PANELS)
    )
      return fault(cell("panel"));
    if (Math.abs(mDec ?? 0) > 90 || (mRa ?? 0) < 0 || (mRa ?? 0) >= 360) return fault(cell("mosaic_ra_deg"));
    const name = unsafe(cell(mapping.name === "panel" ? "name" : mapping.name));
    if (name.length > PANEL_NAME.max) return fault(name);
    const [row, column] = [number("row") ?? 0, number("column") ?? 0];
    if (![row, column].every((n) => Number.isInteger(n) && n >= 0 && n <= MOST_PANELS))
      return fault(`${row}, ${column}`);
    rows.push({
      panel: cell("panel"),
      name,
      row,
      column,
      raDeg,
      decDeg: dec.value,
      positionAngleDeg: angle === null ? null : wrap360(angle),
      widthArcmin: number("field_width_arcmin"),
      heightArcmin: number("field_height_arcmin"),
      mosaic:
        mRa !== null && mDec !== null && mPa !== null
          ? { raDeg: mRa!, decDeg: mDec!, positionAngleDeg: wrap360(mPa!) }
          : null,
    });
  }
  return ok(rows);
}

const LONGEST_ANGLE = 80;

/** Right ascension in degrees: a plain number in the unit asked for, anything else by its own marks, sexagesimal as hours. */
function rightAscension(text: string, unit: ColumnMapping["raUnit"]): number | null {
  if (text.length > LONGEST_ANGLE) return null;
  const plain = parseNumber(text);
  const angle = plain === null ? parseAngle(text.replace(/\s*(deg|°)\s*$/i, "")) : null;
  const isDegrees = plain !== null ? unit !== "hours" : /(deg|°|d)/i.test(text);
  const value = plain ?? (angle?.ok ? angle.value : null);
  if (value === null) return null;
  const deg = isDegrees ? value : value * 15;
  return deg >= 0 && deg < 360 ? deg : null;
}
