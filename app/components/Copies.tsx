import { useState } from "react";
import { instantOfRev, type RecordKind, type StoredRecord } from "~/core/crew";
import { changedFields, withChanges, type FieldChange } from "~/core/records";
import { ACTS, type ActsIntent } from "./forms/acts-intent";
import { useAct } from "./forms/use-act";
import { StorageRefusal } from "./StorageRefusal";
import { Button } from "./ui/Button";
import { fieldLabel, valueWords } from "./words/field-words";

/** When a version says that it was written; "" where its reading of the clock is none. */
function writtenAt(rev: string): string {
  const ms = instantOfRev(rev);
  return Number.isFinite(ms) && ms > 0 && ms < 8e15
    ? `${new Date(ms).toISOString().slice(0, 16).replace("T", " ")} UTC`
    : "";
}

/** Something that two wrote at once. */
export interface TornThing<D> {
  readonly id: string;
  readonly rev: string;
  readonly data: D;
  readonly copies: readonly StoredRecord<D>[];
}

/** Versions written at the same time by someone else or in another tab, a deletion among them: shown until one is chosen, never dropped. */
export function Copies<D>({
  kind,
  of: thing,
  onTake,
}: {
  readonly kind: RecordKind;
  readonly of: TornThing<D>;
  /** Told which version was taken instead of the one shown. */
  readonly onTake?: (data: D) => void;
}) {
  const { act, refusal, isBusy } = useAct<ActsIntent>({ action: ACTS });
  if (thing.copies.length === 0) return null;
  const settle = (data: D, isDeleted = false) => {
    const { id, rev } = thing;
    return act({ act: "settle", kind, id, rev, copies: thing.copies.map((c) => c.rev), data, isDeleted });
  };
  const live = thing.copies.filter((c) => c.deletedAt === undefined);
  const isDeletedElsewhere = live.length < thing.copies.length;
  return (
    <section className="border-lamp bg-sheet my-4 rounded-[8px] border p-4" aria-label="Changed in two places at once">
      <h2 className="text-section">Changed in two places at once</h2>
      {isDeletedElsewhere ? (
        <p className="text-note text-soft">
          Somebody deleted this while it was being changed here or elsewhere. It is still shown, and stays until you
          choose.
        </p>
      ) : null}
      {live.length > 0 ? (
        <p className="text-note text-soft">The later change counts. The other is kept here until you choose.</p>
      ) : null}
      <StorageRefusal fault={refusal} />
      {live.map((copy) => (
        <SideBySide
          key={copy.rev}
          kind={kind}
          now={thing}
          copy={copy}
          isBusy={isBusy}
          onChoose={(data) => {
            onTake?.(data);
            void settle(data);
          }}
        />
      ))}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button look="plain" disabled={isBusy} onClick={() => void settle(thing.data)}>
          {live.length > 0 ? "Keep what counts now" : "Keep it"}
        </Button>
        {isDeletedElsewhere ? (
          <Button look="stop" disabled={isBusy} onClick={() => void settle(thing.data, true)}>
            Delete it
          </Button>
        ) : null}
      </div>
    </section>
  );
}

/** Two versions of a thing, field by field; of each field either may be chosen. */
function SideBySide<D>({
  kind,
  now,
  copy,
  isBusy,
  onChoose,
}: {
  readonly kind: RecordKind;
  readonly now: Pick<TornThing<D>, "rev" | "data">;
  readonly copy: StoredRecord<D>;
  readonly isBusy: boolean;
  readonly onChoose: (data: D) => void;
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
                ) as D,
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
