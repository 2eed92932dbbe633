import { Waiting } from "~/components/Waiting";
import { Suspense } from "react";
import { Await } from "react-router";
import { clockTime, clockTimeBeside, monthWord, shortNight } from "~/components/clock";
import { fixed } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { Section } from "~/components/ui/Panel";
import type { JointRow } from "~/desk/plan/joint";

const hoursWord = (h: number) => (h < 0.05 ? "–" : fixed(h, h < 10 ? 1 : 0));

/** Who has the target when: tonight by everyone's own clock, the nights to come, and the months with what clear nights will give. */
export function JointCalendar({
  rows,
  members,
  zone,
  told,
  isBusy,
  onTell,
}: {
  /** What one told the others of one's evenings; null where one takes no part. */
  readonly told: { readonly isTold: boolean; readonly isCurrent: boolean } | null;
  readonly isBusy: boolean;
  readonly onTell: (tells: boolean) => void;
  readonly rows: Promise<readonly JointRow[]>;
  readonly members: Readonly<Record<string, string>>;
  /** Of whoever looks at it. */
  readonly zone: string;
}) {
  return (
    <Suspense fallback={<Waiting words="Looking through everyone’s nights …" heightPx={260} />}>
      <Await
        resolve={rows}
        errorElement={<p className="text-rust mt-6">Everyone&apos;s nights could not be worked out.</p>}
      >
        {(all) =>
          all.filter((r) => !r.isAway).length < 2 ? null : (
            <>
              <Rows rows={all} members={members} zone={zone} />
              {told ? <Tell {...told} isBusy={isBusy} onTell={onTell} /> : null}
            </>
          )
        }
      </Await>
    </Suspense>
  );
}

/** What the others get to know of one's own evenings with the next file. */
function Tell({
  isTold,
  isCurrent,
  isBusy,
  onTell,
}: {
  readonly isTold: boolean;
  readonly isCurrent: boolean;
  readonly isBusy: boolean;
  readonly onTell: (tells: boolean) => void;
}) {
  return (
    <p className="text-soft mt-2 flex flex-wrap items-center gap-x-3">
      {isTold
        ? isCurrent
          ? "The file for the others says which evenings you are free and where you can drive."
          : "What the others know of your evenings is not as your rules have it now."
        : "The others do not know which evenings you are free, or where you can drive."}
      {isTold && isCurrent ? null : (
        <Button look="plain" disabled={isBusy} onClick={() => onTell(true)}>
          {isTold ? "Tell them anew" : "Tell them"}
        </Button>
      )}
      {isTold ? (
        <Button look="plain" disabled={isBusy} onClick={() => onTell(false)}>
          Take it back
        </Button>
      ) : null}
    </p>
  );
}

const BUSY = -1;

function Rows({
  rows,
  members,
  zone,
}: {
  readonly rows: readonly JointRow[];
  readonly members: Readonly<Record<string, string>>;
  readonly zone: string;
}) {
  const { nights, months } = rows[0]!;
  const table = (
    what: string,
    heads: readonly string[],
    rows: readonly JointRow[],
    valuesOf: (r: JointRow) => readonly number[],
    together: ((values: readonly number[]) => number) | null,
  ) => (
    <div className="relative mt-3 overflow-x-auto">
      <table className="w-full min-w-[560px] table-fixed">
        <caption className="text-note text-soft pb-1 text-left">{what}</caption>
        <thead>
          <tr className="text-note text-soft text-right">
            <th scope="col" className="w-24 text-left font-normal">
              Who
            </th>
            {heads.map((h) => (
              <th key={h} scope="col" className="font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={`${r.memberId} ${r.placeName}`} className="border-rule border-t">
              <th scope="row" className="truncate py-1 text-left font-semibold">
                {members[r.memberId] ?? "someone"}
                {r.isAway ? (
                  <span className="text-note text-soft block truncate font-normal">at {r.placeName}</span>
                ) : null}
              </th>
              {valuesOf(r).map((v, i) => (
                <td key={heads[i]} className={`py-1 text-right ${v < 0.05 ? "text-faint" : ""}`}>
                  {v === BUSY ? <span title="not free this evening">busy</span> : hoursWord(v)}
                </td>
              ))}
            </tr>
          ))}
          {together ? (
            <tr className="border-soft border-t">
              <th scope="row" className="py-1 text-left font-semibold">
                Together
              </th>
              {heads.map((h, i) => (
                <td key={h} className="py-1 text-right font-semibold">
                  {hoursWord(together(rows.map((r) => valuesOf(r)[i] ?? 0)))}
                </td>
              ))}
            </tr>
          ) : null}
        </tbody>
      </table>
    </div>
  );
  return (
    <Section title="When each of us has it" aside="over everyone's own skyline, dark, the Moon as the project takes it">
      <ul>
        {rows.map((r) => (
          <li key={`${r.memberId} ${r.placeName}`} className="border-rule flex flex-wrap gap-x-3 border-t py-1">
            <span className="min-w-24 font-semibold">{members[r.memberId] ?? "someone"}</span>
            <span className="text-soft min-w-0 flex-1">
              {r.placeName}, {r.channel}
            </span>
            <span>
              {r.tonight
                ? `tonight ${clockTime(r.tonight.startMs, r.zone)} to ${clockTimeBeside(r.tonight.endMs, r.zone, zone)}`
                : "not tonight"}
            </span>
          </li>
        ))}
      </ul>
      {table(
        "Usable hours a night, clear sky assumed",
        nights.map((n) => shortNight(n.night).slice(0, -4)),
        rows,
        (r) => r.nights.map((n) => (n.isBusy ? BUSY : n.hours)),
        null,
      )}
      {table(
        "Hours at the reference, of nights that will be clear, were they all its own",
        months.map((m) => monthWord(m.month)),
        rows.filter((r) => !r.isAway),
        (r) => r.months.map((m) => m.hours),
        (values) => values.reduce((a, b) => a + b, 0),
      )}
    </Section>
  );
}
