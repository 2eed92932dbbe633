import { useCallback, useEffect, useState } from "react";
import { isShortcut, isTyping } from "./shortcuts";

const MOST_STEPS = 250;

interface History<T> {
  readonly past: readonly T[];
  readonly now: T;
  readonly future: readonly T[];
  /** Where a gesture began; its way in between is no step. */
  readonly start: T | null;
}

/**
 * A value with its past: `commit` makes a step; `begin` and then `show`, as often as a drag moves, make one with the `commit`
 * at its end. Ctrl Z goes back, Ctrl Shift Z forth, on the whole page unless somebody is typing.
 */
export function useHistory<T>(first: T, onTravel?: (now: T) => void) {
  const [history, setHistory] = useState<History<T>>({ past: [], now: first, future: [], start: null });
  const begin = useCallback(() => setHistory((h) => (h.start === null ? { ...h, start: h.now } : h)), []);
  const show = useCallback((now: T) => setHistory((h) => ({ ...h, now })), []);
  const commit = useCallback(
    (now: T) =>
      setHistory((h) => ({ past: [...h.past.slice(1 - MOST_STEPS), h.start ?? h.now], now, future: [], start: null })),
    [],
  );
  const { past, now, future } = history;
  const undo = useCallback(() => {
    const before = past.at(-1);
    if (before === undefined) return;
    setHistory({ past: past.slice(0, -1), now: before, future: [now, ...future], start: null });
    onTravel?.(before);
  }, [past, now, future, onTravel]);
  const redo = useCallback(() => {
    const [next, ...rest] = future;
    if (next === undefined) return;
    setHistory({ past: [...past, now], now: next, future: rest, start: null });
    onTravel?.(next);
  }, [past, now, future, onTravel]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event)) return;
      const act = isShortcut(event, "undo") ? undo : isShortcut(event, "redo") ? redo : null;
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [undo, redo]);
  return { now, begin, show, commit, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0 };
}
