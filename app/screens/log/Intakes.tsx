import { dayAndTime } from "~/components/clock";
import { counted } from "~/components/numbers";
import { Section } from "~/components/ui/Panel";
import type { IntakeData } from "~/core/ledger";
import { clockWords } from "./intake-words";
import { IntakeText } from "./IntakeReport";

const SHOWN = 10;

/** What was brought in from files, the latest first, to be read again. */
export function Intakes({
  intakes,
  zone,
}: {
  readonly intakes: readonly (IntakeData & { readonly id: string })[];
  readonly zone: string;
}) {
  if (intakes.length === 0) return null;
  return (
    <Section title="Brought in from files">
      <ul>
        {intakes.slice(0, SHOWN).map((i) => (
          <li key={i.id} className="border-rule border-t py-1.5">
            <details>
              <summary className="min-h-6 cursor-pointer">
                {dayAndTime(i.atMs, zone)}
                <span className="text-soft">
                  {" "}
                  · {counted(i.total, "file")}, {i.added} added, {i.known} already here, {i.left.length} left out
                  {i.clockHours ? `, clock ${clockWords(i.clockHours)}` : ""}
                </span>
              </summary>
              <IntakeText told={i} />
            </details>
          </li>
        ))}
      </ul>
    </Section>
  );
}
