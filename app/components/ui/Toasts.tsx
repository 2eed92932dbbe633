import { createContext, lazy, Suspense, useCallback, useContext, useEffect, useState, type ReactNode } from "react";
import type { Note } from "./ToastList";

const load = () => import("./ToastList").then((m) => ({ default: m.ToastList }));
const ToastList = lazy(load);
/** Fetched once the page is drawn, so that the first note need not wait for it, nor for a network that is gone by then. */
const FETCHED_AFTER_MS = 2000;

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
  useEffect(() => {
    const timer = setTimeout(() => void load().catch(() => undefined), FETCHED_AFTER_MS);
    return () => clearTimeout(timer);
  }, []);
  return (
    <SayContext.Provider value={say}>
      {children}
      {notes.length > 0 ? (
        <Suspense>
          <ToastList notes={notes} onUndo={onUndo} onGone={(id) => setNotes((all) => all.filter((n) => n.id !== id))} />
        </Suspense>
      ) : null}
    </SayContext.Provider>
  );
}
