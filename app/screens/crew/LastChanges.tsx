import { weekdayTime } from "~/components/clock";
import { RECORD_WORDS } from "~/components/words/field-words";
import { Section } from "~/components/ui/Panel";
import type { LastWritten } from "~/desk/records/last-written";

/** Who wrote what of the project last; what two wrote at once is named. */
export function LastChanges({
  written,
  members,
  zone,
}: {
  readonly written: readonly LastWritten[];
  readonly members: Readonly<Record<string, string>>;
  readonly zone: string;
}) {
  if (written.length === 0) return null;
  return (
    <Section title="Who changed what" aside="the latest first">
      <ul>
        {written.map((w) => (
          <li key={`${w.kind} ${w.id}`} className="border-rule flex flex-wrap gap-x-4 border-t py-1.5">
            <span className="text-soft w-40">
              {new Date(w.atMs).toISOString().slice(0, 10)}, {weekdayTime(w.atMs, zone)}
            </span>
            <span className="min-w-24 font-semibold">{members[w.author] ?? "someone"}</span>
            <span className="min-w-0 flex-1">
              {w.kind === "contribution"
                ? `log of ${w.name}`
                : `${RECORD_WORDS[w.kind]}${w.name === "" ? "" : `: ${w.name}`}`}
              {w.copies > 0 ? (
                <span className="text-lamp"> · written by two at once: choose on its own page</span>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
    </Section>
  );
}
