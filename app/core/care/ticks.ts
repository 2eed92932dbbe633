/** A check ticked, or its tick taken away. */
export interface Tick {
  readonly id: string;
  readonly isDone: boolean;
}

/** Which checks are done: by the last word on each. Of ticks in their order. */
export function doneChecks(ticks: readonly Tick[]): ReadonlySet<string> {
  const done = new Set<string>();
  for (const { id, isDone } of ticks)
    if (isDone) done.add(id);
    else done.delete(id);
  return done;
}
