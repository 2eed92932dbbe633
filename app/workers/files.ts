import { proxy } from "comlink";
import type { Bundle, BundleFault, FitsHeader, ForecastFault, OpenedPanelList, ReadForecast } from "~/core/formats";
import type { Result } from "~/core/result";
import type { UtcMs } from "~/core/time";
import { runJob } from "./client";
import type { FilesApi, MeasuredFile, PictureFault, StretchedImage } from "./files.worker";
import type { HeaderFault, ReadFile } from "./read-file";

export type { MeasuredFile, PictureFault, StretchedImage } from "./files.worker";
export type { HeaderFault, ReadFile } from "./read-file";

/** A file of a folder; where it lies says what it shows, where its header is silent. */
export interface LandedFile {
  readonly file: File;
  readonly path: string;
}

/** Reads files off the main thread; every call is cancelled by its signal. */
export interface FilesClient {
  /** The headers of dropped files. */
  readonly read: (
    files: readonly File[],
    signal: AbortSignal,
    onProgress: (done: number) => void,
  ) => Promise<ReadFile[]>;
  /** Files of a folder and where they lie in it: the headers, and of lights the stars and the sky. */
  readonly land: (files: readonly LandedFile[], signal: AbortSignal) => Promise<ReadFile[]>;
  /** Stars and sky of FITS files, measured on samples of their pixels. */
  readonly measure: (
    files: readonly File[],
    signal: AbortSignal,
    onProgress: (done: number) => void,
  ) => Promise<MeasuredFile[]>;
  /** The header of one file, FITS or text. */
  readonly header: (file: File, signal: AbortSignal) => Promise<Result<FitsHeader, HeaderFault>>;
  /** A solved FITS image, small and stretched. */
  readonly image: (
    file: File,
    signal: AbortSignal,
    onProgress: (share: number) => void,
  ) => Promise<Result<StretchedImage, HeaderFault | PictureFault>>;
  /** A list of panels, CSV or VOTable. */
  readonly panels: (file: File, signal: AbortSignal) => Promise<OpenedPanelList>;
  /** A file of records. */
  readonly bundle: (file: Blob, signal: AbortSignal) => Promise<Result<Bundle, BundleFault>>;
  /** A forecast file, for a place. */
  readonly forecast: (
    file: File,
    at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number },
    signal: AbortSignal,
  ) => Promise<Result<ReadForecast, ForecastFault>>;
}

/** A file's path as far as the browser tells: of dropped and of chosen folders. */
const pathOf = (file: File & { readonly relativePath?: string }): string =>
  file.relativePath ?? (file.webkitRelativePath || file.name);

/** Every file or set of files in a worker of its own. */
export function createFilesClient(): FilesClient {
  const start = () => new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" });
  return {
    read: (files, signal, onProgress) =>
      runJob<FilesApi, ReadFile[]>(start(), signal, (api) => api.read(files, files.map(pathOf), proxy(onProgress))),
    land: (landed, signal) =>
      runJob<FilesApi, ReadFile[]>(start(), signal, (api) =>
        api.land(
          landed.map((l) => l.file),
          landed.map((l) => l.path),
        ),
      ),
    measure: (files, signal, onProgress) =>
      runJob<FilesApi, MeasuredFile[]>(start(), signal, (api) => api.measure(files, proxy(onProgress))),
    header: (file, signal) =>
      runJob<FilesApi, Result<FitsHeader, HeaderFault>>(start(), signal, (api) => api.header(file)),
    image: (file, signal, onProgress) =>
      runJob<FilesApi, Result<StretchedImage, HeaderFault | PictureFault>>(start(), signal, (api) =>
        api.image(file, proxy(onProgress)),
      ),
    panels: (file, signal) => runJob<FilesApi, OpenedPanelList>(start(), signal, (api) => api.panels(file)),
    bundle: (file, signal) => runJob<FilesApi, Result<Bundle, BundleFault>>(start(), signal, (api) => api.bundle(file)),
    forecast: (file, at, signal) =>
      runJob<FilesApi, Result<ReadForecast, ForecastFault>>(start(), signal, (api) => api.forecast(file, at)),
  };
}
