import { proxy, wrap, type Remote } from "comlink";

/** Waits for an answer, or rejects at once when the signal aborts; the answer is then dropped. */
export function orAborted<T>(answer: Promise<T>, signal: AbortSignal): Promise<T> {
  signal.throwIfAborted();
  return new Promise((resolve, reject) => {
    const stop = () => reject(signal.reason as Error);
    signal.addEventListener("abort", stop, { once: true });
    // One signal may see many answers: each leaves it as it was.
    answer.then(resolve, reject).finally(() => signal.removeEventListener("abort", stop));
  });
}

/** A worker's script did not load. */
export class NotStarted extends Error {}

/** A worker with its calls, and a promise that rejects when it fails: one that does not load never answers. */
function started<Api>(worker: Worker, whenFailed: () => void): { api: Remote<Api>; failed: Promise<never> } {
  const failed = new Promise<never>((_, reject) =>
    worker.addEventListener("error", ({ message }) => {
      whenFailed();
      reject(new NotStarted(message || "a worker did not load"));
    }),
  );
  failed.catch(() => undefined); // told to whoever has asked
  return { api: wrap<Api>(worker), failed };
}

/** One worker that many questions share. */
export interface Client<Api> {
  /** Asks; rejects when the worker fails, and the next question starts another one. */
  readonly ask: <T>(work: (api: Remote<Api>) => Promise<T>) => Promise<T>;
  /** Tells it something, if it runs; nobody waits. */
  readonly tell: (work: (api: Remote<Api>) => Promise<unknown>) => void;
}

/** A worker that is started by the first question. */
export function client<Api>(start: () => Worker): Client<Api> {
  let running: ReturnType<typeof started<Api>> | null = null;
  return {
    ask(work) {
      const { api, failed } = (running ??= started<Api>(start(), () => (running = null)));
      return Promise.race([work(api), failed]);
    },
    tell(work) {
      if (running) void work(running.api).catch(() => undefined);
    },
  };
}

/**
 * Takes a long list that a worker hands over in parts: each part arrives as a task of its own, so that the page answers in between.
 * What the worker answers at the end says how many there are; parts may still be on their way then.
 */
export async function inParts<T, Done extends { readonly count: number }>(
  ask: (onPart: (part: readonly T[]) => void) => Promise<Done>,
): Promise<{ readonly list: readonly T[]; readonly done: Done }> {
  const list: T[] = [];
  let hear = (): void => undefined;
  const done = await ask(
    proxy((part) => {
      list.push(...part);
      hear();
    }),
  );
  while (list.length < done.count) await new Promise<void>((resolve) => (hear = resolve));
  return { list, done };
}

/** Runs one job in a worker of its own. Aborting rejects at once and stops the work; a worker that fails to load rejects too. */
export async function runJob<Api, T>(
  worker: Worker,
  signal: AbortSignal,
  work: (api: Remote<Api>) => Promise<T>,
): Promise<T> {
  const { api, failed } = started<Api>(worker, () => undefined);
  try {
    return await orAborted(Promise.race([work(api), failed]), signal);
  } finally {
    worker.terminate();
  }
}

/** Asks anew when the question changes, or when the last answer was a failure; else answers from memory. */
export function rememberingLast<Q, T>(ask: (question: Q) => Promise<T>): (question: Q) => Promise<T> {
  let last: { readonly key: string; readonly answer: Promise<T> } | null = null;
  return (question) => {
    const key = JSON.stringify(question);
    if (last?.key === key) return last.answer;
    const mine = { key, answer: ask(question) };
    last = mine;
    mine.answer.catch(() => {
      if (last === mine) last = null;
    });
    return mine.answer;
  };
}
