import { useState } from "react";
import { instantOfRev, type RecordKind, type StoredRecord } from "~/core/crew";
import { changedFields, withChanges, type FieldChange } from "~/core/records";
import { Button } from "./ui/Button";
import { fieldLabel, valueWords } from "./words/field-words";

/** When a version says that it was written; "" where its reading of the clock is none. */
function writtenAt(rev: string): string {
  const ms = instantOfRev(rev);
  return Number.isFinite(ms) && ms > 0 && ms < 8e15
    ? `${new Date(ms).toISOString().slice(0, 16).replace("T", " ")} UTC`
    : "";
}

/** Two versions of a thing, field by field; of each field either may be chosen. */
export default function SideBySide({
  kind,
  now,
  copy,
  isBusy,
  onChoose,
}: {
  readonly kind: RecordKind;
  readonly now: { readonly rev: string; readonly data: unknown };
  readonly copy: StoredRecord;
  readonly isBusy: boolean;
  readonly onChoose: (data: unknown) => void;
}) {
  const changes = changedFields(kind, now.data, copy.data);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const keyOf = (c: FieldChange) => c.path.join(".");
  const take = (c: FieldChange, is: boolean) =>
    setChosen((before) => new Set(is ? [...before, keyOf(c)] : [...before].filter((k) => k !== keyOf(c))));
  const cell = (c: FieldChange, value: unknown, is: boolean, words: string) => (
    <td className="border-rule border-t py-1 pr-4">
      <label className="flex min-h-6 items-baseline gap-2">
        <input
          type="radio"
          name={`${copy.rev} ${keyOf(c)}`}
          aria-label={`${fieldLabel(c)}: ${words}`}
          checked={chosen.has(keyOf(c)) === is}
          onChange={() => take(c, is)}
        />
        <span className="min-w-0 break-words">{valueWords(value, c.unit, {})}</span>
      </label>
    </td>
  );
  return (
    <div className="mt-2">
      <div className="overflow-x-auto">
        <table className="text-note w-full">
          <thead>
            <tr className="text-soft text-left">
              <th scope="col" className="font-normal">
                Field
              </th>
              <th scope="col" className="font-normal">
                Counts now{writtenAt(now.rev) === "" ? "" : `, written ${writtenAt(now.rev)}`}
              </th>
              <th scope="col" className="font-normal">
                The other{writtenAt(copy.rev) === "" ? "" : `, written ${writtenAt(copy.rev)}`}
              </th>
            </tr>
          </thead>
          <tbody>
            {changes.map((c) => (
              <tr key={keyOf(c)}>
                <th scope="row" className="border-rule border-t py-1 pr-4 text-left font-normal">
                  {fieldLabel(c)}
                </th>
                {cell(c, c.from, false, "as it counts now")}
                {cell(c, c.to, true, "as the other says")}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="mt-1 flex flex-wrap gap-2">
        {chosen.size > 0 && chosen.size < changes.length ? (
          <Button
            look="main"
            disabled={isBusy}
            onClick={() =>
              onChoose(
                withChanges(
                  now.data,
                  changes.filter((c) => chosen.has(keyOf(c))),
                ),
              )
            }
          >
            Keep it as chosen
          </Button>
        ) : null}
        <Button disabled={isBusy} onClick={() => onChoose(copy.data)}>
          Take this one instead
        </Button>
      </div>
    </div>
  );
}
