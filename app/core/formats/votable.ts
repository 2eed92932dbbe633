import { XMLBuilder, XMLParser, XMLValidator } from "fast-xml-parser";
import { err, type Result } from "~/core/result";
import { PANEL_COLUMNS, panelCells, readPanelRows, type PanelListFault, type PanelRow } from "./panel-list";

/** Datatype, unit and meaning of every column (UCD1+, IVOA 2021). */
const FIELDS: Readonly<Record<(typeof PANEL_COLUMNS)[number], Readonly<Record<string, string>>>> = {
  panel: { datatype: "char", arraysize: "*", ucd: "meta.id;meta.main" },
  name: { datatype: "unicodeChar", arraysize: "*", ucd: "meta.note" },
  row: { datatype: "int", ucd: "meta.number" },
  column: { datatype: "int", ucd: "meta.number" },
  ra_j2000: { datatype: "char", arraysize: "*", ucd: "pos.eq.ra", ref: "icrs" },
  dec_j2000: { datatype: "char", arraysize: "*", ucd: "pos.eq.dec", ref: "icrs" },
  ra_deg: { datatype: "double", unit: "deg", ucd: "pos.eq.ra;meta.main", ref: "icrs" },
  dec_deg: { datatype: "double", unit: "deg", ucd: "pos.eq.dec;meta.main", ref: "icrs" },
  position_angle_deg: { datatype: "double", unit: "deg", ucd: "pos.posAng", ref: "icrs" },
  field_width_arcmin: { datatype: "double", unit: "arcmin", ucd: "phys.angSize;instr.fov" },
  field_height_arcmin: { datatype: "double", unit: "arcmin", ucd: "phys.angSize;instr.fov" },
  mosaic_ra_deg: { datatype: "double", unit: "deg", ucd: "pos.eq.ra", ref: "icrs" },
  mosaic_dec_deg: { datatype: "double", unit: "deg", ucd: "pos.eq.dec", ref: "icrs" },
  mosaic_position_angle_deg: { datatype: "double", unit: "deg", ucd: "pos.posAng", ref: "icrs" },
};

const attributes = (of: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(of).map(([name, value]) => [`@_${name}`, value]));

/** Panels as a VOTable 1.4 (IVOA 2019): the columns of the CSV with units, UCDs and the ICRS frame. */
export function panelsToVotable(rows: readonly PanelRow[], title: string): string {
  const xml = new XMLBuilder({ ignoreAttributes: false, format: true, suppressEmptyNode: true }).build({
    "?xml": { "@_version": "1.0", "@_encoding": "UTF-8" },
    VOTABLE: {
      "@_version": "1.4",
      "@_xmlns": "http://www.ivoa.net/xml/VOTable/v1.3",
      RESOURCE: {
        "@_type": "results",
        COOSYS: attributes({ ID: "icrs", system: "ICRS", epoch: "J2000" }),
        TABLE: {
          "@_name": "panels",
          DESCRIPTION: title,
          FIELD: PANEL_COLUMNS.map((name) => attributes({ name, ...FIELDS[name] })),
          DATA: {
            TABLEDATA: { TR: rows.map((r) => ({ TD: PANEL_COLUMNS.map((name) => panelCells(r)[name]) })) },
          },
        },
      },
    },
  });
  return xml;
}

type Node = Readonly<Record<string, unknown>>;
const listOf = (value: unknown): readonly unknown[] =>
  value === undefined || value === null ? [] : Array.isArray(value) ? value : [value];
const nodeOf = (value: unknown): Node => (typeof value === "object" && value !== null ? (value as Node) : {});
const textOf = (value: unknown): string => {
  const inner = typeof value === "object" && value !== null ? nodeOf(value)["#text"] : value;
  return typeof inner === "string" || typeof inner === "number" ? String(inner) : "";
};

/** Reads the first table of a VOTable with TABLEDATA; other serialisations and files with a DOCTYPE are refused. */
export function readPanelVotable(text: string): Result<PanelRow[], PanelListFault> {
  if (text.length > 4_000_000)
    return err({ code: "listTooLong", found: `${Math.round(text.length / 1e6)} MB`, line: 0 });
  if (/<!DOCTYPE/i.test(text)) return err({ code: "listNotXml", found: "DOCTYPE", line: 0 });
  const valid = XMLValidator.validate(text);
  if (valid !== true) return err({ code: "listNotXml", found: valid.err.msg.slice(0, 80), line: valid.err.line });
  const parser = new XMLParser({
    ignoreAttributes: false,
    parseTagValue: false,
    removeNSPrefix: true,
    trimValues: true,
  });
  const root = nodeOf((parser.parse(text) as Node)["VOTABLE"]);
  const table = listOf(root["RESOURCE"]).flatMap((r) => listOf(nodeOf(r)["TABLE"]))[0];
  const data = nodeOf(nodeOf(nodeOf(table)["DATA"])["TABLEDATA"]);
  const heads = listOf(nodeOf(table)["FIELD"]).map((f) => textOf(nodeOf(f)["@_name"]));
  const trs = listOf(data["TR"]);
  if (!table || heads.length === 0)
    return err({ code: "listNotVotable", found: Object.keys(root).join(", ").slice(0, 80), line: 0 });
  if (trs.length === 0) return err({ code: "listEmpty", found: "", line: 0 });
  if (trs.length > 200) return err({ code: "listTooLong", found: `${trs.length} rows`, line: 0 });
  const rows = trs.map((tr) => {
    const cells = listOf(nodeOf(tr)["TD"]).map(textOf);
    return Object.fromEntries(heads.map((h, i) => [h, cells[i] ?? ""]));
  });
  return readPanelRows({ heads, rows });
}
