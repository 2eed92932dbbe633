import { useState } from "react";
import { counted } from "~/components/numbers";
import { Button } from "~/components/ui/Button";
import { SelectField } from "~/components/ui/Field";
import type { BookingAnswer } from "~/core/ledger";
import type { OpenGroup } from "~/desk/log/intake";

/** Names of what can be chosen, by identifier. */
export interface ChoiceNames {
  readonly projects: Readonly<Record<string, string>>;
  readonly rigs: Readonly<Record<string, string>>;
  readonly places: Readonly<Record<string, string>>;
}

const PARTS = [
  { key: "projectId", label: "Project", of: "projects" },
  { key: "rigId", label: "Rig", of: "rigs" },
  { key: "placeId", label: "Place", of: "places" },
] as const;

/** Asks once for every group of files whose headers leave several answers. */
export function OpenQuestions({
  groups,
  names,
  isBusy,
  onAnswer,
}: {
  readonly groups: readonly OpenGroup[];
  readonly names: ChoiceNames;
  readonly isBusy: boolean;
  readonly onAnswer: (answers: Readonly<Record<string, BookingAnswer>>) => void;
}) {
  const [answers, setAnswers] = useState<Readonly<Record<string, BookingAnswer>>>({});
  const isComplete = ({ question: q }: OpenGroup) =>
    PARTS.every((p) => q[p.of].length <= 1 || answers[q.key]?.[p.key] !== undefined);
  return (
    <section aria-label="Where do these belong?" className="border-lamp bg-sheet my-3 rounded-[8px] border p-4">
      <h2 className="text-section">Where do these belong?</h2>
      <p className="text-soft">Their headers leave more than one answer. They are left out until you say.</p>
      {groups.map((g) => {
        const { question: q, count } = g;
        return (
          <div key={q.key} className="border-rule mt-3 border-t pt-2">
            <p className="font-semibold">
              {counted(count, "exposure")} of {q.exposureSec} s{q.channel ? ` in ${q.channel}` : ""}
              {q.object ? ` of “${q.object}”` : ""}
            </p>
            <div className="grid gap-3 sm:grid-cols-3">
              {PARTS.filter((p) => q[p.of].length > 1).map((p) => (
                <SelectField
                  key={p.key}
                  label={p.label}
                  value={answers[q.key]?.[p.key] ?? ""}
                  onChange={(e) => setAnswers({ ...answers, [q.key]: { ...answers[q.key], [p.key]: e.target.value } })}
                >
                  <option value="">choose …</option>
                  {q[p.of].map((id) => (
                    <option key={id} value={id}>
                      {names[p.of][id] ?? id}
                    </option>
                  ))}
                </SelectField>
              ))}
            </div>
          </div>
        );
      })}
      <Button
        look="main"
        className="mt-3"
        disabled={isBusy || !groups.some(isComplete)}
        onClick={() => onAnswer(answers)}
      >
        That is where
      </Button>
    </section>
  );
}
