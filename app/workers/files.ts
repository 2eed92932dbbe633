import { proxy } from "comlink";
import type { FitsHeader, FrameFault } from "~/core/formats";
import type { Result } from "~/core/result";
import type { FilesApi, HeaderFault, ReadFile, StretchedImage } from "./files.worker";
import { runJob } from "./job";

export type { HeaderFault, ReadFile, StretchedImage } from "./files.worker";

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

/** The header of one file, FITS or text. */
export const readHeaderInWorker = (file: File, signal: AbortSignal): Promise<Result<FitsHeader, HeaderFault>> =>
  runJob<FilesApi, Result<FitsHeader, HeaderFault>>(
    new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" }),
    signal,
    (api) => api.header(file),
  );

/** A solved FITS image, small and stretched. */
export const readImageInWorker = (
  file: File,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Result<StretchedImage, HeaderFault | FrameFault>> =>
  runJob<FilesApi, Result<StretchedImage, HeaderFault | FrameFault>>(
    new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" }),
    signal,
    (api) => api.image(file, proxy(onProgress)),
  );
