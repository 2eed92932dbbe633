import {
  createColumnHelper,
  createSortedRowModel,
  rowSortingFeature,
  sortFn_basic,
  sortFn_text,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";
import { Link } from "react-router";
import { shortNight } from "~/components/clock";
import { Button } from "~/components/ui/Button";
import { CULL_WORDS } from "~/components/words/log-words";
import { keptHistory, type CullReason, type NightTotal } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import type { LogRecord } from "~/desk/log/log";
import { LogEntry } from "./LogEntry";

type Line = NightTotal<LogRecord>;

interface Props {
  readonly nights: readonly Line[];
  /** Dates of other years show theirs. */
  readonly today: string;
  readonly memberId: string;
  readonly memberName: (id: string) => string;
  readonly projectName?: (id: string) => string;
  readonly onChange: (record: LogRecord, kept: number, reason: CullReason | "") => void;
  /** What links keep of the address. */
  readonly search: string;
  readonly onRemove: (records: readonly LogRecord[]) => void;
}

const features = tableFeatures({
  rowSortingFeature,
  sortedRowModel: createSortedRowModel(),
  sortFns: { basic: sortFn_basic, text: sortFn_text },
});
const helper = createColumnHelper<typeof features, Line>();
const COLUMNS =
  "grid grid-cols-[5.5rem_5rem_minmax(0,1fr)_4.5rem] gap-3 sm:grid-cols-[6rem_6rem_minmax(0,1fr)_9rem_5rem]";
/** More lines than this are drawn only where they can be seen. */
const MOST_DRAWN = 200;
const LINE_PX = 34;

const keyOf = (t: Line): string => `${t.projectId} ${t.night} ${t.memberId} ${t.panel} ${t.channel} ${t.exposureSec}`;

/** Nights taken, newest first, or by whatever head is pressed; open a line to keep or drop single subs. Only one's own can be changed. */
export function LogTable({ nights, today, memberId, memberName, projectName, search, onChange, onRemove }: Props) {
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set());
  const box = useRef<HTMLDivElement>(null);
  const whoOf = (t: Line) => `${projectName ? `${projectName(t.projectId)} · ` : ""}${memberName(t.memberId)}`;
  const table = useTable({
    features,
    data: nights,
    getRowId: keyOf,
    columns: helper.columns([
      helper.accessor("night", { header: "Night", sortFn: "basic", sortDescFirst: true }),
      helper.accessor((t) => `${t.panel} ${t.channel}`, { id: "what", header: "Panel", sortFn: "text" }),
      helper.accessor(whoOf, { id: "who", header: projectName ? "Project, by whom" : "By whom", sortFn: "text" }),
      helper.accessor("kept", { header: "Kept", sortFn: "basic" }),
      helper.accessor("keptMin", { header: "Time", sortFn: "basic" }),
    ]),
  });
  const { rows } = table.getRowModel();
  const isVirtual = rows.length > MOST_DRAWN;
  // eslint-disable-next-line react-hooks/incompatible-library -- its functions are called here only, never handed on
  const virtualizer = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => LINE_PX,
    overscan: 10,
    enabled: isVirtual,
  });
  const toggle = (key: string) =>
    setOpen((before) => new Set(before.has(key) ? [...before].filter((k) => k !== key) : [...before, key]));
  const line = (t: Line, place?: { readonly index: number; readonly top: number }) => {
    const key = keyOf(t);
    const isOpen = open.has(key);
    const lost = t.reasons.map((r) => CULL_WORDS[r]).join(", ");
    return (
      <div
        key={key}
        role="row"
        {...(place
          ? {
              ref: virtualizer.measureElement,
              "data-index": place.index,
              "aria-rowindex": place.index + 2,
              className: "border-rule absolute inset-x-0 border-t",
              style: { top: place.top },
            }
          : { className: "border-rule border-t" })}
      >
        <div role="cell">
          <button
            type="button"
            aria-expanded={isOpen}
            onClick={() => toggle(key)}
            className={`${COLUMNS} hover:bg-raised w-full items-baseline py-1.5 text-left`}
          >
            <span>{shortNight(t.night, today)}</span>
            <span className="font-semibold">
              {t.panel} {t.channel}
            </span>
            <span className="text-soft truncate">
              {whoOf(t)}
              {lost === "" ? "" : ` · lost to ${lost}`}
            </span>
            <span className="hidden text-right sm:block">
              {t.kept} of {t.taken} × {t.exposureSec} s
            </span>
            <span className="text-right font-semibold">{formatMinutes(t.keptMin)}</span>
          </button>
          {isOpen ? (
            <Entries
              total={t}
              isOwn={t.memberId === memberId}
              search={search}
              onChange={onChange}
              onRemove={onRemove}
            />
          ) : null}
        </div>
      </div>
    );
  };
  return (
    <div role="table" aria-label="What has been taken" aria-rowcount={rows.length + 1}>
      <div role="row" className={`${COLUMNS} text-note text-soft`}>
        {table.getFlatHeaders().map((header) => {
          const sorted = header.column.getIsSorted();
          return (
            <div
              key={header.id}
              role="columnheader"
              aria-sort={sorted === "asc" ? "ascending" : sorted === "desc" ? "descending" : "none"}
              className={
                header.id === "kept" ? "hidden text-right sm:block" : header.id === "keptMin" ? "text-right" : ""
              }
            >
              <button
                type="button"
                className="min-h-6 hover:underline"
                onClick={header.column.getToggleSortingHandler()}
              >
                {String(header.column.columnDef.header)}
                {sorted === "asc" ? " ↑" : sorted === "desc" ? " ↓" : ""}
              </button>
            </div>
          );
        })}
      </div>
      <div ref={box} role="rowgroup" className={isVirtual ? "max-h-[70vh] min-h-80 overflow-y-auto" : ""}>
        {isVirtual ? (
          <div role="presentation" className="relative" style={{ height: virtualizer.getTotalSize() }}>
            {virtualizer.getVirtualItems().flatMap((item) => {
              const row = rows[item.index];
              return row ? [line(row.original, { index: item.index, top: item.start })] : [];
            })}
          </div>
        ) : (
          rows.map((row) => line(row.original))
        )}
      </div>
    </div>
  );
}

/** The address of a night of a project. */
function withNight(search: string, { night, projectId }: Line): string {
  const params = new URLSearchParams(search);
  params.set("night", night);
  params.set("project", projectId);
  return `?${params.toString()}`;
}

function Entries({
  total,
  isOwn,
  search,
  onChange,
  onRemove,
}: Pick<Props, "onChange" | "onRemove" | "search"> & { readonly total: Line; readonly isOwn: boolean }) {
  const { entries } = total;
  const states = keptHistory(entries.map((e) => e.data));
  const isFiles = isOwn && entries.some((e) => e.data.taken === 1 && e.data.startMs !== null);
  return (
    <ul className="border-rule mb-2 ml-4 border-l pl-4">
      {states.length > 1 || isFiles ? (
        <li className="text-note text-soft flex flex-wrap gap-x-4">
          {states.length > 1 ? <span>kept {states.map((s) => s.kept).join(" → ")}</span> : null}
          {isFiles ? (
            <Link to={`/log/subs${withNight(search, total)}`} className="underline underline-offset-4">
              Look through its subs
            </Link>
          ) : null}
        </li>
      ) : null}
      {entries.map((r) => (
        <LogEntry key={r.id} record={r} isOwn={isOwn} onChange={onChange} />
      ))}
      {isOwn ? (
        <li>
          <Button look="plain" onClick={() => onRemove(entries)}>
            Delete {entries.length === 1 ? "this entry" : `these ${entries.length} entries`}
          </Button>
        </li>
      ) : null}
    </ul>
  );
}
