import { lazy, Suspense } from "react";
import type { RecordKind, StoredRecord } from "~/core/crew";
import { ACTS, type ActsIntent } from "./forms/acts-intent";
import { useAct } from "./forms/use-act";
import { StorageRefusal } from "./StorageRefusal";
import { Button } from "./ui/Button";

// It asks the schemas what fields are called, and hardly any page has it.
const SideBySide = lazy(() => import("./SideBySide"));

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
  const settle = (data: unknown, isDeleted = false) => {
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
      <Suspense fallback={<p className="text-note text-soft">Comparing the two …</p>}>
        {live.map((copy) => (
          <SideBySide
            key={copy.rev}
            kind={kind}
            now={thing}
            copy={copy}
            isBusy={isBusy}
            onChoose={(data) => {
              onTake?.(data as D);
              void settle(data);
            }}
          />
        ))}
      </Suspense>
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
