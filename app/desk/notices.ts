/** Something said in passing, with the name of the act that Undo takes back. */
export interface Notice {
  readonly text: string;
  readonly undoId?: string;
}

const listeners = new Set<(notice: Notice) => void>();

/** Says something to whoever looks at this tab. Called after a deed is done, never before. */
export const notify = (text: string, undoId?: string): void =>
  listeners.forEach((listener) => listener({ text, ...(undoId ? { undoId } : {}) }));

/** Calls back with every notice; returns how to stop listening. */
export function onNotice(listener: (notice: Notice) => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
