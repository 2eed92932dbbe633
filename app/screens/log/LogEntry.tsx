import { fixed } from "~/components/numbers";
import { CULL_WORDS } from "~/components/words/log-words";
import { CULL_REASONS, type CullReason } from "~/core/ledger";
import type { LogRecord } from "~/desk/log/log";

/** One entry: what was kept of it, and why not more. */
export function LogEntry({
  record,
  isOwn,
  onChange,
}: {
  readonly record: LogRecord;
  readonly isOwn: boolean;
  readonly onChange: (record: LogRecord, kept: number, reason: CullReason | "") => void;
}) {
  const { data } = record;
  const setKept = (kept: number, reason: CullReason | "") => onChange(record, kept, reason);
  return (
    <li className="text-note flex flex-wrap items-center gap-x-4 gap-y-1 py-1">
      <span className="min-w-48">{data.fileName || "entered by hand"}</span>
      <span className="text-soft">
        {data.measure ? `stars ${fixed(data.measure.fwhmPx, 1)} px · ` : ""}worth of a minute{" "}
        {data.worthRate === null ? "unknown" : fixed(data.worthRate, 2)}
      </span>
      {isOwn ? (
        <>
          <label className="flex items-center gap-1.5">
            kept
            {data.taken === 1 ? (
              <input
                type="checkbox"
                checked={data.kept === 1}
                onChange={(e) => setKept(e.target.checked ? 1 : 0, data.reason)}
              />
            ) : (
              <input
                type="number"
                min={0}
                max={data.taken}
                className="field-box w-20"
                defaultValue={data.kept}
                onBlur={(e) =>
                  e.target.value !== "" &&
                  Number(e.target.value) !== data.kept &&
                  setKept(Math.min(data.taken, Math.max(0, Math.round(Number(e.target.value)))), data.reason)
                }
              />
            )}
            of {data.taken}
          </label>
          {data.kept < data.taken ? (
            <select
              aria-label="Why not kept"
              className="field-box w-32"
              value={data.reason}
              onChange={(e) => setKept(data.kept, e.target.value as CullReason)}
            >
              {CULL_REASONS.map((r) => (
                <option key={r} value={r}>
                  {CULL_WORDS[r]}
                </option>
              ))}
            </select>
          ) : null}
        </>
      ) : null}
      {data.isSimulated ? <span className="text-lamp">simulated</span> : null}
      {data.note ? <span className="text-soft">{data.note}</span> : null}
    </li>
  );
}
