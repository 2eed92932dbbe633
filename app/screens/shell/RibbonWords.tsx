import { useDesk } from "~/at-desk";
import { theHints } from "~/desk/records/kept";
import { useState } from "react";

/** What the ribbon's columns say, until somebody has read it. */
export function RibbonWords() {
  const desk = useDesk();
  const [isRead, setRead] = useState(() => desk.at(theHints).isRead("ribbon"));
  if (isRead) return null;
  return (
    <p className="no-print text-note text-soft border-rule mt-8 flex flex-wrap items-baseline gap-x-3 border-t pt-2">
      <span>
        The ribbon at the top: a column is a night, dusk at its top; black is dark, pale moonlit. Green: chance of a
        clear sky. A dot: work taken or planned; a ring: kept by hand.
      </span>
      <button
        type="button"
        className="hover:text-ink min-h-6 underline underline-offset-4"
        onClick={() => {
          desk.at(theHints).markRead("ribbon");
          setRead(true);
        }}
      >
        Understood
      </button>
    </p>
  );
}
