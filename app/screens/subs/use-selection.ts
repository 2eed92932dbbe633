import { useState, type KeyboardEvent, type MouseEvent } from "react";

const PAGE = 15; // rows a page key moves by

/** Rows chosen in a list: one, a range from an anchor, single ones beside; by pointer and by keys. */
export function useSelection(ids: readonly string[]) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [cursor, setCursor] = useState(0);
  const [anchor, setAnchor] = useState(0);
  const at = Math.min(cursor, Math.max(0, ids.length - 1));
  const range = (a: number, b: number) => ids.slice(Math.min(a, b), Math.max(a, b) + 1);
  const goTo = (row: number, isRange: boolean) => {
    const next = Math.max(0, Math.min(ids.length - 1, row));
    setCursor(next);
    if (isRange) setChosen(new Set(range(anchor, next)));
    else {
      setAnchor(next);
      setChosen(new Set(ids.slice(next, next + 1)));
    }
  };
  const toggle = (row: number) => {
    const id = ids[row];
    if (id === undefined) return;
    setCursor(row);
    setAnchor(row);
    setChosen((before) => new Set(before.has(id) ? [...before].filter((x) => x !== id) : [...before, id]));
  };
  const onPress = (row: number, e: MouseEvent) => {
    if (e.ctrlKey || e.metaKey) toggle(row);
    else goTo(row, e.shiftKey);
  };
  /** Whether a key was one of the list's. */
  const onKey = (e: KeyboardEvent): boolean => {
    const moves: Readonly<Record<string, number>> = {
      ArrowUp: at - 1,
      ArrowDown: at + 1,
      PageUp: at - PAGE,
      PageDown: at + PAGE,
      Home: 0,
      End: ids.length - 1,
    };
    const to = moves[e.key];
    if (to !== undefined) goTo(to, e.shiftKey);
    else if (e.key === " ") toggle(at);
    else if (e.key.toLowerCase() === "a" && (e.ctrlKey || e.metaKey)) setChosen(new Set(ids));
    else if (e.key === "Escape") setChosen(new Set());
    else return false;
    e.preventDefault();
    return true;
  };
  /** Chooses some, and goes to the first of them. */
  const set = (next: readonly string[]) => {
    setChosen(new Set(next));
    const first = ids.findIndex((id) => next.includes(id));
    if (first === -1) return;
    setCursor(first);
    setAnchor(first);
  };
  // What is no longer listed is not chosen either.
  const known = new Set(ids);
  return {
    chosen: new Set([...chosen].filter((id) => known.has(id))),
    set,
    cursor: at,
    onPress,
    onKey,
  };
}
