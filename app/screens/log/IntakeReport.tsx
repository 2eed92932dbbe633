import { counted } from "~/components/numbers";
import type { IntakeData } from "~/core/ledger";
import type { IntakeReport } from "~/desk/log/intake";
import { intakeText } from "./intake-words";

/** What came of files, group by group: counted, with what is off, and what was left out. */
export function IntakeText({ told }: { readonly told: Pick<IntakeData, "lines" | "left"> }) {
  return (
    <>
      <ul className="mt-1">
        {told.lines.map((l) => (
          <li key={l.words}>
            <span className="font-semibold">{l.count} ×</span> {l.words}
            {l.notes.map((n) => (
              <p key={n} className="text-note text-lamp pl-6">
                {n}
              </p>
            ))}
          </li>
        ))}
      </ul>
      {told.left.length > 0 ? (
        <ul className="border-rule text-note mt-2 border-t pt-2">
          {told.left.map((r) => (
            <li key={r.name}>
              <span className="font-semibold">{r.name}</span>: {r.why}
            </li>
          ))}
        </ul>
      ) : null}
    </>
  );
}

/** Says what is, or would be, added where, what does not agree with the plan, what is here already and what cannot be read. */
export function IntakeReportView({ report, isAdded }: { readonly report: IntakeReport; readonly isAdded: boolean }) {
  // As long as nothing is added, clocks put right and doubts are told below, where they are answered.
  const told = intakeText(isAdded ? report : { ...report, clocks: [], doubts: [] });
  const asked = [...report.open, ...report.doubts.filter((d) => !d.isSure)].reduce((sum, g) => sum + g.count, 0);
  return (
    <div role="status" className="border-rule bg-sheet my-3 rounded-[8px] border p-4">
      <p className="font-semibold">
        {counted(report.total, "file")}: {told.added} {isAdded ? "added" : "to add"}, {report.known} already here
        {report.measured > 0 ? ` (${report.measured} of them with new words on their stars)` : ""},{" "}
        {report.refused.length} left out
        {asked > 0 ? `, ${asked} to be asked about` : ""}.
      </p>
      <IntakeText told={told} />
    </div>
  );
}
