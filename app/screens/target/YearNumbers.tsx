import { fixed } from "~/components/numbers";
import { TZDate } from "@date-fns/tz";
import { format } from "date-fns";
import type { MonthInNumbers } from "~/core/night";
import { formatMinutes } from "~/core/notation";

/** "Dec 2026". */
const monthWord = (month: string) => format(new TZDate(`${month}-01T12:00:00Z`, "UTC"), "MMM yyyy");

/** The next twelve months of a target in numbers, the Moon counted. */
export function YearNumbers({ months }: { readonly months: readonly MonthInNumbers[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[28rem] text-right">
        <thead className="text-note text-soft">
          <tr className="border-rule border-b">
            <th scope="col" className="py-1 text-left font-normal">
              Month
            </th>
            <th scope="col" className="font-normal">
              nights with 1 h
            </th>
            <th scope="col" className="font-normal">
              longest
            </th>
            <th scope="col" className="font-normal">
              usable, all clear
            </th>
            <th scope="col" className="font-normal">
              to be expected
            </th>
          </tr>
        </thead>
        <tbody>
          {months.map((m) => (
            <tr key={m.month} className={`border-rule border-b ${m.nights === 0 ? "text-faint" : ""}`}>
              <th scope="row" className="py-1 text-left font-normal">
                {monthWord(m.month)}
              </th>
              <td>{m.nights}</td>
              <td>{m.longestMin > 0 ? formatMinutes(m.longestMin) : "–"}</td>
              <td>{fixed(m.usableHours)} h</td>
              <td className="font-semibold">{fixed(m.clearHours)} h</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-note text-soft mt-1">
        The Moon rule of the channel counts. To be expected = usable hours × your chance of a clear night in that month.
      </p>
    </div>
  );
}
