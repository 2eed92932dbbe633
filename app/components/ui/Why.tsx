import { lazy, Suspense, useState, type ReactNode } from "react";

// What places a sheet beside a word is large, and most words are never pressed.
const WhyPopover = lazy(() => import("./WhyPopover").then((m) => ({ default: m.WhyPopover })));

/** A number that explains itself: press it, and what went in, which model and how sure opens beside it. */
export function Why({
  children,
  title,
  className,
}: {
  readonly children: ReactNode;
  readonly title: ReactNode;
  readonly className?: string;
}) {
  const [isAsked, setAsked] = useState(false);
  const look = `in-text decoration-rule hover:decoration-lamp underline decoration-dotted underline-offset-4 ${className ?? ""}`;
  const word = (
    <button type="button" aria-haspopup="dialog" aria-expanded={false} className={look} onClick={() => setAsked(true)}>
      {title}
    </button>
  );
  if (!isAsked) return word;
  return (
    <Suspense fallback={word}>
      <WhyPopover title={title} look={look}>
        {children}
      </WhyPopover>
    </Suspense>
  );
}
