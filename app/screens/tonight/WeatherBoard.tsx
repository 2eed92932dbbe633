import { fixed } from "~/components/numbers";
import type { ReactNode } from "react";
import { DEW_SPREAD_C, type TrackRecord } from "~/core/weather";
import type { WeighedHour } from "~/core/plan";
import { inUnit, unitName } from "~/components/measures";
import { axisHour, weekdayTime } from "~/components/clock";
import { Section } from "~/components/ui/Panel";
import { Why } from "~/components/ui/Why";
import { askFaultWords, forecastNoteWords } from "./forecast-words";
import type { ForecastNote } from "~/core/formats";

/** A source as the board shows it. */
export interface BoardSource {
  readonly id: string;
  readonly name: string;
  readonly state: "asking" | "fresh" | "kept" | "silent";
  readonly fault: { readonly code: string; readonly found: string } | null;
  readonly notes: readonly ForecastNote[];
  readonly issuedMs: number | null;
  readonly record: TrackRecord;
}

const ageWords = (ms: number): string => {
  const hours = ms / 3_600_000;
  return hours < 1.5 ? `${Math.max(1, Math.round(hours * 60))} min old` : `${Math.round(hours)} h old`;
};

/** "issued 12:00, 5 h old", and what is wrong with it. */
function stateWords(s: BoardSource, nowMs: number, zone: string): string {
  const issue = s.issuedMs === null ? "" : `issued ${weekdayTime(s.issuedMs, zone)}, ${ageWords(nowMs - s.issuedMs)}`;
  switch (s.state) {
    case "asking":
      return issue === "" ? "asking …" : `${issue}; asking for a newer one …`;
    case "fresh":
      return issue;
    case "kept":
      return s.fault ? `last good copy, ${issue}: ${askFaultWords(s.fault)}` : issue;
    case "silent":
      return s.fault ? askFaultWords(s.fault) : "says nothing of this night";
  }
}

const recordWords = (r: TrackRecord): string => (r.hours === 0 ? "no record here yet" : `weighed by ${r.hours} h here`);

function Cell({ odds, isStrong = false }: { readonly odds: number | null; readonly isStrong?: boolean }) {
  if (odds === null) return <td className="text-faint text-center">–</td>;
  return (
    <td className={`relative h-8 px-0.5 text-center ${isStrong ? "font-semibold" : "text-note"}`}>
      <span
        aria-hidden="true"
        className={`absolute inset-x-px bottom-0 ${isStrong ? "bg-(--bar-strong)" : "bg-(--bar)"}`}
        style={{ height: `${100 * odds}%` }}
      />
      <span className="relative">{Math.round(odds * 100)}</span>
    </td>
  );
}

function Row({
  head,
  children,
  note,
}: {
  readonly head: ReactNode;
  readonly note?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <tr className="border-rule border-t">
      <th scope="row" className="bg-ground sticky left-0 z-10 w-44 py-1 pr-3 text-left font-normal">
        {head}
        {note ? <span className="text-note text-faint block leading-tight">{note}</span> : null}
      </th>
      {children}
    </tr>
  );
}

const number = (v: number | null, digits = 0): string =>
  v === null
    ? "–"
    : fixed(v, digits)
        .replace("-", "−")
        .replace(/^−0(\.0)?$/, "0$1");

/** The sources side by side by hour, what they come to together, and the air. */
export function WeatherBoard({
  hours,
  sources,
  zone,
  nowMs,
  gustLimitKmh,
  action,
}: {
  readonly hours: readonly WeighedHour[];
  readonly sources: readonly BoardSource[];
  readonly zone: string;
  readonly nowMs: number;
  readonly gustLimitKmh: number;
  readonly action?: ReactNode;
}) {
  const airRow = (
    head: string,
    of: (h: WeighedHour) => string,
    isBad: (h: WeighedHour) => boolean,
    badWord: string,
  ) => (
    <Row head={<span className="text-note text-soft">{head}</span>}>
      {hours.map((h) => (
        <td key={h.atMs} className={`text-note text-center ${isBad(h) ? "text-rust font-semibold" : "text-soft"}`}>
          {of(h)}
          {isBad(h) ? <span className="sr-only"> {badWord}</span> : null}
        </td>
      ))}
    </Row>
  );
  const has = (key: keyof WeighedHour) => hours.some((h) => h[key] !== null);
  return (
    <Section title="The forecasts, hour by hour" aside={action ?? "chance of a usable hour, %"}>
      <div className="relative overflow-x-auto">
        <table className="w-full min-w-[640px] table-fixed border-collapse" aria-label="Forecasts by hour">
          <thead>
            <tr className="text-note text-faint">
              <th scope="col" className="bg-ground sticky left-0 z-10 w-44 text-left font-normal">
                chance of a usable hour, %
              </th>
              {hours.map((h) => (
                <th key={h.atMs} scope="col" className="pb-1 font-normal">
                  {axisHour(h.atMs, zone)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sources.map((s, i) => (
              <Row
                key={s.id}
                head={s.name}
                note={
                  <>
                    <span className={s.fault ? "text-rust" : ""}>{stateWords(s, nowMs, zone)}</span>
                    <br />
                    {recordWords(s.record)}
                    {s.notes.length > 0 ? (
                      <>
                        {" · "}
                        <Why title={`${s.notes.length} left out`}>
                          <ul className="list-disc pl-4">
                            {s.notes.map((n) => (
                              <li key={`${n.code} ${n.variable}`}>{forecastNoteWords(n)}.</li>
                            ))}
                          </ul>
                          <p className="mt-2">The rest of this forecast is used.</p>
                        </Why>
                      </>
                    ) : null}
                  </>
                }
              >
                {hours.map((h) => (
                  <Cell key={h.atMs} odds={h.bySource[i] ?? null} />
                ))}
              </Row>
            ))}
            <Row
              head={
                <Why title={<span className="font-semibold">together</span>}>
                  <p>
                    Cloud by layer becomes odds (layers overlap at random, high cloud counts half, less the chance of
                    rain). Sources are pooled with weights from how reliable they were here. Twenty hours of the
                    place&apos;s long-term chance are mixed into every record.
                  </p>
                  <p className="mt-2">
                    What you saw counts 96 or 4 % at once and fades with 2.5 h. Sources share models: agreement is no
                    proof.
                  </p>
                </Why>
              }
              note="pooled by record, looks taken in"
            >
              {hours.map((h) => (
                <Cell key={h.atMs} odds={h.odds} isStrong />
              ))}
            </Row>
            {airRow(
              "disagreement, ± points",
              (h) => number(h.spread === null ? null : h.spread * 100),
              (h) => (h.spread ?? 0) > 0.15,
              "they disagree",
            )}
            {has("feltGustKmh")
              ? airRow(
                  `gusts at the mount, ${unitName("km/h")}`,
                  (h) => number(h.feltGustKmh === null ? null : inUnit(h.feltGustKmh, "km/h")),
                  (h) => (h.feltGustKmh ?? 0) > gustLimitKmh,
                  "over the mount's limit",
                )
              : null}
            {has("airC")
              ? airRow(
                  `air, ${unitName("°C")}`,
                  (h) => number(h.airC === null ? null : inUnit(h.airC, "°C")),
                  () => false,
                  "",
                )
              : null}
            {has("dewC")
              ? airRow(
                  `above the dew point, ${unitName("°C")}`,
                  (h) => number(h.airC !== null && h.dewC !== null ? inUnit(h.airC - h.dewC, "°C", true) : null, 1),
                  (h) => h.airC !== null && h.dewC !== null && h.airC - h.dewC < DEW_SPREAD_C,
                  "optics get wet",
                )
              : null}
            {has("rainChance")
              ? airRow(
                  "chance of rain, %",
                  (h) => number(h.rainChance === null ? null : h.rainChance * 100),
                  (h) => (h.rainChance ?? 0) >= 0.3,
                  "rain possible",
                )
              : null}
            {has("seeingArcsec")
              ? airRow(
                  "seeing at the zenith, ″",
                  (h) => number(h.seeingArcsec, 1),
                  () => false,
                  "",
                )
              : null}
            {has("hazeMag")
              ? airRow(
                  "lost to haze, mag",
                  (h) => number(h.hazeMag, 2),
                  (h) => (h.hazeMag ?? 0) > 0.5,
                  "hazy",
                )
              : null}
          </tbody>
        </table>
      </div>
    </Section>
  );
}
