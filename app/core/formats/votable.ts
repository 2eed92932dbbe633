import { XMLBuilder, XMLParser, XMLValidator } from "fast-xml-parser";
import { printable } from "./printable";
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
          DESCRIPTION: printable(title),
          FIELD: PANEL_COLUMNS.map((name) => attributes({ name, ...FIELDS[name] })),
          DATA: {
            TABLEDATA: { TR: rows.map((r) => ({ TD: PANEL_COLUMNS.map((name) => printable(panelCells(r)[name])) })) },
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

const MOST_BYTES = 1_000_000;
const MOST_DEPTH = 30;

/** Whether elements nest deeper than any table of panels does; the parser works by recursion. */
function isTooDeep(text: string): boolean {
  let depth = 0;
  for (let i = text.indexOf("<"); i >= 0; i = text.indexOf("<", i + 1)) {
    const after = text[i + 1];
    if (after === "/") depth--;
    else if (after === "!" || after === "?") {
      const close = text.startsWith("<!--", i) ? "-->" : text.startsWith("<![CDATA[", i) ? "]]>" : ">";
      const end = text.indexOf(close, i);
      if (end < 0) return false; // never ends: the parser says so
      i = end;
    } else if (++depth > MOST_DEPTH) return true;
    else {
      const end = text.indexOf(">", i);
      if (end > 0 && text[end - 1] === "/") depth--;
      if (end > i) i = end - 1;
    }
  }
  return false;
}

/** Reads the first table of a VOTable with TABLEDATA; other serialisations and files with a DOCTYPE are refused. */
export function readPanelVotable(text: string): Result<PanelRow[], PanelListFault> {
  if (text.length > MOST_BYTES)
    return err({ code: "listTooLong", found: `${Math.round(text.length / 1e6)} MB`, line: 0 });
  if (/<!DOCTYPE/i.test(text)) return err({ code: "listNotXml", found: "DOCTYPE", line: 0 });
  if (isTooDeep(text)) return err({ code: "listNotVotable", found: `more than ${MOST_DEPTH} levels`, line: 0 });
  const valid = XMLValidator.validate(text);
  if (valid !== true) return err({ code: "listNotXml", found: valid.err.msg.slice(0, 80), line: valid.err.line });
  const parser = new XMLParser({
    ignoreAttributes: false,
    parseTagValue: false,
    removeNSPrefix: true,
    trimValues: true,
  });
  let parsed: Node;
  try {
    parsed = parser.parse(text) as Node;
  } catch (error) {
    return err({ code: "listNotXml", found: error instanceof Error ? error.message.slice(0, 80) : "", line: 0 });
  }
  const root = nodeOf(nodeOf(parsed)["VOTABLE"]);
  const table = listOf(root["RESOURCE"]).flatMap((r) => listOf(nodeOf(r)["TABLE"]))[0];
  const data = nodeOf(nodeOf(nodeOf(table)["DATA"])["TABLEDATA"]);
  const heads = listOf(nodeOf(table)["FIELD"]).map((f) => textOf(nodeOf(f)["@_name"]));
  const trs = listOf(data["TR"]);
  if (!table || heads.length === 0)
    return err({ code: "listNotVotable", found: Object.keys(root).join(", ").slice(0, 80), line: 0 });
  if (trs.length === 0) return err({ code: "listEmpty", found: "", line: 0 });
  if (heads.length > 200) return err({ code: "listTooLong", found: `${heads.length} columns`, line: 0 });
  if (trs.length > 200) return err({ code: "listTooLong", found: `${trs.length} rows`, line: 0 });
  const rows = trs.map((tr) => {
    const cells = listOf(nodeOf(tr)["TD"]).map(textOf);
    return Object.fromEntries(heads.map((h, i) => [h, cells[i] ?? ""]));
  });
  return readPanelRows({ heads, rows });
}
