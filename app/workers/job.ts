import { wrap, type Remote } from "comlink";

/** Runs one job in a worker of its own. Aborting rejects at once and stops the work; a worker that fails to load rejects too. */
export async function runJob<Api, T>(
  worker: Worker,
  signal: AbortSignal,
  work: (api: Remote<Api>) => Promise<T>,
): Promise<T> {
  const stopped = new Promise<never>((_, reject) => {
    if (signal.aborted) reject(signal.reason as Error);
    signal.addEventListener("abort", () => reject(signal.reason as Error), { once: true });
    // A worker that fails to load never answers; without this the call would wait for ever.
    worker.addEventListener("error", ({ message }) => reject(new Error(message || "a worker did not load")));
  });
  try {
    return await Promise.race([work(wrap<Api>(worker)), stopped]);
  } finally {
    worker.terminate();
  }
}
