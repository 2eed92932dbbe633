import type { LogRecord } from "~/desk/log";
import { CULL_REASONS, nightTotals, type ContributionData, type CullReason } from "~/core/ledger";
import { formatMinutes } from "~/core/notation";
import { shortNight } from "~/components/clock";
import { Button } from "~/components/ui/Button";
import { CULL_WORDS } from "~/components/words/words";

interface Props {
  readonly records: readonly LogRecord[];
  readonly memberId: string;
  readonly memberName: (id: string) => string;
  readonly projectName?: (id: string) => string;
  readonly onChange: (record: LogRecord, data: ContributionData) => void;
  readonly onRemove: (records: readonly LogRecord[]) => void;
}

/** Nights taken, newest first; open a line to keep or drop single subs. Only one's own can be changed. */
export function LogTable({ records, memberId, memberName, projectName, onChange, onRemove }: Props) {
  const byProject = [...new Set(records.map((r) => r.data.projectId))];
  const rows = byProject.flatMap((projectId) =>
    nightTotals(records.filter((r) => r.data.projectId === projectId).map((r) => r.data)).map((t) => ({
      ...t,
      projectId,
    })),
  );
  rows.sort((a, b) => b.night.localeCompare(a.night));
  return (
    <ul>
      {rows.map((t) => {
        const mine = records.filter(
          (r) =>
            r.data.projectId === t.projectId &&
            r.data.night === t.night &&
            r.data.memberId === t.memberId &&
            r.data.panel === t.panel &&
            r.data.channel === t.channel &&
            r.data.exposureSec === t.exposureSec,
        );
        const isOwn = t.memberId === memberId;
        return (
          <li
            key={`${t.projectId} ${t.night} ${t.memberId} ${t.panel} ${t.channel} ${t.exposureSec}`}
            className="border-rule border-t"
          >
            <details>
              <summary className="grid grid-cols-[5.5rem_5rem_minmax(0,1fr)_4.5rem] items-baseline gap-3 py-1.5 sm:grid-cols-[6rem_6rem_minmax(0,1fr)_9rem_5rem]">
                <span>{shortNight(t.night)}</span>
                <span className="font-semibold">
                  {t.panel} {t.channel}
                </span>
                <span className="text-soft truncate">
                  {projectName ? `${projectName(t.projectId)} · ` : ""}
                  {memberName(t.memberId)}
                  {t.reasons.length > 0 ? ` · lost to ${t.reasons.map((r) => CULL_WORDS[r]).join(", ")}` : ""}
                </span>
                <span className="hidden text-right sm:block">
                  {t.kept} of {t.taken} × {t.exposureSec} s
                </span>
                <span className="text-right font-semibold">{formatMinutes((t.kept * t.exposureSec) / 60)}</span>
              </summary>
              <ul className="border-rule mb-2 ml-4 border-l pl-4">
                {mine.map((r) => (
                  <Entry key={r.id} record={r} isOwn={isOwn} onChange={onChange} />
                ))}
                {isOwn ? (
                  <li>
                    <Button look="plain" onClick={() => onRemove(mine)}>
                      Delete {mine.length === 1 ? "this entry" : `these ${mine.length} entries`}
                    </Button>
                  </li>
                ) : null}
              </ul>
            </details>
          </li>
        );
      })}
    </ul>
  );
}

function Entry({
  record,
  isOwn,
  onChange,
}: {
  readonly record: LogRecord;
  readonly isOwn: boolean;
  readonly onChange: Props["onChange"];
}) {
  const { data } = record;
  const setKept = (kept: number, reason: CullReason | "") =>
    onChange(record, { ...data, kept, reason: kept < data.taken ? reason || "other" : "" });
  return (
    <li className="text-note flex flex-wrap items-center gap-x-4 gap-y-1 py-1">
      <span className="min-w-48">{data.fileName || "entered by hand"}</span>
      <span className="text-soft">
        worth of a minute {data.worthRate === null ? "unknown" : data.worthRate.toFixed(2)}
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
      {data.note ? <span className="text-soft">{data.note}</span> : null}
    </li>
  );
}
