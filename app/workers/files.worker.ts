import { expose, transfer } from "comlink";
import {
  decodeBundle,
  decodeRow,
  openPanelList,
  readForecast,
  type Bundle,
  type BundleFault,
  type ForecastFault,
  type OpenedPanelList,
  type ReadForecast,
  exposureFactsOf,
  pixelPlan,
  pixelToSky,
  readFitsHeader,
  readHeaderText,
  readWcs,
  stretchPixels,
  type FitsFault,
  type FitsHeader,
  type WcsFault,
} from "~/core/formats";
import { meshCells, meshOf, type SkyMesh } from "~/core/framing";
import type { ExposureFacts } from "~/core/ledger";
import { err, ok, type Result } from "~/core/result";
import { isCardsAsText, opened } from "./packed";
import type { UtcMs } from "~/core/time";

/** What one dropped file turned out to be. */
export interface ReadFile {
  readonly name: string;
  readonly facts: Result<ExposureFacts, HeaderFault>;
}

/** Why a picture gives no underlay. */
export type PictureFault = WcsFault | { readonly code: "framePacked"; readonly found: string };

const FIRST_BYTES = 16 * 2880; // holds the header of nearly every exposure
const MOST_BYTES = 4_000_000; // a longer header is a broken one

/** Why a file gives no header. */
export type HeaderFault = FitsFault | { readonly code: "unreadable" };

/** Reads only as much of a file as its header needs. */
async function headerOf(file: File): Promise<Result<FitsHeader, HeaderFault>> {
  for (let length = FIRST_BYTES; length <= MOST_BYTES; length *= 4) {
    try {
      const { first, sizeBytes } = await opened(file);
      const header = readFitsHeader(await first(length), sizeBytes);
      if (header.ok || header.error.code !== "needMore") return header;
    } catch {
      return err({ code: "unreadable" });
    }
  }
  return err({ code: "truncatedHeader" });
}

async function readOne(file: File): Promise<ReadFile["facts"]> {
  const header = await headerOf(file);
  if (!header.ok) return header;
  const { sizeBytes } = await opened(file);
  return ok(exposureFactsOf(header.value, { name: file.name, sizeBytes }));
}

/** A FITS image made small and stretched, and where it lies. */
export interface StretchedImage {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, opacity, from the top left. */
  readonly rgba: Uint8ClampedArray<ArrayBuffer>;
  readonly mesh: SkyMesh;
  /** Rows and pixels of the file over those shown. */
  readonly bin: number;
}

const MOST_PX = 1400; // a side: more than a chart shows, and quick to draw

const api = {
  /** Reads a solved FITS image smaller: only the rows that are shown are read, whatever the size of the file. */
  async image(
    file: File,
    onProgress: (share: number) => void,
  ): Promise<Result<StretchedImage, HeaderFault | PictureFault>> {
    const header = await headerOf(file);
    if (!header.ok) return header;
    const wcs = readWcs(header.value);
    if (!wcs.ok) return wcs;
    if ((await opened(file)).isPacked || header.value.values.get("ZIMAGE") === true)
      return err({ code: "framePacked", found: "" });
    const [plan, at] = [pixelPlan(header.value, MOST_PX), pixelToSky(header.value)];
    if (!plan || !at) return err({ code: "frameNoImage", found: "" });
    const values = new Float32Array(plan.width * plan.height);
    for (let line = 0; line < plan.height; line++) {
      const from = plan.offsetOf(line);
      const bytes = await file.slice(from, from + plan.bytesPerRow).arrayBuffer();
      values.set(decodeRow(bytes, header.value, plan), line * plan.width);
      if (line % 100 === 0) onProgress(line / plan.height);
    }
    const [nx, ny] = [plan.width * plan.bin, plan.height * plan.bin];
    const side = (Math.max(nx, ny) * wcs.value.scaleYArcsec) / 3600;
    const mesh = meshOf((u, v) => at(0.5 + u * nx, 0.5 + (1 - v) * ny), meshCells(side));
    const rgba = new Uint8ClampedArray(4 * values.length);
    stretchPixels(values).forEach((grey, i) => {
      rgba[4 * i] = rgba[4 * i + 1] = rgba[4 * i + 2] = grey;
      rgba[4 * i + 3] = 255;
    });
    return transfer(ok({ width: plan.width, height: plan.height, rgba, mesh, bin: plan.bin }), [rgba.buffer]);
  },
  /** The header of a FITS file, or of a text with header cards; pixels are not read, nor required to be there for a text. */
  async header(file: File): Promise<Result<FitsHeader, HeaderFault>> {
    if (file.size <= MOST_BYTES && (await isCardsAsText(file))) return readHeaderText(await file.text());
    const header = await headerOf(file);
    if (header.ok || header.error.code !== "notFits" || file.size > MOST_BYTES) return header;
    return readHeaderText(await file.text());
  },
  /** A list of panels, CSV or VOTable. */
  async panels(file: File): Promise<OpenedPanelList> {
    return openPanelList(await file.text());
  },
  /** A file of records. */
  async bundle(file: Blob): Promise<Result<Bundle, BundleFault>> {
    return decodeBundle(await file.text());
  },
  /** A forecast file. */
  async forecast(
    file: File,
    at: { readonly nowMs: UtcMs; readonly latitudeDeg: number; readonly longitudeDeg: number },
  ): Promise<Result<ReadForecast, ForecastFault>> {
    return readForecast(await file.text(), at);
  },
  async read(files: readonly File[], onProgress: (done: number) => void): Promise<ReadFile[]> {
    const results: ReadFile[] = [];
    for (const file of files) {
      results.push({ name: file.name, facts: await readOne(file) });
      if (results.length % 25 === 0) onProgress(results.length);
    }
    return results;
  },
};

export type FilesApi = typeof api;
expose(api);
