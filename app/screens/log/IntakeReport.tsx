import { bookingFaultWords, fileFaultWords, mismatchWords } from "~/components/words/words";
import type { BookedGroup, IntakeReport, LeftOut } from "~/desk/intake";

const groupWords = ({ booking: b }: BookedGroup): string =>
  b.kind === "light"
    ? `${b.projectName}: ${b.data.panel} ${b.data.channel}, night of ${b.data.night}, ${b.data.exposureSec} s`
    : `${b.data.type} frames of ${b.data.exposureSec} s`;

const leftOutWords = (why: LeftOut): string =>
  why.kind === "unreadable"
    ? fileFaultWords(why.code)
    : why.kind === "unplaced"
      ? bookingFaultWords(why.fault)
      : `${why.message}: no log entry can have that`;

/** Says what was booked where, what does not agree with the plan, what was known already and what could not be read. */
export function IntakeReportView({ report }: { readonly report: IntakeReport }) {
  return (
    <div role="status" className="border-rule bg-sheet my-3 rounded-[8px] border p-4">
      <p className="font-semibold">
        {report.total} {report.total === 1 ? "file" : "files"}: {report.booked.reduce((s, b) => s + b.count, 0)} added,{" "}
        {report.known} already here, {report.refused.length} left out
        {report.open.length > 0 ? `, ${report.open.reduce((s, g) => s + g.count, 0)} to be asked about` : ""}.
      </p>
      <ul className="mt-1">
        {report.booked.map((b) => (
          <li key={groupWords(b)}>
            <span className="font-semibold">{b.count} ×</span> {groupWords(b)}
            {b.notes.map(mismatchWords).map((n) => (
              <p key={n} className="text-note text-lamp pl-6">
                {n}
              </p>
            ))}
          </li>
        ))}
      </ul>
      {report.refused.length > 0 ? (
        <ul className="border-rule text-note mt-2 border-t pt-2">
          {report.refused.map((r) => (
            <li key={r.name}>
              <span className="font-semibold">{r.name}</span>: {leftOutWords(r.why)}
            </li>
          ))}
        </ul>
      ) : null}
    </div>
  );
}
