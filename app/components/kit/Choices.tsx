import clsx from "clsx";
import type { ReactNode } from "react";

/** Kinds to choose from, each with its picture: one press chooses. */
export function Choices<T extends { readonly id: string; readonly words: string }>({
  label,
  kinds,
  chosen,
  picture,
  onChoose,
}: {
  readonly label: string;
  readonly kinds: readonly T[];
  readonly chosen: string;
  readonly picture?: (kind: T) => ReactNode;
  readonly onChoose: (id: string) => void;
}) {
  return (
    <div role="group" aria-label={label} className="grid gap-1 sm:grid-cols-2 lg:grid-cols-3">
      {kinds.map((kind) => (
        <button
          key={kind.id}
          type="button"
          aria-pressed={kind.id === chosen}
          onClick={() => onChoose(kind.id)}
          className={clsx(
            "hover:bg-raised flex min-h-12 items-center gap-3 rounded-[8px] border px-2 py-1 text-left",
            kind.id === chosen ? "border-lamp bg-raised" : "border-transparent",
          )}
        >
          {picture ? <span className="text-soft">{picture(kind)}</span> : null}
          <span>{kind.words}</span>
        </button>
      ))}
    </div>
  );
}
