import { CalendarSearch } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { longNight } from "~/components/clock";

// Opened now and then: not part of the first load.
const AnyNightPopover = lazy(() => import("./AnyNightPopover").then((m) => ({ default: m.AnyNightPopover })));

const LOOK =
  "text-soft hover:text-ink bg-ground sticky -right-2 flex w-11 shrink-0 items-center justify-center rounded-[6px]";

/** Any night at all, for those the ribbon does not reach: at its end on every screen, where End or the arrows lead. */
export function AnyNight(of: {
  readonly chosen: string;
  readonly today: string;
  readonly onChoose: (night: string) => void;
}) {
  const [isAsked, setAsked] = useState(false);
  const button = (
    <button
      type="button"
      aria-haspopup="dialog"
      aria-expanded={false}
      aria-label={`Another night; ${longNight(of.chosen)} is chosen`}
      title="Another night"
      tabIndex={-1}
      className={LOOK}
      onClick={() => setAsked(true)}
    >
      <CalendarSearch size={20} strokeWidth={1.5} aria-hidden="true" />
    </button>
  );
  if (!isAsked) return button;
  return (
    <Suspense fallback={button}>
      <AnyNightPopover {...of} look={LOOK} />
    </Suspense>
  );
}
