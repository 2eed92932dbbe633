import { client } from "./client";
import type { ReaderApi } from "./reader.worker";

type Answer<K extends keyof ReaderApi> = ReturnType<ReaderApi[K]>;

/**
 * Checks what comes from outside, off the main thread: records, edits, answers of forecast services. Schemas are large and slow to
 * build, so that no page has them. Every call rejects with `NotStarted` where the worker does not load.
 */
export type ReaderClient = {
  readonly [K in keyof ReaderApi]: (...of: Parameters<ReaderApi[K]>) => Promise<Answer<K>>;
};

/** One worker for all that is read, started by the first that needs it. */
export function createReaderClient(): ReaderClient {
  const { ask } = client<ReaderApi>(
    () => new Worker(new URL("./reader.worker.ts", import.meta.url), { type: "module" }),
  );
  return {
    records: (raws) => ask<Answer<"records">>((api) => api.records(raws)),
    refused: (edits) => ask<Answer<"refused">>((api) => api.refused(edits)),
    versions: () => ask<Answer<"versions">>((api) => api.versions()),
    forecast: (text, at) => ask<Answer<"forecast">>((api) => api.forecast(text, at)),
  };
}
