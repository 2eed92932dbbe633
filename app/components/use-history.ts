import { useCallback, useEffect, useState } from "react";
import { isShortcut, isTyping } from "./shortcuts";

const MOST_STEPS = 250;

interface History<T> {
  readonly past: readonly T[];
  readonly now: T;
  readonly future: readonly T[];
  /** Where a gesture under way began, in a box of its own; null = none is. */
  readonly start: { readonly value: T } | null;
}

/**
 * A value with its past. `put` makes a step of its own, but between `begin` and `commit` everything belongs to one gesture,
 * and a drag is undone as a whole. Ctrl Z goes back, Ctrl Shift Z forth, on the whole page unless somebody is typing.
 * `onTravel` hears of every value that undo and redo bring back.
 */
export function useHistory<T>(first: T, onTravel?: (now: T) => void) {
  const [history, setHistory] = useState<History<T>>({ past: [], now: first, future: [], start: null });
  const begin = useCallback(() => setHistory((h) => (h.start ? h : { ...h, start: { value: h.now } })), []);
  const put = useCallback(
    (now: T) =>
      setHistory((h) =>
        h.start ? { ...h, now } : { past: [...h.past.slice(1 - MOST_STEPS), h.now], now, future: [], start: null },
      ),
    [],
  );
  const commit = useCallback(
    () =>
      setHistory((h) =>
        h.start === null || h.start.value === h.now
          ? { ...h, start: null }
          : { past: [...h.past.slice(1 - MOST_STEPS), h.start.value], now: h.now, future: [], start: null },
      ),
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
  return { now, begin, put, commit, undo, redo, canUndo: past.length > 0, canRedo: future.length > 0 };
}
