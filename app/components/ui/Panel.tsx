import type { ReactNode } from "react";

/** A sheet with a serif heading; never put one inside another. */
export function Panel({ title, aside, children, className }: { readonly title: string; readonly aside?: ReactNode; readonly children: ReactNode; readonly className?: string }) {
  return (
    <section className={`rounded-[10px] border border-rule bg-sheet p-4 ${className ?? ""}`}>
      <header className="mb-2 flex items-baseline justify-between gap-3">
        <h2 className="text-section text-soft">{title}</h2>
        {aside ? <div className="text-note text-faint">{aside}</div> : null}
      </header>
      {children}
    </section>
  );
}

/** A heading over evidence that needs no frame of its own. */
export function Section({ title, aside, children }: { readonly title: string; readonly aside?: ReactNode; readonly children: ReactNode }) {
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
  return <div className="my-6 max-w-prose rounded-[10px] border border-dashed border-rule p-6 text-soft">{children}</div>;
}

/** A message about something refused. */
export function Refusal({ children }: { readonly children: ReactNode }) {
  return (
    <div role="alert" className="my-3 max-w-prose border-l-2 border-rust bg-sheet px-4 py-2 text-body">
      {children}
    </div>
  );
}
