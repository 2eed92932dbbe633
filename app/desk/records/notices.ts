import { slot, type Desk } from "~/desk/desk";

/** Something said in passing, with the name of the act that Undo takes back. */
export interface Notice {
  readonly text: string;
  readonly undoId?: string;
}

const listeners = slot(() => new Set<(notice: Notice) => void>());

/** Says something to whoever looks at this tab. Called after a deed is done, never before. */
export const notify = (desk: Desk, text: string, undoId?: string): void =>
  desk.at(listeners).forEach((listener) => listener({ text, ...(undoId ? { undoId } : {}) }));

/** Calls back with every notice; returns how to stop listening. */
export function onNotice(desk: Desk, listener: (notice: Notice) => void): () => void {
  const all = desk.at(listeners);
  all.add(listener);
  return () => all.delete(listener);
}
