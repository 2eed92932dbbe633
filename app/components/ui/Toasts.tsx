import { Toast } from "radix-ui";
import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from "react";

interface Note {
  readonly id: number;
  readonly text: string;
  readonly undoId?: string;
}

type Say = (text: string, undoId?: string) => void;
const SayContext = createContext<Say>(() => undefined);

/** Says something in passing, with an Undo where there is one. */
export const useSay = (): Say => useContext(SayContext);

/** Holds the notes that pass by at the bottom of the page; focus reaches them with F8. */
export function Toasts({
  onUndo,
  children,
}: {
  readonly onUndo: (undoId: string) => void;
  readonly children: ReactNode;
}) {
  const [notes, setNotes] = useState<readonly Note[]>([]);
  const say = useCallback<Say>(
    (text, undoId) =>
      setNotes((all) => [...all.slice(-2), { id: (all.at(-1)?.id ?? 0) + 1, text, ...(undoId ? { undoId } : {}) }]),
    [],
  );
  const value = useMemo(() => say, [say]);
  return (
    <SayContext.Provider value={value}>
      <Toast.Provider duration={12_000} swipeDirection="down">
        {children}
        {notes.map((note) => (
          <Toast.Root
            key={note.id}
            onOpenChange={(open) => !open && setNotes((all) => all.filter((n) => n.id !== note.id))}
            className="border-rule bg-raised flex items-center gap-4 rounded-[8px] border px-4 py-2.5 shadow-lg"
          >
            <Toast.Description>{note.text}</Toast.Description>
            {note.undoId ? (
              <Toast.Action
                altText="Undo"
                onClick={() => note.undoId && onUndo(note.undoId)}
                className="text-lamp font-semibold underline underline-offset-4"
              >
                Undo
              </Toast.Action>
            ) : null}
            <Toast.Close aria-label="Dismiss" className="text-faint hover:text-ink">
              ×
            </Toast.Close>
          </Toast.Root>
        ))}
        <Toast.Viewport className="no-print fixed bottom-16 left-1/2 z-50 flex w-max max-w-[92vw] -translate-x-1/2 flex-col gap-2 sm:bottom-5" />
      </Toast.Provider>
    </SayContext.Provider>
  );
}
