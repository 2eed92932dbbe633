import { shortNight } from "~/components/clock";
import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { CULL_WORDS, subsWords } from "~/components/words/log-words";
import type { ToldEntry, ToldNight, ToldReason } from "~/desk/log/told";

const lost = (count: number, reason: ToldReason["reason"]) =>
  `${count} lost${reason === "" ? "" : `: ${CULL_WORDS[reason]}`}`;

/** "10 of 12 × 300 s Ha on P1, 2 lost: cloud". */
const entryWords = (e: ToldEntry): string =>
  subsWords({ ...e, sec: e.exposureSec }) + (e.kept < e.taken ? `, ${lost(e.taken - e.kept, e.reason)}` : "");

/** What was told at the mount and the log does not have: looked at once, and one press puts it in. */
export function ToldNights({
  nights,
  today,
  doubt,
  isBusy,
  onBook,
}: {
  readonly nights: readonly ToldNight[];
  readonly today: string;
  /** Why a night's entries cannot be as they stand. */
  readonly doubt: { readonly night: string; readonly words: string } | undefined;
  readonly isBusy: boolean;
  readonly onBook: (night: string, isSure: boolean) => void;
}) {
  return nights.map(({ night, entries, reasons }) => (
    <section
      key={night}
      aria-label={`Told at the mount, ${shortNight(night, today)}`}
      className="border-lamp my-3 border-l-2 pl-3"
    >
      {entries.length > 0 ? (
        <>
          <p>
            Told at the mount, {shortNight(night, today)}.{" "}
            <span className="text-soft">Drop the files if you have them: their counts are surer.</span>
          </p>
          <ul>
            {entries.map((e) => (
              <li key={entryWords(e) + e.projectId}>
                {entryWords(e)} <span className="text-soft">{e.projectName}</span>
              </li>
            ))}
          </ul>
          {doubt?.night === night ? (
            <p role="alert">
              This cannot be as it stands: {doubt.words}{" "}
              <Button look="plain" disabled={isBusy} onClick={() => onBook(night, true)}>
                It is right: add it
              </Button>
            </p>
          ) : (
            <Button className="mt-1" disabled={isBusy} onClick={() => onBook(night, false)}>
              Put {counted(entries.length, "entry", "entries")} into the log
            </Button>
          )}
        </>
      ) : null}
      {reasons.map(({ projectName, of, lost: count, reason }) => (
        <p key={`${projectName} ${of.panel} ${of.channel} ${of.subSec}`}>
          {shortNight(night, today)}, {of.channel} on {of.panel} of {projectName}: at the mount you said{" "}
          {lost(count, reason)}. The log has every sub kept: sort out which below.
        </p>
      ))}
    </section>
  ));
}
