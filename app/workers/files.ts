import { proxy } from "comlink";
import type { FilesApi, ReadFile } from "./files.worker";
import { runJob } from "./job";

export type { ReadFile } from "./files.worker";

/** Reads the headers of dropped files off the main thread; cancels by `signal`. */
export const readFilesInWorker = (
  files: readonly File[],
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<ReadFile[]> =>
  runJob<FilesApi, ReadFile[]>(
    new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" }),
    signal,
    (api) => api.read(files, proxy(onProgress)),
  );
