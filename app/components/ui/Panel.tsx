import type { ReactNode } from "react";

/** A sheet with a serif heading; never put one inside another. */
export function Panel({
  title,
  aside,
  children,
  className,
}: {
  readonly title: string;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
  readonly className?: string;
}) {
  return (
    <section className={`border-rule bg-sheet rounded-[10px] border p-4 ${className ?? ""}`}>
      <header className="mb-2 flex items-baseline justify-between gap-3 print:mb-0.5">
        <h2 className="text-section text-soft print:text-[12px]">{title}</h2>
        {aside ? <div className="text-note text-faint">{aside}</div> : null}
      </header>
      {children}
    </section>
  );
}

/** A heading over evidence that needs no frame of its own. */
export function Section({
  title,
  aside,
  children,
}: {
  readonly title: string;
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <section className="mt-6">
      <header className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-section text-soft">{title}</h2>
        {aside ? <div className="text-note text-faint">{aside}</div> : null}
      </header>
      {children}
    </section>
  );
}

/** What to do where there is nothing yet. */
export function Empty({ children }: { readonly children: ReactNode }) {
  return (
    <div className="border-rule text-soft my-6 max-w-prose rounded-[10px] border border-dashed p-6">{children}</div>
  );
}

/** A message about something refused. */
export function Refusal({ children }: { readonly children: ReactNode }) {
  return (
    <div role="alert" className="border-rust bg-sheet text-body my-3 max-w-prose border-l-2 px-4 py-2">
      {children}
    </div>
  );
}
