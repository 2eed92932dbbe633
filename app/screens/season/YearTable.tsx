import { Waiting } from "~/components/Waiting";
import { Suspense } from "react";
import { Await, Link } from "react-router";
import { monthWord } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { Section } from "~/components/ui/Panel";
import type { YearRow } from "./load";

/** Months by projects and wishes: what clear nights would bring each, were they all its own; its best months stand out. */
export function YearTable({ year, search }: { readonly year: Promise<readonly YearRow[]>; readonly search: string }) {
  return (
    <Suspense fallback={<Waiting words="Looking through the year …" heightPx={160} />}>
      <Await resolve={year} errorElement={<p className="text-rust mt-6">The year could not be worked out.</p>}>
        {(rows) => (rows.length === 0 ? null : <Rows rows={rows} search={search} />)}
      </Await>
    </Suspense>
  );
}

function Rows({ rows, search }: { readonly rows: readonly YearRow[]; readonly search: string }) {
  const months = rows[0]!.months.map((m) => m.month);
  return (
    <Section title="The year" aside="hours that count, of clear nights, were they all its own">
      <div className="relative overflow-x-auto">
        <table className="w-full min-w-[620px] table-fixed">
          <thead>
            <tr className="text-note text-soft text-right">
              <th scope="col" className="w-40 text-left font-normal">
                Project or wish
              </th>
              {months.map((m) => (
                <th key={m} scope="col" className="font-normal">
                  {monthWord(m)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const most = Math.max(...row.months.map((m) => m.hours));
              return (
                <tr key={row.id} className="border-rule border-t">
                  <th scope="row" className="py-1 pr-2 text-left font-normal">
                    <Link
                      to={`${row.isWish ? `/targets/${encodeURIComponent(row.id)}` : `/projects/${row.id}/plan`}${search}`}
                      className="block truncate hover:underline"
                    >
                      {row.name}
                    </Link>
                    <span className="text-note text-soft">
                      {row.channel}
                      {row.isWish ? ", a wish" : ""}
                    </span>
                  </th>
                  {row.months.map((m) => (
                    <td
                      key={m.month}
                      className={`py-1 text-right ${m.hours > 0.66 * most && m.hours >= 1 ? "text-lamp font-semibold" : m.hours < 1 ? "text-faint" : ""}`}
                    >
                      {m.hours < 0.05 ? "–" : fixed(m.hours, m.hours < 10 ? 1 : 0)}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
