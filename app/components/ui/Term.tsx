import { lazy, Suspense, type ReactNode } from "react";
import { Why } from "./Why";

// The words of the glossary are many, and most are never asked for.
const TermSays = lazy(() => import("./TermSays").then((m) => ({ default: m.TermSays })));

/** A word of the glossary where it is first met: pressed, it says what it means. */
export function Term({
  word,
  children,
  className = "min-h-6",
}: {
  /** As the glossary has it. */
  readonly word: string;
  /** As it stands here, where that differs. */
  readonly children?: ReactNode;
  readonly className?: string;
}) {
  return (
    <Why title={children ?? word} className={className}>
      <Suspense fallback={word}>
        <TermSays word={word} />
      </Suspense>
    </Why>
  );
}
