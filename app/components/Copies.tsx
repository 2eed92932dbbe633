import type { StoredRecord } from "~/core/crew";
import { Button } from "./ui/Button";

/** The values in which a copy differs from what counts now. */
function differences(now: unknown, copy: unknown): string[] {
  const [a, b] = [now as Record<string, unknown>, copy as Record<string, unknown>];
  const text = (v: unknown) => (JSON.stringify(v) ?? "nothing").slice(0, 60);
  return [...new Set([...Object.keys(a), ...Object.keys(b)])]
    .filter((k) => JSON.stringify(a[k]) !== JSON.stringify(b[k]))
    .map((k) => `${k}: ${text(b[k])} (now ${text(a[k])})`);
}

/** Versions written at the same time by someone else or in another tab: shown until one is chosen, never dropped. */
export function Copies({
  now,
  copies,
  onTake,
  onDismiss,
}: {
  readonly now: unknown;
  readonly copies: readonly StoredRecord[];
  readonly onTake: (copy: StoredRecord) => void;
  readonly onDismiss: () => void;
}) {
  if (copies.length === 0) return null;
  return (
    <section className="border-lamp bg-sheet my-4 rounded-[8px] border p-4" aria-label="Changed in two places at once">
      <h2 className="text-section">Changed in two places at once</h2>
      <p className="text-note text-soft">The later change counts. The other is kept here until you choose.</p>
      {copies.map((copy) => (
        <div key={copy.rev} className="mt-2">
          <ul className="text-note list-disc pl-5">
            {differences(now, copy.data).map((d) => (
              <li key={d}>{d}</li>
            ))}
          </ul>
          <Button className="mt-1" onClick={() => onTake(copy)}>
            Take this one instead
          </Button>
        </div>
      ))}
      <Button look="plain" className="mt-2" onClick={onDismiss}>
        Keep what counts now
      </Button>
    </section>
  );
}
