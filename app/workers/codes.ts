import { client } from "./client";
import type { CodesApi } from "./codes.worker";

/** Reads codes in pictures of a camera, off the main thread. Rejects with `NotStarted` where the worker does not load. */
export interface CodesClient {
  readonly read: (picture: ImageData) => Promise<string | null>;
}

/** Started by the first picture. */
export function createCodesClient(): CodesClient {
  const { ask } = client<CodesApi>(() => new Worker(new URL("./codes.worker.ts", import.meta.url), { type: "module" }));
  return { read: ({ data, width, height }) => ask((api) => api.read(data, width, height)) };
}
