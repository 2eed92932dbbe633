import Papa from "papaparse";
import { panelName, type Panel } from "~/core/framing";
import { formatDeclination, formatRightAscension } from "~/core/notation";

/** Columns of a panel list; documented in docs/formats.md. */
export const PANEL_COLUMNS = [
  "panel",
  "row",
  "column",
  "ra_j2000",
  "dec_j2000",
  "ra_deg",
  "dec_deg",
  "position_angle_deg",
  "field_width_arcmin",
  "field_height_arcmin",
] as const;

/** Panels as CSV: sexagesimal and degrees (ICRS), each panel's own position angle, field on the plane in arcmin. */
export function panelsToCsv(
  panels: readonly Panel[],
  field: { readonly widthArcmin: number; readonly heightArcmin: number },
): string {
  return Papa.unparse(
    panels.map((p) => ({
      panel: panelName(p.number),
      row: p.row,
      column: p.column,
      ra_j2000: formatRightAscension(p.centre.raDeg, 2),
      dec_j2000: formatDeclination(p.centre.decDeg, 1).replace("−", "-"),
      ra_deg: p.centre.raDeg.toFixed(6),
      dec_deg: p.centre.decDeg.toFixed(6),
      position_angle_deg: p.positionAngleDeg.toFixed(3),
      field_width_arcmin: field.widthArcmin.toFixed(2),
      field_height_arcmin: field.heightArcmin.toFixed(2),
    })),
    { columns: [...PANEL_COLUMNS] },
  );
}
