import { proxy } from "comlink";
import type { Bundle, BundleFault, FitsHeader, ForecastFault, OpenedPanelList, ReadForecast } from "~/core/formats";
import type { UtcMs } from "~/core/time";
import type { Result } from "~/core/result";
import type { FilesApi, HeaderFault, MeasuredFile, PictureFault, ReadFile, StretchedImage } from "./files.worker";
import { runJob } from "./job";

export type { HeaderFault, MeasuredFile, PictureFault, ReadFile, StretchedImage } from "./files.worker";

const filesWorker = () => new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" });

/** A file's path as far as the browser tells: of dropped and of chosen folders. */
const pathOf = (file: File & { readonly relativePath?: string }): string =>
  file.relativePath ?? (file.webkitRelativePath || file.name);

/** Reads the headers of dropped files off the main thread; cancels by `signal`. */
export const readFilesInWorker = (
  files: readonly File[],
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<ReadFile[]> =>
  runJob<FilesApi, ReadFile[]>(filesWorker(), signal, (api) => api.read(files, files.map(pathOf), proxy(onProgress)));

/** Stars and sky of FITS files, measured on samples of their pixels off the main thread. */
export const measureInWorker = (
  files: readonly File[],
  signal: AbortSignal,
  onProgress: (done: number) => void,
): Promise<MeasuredFile[]> =>
  runJob<FilesApi, MeasuredFile[]>(filesWorker(), signal, (api) => api.measure(files, proxy(onProgress)));

/** The header of one file, FITS or text. */
export const readHeaderInWorker = (file: File, signal: AbortSignal): Promise<Result<FitsHeader, HeaderFault>> =>
  runJob<FilesApi, Result<FitsHeader, HeaderFault>>(filesWorker(), signal, (api) => api.header(file));

/** A solved FITS image, small and stretched. */
export const readImageInWorker = (
  file: File,
  signal: AbortSignal,
  onProgress: (share: number) => void,
): Promise<Result<StretchedImage, HeaderFault | PictureFault>> =>
  runJob<FilesApi, Result<StretchedImage, HeaderFault | PictureFault>>(filesWorker(), signal, (api) =>
    api.image(file, proxy(onProgress)),
  );

/** A list of panels, CSV or VOTable. */
export const readPanelsInWorker = (file: File, signal: AbortSignal): Promise<OpenedPanelList> =>
  runJob<FilesApi, OpenedPanelList>(filesWorker(), signal, (api) => api.panels(file));

/** A file of records. */
export const readBundleInWorker = (file: Blob, signal: AbortSignal): Promise<Result<Bundle, BundleFault>> =>
  runJob<FilesApi, Result<Bundle, BundleFault>>(filesWorker(), signal, (api) => api.bundle(file));

/** A forecast file, for a place. */
export const readForecastInWorker = (
  file: File,
  at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number },
  signal: AbortSignal,
): Promise<Result<ReadForecast, ForecastFault>> =>
  runJob<FilesApi, Result<ReadForecast, ForecastFault>>(filesWorker(), signal, (api) => api.forecast(file, at));
