/** How long the desk works at a stretch before the page may answer, ms. */
const TURN_MS = 8;

interface Scheduler {
  /** Goes on as soon as whatever the page has to do meanwhile is done. */
  readonly yield?: () => Promise<void>;
}
const { scheduler } = globalThis as { readonly scheduler?: Scheduler };

/** Lets the page do first what it has to do: answer a press, paint. */
export const nextTurn = (): Promise<void> => scheduler?.yield?.() ?? new Promise((resolve) => setTimeout(resolve, 0));

/**
 * For long work on the main thread, between its steps: waits a turn where the last one was long enough, so that clicks and painting
 * come in between. Whoever waits works with what they had before: the library is a value.
 */
export function inTurns(): () => Promise<void> {
  let since = performance.now();
  return async () => {
    if (performance.now() - since < TURN_MS) return;
    await nextTurn();
    since = performance.now();
  };
}
