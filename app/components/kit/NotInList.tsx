import type { ReactNode } from "react";
import { Button } from "~/components/ui/Button";

/** Kit that is in no list, by its own numbers: boxes, and one press that takes them. */
export function NotInList({
  isOpen,
  isWhole,
  note,
  onUse,
  children,
}: {
  readonly isOpen: boolean;
  /** Every number is there and can be. */
  readonly isWhole: boolean;
  /** What is taken from the nearest kind. */
  readonly note: string;
  readonly onUse: () => void;
  readonly children: ReactNode;
}) {
  return (
    <details className="mt-3" open={isOpen || undefined}>
      <summary className="min-h-6 cursor-pointer">Mine is not in the list</summary>
      <div className="mt-2 grid max-w-[56rem] items-start gap-3 sm:grid-cols-4">{children}</div>
      <Button className="mt-2" disabled={!isWhole} onClick={onUse}>
        Use these numbers
      </Button>{" "}
      <span className="text-note text-faint">{note}</span>
    </details>
  );
}
