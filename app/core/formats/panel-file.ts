import { err, ok, type Result } from "~/core/result";
import {
  csvTable,
  guessColumns,
  readPanelRows,
  type ColumnMapping,
  type PanelListFault,
  type PanelRow,
} from "./panel-list";
import { readPanelVotable } from "./votable";

/** A list of panels as far as it could be read. */
export interface OpenedPanelList {
  readonly rows: Result<readonly PanelRow[], PanelListFault>;
  /** Of a CSV whose columns are not clear: its cells, to be read once a person has said what is what. */
  readonly asked: {
    readonly table: { readonly heads: readonly string[]; readonly rows: readonly Readonly<Record<string, string>>[] };
    readonly mapping: ColumnMapping;
  } | null;
}

/** Opens a list of panels, CSV or VOTable, and says what is still to be asked about it. */
export function openPanelList(text: string): OpenedPanelList {
  if (/^\s*</.test(text.slice(0, 2000))) return { rows: readPanelVotable(text), asked: null };
  const table = csvTable(text);
  if (!table.ok) return { rows: err(table.error), asked: null };
  const mapping = guessColumns(table.value.heads);
  const read = readPanelRows(table.value, mapping);
  if (read.ok) return { rows: ok(read.value), asked: null };
  const isUnclear = read.error.code === "listNoColumns" || read.error.code === "listRaUnclear";
  return { rows: read, asked: isUnclear ? { table: table.value, mapping } : null };
}
